/** The state of a job as a pure fold of its tape: the same on the server, in the browser and in tests. */

import { arrivedLate } from "./arrived-late";
import { is, type JobEvent } from "./events/event";
import type { Conditions, Reading } from "./events/measuring-events";
import type { Change } from "./events/work-events";
import { foldLine } from "./fold-lines";
import { untold, type JobState, type Line, type TapeLine } from "./job-state";

export type { JobState, Line, TapeLine } from "./job-state";

/** Which lines stand: a line falls when a later line that itself stands supersedes it. Undoing an undo restores. */
export function tapeLines(events: JobEvent[]): TapeLine[] {
  const by = new Map<number, number>();
  const lines: TapeLine[] = [];
  for (let i = events.length - 1; i >= 0; i--) {
    const event = events[i]!;
    const supersededBy = by.get(event.seq);
    const effective = supersededBy === undefined;
    if (effective && event.supersedes !== undefined) by.set(event.supersedes, event.seq);
    lines.push({ event, effective, supersededBy });
  }
  return lines.reverse();
}

/** Folds a tape, in order of `seq`, to the job's state. */
export function foldJob(events: JobEvent[]): JobState {
  const lines = tapeLines(events);
  const standing = lines.filter((l) => l.effective && l.event.type !== "undo").map((l) => l.event);
  const late = arrivedLate(standing);
  const effective = standing.filter((e) => !late.has(e.seq));
  const state: JobState = { lines, effective, late, ...untold(), lastAt: events.at(-1)?.at };
  for (const e of effective) foldLine(state, e);
  return state;
}

/** The last time that the amp was put on before a line of the tape, with the tubes that were out. */
export function lastPowerOn(state: Pick<JobState, "effective">, before = Infinity): JobEvent<"power"> | undefined {
  return powerOns(state).findLast((e) => e.seq < before);
}

/** Every time that the amp was put on in this job. */
export function powerOns(state: Pick<JobState, "effective">): JobEvent<"power">[] {
  return state.effective.filter((e): e is JobEvent<"power"> => is(e, "power") && e.payload.state === "on");
}

/** Whether a change is in the amp: a part that was fitted or is being tried, and was not put back. */
export const isIn = (change: Pick<Change, "outcome">): boolean => change.outcome !== "reverted";

/** Whether a change is in the amp to stay: an experiment only once it was kept. */
export const isFitted = (change: Pick<Change, "kind" | "outcome">): boolean =>
  isIn(change) && (change.kind !== "experiment" || change.outcome === "kept");

/** The conditions that a reading taken at `at` (milliseconds) would have. */
export function conditionsNow(state: JobState, at: number): Conditions {
  const on = state.power?.state === "on" ? state.power : undefined;
  const conditions: Conditions = {};
  if (state.mainsVolts !== undefined) conditions.mains = state.mainsVolts;
  if (on?.without.length) conditions.without = on.without;
  // A variable transformer sets the mains that is read at the amp; only a lamp drops volts that nobody reads.
  if (on?.through?.includes("lamp")) conditions.limiter = on.through;
  if (on) conditions.warmMinutes = Math.max(0, Math.round((at - Date.parse(on.at)) / 60000));
  return conditions;
}

/** The last standing reading of a point and kind. */
export function latestReading(state: JobState, point: string, kind: Reading["kind"] = "dcv"): Line<Reading> | undefined {
  const name = point.toLowerCase();
  return state.readings.findLast((r) => r.kind === kind && r.point.toLowerCase() === name);
}
