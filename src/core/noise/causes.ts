/** What can make an amp hum, buzz, squeal, crackle or hiss: each cause with where it enters, what it changes, what it sounds like. */

import { envelopeOf, type Circuit } from "../circuit/circuit";
import type { Chain, ChainStage } from "./chain";
import type { SoundKind } from "./sounds";

export type Word = SoundKind | "speech or music" | "bursts on peaks" | "nothing at all";

/** A current into a node (out of another, or of ground), at the mains frequency, twice it, or in the middle of the band. */
export interface Enters {
  into: string;
  from?: string;
  at: "mains" | "double" | "audio" | "high";
  /** Relative to the other places of the same cause. */
  weight?: number;
}

/** How a cause answers a test that the circuit says nothing of: decibels of change; −40 is gone. */
export type Reactions = Partial<Record<string, number>>;

export interface NoiseCause {
  id: string;
  says: string;
  refs: string[];
  prior: number;
  /** What it sounds like, and how likely each; what is not named is unlikely. */
  sounds: Partial<Record<Word, number>>;
  /** Changes to the netlist that it is, in the engine's words. */
  changes: string[];
  /** Where it enters; "ripple" is the rectifier's own current of the high-tension or the bias supply. */
  enters: Enters[] | "ripple" | "bias ripple";
  reacts: Reactions;
  /** It makes no noise: signal is lost. */
  silent?: boolean;
  /** It comes and goes of itself. */
  fitful?: boolean;
  /** The fault of the suspects' list that it is. */
  fault?: string;
}

const GONE = -40;
/** Outside the amp's own circuit: what a lead, the outlet, the ground or the cabinet changes of most causes is nothing. */
const HUM: NoiseCause["sounds"] = { "hum-mains": 0.85, buzz: 0.1, "hum-double": 0.05 };
const RIPPLE: NoiseCause["sounds"] = { "hum-double": 0.75, buzz: 0.2, "hum-mains": 0.05 };
const BUZZ: NoiseCause["sounds"] = { buzz: 0.7, "hum-double": 0.15, "hum-mains": 0.15 };
const SQUEAL: NoiseCause["sounds"] = { squeal: 0.85, "bursts on peaks": 0.1, motorboating: 0.05 };
const CRACKLE: NoiseCause["sounds"] = { crackle: 0.8, hiss: 0.15, "hum-mains": 0.05 };

/** All causes of a circuit, with the weights that they have before any test. Scutum's own figures. */
export function noiseCauses(circuit: Circuit, chain: Chain): NoiseCause[] {
  return [
    ...supplyCauses(circuit, chain),
    ...heaterCauses(circuit, chain),
    ...pickupCauses(chain),
    ...groundCauses(chain),
    ...tubeCauses(chain),
    ...partCauses(circuit, chain),
    ...oscillationCauses(circuit, chain),
    ...outsideCauses(chain),
    ...lostSignal(circuit, chain),
  ];
}

const first = (chain: Chain) => chain.stages[0];
const signal = (chain: Chain) => chain.stages.filter((s) => !s.output);
const grid = (s: ChainStage) => s.grid ?? s.in;

