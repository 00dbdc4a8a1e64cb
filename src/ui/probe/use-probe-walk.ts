"use client";
/** Which point is probed now and what comes after it: by least movement, down the chain, or as the suspects ask. */

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { huntNext } from "@/core/suspects/hunt";
import { probeOrder, type ProbingOrder } from "@/core/walk/probe-order";
import { cannotReach, goTo, pointAfter, skipHere, startProbeWalk, stepBack, takeHere, type ProbeWalk } from "@/core/walk/probe-walk";
import type { WalkRow } from "@/core/walk/walk";
import { useJob } from "../job/job-context";
import { useSuspects } from "../job/use-suspects";

export const ORDER_WORDS: Record<ProbingOrder, string> = {
  movement: "least movement, volts rising",
  chain: "down the supply, back to the input",
  suspects: "what the suspects ask for",
};

const MOVES = { take: takeHere, skip: skipHere, unreachable: cannotReach, back: stepBack };
export type Move = keyof typeof MOVES;

export interface Probing {
  walk: ProbeWalk;
  after?: string;
  /** Why the suspects ask for this point. */
  why?: string;
  /** The suspects are worked out: there is no next point yet. 0 to 1. */
  thinking?: number;
  /** Takes effect at once: what comes in right after belongs to the next point. */
  move(move: Move): ProbeWalk;
  /** Nothing is left to be probed. */
  over: boolean;
}

export function useProbeWalk(order: ProbingOrder, resume: ProbeWalk): Probing {
  const { view } = useJob();
  const bySuspects = order === "suspects";
  const { answer, job, progress, failed } = useSuspects(!bySuspects);
  const { circuit, rows, state } = view;

  const [walk, setWalk] = useState<ProbeWalk>(() => {
    // Left in the middle it goes on there; from its end the way leads back.
    if (resume.order.length > 0) return resume.here === undefined ? stepBack(resume) : resume;
    const expected = new Map(rows.map((r) => [r.point.name, r.expected?.volts]));
    const points = probeOrder(circuit!, bySuspects ? "movement" : order, (p) => expected.get(p.name)).map((p) => p.name);
    // What was read since the power went on holds, unless the amp was changed since: a walk that was interrupted goes on.
    const on = state.power?.state === "on" ? state.power.seq : Infinity;
    const since = Math.max(on, state.changes.at(-1)?.seq ?? 0);
    const holds = (r: WalkRow) => (r.reading?.seq ?? 0) > since;
    const read = rows.filter(holds).map((r) => r.point.name);
    const begun = startProbeWalk(points, read);
    return bySuspects ? goTo(begun, undefined) : begun;
  });
  const now = useRef(walk);

  const move = useCallback(
    (name: Move) => {
      const next = MOVES[name](now.current);
      // The suspects have the word on where to go next, but not on the way back.
      now.current = bySuspects && name !== "back" ? goTo(next, undefined) : next;
      setWalk(now.current);
      return now.current;
    },
    [bySuspects],
  );

  // An answer counts once it has seen every reading that was taken.
  const current = answer !== undefined && progress === undefined && JSON.stringify(answer.evidence) === JSON.stringify(job.evidence);
  const hunt = useMemo(
    () => (current ? huntNext(answer, walk, job.evidence.length) : undefined),
    [current, answer, walk, job.evidence.length],
  );
  const suggestion = hunt?.point;
  useEffect(() => {
    if (!bySuspects || suggestion === undefined || now.current.here !== undefined) return;
    now.current = goTo(now.current, suggestion);
    setWalk(now.current);
  }, [bySuspects, suggestion, walk]);

  return {
    walk,
    after: bySuspects ? undefined : pointAfter(walk),
    why: bySuspects && hunt?.point === walk.here ? hunt?.why : undefined,
    thinking: bySuspects && walk.here === undefined && !current && !failed ? (progress ?? 0) : undefined,
    move,
    over: walk.here === undefined && (!bySuspects || failed !== "" || (current && suggestion === undefined)),
  };
}
