/** The time that the work took: timers by task, minutes noted by hand, minutes that a change was logged with. */

import { isIn, type JobState, type Line } from "../tape/fold";
import { rootOf } from "../tape/line-root";
import type { TimerTurned } from "../tape/events/plan-events";
import * as texts from "../texts/work";

/** One run of a timer. */
export interface Spell {
  /** Line that started it. */
  line: number;
  /** Task by its root; undefined for work that is on no plan. */
  task?: number;
  what?: string;
  who: string;
  /** Milliseconds since 1970. */
  from: number;
  /** Undefined while it runs. */
  to?: number;
  minutes: number;
  /** Why its minutes cannot be right. */
  problem?: string;
}

/** After so long without a stop somebody has forgotten it. */
const FORGOTTEN_HOURS = 10;
const MINUTE_MS = 60_000;

type Timed = Pick<JobState, "timers" | "times" | "changes" | "lines" | "planned">;

/** Every run, oldest first; a start while another runs, of whoever, ends that one. @param now milliseconds since 1970 */
export function spells(state: Pick<JobState, "timers" | "lines">, now: number): Spell[] {
  const out: Spell[] = [];
  let running: (Spell & { line: number }) | undefined;
  const end = (to: number, line?: Line<TimerTurned>) => {
    if (!running) return;
    running.to = to;
    running.minutes = minutesBetween(running.from, to);
    if (to < running.from && line) running.problem = texts.clocksDiffer(running.line, running.who, line.who);
    running = undefined;
  };
  for (const t of state.timers) {
    const at = Date.parse(t.at);
    end(at, t);
    if (t.turn === "stopped") continue;
    running = { line: t.seq, who: t.who, from: at, minutes: 0, ...(t.what ? { what: t.what } : {}) };
    if (t.planned !== undefined) running.task = rootOf(state, t.planned);
    out.push(running);
  }
  if (running) {
    running.minutes = minutesBetween(running.from, now);
    if (running.minutes > FORGOTTEN_HOURS * 60) running.problem = texts.ranLong(Math.floor(running.minutes / 60));
  }
  return out;
}

/** The timer that runs. */
export const runningTimer = (state: Pick<JobState, "timers" | "lines">, now: number): Spell | undefined =>
  spells(state, now).find((s) => s.to === undefined);

const minutesBetween = (from: number, to: number) => Math.max(0, (to - from) / MINUTE_MS);

/** Whole minutes that were worked on each task; under `undefined` what is on no plan. */
export function minutesWorked(state: Timed, now: number): Map<number | undefined, number> {
  const sum = new Map<number | undefined, number>();
  const add = (task: number | undefined, minutes: number) => sum.set(task, (sum.get(task) ?? 0) + minutes);
  for (const s of spells(state, now)) add(s.task, s.minutes);
  for (const t of state.times) add(t.planned === undefined ? undefined : rootOf(state, t.planned), t.minutes);
  for (const c of state.changes) if (c.minutes && isIn(c)) add(c.planned === undefined ? undefined : rootOf(state, c.planned), c.minutes);
  for (const [task, minutes] of sum) sum.set(task, Math.max(0, Math.round(minutes)));
  return sum;
}
