/** Every test that the bench can do about a noise, with what it costs and what to mind. */

import type { Circuit } from "../circuit/circuit";
import type { NoiseCause, Word } from "./cause";
import { envelopesOf, feedbackOf, type Chain } from "./chain";

export const CHANGES_HEARD = ["gone", "less", "no change", "more"] as const;
export const SWEPT = ["no change", "louder as it goes up", "loudest part-way", "louder as it goes down"] as const;
export const RIPPLE_READ = ["as it should be", "two to five times", "over five times", "less than it should be"] as const;
export const TOUCHED = ["loud", "soft", "nothing"] as const;
export const WORDS: Word[] = [
  "hum-mains",
  "hum-double",
  "buzz",
  "squeal",
  "motorboating",
  "hiss",
  "crackle",
  "speech or music",
  "bursts on peaks",
  "nothing at all",
  "clean",
];
/** Answers to every test besides its own. */
export const NOT_SURE = "not sure";
export const NOW_AND_THEN = "now one, now the other";

export interface NoiseTest {
  id: string;
  what: string;
  how: string;
  outcomes: readonly string[];
  /** Effort and danger together. */
  cost: number;
  caution?: string;
  /** A hand goes into the chassis for it: the amp is proven dead first. */
  inside?: boolean;
  /** What it does to the circuit, where it does something to it. */
  circuit?: { set?: string[]; without?: string[]; capacitor?: { node: string; farads: number }; sweep?: string };
  /** Node whose ripple is read, or whose grid is touched. */
  node?: string;
}

const LIVE = "The amp is live and open: one hand, insulated probe, nothing bare.";
const OFF = "Power off, plug out, reservoirs proven dead before a hand goes in.";
/** Grounds a grid for signal: large beside any grid leak at mains frequency. */
const GROUNDING_FARADS = 1e-6;

/** @param refused told of tests that this amp forbids, with the reason. @param rises rails over a rating with these tubes out, in words. @param unloaded volts of a rail while nothing draws from it. */
export function noiseTests(
  circuit: Circuit,
  chain: Chain,
  causes: readonly NoiseCause[],
  rises: (without: readonly string[]) => string | undefined,
  refused: (what: string, why: string) => void,
  unloaded: (node: string) => number | undefined,
): NoiseTest[] {
  return [
    {
      id: "sound",
      what: "What does it sound like?",
      how: "Record it, or choose by ear. Nothing played, all controls where it is heard.",
      outcomes: WORDS,
      cost: 0.3,
    },
    ...controlTests(chain),
    ...outsideTests(),
    ...inputTests(chain),
    ...tubeTests(chain, rises, refused),
    ...insideTests(circuit, chain, causes, unloaded),
    ...railTests(chain),
    ...touchTests(chain, refused),
  ];
}

function controlTests(chain: Chain): NoiseTest[] {
  return chain.controls.flatMap((c): NoiseTest[] => [
    {
      id: `down:${c}`,
      what: `Turn ${c} right down`,
      how: "Listen, then put it back.",
      outcomes: CHANGES_HEARD,
      cost: 0.5,
      circuit: { set: [`${c}=0`] },
    },
    {
      id: `up:${c}`,
      what: `Turn ${c} right up`,
      how: "Mind the ears; then put it back.",
      outcomes: CHANGES_HEARD,
      cost: 0.7,
      circuit: { set: [`${c}=1`] },
    },
    {
      id: `sweep:${c}`,
      what: `Turn ${c} slowly from end to end`,
      how: "Where is it loudest?",
      outcomes: SWEPT,
      cost: 0.8,
      circuit: { sweep: c },
    },
    { id: `scratch:${c}`, what: `Turn ${c} to and fro`, how: "Does turning itself make it?", outcomes: CHANGES_HEARD, cost: 0.5 },
  ]);
}