function supplyCauses(circuit: Circuit, chain: Chain): NoiseCause[] {
  const out: NoiseCause[] = [];
  for (const rail of [...chain.rails, ...chain.bias]) {
    const bias = chain.bias.includes(rail);
    for (const name of rail.capacitors) {
      const part = circuit.elements.find((e) => e.name === name)!;
      const old = part.notes.kind === "electrolytic" && (part.notes.year ?? 1960) < 2005;
      const base = {
        refs: [name],
        enters: bias ? ("bias ripple" as const) : ("ripple" as const),
        sounds: bias ? HUM : RIPPLE,
        // A good one held across it does its work.
        reacts: { [`bridge:${name}`]: -12 },
      };
      out.push({
        ...base,
        id: `${name} open`,
        fault: `${name} open`,
        says: `${name} has lost its capacitance: no filter at ${rail.name}`,
        prior: old ? 5 : 1,
        changes: [`${name}=open`],
      });
      out.push({
        ...base,
        id: `${name} low`,
        says: `${name} has little of its capacitance left`,
        prior: old ? 7 : 1,
        changes: [`${name}=${0.2 * part.value!}`],
      });
    }
  }
  const decouplers = chain.rails.slice(1).filter((r) => chain.stages.filter((s) => s.rail === r.node).length > 0);
  for (const rail of decouplers)
    for (const name of rail.capacitors)
      out.push({
        id: `${name} motorboating`,
        says: `stages feed back through the supply: ${name} no longer decouples ${rail.name}`,
        refs: [name],
        prior: 1.5,
        sounds: { motorboating: 0.85, squeal: 0.1, "hum-double": 0.05 },
        changes: [`${name}=open`],
        enters: [{ into: rail.node, at: "audio" }],
        reacts: { [`bridge:${name}`]: GONE, "volume down": -6 },
        fault: `${name} open`,
      });
  const pair = chain.stages.filter((s) => s.output);
  if (pair.length >= 2 && pair[0]!.tube && pair[1]!.tube)
    for (const weak of pair.slice(0, 2))
      out.push({
        id: `${weak.envelope} weak`,
        says: `the output pair is unbalanced, ${weak.envelope} the weaker: ripple no longer cancels`,
        refs: [weak.envelope],
        prior: 4,
        sounds: RIPPLE,
        changes: [`${weak.tube!.name}=weak:0.35`],
        enters: "ripple",
        reacts: { "swap-output": -9, [`swap:${weak.envelope}`]: -14 },
        fault: `${weak.tube!.name} weak`,
      });
  return out;
}

function heaterCauses(circuit: Circuit, chain: Chain): NoiseCause[] {
  const small = signal(chain);
  if (small.length === 0) return [];
  const intoGrids = (weight: (i: number) => number): Enters[] => small.map((s, i) => ({ into: grid(s), at: "mains", weight: weight(i) }));
  const out: NoiseCause[] = [
    {
      id: "heater reference",
      says: "the heater winding has no reference: it hums into the first grids through the wiring",
      refs: [],
      prior: circuit.heaters.some((h) => !h.string && !h.reference) ? 6 : 2,
      sounds: HUM,
      changes: [],
      enters: intoGrids((i) => 1 / (1 + i)),
      reacts: { reference: -22, stick: 0 },
    },
    {
      id: "heater unbalanced",
      says: "the heater winding's two sides are unbalanced: one half of its centre tap or of its balance control is open",
      refs: [],
      prior: 2.5,
      sounds: HUM,
      changes: [],
      enters: intoGrids((i) => 1 / (1 + i)),
      reacts: { reference: -12, stick: 0 },
    },
    {
      id: "heater wiring",
      says: "heater wires run too near a grid, or are not twisted",
      refs: [],
      prior: 2,
      sounds: HUM,
      changes: [],
      enters: [{ into: grid(small[0]!), at: "mains" }],
      reacts: { stick: -8, reference: -6 },
    },
  ];
  for (const s of small)
    if (s.tube)
      out.push({
        id: `${s.name} hk`,
        says: `${s.envelope} leaks from heater to cathode`,
        refs: [s.envelope],
        prior: 3,
        sounds: HUM,
        changes: [`${s.tube.name}=hk:220k`],
        enters: [{ into: s.cathode && s.cathode !== "0" ? s.cathode : grid(s), at: "mains" }],
        reacts: { [`swap:${s.envelope}`]: GONE, reference: -5 },
        fault: `${s.tube.name} heater–cathode leak`,
      });
  return out;
}

