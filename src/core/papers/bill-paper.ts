/** A bill as paper. */

import type { Settings } from "../shop/settings";
import type { Bill, BillCancelled } from "../tape/events/money-events";
import type { Line } from "../tape/fold";
import * as texts from "../texts/papers";
import type { Block } from "./block";
import { billTable } from "./money-blocks";
import { paperTitle, type PaperOf } from "./paper-title";

/** @param due what is still owed of this bill; its total less what was paid before, unless given. */
export function billBlocks(of: PaperOf, bill: Line<Bill> & { cancelled?: Line<BillCancelled> }, settings: Settings, due?: number): Block[] {
  return [
    paperTitle(of, texts.billFor(of.amp), settings, bill.at),
    ...(bill.cancelled
      ? [{ block: "text" as const, look: "strong" as const, text: texts.cancelledBill(bill.cancelled.at.slice(0, 10), bill.cancelled.why) }]
      : []),
    ...billTable({ ...bill, ...(due === undefined ? {} : { due }) }, settings),
  ];
}
