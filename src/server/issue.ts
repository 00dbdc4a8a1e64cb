/** Bills and quotes as they are stored: made by the server, numbered in the transaction that stores them, dated by its clock. */

import { billNumber } from "@/core/money/bill";
import { billToStore, quoteToStore, type Issued } from "@/core/money/issued";
import { shopDay } from "@/core/shop/day";
import type { Settings } from "@/core/shop/settings";
import { is, type JobEvent } from "@/core/tape/events/event";
import { foldJob } from "@/core/tape/fold";
import type { Sql } from "./database";
import { UserError } from "./errors";

/**
 * Puts what the shop gives out in place of what was sent; other lines stay as they are.
 * @param tape the lines before it. @param now milliseconds since 1970, by which it is dated. @throws UserError 409 where the two do not agree.
 */
export async function issue(
  sql: Sql,
  jobId: number,
  event: JobEvent,
  tape: JobEvent[],
  settings: Settings,
  now = Date.now(),
): Promise<void> {
  if (is(event, "bill")) {
    const state = foldJob(tape);
    const number = settings.money.billNumbers === "shop" ? await nextNumber(sql, jobId) : billNumber(jobId, state);
    event.payload = agreed(billToStore(event.payload, number, state, settings, now));
  } else if (is(event, "quote")) event.payload = agreed(quoteToStore(event.payload, settings, now));
  else if (is(event, "bill-cancelled")) event.payload = { ...event.payload, on: shopDay(now, settings.timeZone) };
}

function agreed<T>(issued: Issued<T>): T {
  if ("differs" in issued) throw new UserError(409, issued.differs, [{ message: issued.differs }]);
  return issued.payload;
}

/** The next number of the shop. It is taken with the bill or not at all: a transaction that fails leaves no gap. */
async function nextNumber(sql: Sql, jobId: number): Promise<string> {
  // Two bills of two jobs at once must not be given one number.
  await sql.query("lock table bill_numbers in exclusive mode");
  const [row] = await sql.query<{ number: number }>(
    "insert into bill_numbers (number, job_id) select coalesce(max(number), 0) + 1, $1 from bill_numbers returning number",
    [jobId],
  );
  return String(row!.number);
}
