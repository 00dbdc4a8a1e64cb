/** Rules of money: what stands on a bill is not struck, a bill is cancelled and never undone. */

import { formatMoney } from "../money/amount";
import { paidSoFar, standingBills } from "../money/bill";
import { questionsOf } from "../repair/questions";
import { shopDay } from "../shop/day";
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
};

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
};

export const billLineRule: Rule<"bill-line"> = { takeBack: (stands, job) => billed(job, `line ${stands.seq}`) };
