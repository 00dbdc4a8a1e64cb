/** What is billed and paid, as lines of the tape: one builder for each act. */

import { addDays, shopDay } from "../shop/day";
import { DEFAULT_SETTINGS, type Settings } from "../shop/settings";
import { said } from "../tape/said";
import type { EventDraft } from "../tape/events/event";
import type { Quote } from "../tape/events/money-events";
import * as texts from "../texts/money";
import type { BillDraft } from "./bill";

/** Longest difference of a bill from what was agreed. */
const LONGEST = 500;

/** What a shop's papers are dated and worded by. */
type Terms = Pick<Settings, "timeZone"> & { money: Pick<Settings["money"], "payDays" | "quoteDays" | "warranty"> };

/** A bill is made out of its draft. @param now milliseconds since 1970; the day on which it is to be paid counts from it. */
export function billIssued(
  number: string,
  draft: BillDraft,
  { timeZone, money: { payDays, warranty } }: Terms,
  now: number,
): EventDraft<"bill"> {
  const on = shopDay(now, timeZone);
  return {
    type: "bill",
    payload: {
      number,
      on,
      lines: draft.lines,
      sum: draft.sum,
      differences: draft.differences.map((d) => d.slice(0, LONGEST)),
      paid: draft.paid,
      payBy: addDays(on, payDays),
      ...(warranty ? { warranty } : {}),
    },
  };
}

/** A quote of one way or several. @param now milliseconds since 1970; it is valid for the shop's days from then on. */
export function quoteMade(
  options: Quote["options"],
  { timeZone, money: { quoteDays } }: Terms,
  now: number,
  { deposit = 0, note }: Pick<Quote, "deposit" | "note"> = {},
): EventDraft<"quote"> {
  const on = shopDay(now, timeZone);
  return {
    type: "quote",
    payload: {
      options: options.map((o) => said(o)),
      on,
      validUntil: addDays(on, quoteDays),
      ...(deposit > 0 ? { deposit } : {}),
      ...said({ note }),
    },
  };
}

/**
 * What a bill should not go out with or without: asked before it is made out. Empty where nothing is amiss.
 * @param earlier bills before it. @param soaking whether a settling run goes on: the work may not be done.
 */
export function billDoubts(
  { sum }: Pick<BillDraft, "sum">,
  settings: Pick<Settings, "shopName" | "currency" | "money">,
  earlier: number,
  soaking = false,
): string[] {
  const doubts = [...(sum.total === 0 ? [texts.billOfNothing()] : []), ...(soaking ? [texts.billWhileSoaking()] : [])];
  // Who has billed without them before has meant it.
  if (earlier > 0) return doubts;
  if (settings.shopName.trim() === "" || settings.shopName === DEFAULT_SETTINGS.shopName) doubts.push(texts.shopWithoutName());
  if (settings.currency.trim() === "" || settings.currency === DEFAULT_SETTINGS.currency) doubts.push(texts.shopWithoutCurrency());
  if (settings.money.taxes.length === 0) doubts.push(texts.billWithoutTax());
  return doubts;
}
