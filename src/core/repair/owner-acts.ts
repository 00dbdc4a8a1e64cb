/** What is asked of the owner and what they answer, as lines of the tape: one builder for each act, whichever screen it is done on. */

import type { EventDraft } from "../tape/events/event";
import type { Approval } from "../tape/events/work-events";
import { said } from "../tape/said";
import type { Question } from "./questions";

/** Longest question of the tape. */
const LONGEST = 4000;

/** A question: what it costs, what it means for the owner, what shows it, and the tasks that hang on it. */
export const questionAsked = (
  question: Pick<Approval, "what"> & Partial<Pick<Approval, "cost" | "consequence" | "options" | "evidence" | "planned">>,
): EventDraft<"approval"> => ({
  type: "approval",
  payload: { ...said(question), what: question.what.trim().slice(0, LONGEST), answer: "asked" },
});

/** The answer of the owner to a question or a quote. @param option of several ways. @param declined tasks, or of a quote places of lines. */
export function answered(
  q: Pick<Question, "what" | "line">,
  answer: "yes" | "no" | "part",
  by: Pick<Approval, "on" | "by" | "said">,
  { option, declined = [] }: Pick<Approval, "option" | "declined"> = {},
): EventDraft<"approval"> {
  return {
    type: "approval",
    payload: {
      what: q.what.slice(0, LONGEST),
      answer,
      asks: q.line,
      ...said(by),
      ...(answer !== "no" && option !== undefined ? { option } : {}),
      ...(answer === "part" ? { declined } : {}),
    },
  };
}

/** The owner takes a yes back. @param on local day. */
export const takenBack = (q: Pick<Question, "what" | "line">, on: string): EventDraft<"approval"> => ({
  type: "approval",
  payload: { what: q.what.slice(0, LONGEST), answer: "revoked", asks: q.line, on, by: "telephone" },
});