function pickupCauses(chain: Chain): NoiseCause[] {
  const out: NoiseCause[] = [];
  const in0 = first(chain);
  if (chain.speaker)
    out.push({
      id: "induction",
      says: "the mains transformer induces into the output transformer or its leads",
      refs: [],
      prior: 2,
      sounds: { "hum-mains": 0.7, buzz: 0.15, "hum-double": 0.15 },
      changes: [],
      enters: [{ into: chain.speaker, at: "mains" }],
      reacts: { turn: -12, pullOutput: 0 },
    });
  for (const s of signal(chain))
    if (s.control || s === in0)
      out.push({
        id: `pickup ${s.name}`,
        says: s.control
          ? `a long or open lead at ${s.control}'s wiper picks up: its source is highest there at mid-travel`
          : `the input lead inside picks up: high impedance and no shield as far as ${s.name}`,
        refs: s.control ? [s.control] : [],
        prior: 3,
        sounds: { "hum-mains": 0.55, buzz: 0.45 },
        changes: [],
        enters: [{ into: s.in, at: "mains" }],
        reacts: { hand: 9, foil: -14, stick: -7 },
      });
  if (in0)
    out.push({
      id: "shield",
      says: `the shield of ${in0.envelope} or of its lead is missing or not grounded`,
      refs: [in0.envelope],
      prior: 3,
      sounds: { "hum-mains": 0.5, buzz: 0.5 },
      changes: [],
      enters: [{ into: grid(in0), at: "mains" }],
      reacts: { hand: 12, foil: GONE, stick: 0 },
    });
  return out;
}

function groundCauses(chain: Chain): NoiseCause[] {
  const in0 = first(chain);
  if (!in0) return [];
  const cathode = in0.cathode && in0.cathode !== "0" ? in0.cathode : grid(in0);
  const out: NoiseCause[] = [
    {
      id: "ground inside",
      says: "a ground inside the amp carries charging or heater current in series with the first stage",
      refs: [],
      prior: 4,
      sounds: BUZZ,
      changes: [],
      enters: [{ into: cathode, at: "double" }],
      reacts: { star: -16 },
    },
    {
      id: "ground between",
      says: "a ground loop between this amp and what is plugged into it",
      refs: [],
      prior: 4,
      sounds: { "hum-mains": 0.5, buzz: 0.5 },
      changes: [],
      enters: [{ into: in0.in, at: "mains" }],
      reacts: { lead: GONE, outlet: -7, isolation: -25, lift: -20 },
    },
    {
      id: "lift does not lift",
      says: "the ground lift leaves the loop closed: its network, a screw or a shell still connects",
      refs: [],
      prior: 1.2,
      sounds: { "hum-mains": 0.5, buzz: 0.5 },
      changes: [],
      enters: [{ into: in0.in, at: "mains" }],
      reacts: { lead: GONE, outlet: -7, isolation: -25, lift: 0 },
    },
  ];
  return out;
}

function tubeCauses(chain: Chain): NoiseCause[] {
  return chain.stages.flatMap((s, i): NoiseCause[] => {
    if (!s.tube) return [];
    const near = s.output ? 0.5 : 1.5 / (1 + 0.5 * i);
    return [
      {
        id: `${s.name} microphonic`,
        says: `${s.envelope} is microphonic`,
        refs: [s.envelope],
        prior: 2 * near,
        sounds: { squeal: 0.7, motorboating: 0.1, crackle: 0.2 },
        changes: [],
        enters: [{ into: grid(s), at: "audio" }],
        reacts: { [`swap:${s.envelope}`]: GONE, [`tap:${s.envelope}`]: 12, cabinet: -20 },
      },
      {
        id: `${s.name} noisy`,
        says: `${s.envelope} is noisy`,
        refs: [s.envelope],
        prior: 3 * near,
        sounds: { hiss: 0.5, crackle: 0.45, squeal: 0.05 },
        changes: [],
        enters: [{ into: s.cathode && s.cathode !== "0" ? s.cathode : grid(s), at: "audio" }],
        reacts: { [`swap:${s.envelope}`]: GONE, [`tap:${s.envelope}`]: 3 },
        fitful: true,
      },
    ];
  });
}

