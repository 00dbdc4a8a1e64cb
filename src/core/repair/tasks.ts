/** The tasks of a job: what is planned, how it stands, how long it takes and took. */

import { isFitted, type JobState } from "../tape/fold";
import { rootOf } from "../tape/line-root";
import { coverageOf } from "./covered";
import { answerFor, questionsOf } from "./questions";
import { minutesWorked } from "./time";
import { usualMinutes, type TaskKind, type TimeTaken } from "./usual-minutes";

export type Task = JobState["planned"][number] & {
  /** "C6: renew the coupling capacitor". */
  name: string;
  state: "open" | "done" | "left out";
  /** The line that did it. */
  doneBy?: number;
  /** As somebody said, else as it usually takes. */
  estimate: number;
  /** Whether the estimate was said by somebody. */
  said: boolean;
  worked: number;
  /** Whether the owner agreed: by the brief, by a yes, or not yet. */
  agreed: "agreed" | "to be asked" | "asked" | "declined";
  why: string;
};

type Planned = Pick<
  JobState,
  "planned" | "changes" | "timers" | "times" | "lines" | "approvals" | "quotes" | "brief" | "findings" | "planOrder"
>;

/** In the order that somebody gave them, else as they were planned. @param now milliseconds since 1970 */
export function tasksOf(state: Planned, now: number, shop?: Partial<Record<TaskKind, TimeTaken>>): Task[] {
  const worked = minutesWorked(state, now);
  const questions = questionsOf(state);
  const tasks = state.planned.map((p): Task => {
    const change = state.changes.findLast((c) => c.planned !== undefined && rootOf(state, c.planned) === p.root && isFitted(c));
    const asked = questions.some((q) => q.stands === "asked" && asksFor(state, q, p.root));
    const cover = coverageOf(state, {
      position: p.position,
      kind: p.phase === "power off" ? "replacement" : "repair",
      newPart: p.what,
      reversible: p.reversible,
      planned: p.root,
    });
    const declined = answerFor(questions, p.root)?.declined.includes(p.root);
    return {
      ...p,
      name: `${p.position}: ${p.what}`,
      state: change || p.ended?.how === "done" ? "done" : p.ended ? "left out" : "open",
      ...(change ? { doneBy: change.seq } : p.ended ? { doneBy: p.ended.seq } : {}),
      estimate: p.minutes ?? usualMinutes(p, shop),
      said: p.minutes !== undefined,
      worked: worked.get(p.root) ?? 0,
      // Where the owner is asked, the answer is waited for, whatever the brief says.
      agreed: declined ? "declined" : asked ? "asked" : cover.covered ? "agreed" : "to be asked",
      why: cover.why,
    };
  });
  const place = new Map(state.planOrder?.order.map((root, i) => [root, i]));
  return tasks.sort((a, b) => (place.get(a.root) ?? Infinity) - (place.get(b.root) ?? Infinity) || a.root - b.root);
}

/** Whether a task was planned with parts and no change says that one was fitted: it is not done before somebody says what was. */
export function partsNotLogged(state: Pick<JobState, "planned" | "changes" | "lines">, root: number): boolean {
  const task = state.planned.find((p) => p.root === root);
  if (!task?.parts?.length) return false;
  const here = task.position.trim().toUpperCase();
  return !state.changes.some(
    (c) => isFitted(c) && (c.planned === undefined ? c.position.trim().toUpperCase() === here : rootOf(state, c.planned) === root),
  );
}

function asksFor(state: Planned, q: ReturnType<typeof questionsOf>[number], root: number): boolean {
  const lines = q.asked?.planned ?? q.quote?.options.flatMap((o) => o.lines.flatMap((l) => l.planned ?? [])) ?? [];
  return lines.some((l) => rootOf(state, l) === root);
}
