/** What the owner was asked and what they answered: questions and quotes, each with the answer that stands. */

import type { Quote, QuoteOption } from "../tape/events/money-events";
import type { Approval } from "../tape/events/work-events";
import type { JobState, Line } from "../tape/fold";
import { rootOf } from "../tape/line-root";

export interface Question {
  /** Line that asked. */
  line: number;
  at: string;
  kind: "question" | "quote";
  what: string;
  /** The question as it was asked; of a quote, none. */
  asked?: Line<Approval>;
  quote?: Line<Quote>;
  stands: "asked" | "yes" | "no" | "part" | "revoked";
  /** The answer that stands. */
  answer?: Line<Approval>;
  /** Of a yes that was taken back: that yes. */
  before?: Line<Approval>;
  /** Tasks that the owner agreed to, and those that they declined, by root. */
  agreed: number[];
  declined: number[];
  /** Of a quote that was answered with yes or in part. */
  option?: QuoteOption;
  /** Agreed cost in the shop's currency. */
  cost?: number;
}

type Asked = Pick<JobState, "approvals" | "quotes" | "lines">;

/** Every question and quote in the order in which they were asked. An answer that names no question is a question and its answer in one. */
export function questionsOf(state: Asked): Question[] {
  const answers = new Map<number, Line<Approval>>();
  const agreed = new Map<number, Line<Approval>>();
  for (const a of state.approvals) {
    if (a.answer === "asked" || a.asks === undefined) continue;
    answers.set(rootOf(state, a.asks), a);
    if (a.answer === "yes" || a.answer === "part") agreed.set(rootOf(state, a.asks), a);
  }
  const beforeOf = (line: number, stands: Question["stands"]) => {
    const before = stands === "revoked" ? agreed.get(rootOf(state, line)) : undefined;
    return before ? { before } : {};
  };
  const questions = state.approvals.flatMap((a): Question[] => {
    if (a.answer !== "asked" && a.asks !== undefined) return [];
    const answer = answers.get(rootOf(state, a.seq)) ?? (a.answer === "asked" ? undefined : a);
    const about = (a.planned ?? []).map((p) => rootOf(state, p));
    const declined = answer?.answer === "part" ? (answer.declined ?? []).map((d) => rootOf(state, d)) : [];
    const stands = answer?.answer ?? "asked";
    const { before } = beforeOf(a.seq, stands);
    const option = a.options?.[(before ?? answer)?.option ?? -1];
    const cost = (before ?? answer)?.cost ?? option?.cost ?? a.cost;
    return [
      {
        line: a.seq,
        at: a.at,
        kind: "question",
        what: a.what,
        asked: a,
        stands,
        ...(answer ? { answer } : {}),
        ...(before ? { before } : {}),
        agreed: stands === "yes" || stands === "part" ? about.filter((t) => !declined.includes(t)) : [],
        declined: stands === "no" || stands === "revoked" ? about : declined,
        ...(cost === undefined ? {} : { cost }),
      },
    ];
  });
  const quotes = state.quotes.map((q): Question => {
    const answer = answers.get(rootOf(state, q.seq));
    const stands = answer?.answer ?? "asked";
    const option = stands === "yes" || stands === "part" ? q.options[answer?.option ?? 0] : undefined;
    const declined = new Set(stands === "part" ? (answer?.declined ?? []) : []);
    // A task has several lines (labour, each part): with one of them declined it is not agreed.
    const roots = (lines: readonly { planned?: number }[]) => [
      ...new Set(lines.flatMap((l) => (l.planned === undefined ? [] : [rootOf(state, l.planned)]))),
    ];
    const gone = roots(option?.lines.filter((_, i) => declined.has(i)) ?? []);
    return {
      line: q.seq,
      at: q.at,
      kind: "quote",
      what: q.options.map((o) => o.name).join(", "),
      quote: q,
      stands,
      ...(answer ? { answer } : {}),
      ...beforeOf(q.seq, stands),
      agreed: option ? roots(option.lines).filter((t) => !gone.includes(t)) : [],
      declined: option ? gone : stands === "asked" ? [] : roots(q.options.flatMap((o) => o.lines)),
      ...(option ? { option, cost: option.sum.total } : {}),
    };
  });
  return [...questions, ...quotes].sort((a, b) => a.line - b.line);
}

/** The last question that says something of a task. */
export const answerFor = (questions: readonly Question[], task: number): Question | undefined =>
  questions.findLast((q) => q.agreed.includes(task) || q.declined.includes(task));
