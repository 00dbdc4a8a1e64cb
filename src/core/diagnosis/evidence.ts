/** What was measured or seen, with the circumstances that it holds under. */

import type { Circuit } from "../circuit/circuit";
import { solveKey, type SolveConditions } from "../expectation/modelled";

export type EvidenceKind = "dcv" | "ohm" | "ma" | "acv" | "leak" | "gm" | "temp" | "observe";

export interface Evidence {
  /** A test point; for ohm a part or "a:b"; for ma, gm, temp a tube; for leak a capacitor; for observe the observation's name. */
  point: string;
  kind: EvidenceKind;
  /** Volts, ohms, milliamperes, volts rms, percent of new, degrees Celsius; 1 for an observation that was made, 0 for one that was looked for in vain. */
  value: number;
  conditions: SolveConditions;
  /** How often it was read with the same outcome; once unless given. What was read twice alike is hardly a slip. */
  times?: number;
  /** Of an AC level: the node driven, hertz, volts rms. */
  drive?: { input: string; hertz: number; level: number };
}

/** A thing that can be measured, whether it has been or not. */
export interface Observable {
  point: string;
  kind: EvidenceKind;
  conditions: SolveConditions;
  drive?: Evidence["drive"];
}

/** Probability of one fault, or of one group that cannot be told apart, at which the hunt is over but for the proof. */
export const ENOUGH = 0.9;

/** From this many sigmas off healthy a fault shows in a reading. */
export const SHOWS = 3;

/** One text for the same measurement under the same circumstances. */
export function observableKey(o: Observable): string {
  const drive = o.drive ? `${o.drive.input} ${o.drive.hertz} ${o.drive.level}` : "";
  return `${o.kind} ${o.point.toLowerCase()} | ${solveKey(o.conditions)} | ${drive}`;
}

/** The name as the circuit has it; undefined when it is no point of it. */
export function pointNamed(circuit: Circuit, typed: string): string | undefined {
  return circuit.points.find((p) => p.name.toLowerCase() === typed.trim().toLowerCase())?.name;
}

/** Two readings of one point agree within this part, or this much. */
const ALIKE_PART = 0.02;
const ALIKE = 0.05;

/** The latest of each measurement, in the order of the first; one that was taken again with the same outcome says so. */
export function gathered(evidence: readonly Evidence[]): Evidence[] {
  const latest = new Map<string, Evidence>();
  for (const e of evidence) {
    const key = observableKey(e);
    const before = latest.get(key);
    const alike = before && Math.abs(e.value - before.value) <= Math.max(ALIKE_PART * Math.abs(before.value), ALIKE);
    latest.set(key, alike ? { ...e, times: (before.times ?? 1) + 1 } : e);
  }
  return [...latest.values()];
}

/** Mains that differ by less than this part are one state of the amp. */
const SAME_MAINS = 0.05;

/** The same measurement, at nearly the same mains: the later stands for the earlier. */
export function sameMeasurement(a: Observable, b: Observable): boolean {
  const bare = (x: Observable) => observableKey({ ...x, conditions: { ...x.conditions, mains: undefined } });
  const [m, n] = [a.conditions.mains, b.conditions.mains];
  return bare(a) === bare(b) && (m === n || (m !== undefined && n !== undefined && Math.abs(m - n) <= SAME_MAINS * n));
}
