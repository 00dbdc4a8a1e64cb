"use client";
/** Which point is probed now and what comes after it: by least movement, down the chain, or as the suspects ask. */

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { ENOUGH } from "@/core/suspects/evidence";
import { probeOrder, type ProbeOrder } from "@/core/walk/probe-order";
import { cannotReach, goTo, pointAfter, skipHere, startProbeWalk, stepBack, takeHere, type ProbeWalk } from "@/core/walk/probe-walk";
import type { WalkRow } from "@/core/walk/walk";
import { useJob } from "../frame/job-context";
import { useSuspects } from "../frame/use-suspects";

export type ProbingOrder = ProbeOrder | "suspects";

export const ORDER_WORDS: Record<ProbingOrder, string> = {
  movement: "least movement, volts rising",
  chain: "down the supply, back to the input",
  suspects: "what the suspects ask for",
};

const MOVES = { take: takeHere, skip: skipHere, unreachable: cannotReach, back: stepBack };
export type Move = keyof typeof MOVES;

const SPLITS_BITS = 0.2;

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
    const expected = new Map(rows.map((r) => [r.point.name, r.expected?.volts]));
    const points = probeOrder(circuit!, bySuspects ? "movement" : order, (p) => expected.get(p.name)).map((p) => p.name);
    if (resume.order.length > 0) return stepBack(resume);
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
  const top = answer?.suspects[0];
  // A group that one more point would split is worth that point while the probe is in the hand.
  const splits = (top?.group.length ?? 0) > 1 && answer?.next.some((n) => n.kind === "dcv" && n.gainBits > SPLITS_BITS);
  const enough =
    current && job.evidence.length > 0 && top !== undefined && top.refs.length > 0 && top.groupProbability >= ENOUGH && !splits;
  const suggestion = useMemo(() => {
    if (!current || enough) return undefined;
    const { unreachable, skipped } = walk;
    const known = (p: string) => walk.order.includes(p) && !unreachable.includes(p) && !skipped.includes(p);
    const again = answer.recheck.find(known);
    return again ?? answer.next.find((n) => n.kind === "dcv" && known(n.point))?.point;
  }, [current, enough, answer, walk]);
  useEffect(() => {
    if (!bySuspects || suggestion === undefined || now.current.here !== undefined) return;
    now.current = goTo(now.current, suggestion);
    setWalk(now.current);
  }, [bySuspects, suggestion, walk]);

  return {
    walk,
    after: bySuspects ? undefined : pointAfter(walk),
    why: bySuspects && walk.here !== undefined ? answer?.next.find((n) => n.point === walk.here && n.kind === "dcv")?.why : undefined,
    thinking: bySuspects && walk.here === undefined && !current && !failed ? (progress ?? 0) : undefined,
    move,
    over: walk.here === undefined && (!bySuspects || failed !== "" || (current && suggestion === undefined)),
  };
}
