/** Rules of money: what stands on a bill is not struck, a bill is cancelled and never undone, a yes holds what it was said to. */

import { formatMoney } from "../money/amount";
import { paidSoFar, standingBills } from "../money/bill";
import { coverageOf } from "../repair/covered";
import { questionsOf } from "../repair/questions";
import { shopDay } from "../shop/day";
import type { Approval } from "../tape/events/work-events";
import { isFitted } from "../tape/fold";
import { rootOf } from "../tape/line-root";
import { conflict, impossible, type JobNow, type Refusal, type Rule } from "./refusal";
import * as texts from "../texts/allowed";

/** Why a line that is on a bill may not be taken back. @param key what the bill's line was made from. */
export function billed({ state }: JobNow, key: string): Refusal | undefined {
  const bill = standingBills(state).find((b) => b.lines.some((l) => l.key === key));
  return bill ? conflict(texts.standsOnBill(bill.number)) : undefined;
}

export const billRule: Rule<"bill"> = { takeBack: ({ payload }) => conflict(texts.billIsCancelled(payload.number)) };

export const billCancelledRule: Rule<"bill-cancelled"> = {
  may({ payload }, { state }) {
    const bill = state.bills.find((b) => b.seq === payload.bill);
    return bill?.cancelled ? conflict(texts.cancelledAlready(bill.number, bill.cancelled.seq), "bill") : undefined;
  },
  takeBack: () => conflict(texts.cancelledStays()),
};

export const paymentRule: Rule<"payment"> = {
  may({ payload: { amount, on, what }, supersedes }, { state, settings }, { at }) {
    const back = what === "paid back";
    if (back ? amount >= 0 : amount <= 0) return impossible(back ? texts.paidBackBelowZero() : texts.paidAboveZero(), "amount");
    const today = shopDay(at, settings.timeZone);
    if (on > today) return impossible(texts.dayToCome(on, today), "on");
    const others = state.payments.filter((p) => supersedes === undefined || rootOf(state, p.seq) !== rootOf(state, supersedes));
    const paid = paidSoFar({ payments: others });
    return back && -amount > paid ? conflict(texts.moreThanPaid(formatMoney(paid, settings)), "amount") : undefined;
  },
  takeBack(stands, { state, settings }, _, by) {
    // A correction is asked as the payment that it becomes.
    if (by.type !== "undo") return undefined;
    const without = paidSoFar({ payments: state.payments.filter((p) => p.seq !== stands.seq) });
    return without < 0 ? conflict(texts.paidBackSince(formatMoney(-without, settings))) : undefined;
  },
};

/** What was asked and agreed to is not altered or struck: the yes was to what it said. */
function agreedTo({ state }: JobNow, line: number): Refusal | undefined {
  const q = questionsOf(state).find((each) => each.line === line);
  const yes = q?.before ?? (q?.stands === "yes" || q?.stands === "part" ? q.answer : undefined);
  return q && yes && yes.seq !== line ? conflict(texts.wasAgreedTo(yes.seq)) : undefined;
}

export const quoteRule: Rule<"quote"> = { takeBack: (stands, job) => agreedTo(job, stands.seq) };

/** An answer is to what was asked last, as it was asked: to a way that there is, on a day that has come, while a quote is valid. */
export const approvalRule: Rule<"approval"> = {
  may({ payload: { answer, asks, option, declined, on } }, { state, settings }, { at }) {
    const today = shopDay(at, settings.timeZone);
    if (on !== undefined && on > today) return impossible(texts.dayToCome(on, today), "on");
    if (answer === "asked" || asks === undefined) return undefined;
    const questions = questionsOf(state);
    const q = questions.find((each) => each.line === asks);
    if (!q) {
      const now = questions.find((each) => rootOf(state, each.line) === rootOf(state, asks));
      return conflict(now ? texts.askedAnew(now.line) : texts.notAsked(asks), "asks");
    }
    if (answer === "revoked") return q.stands === "yes" || q.stands === "part" ? undefined : conflict(texts.noYesToTakeBack(), "answer");
    if (answer === "no") return undefined;
    const ways = q.quote?.options.length ?? q.asked?.options?.length ?? 0;
    if (option !== undefined && option >= Math.max(1, ways)) return impossible(texts.noSuchWay(option + 1, Math.max(1, ways)), "option");
    const lines = q.quote?.options[option ?? 0]?.lines.length;
    const beyond = lines === undefined ? undefined : declined?.find((i) => i >= lines);
    if (beyond !== undefined) return impossible(texts.noSuchLine(beyond + 1, lines!), "declined");
    const until = q.quote?.validUntil;
    return until !== undefined && (on ?? today) > until ? conflict(texts.quoteExpired(until), "asks") : undefined;
  },
  takeBack(stands, job, _, by) {
    const { state } = job;
    const { answer, asks, option, declined, cost } = stands.payload;
    const q = questionsOf(state).find((each) => each.line === (asks ?? stands.seq));
    const asked = answer === "asked" ? agreedTo(job, stands.seq) : undefined;
    if (asked || !q || (answer !== "yes" && answer !== "part")) return asked;
    const to = by.type === "approval" ? (by.payload as Approval) : undefined;
    // Who said it, and in which words, can be put right at any time.
    const same = to && to.answer === answer && to.asks === asks && to.option === option && to.cost === cost;
    if (same && (to.declined ?? []).join() === (declined ?? []).join()) return undefined;
    const ways = q.quote?.options.flatMap((o) => o.lines.map((l) => l.key)) ?? [];
    const onBill = [`line ${q.line}`, ...ways].map((key) => key && billed(job, key)).find(Boolean);
    if (onBill) return onBill;
    const done = state.changes.find((c) => c.seq > stands.seq && isFitted(c) && coverageOf(state, c, c.seq).line === stands.seq);
    return done ? conflict(texts.workOnYes(done.position, done.seq)) : undefined;
  },
};

export const billLineRule: Rule<"bill-line"> = { takeBack: (stands, job) => billed(job, `line ${stands.seq}`) };
