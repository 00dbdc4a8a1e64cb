/** Every test that the bench can do about a noise, with what it costs and what to mind. */

import type { Circuit } from "../circuit/circuit";
import type { NoiseCause } from "./cause";
import { swapPair } from "./causes-supply";
import { channelsOf, envelopesOf, feedbackOf, type Chain } from "./chain";
import { CHANGES_HEARD, LIVE, OFF, RIPPLE_READ, TOUCHED, WORDS, type NoiseTest } from "./test";
import { controlTests, outsideTests, sideTest } from "./tests-outside";

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
    ...sideTest(chain),
    ...controlTests(chain),
    ...outsideTests(),
    ...inputTests(chain),
    ...tubeTests(chain, rises, refused),
    ...insideTests(circuit, chain, causes, unloaded),
    ...railTests(chain),
    ...touchTests(chain, refused),
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
      circuit: { set: channelsOf(chain).flatMap((c) => (c.input ? [`${c.input}~0=1`] : [])) },
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
  for (const channel of channelsOf(chain)) {
    const pair = channel.stages.filter((s) => s.output && s.tube);
    if (pair.length < 2) continue;
    out.push({
      id: swapPair(pair),
      what: `Swap ${pair[0]!.envelope} and ${pair[1]!.envelope}`,
      how: "Or fit a matched pair.",
      outcomes: CHANGES_HEARD,
      cost: 1.6,
      caution: "Power off; they stay hot for minutes. Read the bias again.",
    });
  }
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

const FREEZE = "freeze:";

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
  for (const part of new Set(
    causes.flatMap((c) => Object.keys(c.reacts).filter((id) => id.startsWith(FREEZE))).map((id) => id.slice(FREEZE.length)),
  ))
    out.push({
      ...test(`${FREEZE}${part}`, `Cool ${part} with freezing spray`, "A short burst through the straw, the amp running.", 1.2),
      caution: LIVE,
      inside: false,
    });
  for (const channel of channelsOf(chain)) {
    const fed = feedbackOf(circuit, channel);
    if (fed) out.push(test(`feedback:${fed}`, "Open the feedback lead", `At ${fed}.`, 2.8));
  }
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
