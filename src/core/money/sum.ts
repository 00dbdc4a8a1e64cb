/** The sum of lines with its taxes: the rounding rules in one place. */

import { group } from "d3-array";
import type { Settings } from "../shop/settings";
import type { MoneyLine, MoneySum } from "../tape/events/money-events";
import { percentOf, sumOf, taxWithin, toCash } from "./amount";

/**
 * Taxes are reckoned on the sum of the lines of their kinds, not line by line, and rounded once each, halves away from zero. Where prices
 * hold them, several rates on one line are taken from what is left without any: base · p/(100 + all p). The total is rounded to what can
 * be paid.
 */
export function moneySum(
  lines: readonly Pick<MoneyLine, "kind" | "amount">[],
  { places, taxes, pricesIncludeTax, cashStep }: Pick<Settings["money"], "places" | "taxes" | "pricesIncludeTax" | "cashStep">,
): MoneySum {
  const all = sumOf(lines.map((l) => l.amount));
  const taxed = taxes.flatMap((t) => {
    const own = lines.filter((l) => t.on.includes(l.kind));
    if (own.length === 0 || t.percent === 0) return [];
    if (!pricesIncludeTax) {
      const base = sumOf(own.map((l) => l.amount));
      return [{ name: t.name, percent: t.percent, base, on: t.on, amount: percentOf(base, t.percent, places) }];
    }
    // By sets of rates that meet on a line: what they take together is shared out by rate.
    const bySet = group(own, (l) => sumOf(taxes.filter((x) => x.on.includes(l.kind)).map((x) => x.percent)));
    const parts = [...bySet].map(([together, here]) => {
      const gross = sumOf(here.map((l) => l.amount));
      const within = taxWithin(gross, together, places + 4);
      return { net: sumOf([gross, -within]), tax: (within * t.percent) / together };
    });
    const amount = percentOf(sumOf(parts.map((p) => p.tax)), 100, places);
    return [{ name: t.name, percent: t.percent, base: percentOf(sumOf(parts.map((p) => p.net)), 100, places), on: t.on, amount }];
  });
  const tax = sumOf(taxed.map((t) => t.amount));
  const gross = pricesIncludeTax ? all : sumOf([all, tax]);
  const total = toCash(gross, cashStep, places);
  return {
    net: pricesIncludeTax ? sumOf([all, -tax]) : all,
    taxes: taxed,
    included: pricesIncludeTax,
    rounding: sumOf([total, -gross]),
    total,
  };
}