function partCauses(circuit: Circuit, chain: Chain): NoiseCause[] {
  const out: NoiseCause[] = [];
  const rails = new Set(chain.rails.map((r) => r.node));
  for (const s of signal(chain)) {
    const load = circuit.elements.find((e) => e.letter === "R" && e.nodes.includes(s.out) && e.nodes.some((n) => rails.has(n)));
    if (load)
      out.push({
        id: `${load.name} noisy`,
        says: `${load.name}, the plate resistor of ${s.name}, is noisy`,
        refs: [load.name],
        prior: /carbon/.test(load.notes.kind ?? "carbon") ? 3 : 0.4,
        sounds: { crackle: 0.55, hiss: 0.45 },
        changes: [],
        enters: [{ into: s.out, at: "audio" }],
        reacts: { [`freeze:${load.name}`]: -9 },
        fitful: true,
      });
    for (const c of couplings(circuit, s, chain))
      out.push({
        id: `${c.name} leaky`,
        says: `${c.name} leaks: direct voltage reaches what follows it`,
        refs: [c.name],
        prior: 2.5,
        sounds: CRACKLE,
        changes: [`${c.name}=leak:3000000`],
        enters: [{ into: c.to, at: "audio" }],
        reacts: c.control ? { [`scratch:${c.control}`]: 14 } : {},
        fitful: true,
        fault: `${c.name} leaky`,
      });
    if (s.control)
      out.push({
        id: `${s.control} dirty`,
        says: `${s.control} is dirty or worn`,
        refs: [s.control],
        prior: 4,
        sounds: { crackle: 0.9, hiss: 0.1 },
        changes: [],
        enters: [{ into: s.in, at: "audio" }],
        reacts: { [`scratch:${s.control}`]: 14 },
        fitful: true,
      });
    out.push({
      id: `${s.name} contacts`,
      says: `the socket of ${s.envelope} or a joint at it makes bad contact`,
      refs: [s.envelope],
      prior: 2.5,
      sounds: { crackle: 0.85, "hum-mains": 0.15 },
      changes: [],
      enters: [{ into: grid(s), at: "audio" }],
      reacts: { [`tap:${s.envelope}`]: 12, stick: 8, [`swap:${s.envelope}`]: -4 },
      fitful: true,
    });
  }
  for (const [a, b] of circuit.near)
    out.push({
      id: `${a}~${b} board leak`,
      says: `flux or wax conducts on the board between ${a} and ${b}`,
      refs: [`${a}~${b}`],
      prior: 1,
      sounds: CRACKLE,
      changes: [`${a}~${b}=5000000`],
      enters: [{ into: b, at: "audio" }],
      reacts: { stick: 3 },
      fitful: true,
      fault: `${a}~${b} board leak`,
    });
  return out;
}

/** Coupling capacitors out of a stage, with the node that they feed and the control that it is. */
function couplings(circuit: Circuit, s: ChainStage, chain: Chain): { name: string; to: string; control?: string }[] {
  return circuit.elements.flatMap((e) => {
    if (e.letter !== "C" || !e.nodes.includes(s.out) || e.nodes.includes("0")) return [];
    const to = e.nodes.find((n) => n !== s.out)!;
    const control = circuit.elements.find((p) => p.type === "POT" && p.nodes.includes(to))?.name;
    return [{ name: e.name, to, control: control && chain.controls.includes(control) ? control : undefined }];
  });
}

function oscillationCauses(circuit: Circuit, chain: Chain): NoiseCause[] {
  const out: NoiseCause[] = [];
  const last = chain.stages.filter((s) => s.output);
  const driver = signal(chain).at(-1);
  const fed = feedbackOf(circuit, chain);
  if (fed && driver)
    out.push({
      id: "feedback reversed",
      says: `the feedback through ${fed} comes back in phase: the output transformer's leads are the wrong way round`,
      refs: [fed],
      prior: 2.5,
      sounds: { squeal: 0.85, motorboating: 0.15 },
      changes: [],
      enters: [{ into: driver.in, at: "high" }],
      reacts: { feedback: GONE, pullDriver: GONE },
    });
  for (const s of signal(chain))
    out.push({
      id: `${s.name} lead dress`,
      says: `the leads of ${s.name} lie too near a later stage: it howls through the air`,
      refs: [s.envelope],
      prior: s === first(chain) ? 2.5 : 1.2,
      sounds: SQUEAL,
      changes: [],
      enters: [{ into: grid(s), at: "high" }],
      reacts: { stick: -16, foil: -8, pullOutput: GONE },
    });
  if (last.length > 0 && driver) {
    out.push({
      id: "stopper",
      says: "a grid or screen stopper of the output stage is missing or open",
      refs: last.map((s) => s.envelope),
      prior: 2,
      sounds: { squeal: 0.5, "bursts on peaks": 0.5 },
      changes: [],
      enters: last.map((s) => ({ into: grid(s), at: "high" as const })),
      reacts: { stopper: GONE, stick: -3 },
    });
    out.push({
      id: "parasitic",
      says: "the output stage or its driver oscillates on the peaks",
      refs: [...new Set([driver.envelope, ...last.map((s) => s.envelope)])],
      prior: 2,
      sounds: { "bursts on peaks": 0.8, squeal: 0.2 },
      changes: [],
      enters: last.map((s) => ({ into: grid(s), at: "high" as const })),
      reacts: { stopper: -9, feedback: -3, stick: -6 },
    });
  }
  return out;
}

