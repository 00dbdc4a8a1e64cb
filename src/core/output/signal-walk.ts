/** The signal walk: a tone at the input, the level that each stage should have, what was read, the first stage that is off. */

import type { Circuit } from "../circuit/circuit";
import { electrodePoint, tubesAt } from "../anatomy/points";
import { alter } from "../circuit/alter";
import { chainOf, channelsOf } from "../noise/chain";
import { magnitude, phaseDegrees, SmallSignal } from "../solver/small-signal";
import { sine, transient } from "../solver/transient";
import { fixed } from "../language/language";
import * as texts from "../texts/output";
import { solveIdle } from "./idle";
import { resample } from "./tone";
import { waveFigures } from "./wave-figures";

export interface WalkTone {
  /** Volts rms at the input. */
  volts: number;
  hertz: number;
}

export interface SignalStep {
  /** Under which its reading is logged: the point's name in the file, or the node. */
  point: string;
  /** What it is called on the bench: the point, the tube's electrode, the input. */
  name: string;
  node: string;
  label: string;
  /** Volts rms. */
  expected: number;
  /** Which step it is reached from, by its number: a stage's output from its input, the lower half from the inverter. */
  from?: number;
  /** Decibels from that step. */
  gain: number;
  /** The phase turns over against that step. */
  inverts: boolean;
  /** What small-signal theory gives and the transient does not: the stage clips at this level. */
  clips: boolean;
}

const RATIO_CLIPS = 0.9;

/** Where a tone is read, from the input to the load: each stage's grid and output, the load last. Channels of their own are named by the speaker. */
export function signalSteps(
  circuit: Circuit,
  tone: WalkTone,
  { mains, set = [], speaker }: { mains?: number; set?: string[]; speaker?: string } = {},
): SignalStep[] {
  if (!(tone.volts > 0) || !(tone.hertz > 0)) throw new RangeError(texts.toneAboveZero(tone.volts, tone.hertz));
  const channels = channelsOf(chainOf(circuit));
  const channel = channels.find((c) => c.speaker === speaker) ?? channels[0];
  if (!channel?.input) throw new RangeError(texts.toneWantsInputAndLoad());
  const made = alter(circuit, set);
  const { op } = solveIdle(made, mains);
  const signal = new SmallSignal(op);
  const input = signal.node(channel.input);
  const v = signal.drive(input, tone.volts, tone.hertz);
  const places: { node: string; label: string; from?: number }[] = [];
  const add = (node: string | undefined, label: string, from?: number): number | undefined => {
    if (node === undefined || node === "0" || !op.network.index.has(node)) return from;
    const there = places.findIndex((p) => p.node === node);
    if (there >= 0) return there;
    return places.push({ node, label, ...(from === undefined ? {} : { from }) }) - 1;
  };
  let last: number | undefined;
  let before: number | undefined;
  for (const s of channel.stages) {
    // Output tubes stand beside each other: each is reached from what drives them all.
    let at = add(s.in, texts.inputOf(s.label), before);
    if (s.grid !== s.in) at = add(s.grid, texts.gridOf(s.name), at);
    last = add(s.out, texts.outputOf(s.label), at);
    if (!s.output) before = last;
  }
  add(channel.speaker, texts.atTheLoad(), last);
  const index = places.map((p) => op.network.index.get(p.node)!);
  const real = levelsInTime(op, input, tone, index);
  return places.map(({ node, label, from }, i) => {
    const small = magnitude(v[index[i]!]!);
    const degrees = (k: number) => phaseDegrees(v[index[k]!]!);
    const turn = from === undefined ? undefined : Math.abs(((degrees(i) - degrees(from) + 540) % 360) - 180);
    return {
      point: circuit.points.find((p) => p.node === node)?.name ?? node,
      name:
        circuit.points.find((p) => p.node === node)?.name ??
        electrodeAt(circuit, node) ??
        (node === channel.input ? texts.theInput() : texts.theLoad()),
      node,
      label,
      expected: real[i]!,
      ...(from === undefined ? {} : { from }),
      gain: from === undefined ? 0 : 20 * Math.log10(real[i]! / Math.max(real[from]!, 1e-9)),
      inverts: turn !== undefined && turn > 90,
      clips: real[i]! < RATIO_CLIPS * small,
    };
  });
}

/** "V2A.g" for the node on which that tube's grid is. */
function electrodeAt(circuit: Circuit, node: string): string | undefined {
  for (const electrode of ["plate", "grid", "cathode"] as const) {
    const tube = tubesAt(circuit, node, electrode)[0];
    if (tube) return electrodePoint(tube, electrode);
  }
  return undefined;
}

