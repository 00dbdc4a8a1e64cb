/** How the ranking does on recorded benches: whether the true part is named, how sure it was, and whether being sure was right. */

import type { Evidence } from "../../diagnosis/evidence";
import { rank, type Ranking } from "../rank";
import type { FaultTable } from "../table";
import type { RecordedCase } from "./spice-bench-for-tests";

export interface Judged {
  case: RecordedCase;
  /** 0 for the first; −1 when it is not on the list. A sound amp's place is that of "nothing wrong". */
  place: number;
  /** Of the first on the list, and what it is. */
  probability: number;
  says: string;
  ms: number;
  ranking: Ranking;
}

/** Readings of a case at the mains that is believed: the file's own. */
export function evidenceOfCase(table: FaultTable, c: RecordedCase): Evidence[] {
  const conditions = { mains: table.circuit.mains!.volts, without: [], set: [] };
  const of = (kind: "dcv" | "acv", read: Record<string, number> = {}) =>
    Object.entries(read).map(([point, value]): Evidence => ({ point, kind, value, conditions }));
  return [...of("dcv", c.reading.dcv), ...of("acv", c.reading.acv)];
}

/** A fault shows where some reading is off that of the same amp without it by this part, and by more than a meter's least volts. */
const SHOWS = 0.06;
const SHOWS_VOLTS = 0.08;

export function shows(c: RecordedCase): boolean {
  const off = (read: Record<string, number> = {}, sound: Record<string, number> = {}) =>
    Object.entries(read).some(([p, v]) => Math.abs(v - (sound[p] ?? v)) > Math.max(SHOWS_VOLTS, SHOWS * Math.abs(sound[p] ?? v)));
  return off(c.reading.dcv, c.sound?.dcv) || off(c.reading.acv, c.sound?.acv);
}

export function judge(table: FaultTable, c: RecordedCase): Judged {
  const evidence = evidenceOfCase(table, c);
  const started = performance.now();
  const ranking = rank(table, evidence, undefined, { mains: "entered" });
  const ms = performance.now() - started;
  const named = (refs: readonly string[]) => (c.refs.length === 0 ? refs.length === 0 : refs.some((r) => c.refs.includes(r)));
  // A group that the readings cannot tell apart counts as one.
  const place = ranking.suspects.findIndex((s) => named(s.refs) || s.groupRefs.some((r) => named(r)));
  const top = ranking.suspects[0]!;
  return { case: c, place, probability: top.groupProbability, says: top.group.join(" / "), ms, ranking };
}