function outsideTests(): NoiseTest[] {
  const test = (id: string, what: string, how: string, cost: number, caution?: string): NoiseTest => ({
    id,
    what,
    how,
    outcomes: CHANGES_HEARD,
    cost,
    caution,
    ...(caution === OFF ? { inside: true } : {}),
  });
  return [
    test("lead", "Pull every lead but the mains and the speaker", "Input, effects, pedals, lines out.", 0.4),
    test("outlet", "Another outlet, on another circuit", "For the amp alone.", 1),
    test("lamps", "Dimmers, fluorescent lamps, chargers and screens off", "In this room and the next.", 0.8),
    test(
      "isolation",
      "Feed the other machine through an isolation transformer in the signal lead",
      "Not in the mains: the safety earth stays.",
      1.5,
    ),
    test(
      "lift",
      "Lift the ground of the signal lead",
      "With the switch, or a lead whose screen is open at one end. Never the safety earth.",
      0.8,
      "The safety earth of no machine is ever lifted.",
    ),
    test("speaker", "Another speaker and lead", "The right impedance.", 1.2),
    test("cabinet", "The chassis out of its cabinet, away from the speaker", "Same leads, longer.", 3, OFF),
    test("hand", "Bring a hand near the input stage, not onto it", "Flat, a hand's breadth off.", 0.6, LIVE),
    test("stick", "Move the leads with a dry stick", "One after the other, the input's first.", 1, LIVE),
    test("foil", "A grounded foil between the input stage and the rest", "Insulated, clipped to chassis before power goes on.", 1.8, OFF),
  ];
}

function inputTests(chain: Chain): NoiseTest[] {
  if (!chain.input) return [];
  const grids = [...new Set(chain.stages.filter((s) => !s.output).map((s) => s.grid ?? s.in))];
  return [
    {
      id: "short:input",
      what: "Short the input jack",
      how: "A shorted plug.",
      outcomes: CHANGES_HEARD,
      cost: 0.5,
      circuit: { set: [`${chain.input}~0=1`] },
    },
    ...grids
      .filter(() => !chain.lineConnected)
      .map((g): NoiseTest => {
        const stage = chain.stages.find((s) => (s.grid ?? s.in) === g)!;
        return {
          id: `ground:${g}`,
          what: `Ground the grid of ${stage.name} through 1 µF`,
          how: "Capacitor clipped to chassis, 400 V or more, its free end on an insulated probe.",
          outcomes: CHANGES_HEARD,
          cost: 1.6,
          caution: LIVE,
          circuit: { capacitor: { node: g, farads: GROUNDING_FARADS } },
        };
      }),
  ];
}

function tubeTests(
  chain: Chain,
  rises: (without: readonly string[]) => string | undefined,
  refused: (what: string, why: string) => void,
): NoiseTest[] {
  const out: NoiseTest[] = [];
  const output = [...new Set(chain.stages.filter((s) => s.output).map((s) => s.envelope))];
  for (const v of envelopesOf(chain)) {
    out.push({
      id: `tap:${v}`,
      what: `Tap ${v} lightly`,
      how: "A pencil with a rubber end.",
      outcomes: CHANGES_HEARD,
      cost: 0.6,
      caution: LIVE,
    });
    out.push({
      id: `swap:${v}`,
      what: `A known good tube for ${v}`,
      how: "Off, wait, swap, on; the old one back afterwards.",
      outcomes: CHANGES_HEARD,
      cost: 1.5,
      caution: "Power off; output tubes stay hot for minutes.",
    });
    if (output.includes(v)) continue;
    if (chain.string) {
      refused(`pulling ${v}`, "its heater is one of a series string: the others would go cold with it");
      continue;
    }
    const over = rises([v]);
    if (over) refused(`pulling ${v}`, over);
    else
      out.push({
        id: `pull:${v}`,
        what: `Pull ${v}`,
        how: "Off, out, on again.",
        outcomes: CHANGES_HEARD,
        cost: 2,
        caution: "Power off before a tube comes out or goes in.",
        circuit: { without: [v] },
      });
  }
  if (output.length > 1)
    out.push({
      id: "swap-output",
      what: `Swap ${output.slice(0, 2).join(" and ")}`,
      how: "Or fit a matched pair.",
      outcomes: CHANGES_HEARD,
      cost: 1.6,
      caution: "Power off; they stay hot for minutes. Read the bias again.",
    });
  if (output.length > 0 && !chain.string) {
    const over = rises(output);
    if (over) refused(`pulling ${output.join(", ")}`, over);
    else
      out.push({
        id: "pullOutput",
        what: `Pull the output ${output.length > 1 ? "tubes" : "tube"}: ${output.join(", ")}`,
        how: "What is still heard does not come through them.",
        outcomes: CHANGES_HEARD,
        cost: 2.4,
        caution: "Power off first. Every rail rises without them: keep it short.",
        circuit: { without: output },
      });
  }
  return out;
}

