/** A bill as paper. */

import type { Settings } from "../shop/settings";
import type { Bill, BillCancelled } from "../tape/events/money-events";
import type { Line } from "../tape/fold";
import * as texts from "../texts/papers";
import type { Block } from "./block";
import { shopDay } from "../shop/day";
import { billTable, moneyTable } from "./money-blocks";
import { paperTitle, type PaperOf } from "./paper-title";

/** @param due what is still owed of this bill; its total less what was paid before, unless given. */
export function billBlocks(of: PaperOf, bill: Line<Bill> & { cancelled?: Line<BillCancelled> }, settings: Settings, due?: number): Block[] {
  const { cancelled } = bill;
  return [
    paperTitle(of, texts.billFor(of.amp), settings, bill.on ?? bill.at),
    ...(cancelled
      ? [{ block: "text" as const, look: "strong" as const, text: texts.cancelledBill(cancelledOn(cancelled, settings), cancelled.why) }]
      : []),
    ...billTable({ ...bill, ...(cancelled ? { due: 0 } : due === undefined ? {} : { due }) }, settings),
  ];
}

const cancelledOn = (c: Line<BillCancelled>, { timeZone }: Settings) => c.on ?? shopDay(c.at, timeZone);

/** The credit note of a bill that was cancelled: it names the bill and takes all of it back. Undefined for a bill that stands. */
export function creditBlocks(of: PaperOf, bill: Line<Bill> & { cancelled?: Line<BillCancelled> }, settings: Settings): Block[] | undefined {
  const { cancelled } = bill;
  if (!cancelled) return undefined;
  const back = (amount: number) => (amount === 0 ? 0 : -amount);
  const sum = {
    ...bill.sum,
    net: back(bill.sum.net),
    taxes: bill.sum.taxes.map((t) => ({ ...t, base: back(t.base), amount: back(t.amount) })),
    rounding: back(bill.sum.rounding),
    total: back(bill.sum.total),
  };
  return [
    paperTitle(of, texts.creditFor(of.amp), settings, cancelledOn(cancelled, settings)),
    { block: "text", look: "strong", text: texts.creditNames(bill.number, bill.on ?? shopDay(bill.at, settings.timeZone), cancelled.why) },
    moneyTable(
      bill.lines.map((l) => ({ ...l, price: back(l.price), amount: back(l.amount) })),
      sum,
      settings,
    ),
  ];
}