/** The resistor that leads from the speaker back into the amp. */
export function feedbackOf(circuit: Circuit, chain: Chain): string | undefined {
  if (!chain.speaker) return undefined;
  const from = new Set([chain.speaker]);
  return circuit.elements.find((e) => e.letter === "R" && e.nodes.some((n) => from.has(n)) && !e.nodes.includes("0"))?.name;
}

function outsideCauses(chain: Chain): NoiseCause[] {
  const in0 = first(chain);
  if (!in0) return [];
  const out: NoiseCause[] = [
    {
      id: "interference",
      says: "a dimmer, a lamp or a supply nearby gets in by the air or by the mains",
      refs: [],
      prior: 2.5,
      sounds: { buzz: 0.85, "hum-mains": 0.1, crackle: 0.05 },
      changes: [],
      enters: [{ into: in0.in, at: "audio" }],
      reacts: { lamps: GONE, outlet: -8, lead: -6, isolation: -6 },
    },
    {
      id: "radio",
      says: "a transmitter is rectified at the first grid or at a bad joint of the input",
      refs: [],
      prior: 1.5,
      sounds: { "speech or music": 0.9, buzz: 0.1 },
      changes: [],
      enters: [{ into: grid(in0), at: "audio" }],
      reacts: { lead: -14, hand: 6, stopper: -3, foil: -6 },
    },
    {
      id: "lead",
      says: "the input lead or what is plugged in makes it",
      refs: [],
      prior: 3,
      sounds: { "hum-mains": 0.4, crackle: 0.4, buzz: 0.2 },
      changes: [],
      enters: [{ into: in0.in, at: "mains" }],
      reacts: { lead: GONE, stick: 3 },
      fitful: true,
    },
  ];
  if (chain.speaker)
    out.push({
      id: "speaker",
      says: "the speaker or its lead rattles, rubs or makes bad contact",
      refs: [],
      prior: 2,
      sounds: { crackle: 0.75, "bursts on peaks": 0.15, buzz: 0.1 },
      changes: [],
      enters: [{ into: chain.speaker, at: "audio" }],
      reacts: { speaker: GONE, cabinet: -8 },
      fitful: true,
    });
  return out;
}

/** What lets no signal through: no noise, but the touch of a grid tells where. */
function lostSignal(circuit: Circuit, chain: Chain): NoiseCause[] {
  const silent = {
    prior: 1,
    sounds: { "nothing at all": 0.95, clean: 0.05 } as NoiseCause["sounds"],
    enters: [],
    reacts: {},
    silent: true,
  };
  return chain.stages.flatMap((s): NoiseCause[] => [
    ...(s.tube && !s.output
      ? [
          {
            ...silent,
            id: `${s.name} dead`,
            fault: `${s.tube.name} dead`,
            says: `${s.envelope} passes nothing`,
            refs: [s.envelope],
            changes: [`${s.tube.name}=dead`],
          },
        ]
      : []),
    ...(s.output
      ? []
      : couplings(circuit, s, chain).map((c) => ({
          ...silent,
          id: `${c.name} open`,
          fault: `${c.name} open`,
          says: `${c.name} passes nothing on`,
          refs: [c.name],
          changes: [`${c.name}=open`],
        }))),
  ]);
}

/** Envelopes that noise is looked for in, the first stage first. */
export const envelopesOf = (chain: Chain) => [...new Set(chain.stages.filter((s) => s.tube).map((s) => envelopeOf(s.tube!.name)))];