function insideTests(
  circuit: Circuit,
  chain: Chain,
  causes: readonly NoiseCause[],
  unloaded: (node: string) => number | undefined,
): NoiseTest[] {
  const test = (id: string, what: string, how: string, cost: number): NoiseTest => ({
    id,
    what,
    how,
    outcomes: CHANGES_HEARD,
    cost,
    caution: OFF,
    inside: true,
  });
  const out: NoiseTest[] = [
    test("reference", "Give the heater winding a temporary reference", "100 Ω from each side to chassis.", 2.6),
    test("star", "Return the first stage's ground by a wire of its own", "To the first reservoir's minus, the old return opened.", 3.5),
    test("stopper", "Fit stoppers at the output grids and screens for a trial", "1.5 kΩ and 470 Ω right at the sockets.", 3.5),
  ];
  for (const rail of [...chain.rails, ...chain.bias])
    for (const name of rail.capacitors) {
      const part = circuit.elements.find((e) => e.name === name)!;
      out.push({
        ...test(
          `bridge:${name}`,
          `Hold a good capacitor across ${name}`,
          `Same size or near, rated ${above(unloaded(rail.node), rail.name)}; mind the polarity. Off, proven dead, clip it on; on, listen; off, proven dead again.`,
          2.2,
        ),
        circuit: { capacitor: { node: rail.node, farads: part.value! } },
      });
    }
  for (const c of causes)
    if (c.id.endsWith(" noisy") && c.refs[0]?.startsWith("R"))
      out.push({
        ...test(`freeze:${c.refs[0]}`, `Cool ${c.refs[0]} with freezing spray`, "A short burst through the straw, the amp running.", 1.2),
        caution: LIVE,
      });
  if (feedbackOf(circuit, chain)) out.push(test("feedback", "Open the feedback lead", `At ${feedbackOf(circuit, chain)}.`, 2.8));
  if (chain.speaker)
    out.push(test("turn", "Turn the output transformer, or move it away on its leads", "Loosen it, keep the leads clear.", 4));
  return out;
}

const above = (volts: number | undefined, rail: string) =>
  volts === undefined ? "for the rail unloaded" : `above the ${Math.round(Math.abs(volts))} V that ${rail} rises to unloaded`;

function railTests(chain: Chain): NoiseTest[] {
  return [...chain.rails, ...chain.bias].map((r) => ({
    id: `ac:${r.node}`,
    what: `AC volts at ${r.name}`,
    how: "Meter on AC; a true-rms one reads ripple right. It needs a capacitor in it, or one in the lead.",
    outcomes: RIPPLE_READ,
    cost: 0.9,
    caution: LIVE,
    node: r.node,
  }));
}

function touchTests(chain: Chain, refused: (what: string, why: string) => void): NoiseTest[] {
  if (chain.lineConnected) {
    refused("touching grids", "one side of the line is the chassis of this set");
    return [];
  }
  return chain.stages.map((s) => ({
    id: `touch:${s.grid ?? s.in}`,
    what: `Touch the grid of ${s.name} through the safe probe`,
    how: "Insulated probe, 100 kΩ and 10 nF in it; a quick touch, volume low.",
    outcomes: TOUCHED,
    cost: 0.8,
    caution: LIVE,
    node: s.grid ?? s.in,
  }));
}
