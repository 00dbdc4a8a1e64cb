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

/**
 * Every run, oldest first. Each technician has a timer: two work on an amp at once, and a start ends only one's own run. Who stops and has none
 * running stops the one that was begun last.
 * @param now milliseconds since 1970
 */
export function spells(state: Pick<JobState, "timers" | "lines">, now: number): Spell[] {
  const out: Spell[] = [];
  const running = new Map<string, Spell>();
  const end = (spell: Spell | undefined, to: number, line: Line<TimerTurned>) => {
    if (!spell) return;
    spell.to = to;
    spell.minutes = minutesBetween(spell.from, to);
    if (to < spell.from) spell.problem = texts.clocksDiffer(spell.line, spell.who, line.who);
    running.delete(spell.who);
  };
  for (const t of state.timers) {
    const at = Date.parse(t.at);
    const own = running.get(t.who);
    end(t.turn === "stopped" ? (own ?? [...running.values()].at(-1)) : own, at, t);
    if (t.turn === "stopped") continue;
    const spell: Spell = { line: t.seq, who: t.who, from: at, minutes: 0, ...(t.what ? { what: t.what } : {}) };
    if (t.planned !== undefined) spell.task = rootOf(state, t.planned);
    running.set(t.who, spell);
    out.push(spell);
  }
  for (const spell of running.values()) {
    spell.minutes = minutesBetween(spell.from, now);
    if (spell.minutes > FORGOTTEN_HOURS * 60) spell.problem = texts.ranLong(Math.floor(spell.minutes / 60));
  }
  return out;
}

/** The timer that runs: of `who` first, else the one that was begun last. */
export function runningTimer(state: Pick<JobState, "timers" | "lines">, now: number, who?: string): Spell | undefined {
  const open = spells(state, now).filter((s) => s.to === undefined);
  return open.find((s) => s.who === who) ?? open.at(-1);
}

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
