/** Rules of money: what stands on a bill is not struck, a bill is cancelled and never undone. */

import { standingBills } from "../money/bill";
import { conflict, type JobNow, type Refusal, type Rule } from "./refusal";
import * as texts from "../texts/allowed";

/** Why a line that is on a bill may not be taken back. @param key what the bill's line was made from. */
export function billed({ state }: JobNow, key: string): Refusal | undefined {
  const bill = standingBills(state).find((b) => b.lines.some((l) => l.key === key));
  return bill ? conflict(texts.standsOnBill(bill.number)) : undefined;
}

export const billRule: Rule<"bill"> = { takeBack: ({ payload }) => conflict(texts.billIsCancelled(payload.number)) };

export const billCancelledRule: Rule<"bill-cancelled"> = { takeBack: () => conflict(texts.cancelledStays()) };

export const billLineRule: Rule<"bill-line"> = { takeBack: (stands, job) => billed(job, `line ${stands.seq}`) };
