/** What work and parts cost the owner, by the shop's rates. */

import Big from "big.js";
import { formatDuration } from "../quantity/format";
import type { Settings } from "../shop/settings";
import type { MoneyLine } from "../tape/events/money-events";
import * as texts from "../texts/money";
import { percentOf, roundTo, sumOf, times } from "./amount";

type Rates = Pick<Settings["money"], "places" | "hourly" | "stepMinutes" | "marginPercent">;

/** Minutes as they are billed: whole steps, each that was begun. */
export const billedMinutes = (minutes: number, step: number): number => Math.ceil(Math.max(0, minutes) / step) * step;

/** A line of labour: hours times the hourly rate, rounded. @param minutes as worked or planned. */
export function labourLine(text: string, minutes: number, rates: Rates): MoneyLine {
  const billed = billedMinutes(minutes, rates.stepMinutes);
  return {
    text: texts.labourFor(text, formatDuration(billed * 60)),
    kind: "labour",
    pieces: roundTo(new Big(billed).div(60), 4),
    price: rates.hourly,
    amount: roundTo(new Big(billed).times(rates.hourly).div(60), rates.places),
    minutes: billed,
  };
}

/** What one part costs the owner: what it costs the shop with the margin on it, rounded. */
export const partPrice = (cost: number, { marginPercent, places }: Rates): number =>
  roundTo(sumOf([cost, percentOf(cost, marginPercent, places + 4)]), places);

/** @param cost of one, to the shop. */
export function partLine(text: string, pieces: number, cost: number, rates: Rates): MoneyLine {
  const price = partPrice(cost, rates);
  return { text, kind: "parts", pieces, price, amount: times(pieces, price, rates.places) };
}

export const fixedLine = (text: string, price: number): MoneyLine => ({ text, kind: "fixed price", pieces: 1, price, amount: price });
