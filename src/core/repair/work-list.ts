/** The work that the findings ask for: what the brief allows, what waits for the owner's yes, what was declined. */

import type { JobState } from "../tape/fold";
import type { Severity } from "../tape/events/words";
import { questionsOf } from "./questions";

export interface WorkItem {
  /** Line of the finding. */
  seq: number;
  place: string;
  action: string;
  severity: Severity;
  stands: "allowed" | "to be asked" | "asked" | "yes" | "no";
  /** The question to the owner, in the words it is asked by. */
  question: string;
}

const RANK: Record<Severity, number> = { danger: 0, fault: 1, watch: 2, note: 3 };

/** A question about one finding is answered whole: "part" agrees to it, a yes that was taken back is a no. */
const STANDS = { asked: "asked", yes: "yes", part: "yes", no: "no", revoked: "no" } as const;

/** How an action is put to the owner. */
export const questionFor = (place: string, action: string) => `${place}: ${action}`;

/** Open findings with an action, dangers first. */
export function workList(state: Pick<JobState, "findings" | "approvals" | "quotes" | "lines">): WorkItem[] {
  const questions = questionsOf(state);
  return state.findings
    .filter((f) => f.closed === undefined && f.action)
    .map((f): WorkItem => {
      const question = questionFor(f.place, f.action!);
      const stands = questions.findLast((q) => q.what === question || q.what === f.action)?.stands;
      return {
        seq: f.seq,
        place: f.place,
        action: f.action!,
        severity: f.severity,
        stands: stands === undefined ? (f.brief === "ask" ? "to be asked" : "allowed") : STANDS[stands],
        question,
      };
    })
    .sort((a, b) => RANK[a.severity] - RANK[b.severity] || a.seq - b.seq);
}
