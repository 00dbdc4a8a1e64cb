/** The order of the tasks by what depends on what, and what is wrong with an order that was made by hand. */

import type { WorkPhase } from "../tape/events/words";
import * as texts from "../texts/work";
import type { Task } from "./tasks";

type Ordered = Pick<Task, "root" | "name" | "phase" | "needs" | "reach">;

const PHASE: Record<WorkPhase, number> = { "power off": 0, "power on": 1, adjustment: 2, "final tests": 3 };

export interface SuggestedOrder<T> {
  tasks: T[];
  /** Tasks that need each other in a circle, in words. */
  problem?: string;
}

/**
 * With the power off first, then what is measured live, then bias and balance, the tests last; what a task needs before it; and what lies
 * behind the same cover together, so that it is opened once.
 */
export function byDependency<T extends Ordered>(tasks: readonly T[]): SuggestedOrder<T> {
  const left = [...tasks];
  const out: T[] = [];
  const there = new Set(tasks.map((t) => t.root));
  const done = new Set<number>();
  const same = (a: readonly string[] | undefined, b: readonly string[] | undefined) =>
    [...(a ?? [])].sort().join("|").toLowerCase() === [...(b ?? [])].sort().join("|").toLowerCase();
  while (left.length > 0) {
    const ready = left.filter((t) => (t.needs ?? []).every((n) => !there.has(n) || n === t.root || done.has(n)));
    if (ready.length === 0) return { tasks: [...out, ...left], problem: texts.needsInCircle(left.map((t) => t.name).join("; ")) };
    const first = Math.min(...ready.map((t) => PHASE[t.phase]));
    const here = ready.filter((t) => PHASE[t.phase] === first);
    const next = here.find((t) => same(t.reach, out.at(-1)?.reach)) ?? here[0]!;
    out.push(next);
    done.add(next.root);
    left.splice(left.indexOf(next), 1);
  }
  return { tasks: out };
}

/** What speaks against an order, a sentence each; empty where nothing does. */
export function orderProblems(tasks: readonly Ordered[]): string[] {
  const out: string[] = [];
  tasks.forEach((task, i) => {
    const later = tasks.slice(i + 1);
    for (const l of later) if (task.needs?.includes(l.root)) out.push(texts.needsFirst(task.name, l.name));
    const dead = later.find((l) => l.phase === "power off");
    if (!dead) return;
    if (task.phase === "power on") out.push(texts.deadBeforeLive(dead.name, task.name));
    if (task.phase === "adjustment") out.push(texts.setAgainAfter(task.name, dead.name));
    if (task.phase === "final tests") out.push(texts.testsLast(task.name, dead.name));
  });
  return out;
}

export type PlanStep<T> = { task: T } | { says: string };

/** The tasks with what has to be done between them: covers taken off and put back, the proof before a hand goes in. */
export function planSteps<T extends Ordered>(tasks: readonly T[]): PlanStep<T>[] {
  const out: PlanStep<T>[] = [];
  let open: string[] = [];
  let live = true;
  for (const task of tasks) {
    const reach = task.reach ?? [];
    const shut = open.filter((o) => !reach.includes(o));
    const further = reach.filter((r) => !open.includes(r));
    if (task.phase === "power off" && live) out.push({ says: texts.proveDeadFirst() });
    // What is open stays open between two tasks with the power off; before power it is shut.
    if (shut.length > 0 && (task.phase !== "power off" || further.length > 0)) {
      out.push({ says: texts.closeAfter(shut.join(", ")) });
      open = open.filter((o) => reach.includes(o));
    }
    if (further.length > 0) {
      out.push({ says: texts.openFirst(further.join(", ")) });
      open = [...open, ...further];
    }
    live = task.phase !== "power off";
    out.push({ task });
  }
  if (open.length > 0) out.push({ says: texts.closeAfter(open.join(", ")) });
  return out;
}
