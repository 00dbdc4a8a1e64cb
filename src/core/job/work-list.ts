/** The work that the findings ask for: what the brief allows, what waits for the owner's yes, what was declined. */

import type { JobState } from "../tape/fold";
import type { Severity } from "../tape/events/words";

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

/** How an action is put to the owner. */
export const questionFor = (place: string, action: string) => `${place}: ${action}`;

/** Open findings with an action, dangers first. */
export function workList(state: Pick<JobState, "findings" | "approvals">): WorkItem[] {
  return state.findings
    .filter((f) => f.closed === undefined && f.action)
    .map((f): WorkItem => {
      const question = questionFor(f.place, f.action!);
      const about = state.approvals.filter((a) => a.what === question || a.what === f.action);
      const answer = about.findLast((a) => a.answer !== "asked")?.answer ?? about.at(-1)?.answer;
      const stands = answer ?? (f.brief === "ask" ? "to be asked" : "allowed");
      return { seq: f.seq, place: f.place, action: f.action!, severity: f.severity, stands, question };
    })
    .sort((a, b) => RANK[a.severity] - RANK[b.severity] || a.seq - b.seq);
}
