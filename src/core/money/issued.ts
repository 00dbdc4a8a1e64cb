/**
 * What a shop gives out is made where it is stored: number, lines, sum and days of a bill, the days of a quote. What a screen sends is held
 * against it, and where the two differ it is refused with both figures: somebody has looked at something else than what would go out.
 */

import Big from "big.js";
import { tasksOf } from "../repair/tasks";
import { addDays, shopDay } from "../shop/day";
import type { Settings } from "../shop/settings";
import type { Bill, MoneyLine, MoneySum, Quote } from "../tape/events/money-events";
import type { JobState } from "../tape/fold";
import * as texts from "../texts/money";
import { formatMoney, roundTo, times } from "./amount";
import { billDraft } from "./bill";
import { billIssued } from "./bill-acts";
import { moneySum } from "./sum";

/** As it is stored, or why it is not. */
export type Issued<T> = { payload: T } | { differs: string };

/** The bill of a job as it stands now, under its number. @param now milliseconds since 1970, by the server's clock */
export function billToStore(sent: Bill, number: string, state: JobState, settings: Settings, now: number): Issued<Bill> {
  const draft = billDraft(state, tasksOf(state, now), settings, now);
  if (draft.lines.length === 0) return { differs: texts.nothingToBill() };
  const { payload } = billIssued(number, draft, settings, now);
  const money = (amount: number) => formatMoney(amount, settings);
  if (sent.sum.total !== payload.sum.total) return { differs: texts.billDiffers(money(sent.sum.total), money(payload.sum.total)) };
  if (sent.paid !== payload.paid) return { differs: texts.paidDiffers(money(sent.paid), money(payload.paid)) };
  const unlike = payload.lines.find((l, i) => !sameLine(l, sent.lines[i]));
  if (unlike !== undefined || sent.lines.length !== payload.lines.length)
    return { differs: texts.lineDiffers(unlike ? `${unlike.text} ${money(unlike.amount)}` : String(payload.lines.length)) };
  return { payload };
}

const sameLine = (a: MoneyLine, b: MoneyLine | undefined) =>
  b !== undefined && a.key === b.key && a.text === b.text && a.kind === b.kind && a.amount === b.amount && a.minutes === b.minutes;

/** A quote with its days; each line, each sum worked out again. @param now milliseconds since 1970, by the server's clock */
export function quoteToStore(sent: Quote, settings: Settings, now: number): Issued<Quote> {
  for (const { name, lines, sum } of sent.options) {
    const problem = lines.map((l) => lineProblem(l, settings)).find(Boolean) ?? sumProblem(lines, sum, settings);
    if (problem) return { differs: `${name}: ${problem}` };
  }
  const on = shopDay(now, settings.timeZone);
  return { payload: { ...sent, on, validUntil: addDays(on, settings.money.quoteDays) } };
}

/** An amount that is not its pieces at their price; of labour its minutes by the hour. Undefined where it is. */
export function lineProblem(l: MoneyLine, settings: Settings): string | undefined {
  const { places } = settings.money;
  const worth =
    l.kind === "labour" && l.minutes !== undefined
      ? roundTo(new Big(l.minutes).times(l.price).div(60), places)
      : times(l.pieces, l.price, places);
  if (worth === l.amount) return undefined;
  return texts.lineDoesNotMultiply(l.text, formatMoney(l.amount, settings), formatMoney(worth, settings));
}

/** A sum that is not that of its lines by the taxes and the coins of the shop. Undefined where it is. */
export function sumProblem(lines: readonly MoneyLine[], sum: MoneySum, settings: Settings): string | undefined {
  const right = moneySum(lines, settings.money);
  const money = (amount: number) => formatMoney(amount, settings);
  if (sum.total !== right.total) return texts.totalDiffers(money(sum.total), money(right.total));
  const taxes = (s: MoneySum) => s.taxes.map((t) => `${t.name} ${t.percent} % ${money(t.amount)}`).join(", ");
  if (taxes(sum) !== taxes(right)) return texts.taxesDiffer(taxes(sum) || "–", taxes(right) || "–");
  if (sum.net !== right.net || sum.rounding !== right.rounding) return texts.totalDiffers(money(sum.net), money(right.net));
  return undefined;
}