/** Volts rms of the fundamental at each place by the transient, which also holds where a stage clips. */
export function levelsInTime(op: Parameters<typeof transientOf>[0], input: number, tone: WalkTone, keep: readonly number[]): number[] {
  return transientOf(op, input, tone, keep).map((wave) => {
    const spread = Math.max(...wave) - Math.min(...wave);
    return spread < 1e-9 ? 0 : waveFigures(wave).rms;
  });
}

function transientOf(
  op: ReturnType<typeof solveIdle>["op"],
  input: number,
  { volts, hertz }: WalkTone,
  keep: readonly number[],
): number[][] {
  const period = 1 / hertz;
  const settle = Math.max(4, Math.ceil(0.03 * hertz));
  const periods = Math.min(settle, 30);
  const run = transient(op.network, {
    start: op.x,
    stop: (periods + 1) * period,
    drive: sine(input, volts * Math.SQRT2, hertz),
    keep: [...keep],
    mostStep: period / 60,
  });
  return run.v.map((v) => resample(run.t, v, periods * period, period, 128));
}

export interface SignalReading {
  point: string;
  volts: number;
}

export interface SignalRow extends SignalStep {
  read?: number;
  /** Decibels of the reading against what is expected. */
  off?: number;
  /** Of that, what this step adds to the last one read: where it is large, the fault lies between the two. */
  adds?: number;
}

export interface SignalJudgement {
  rows: SignalRow[];
  /** The first step that adds more than `OFF_DB`, and the step read before it. */
  first?: { row: SignalRow; after?: SignalRow };
  says: string;
}

/** Decibels that a stage may stray by its tubes' and parts' tolerances. */
export const OFF_DB = 3;

/** Holds levels read with a meter against the expected ones. What adds to the difference is what counts: all behind a weak stage is low. */
export function judgeSignal(steps: readonly SignalStep[], readings: readonly SignalReading[]): SignalJudgement {
  const rows: SignalRow[] = [];
  for (const step of steps) {
    const read = readings.findLast((r) => r.point.toLowerCase() === step.point.toLowerCase())?.volts;
    if (read === undefined) {
      rows.push(step);
      continue;
    }
    const off = 20 * Math.log10(Math.max(read, 1e-9) / Math.max(step.expected, 1e-9));
    rows.push({ ...step, read, off, adds: off - (readBefore(rows, step)?.off ?? 0) });
  }
  const row = rows.find((r) => r.adds !== undefined && Math.abs(r.adds) > OFF_DB);
  const after = row && readBefore(rows, row);
  const taken = rows.filter((r) => r.read !== undefined).length;
  return {
    rows,
    ...(row ? { first: { row, ...(after ? { after } : {}) } } : {}),
    says: row
      ? texts.firstOff(row.name, row.label, signed(row.adds!), after?.name)
      : taken === 0
        ? texts.noLevelRead()
        : taken < rows.length
          ? texts.levelsSoFar(taken, rows.length)
          : texts.levelsWithin(OFF_DB),
  };
}

/** The nearest step on the way to this one that was read. */
function readBefore(rows: readonly SignalRow[], step: SignalStep): SignalRow | undefined {
  for (let at = step.from; at !== undefined; at = rows[at]?.from) if (rows[at]?.read !== undefined) return rows[at];
  return undefined;
}

const signed = (db: number) => `${db > 0 ? "+" : "−"}${fixed(Math.abs(db), 1)}`;

/** Output resistance and damping factor from the level into two loads: Ro = (V1 − V2)/(V2/R2 − V1/R1). @throws RangeError where the figures cannot be. */
export function dampingFrom(
  first: { volts: number; ohms: number },
  second: { volts: number; ohms: number },
): { ohms: number; factor: number } {
  const { volts: v1, ohms: r1 } = first;
  const { volts: v2, ohms: r2 } = second;
  if (![v1, v2, r1, r2].every((x) => x > 0)) throw new RangeError(texts.loadsAboveZero());
  // An open load is written as a very large one.
  const amps = v2 / r2 - v1 / r1;
  const ohms = (v1 - v2) / amps;
  if (!(amps !== 0) || !(ohms >= 0)) throw new RangeError(texts.loadsCannotBe());
  const rated = Math.min(r1, r2);
  return { ohms, factor: ohms === 0 ? Infinity : rated / ohms };
}

/** Decibels of a residual under full power into the same load. */
export const belowFull = (residualVolts: number, fullWatts: number, load: number): number =>
  20 * Math.log10(residualVolts / Math.sqrt(fullWatts * load));
