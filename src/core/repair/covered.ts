/** Whether a change is covered by what was agreed with the owner: by the brief, by a yes, or not. */

import type { Change } from "../tape/events/work-events";
import type { JobState } from "../tape/fold";
import { rootOf } from "../tape/line-root";
import * as texts from "../texts/work";
import { briefAllows } from "./brief-allows";
import { mentions } from "./mentions";
import { answerFor, questionsOf } from "./questions";

export interface Coverage {
  covered: boolean;
  why: string;
  /** Of the answer that covers it, or that took it back: its line. */
  line?: number;
}

type Agreed = Pick<JobState, "brief" | "approvals" | "quotes" | "lines" | "findings" | "planned">;

/**
 * What is tried and can be put back asks nobody; keeping it does. As long as nothing was agreed nothing is beyond it.
 * @param before the line that the change is or will be: answers that came later do not count for it.
 */
export function coverageOf(
  state: Agreed,
  change: Pick<Change, "position" | "kind" | "newPart" | "reversible" | "outcome" | "planned" | "reason">,
  before = Infinity,
): Coverage {
  if (change.outcome === "reverted" || (change.kind === "experiment" && change.outcome !== "kept" && change.reversible))
    return { covered: true, why: texts.trialPutBack() };
  const questions = questionsOf({ ...state, approvals: state.approvals.filter((a) => a.seq < before) });
  const here = change.position.trim().toUpperCase();
  // Without its task it is still the work that the owner answered about.
  const planned = change.planned ?? state.planned.findLast((p) => p.position.trim().toUpperCase() === here)?.root;
  const task = planned === undefined ? undefined : rootOf(state, planned);
  const about = task === undefined ? undefined : answerFor(questions, task);
  const named = about ?? questions.findLast((q) => q.kind === "question" && q.stands !== "asked" && mentions(q.what, change.position));
  const line = named?.answer?.seq;
  if (named && (task !== undefined && about ? about.agreed.includes(task) : named.stands === "yes" || named.stands === "part"))
    return { covered: true, why: texts.ownerAgreed(line), line };
  if (!state.brief) return { covered: true, why: texts.noBriefYet() };
  if (named?.stands === "revoked") return { covered: false, why: texts.ownerTookBack(line), line };
  const source = state.planned.find((p) => p.root === task)?.source;
  // Of what was done before, the finding that asked for it may be closed by now.
  const open = (f: Agreed["findings"][number]) => (before === Infinity ? f.closed === undefined : f.seq < before);
  const finding = state.findings.find((f) => open(f) && (f.seq === source || mentions(f.place, change.position)));
  const action = change.kind === "repair" ? `repair ${change.newPart}` : `replace with ${change.newPart}`;
  const { brief, why } = briefAllows(state.brief, action, change.position, finding?.severity === "danger" ? "danger" : "fault");
  if (brief === "ask") return { covered: false, why: named ? texts.ownerDeclined(line) : why, ...(line ? { line } : {}) };
  // A no stands even where the brief would have covered it, but not against danger to life.
  if (named && finding?.severity !== "danger") return { covered: false, why: texts.ownerDeclined(line), line };
  return { covered: true, why: texts.coveredByBrief(why) };
}

/** Why a change cannot be logged as it is; undefined where it can. A reason lets it through, and stands on the tape. */
export function refusedAsBeyond(state: Agreed, change: Parameters<typeof coverageOf>[1] & Pick<Change, "unagreed">): string | undefined {
  if (change.unagreed?.trim()) return undefined;
  const { covered, why } = coverageOf(state, change);
  return covered ? undefined : texts.beyondAgreed(change.position, why);
}
