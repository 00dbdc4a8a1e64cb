/** Amounts of money: rounded to the smallest coin, read as they are typed, written as the shop writes them. */

import Big from "big.js";
import { language } from "../language/language";
import type { Settings } from "../shop/settings";
import { MOST_MONEY } from "../tape/events/words";
import * as texts from "../texts/money";

/** How a shop writes its money. */
export type MoneyForm = Pick<Settings, "currency" | "decimal"> & { money: Pick<Settings["money"], "places" | "symbolFirst" | "thousands"> };

/** Rounded to so many decimals, halves away from zero: 1.005 to 1.01 and −1.005 to −1.01, whatever binary numbers make of them. */
export const roundTo = (value: Big.BigSource, places: number): number => plain(new Big(value).round(places, Big.roundHalfUp));

/** As a number; nothing is nothing, not less than nothing. */
const plain = (value: Big): number => value.toNumber() || 0;

/** Sum of amounts without the dust of binary numbers. */
export const sumOf = (amounts: readonly number[]): number => plain(amounts.reduce((sum, a) => sum.plus(a), new Big(0)));

/** `pieces` times `price`, rounded. @example times(3, 0.335, 2) // 1.01 */
export const times = (pieces: number, price: number, places: number): number => roundTo(new Big(pieces).times(price), places);

/** A part of an amount, rounded. @param percent 25 for a quarter. */
export const percentOf = (amount: number, percent: number, places: number): number =>
  roundTo(new Big(amount).times(percent).div(100), places);

/** The tax that is inside an amount which holds it: amount · p/(100 + p), rounded. */
export const taxWithin = (amount: number, percent: number, places: number): number =>
  roundTo(new Big(amount).times(percent).div(new Big(percent).plus(100)), places);

/** To the nearest whole step of `step` smallest coins, halves away from zero. */
export function toCash(amount: number, step: number, places: number): number {
  const coin = new Big(10).pow(-places).times(step);
  return plain(new Big(amount).div(coin).round(0, Big.roundHalfUp).times(coin));
}

/**
 * An amount as the shop writes it.
 * @example formatMoney(-1234.5, form) // "−1 234.50 kr"; with the currency first and a comma: "kr −1.234,50"
 */
export function formatMoney(amount: number, { currency, decimal, money: { places, symbolFirst, thousands } }: MoneyForm): string {
  const [whole = "0", part] = new Big(amount).abs().toFixed(places, Big.roundHalfUp).split(".");
  const grouped = thousands === "" ? whole : whole.replace(/\B(?=(\d{3})+$)/g, thousands === " " ? "\u00a0" : thousands);
  const sign = amount < 0 && Number(`${whole}.${part ?? 0}`) !== 0 ? "−" : "";
  const number = `${sign}${grouped}${part === undefined ? "" : `${decimal}${part}`}`;
  return (symbolFirst ? `${currency}\u00a0${number}` : `${number}\u00a0${currency}`).trim();
}

export type ReadAmount = { ok: true; amount: number } | { ok: false; why: string };

/**
 * An amount as somebody types it: with the decimal sign of the shop, or the other one where it can be nothing else; thousands apart by
 * blanks, apostrophes, or the sign that is not the decimal one. "1,234" in a shop with a decimal point could be either, and is refused.
 * @param least the least that is accepted; 0 unless given.
 */
export function readAmount(text: string, places: number, least = 0): ReadAmount {
  const { decimal } = language();
  const no = (why: string): ReadAmount => ({ ok: false, why });
  const accepted = `12${decimal}50`;
  const read = text.trim().replace(/[−–]/g, "-");
  if (read === "") return no(texts.amountMissing(accepted));
  const match = /^(-?)([\d.,'’\s\u00a0\u202f]+)$/.exec(read);
  if (!match) return no(texts.amountNotRead(text.trim(), accepted));
  const figures = match[2]!.replace(/['’\s\u00a0\u202f]/g, "");
  const other = decimal === "." ? "," : ".";
  const groups = new RegExp(`^\\d{1,3}(\\${other}\\d{3})+(\\${decimal}\\d+)?$`);
  let plain: string;
  if (!figures.includes(other)) plain = figures.replace(decimal, ".");
  // Several groups, or groups before the decimal sign, can only be thousands.
  else if (groups.test(figures) && (figures.split(other).length > 2 || figures.includes(decimal)))
    plain = figures.replaceAll(other, "").replace(decimal, ".");
  else if (groups.test(figures)) return no(texts.amountTwoWays(text.trim(), figures.replace(other, ""), figures.replace(other, decimal)));
  else plain = figures.includes(decimal) ? "" : figures.replace(other, ".");
  if (!/^\d+(\.\d*)?$|^\.\d+$/.test(plain)) return no(texts.amountNotRead(text.trim(), accepted));
  const exact = new Big(plain.replace(/\.$/, "").replace(/^\./, "0."));
  if (exact.c.length - 1 - exact.e > places) return no(texts.amountTooFine(text.trim(), places));
  const amount = (match[1] === "-" ? exact.neg() : exact).toNumber();
  if (amount < least) return no(least === 0 ? texts.amountNegative(text.trim()) : texts.amountTooSmall(text.trim(), least));
  if (amount > MOST_MONEY) return no(texts.amountTooLarge(text.trim()));
  return { ok: true, amount };
}
