/** Bills and payments of a shop as rows for its bookkeeping. */

import type { MoneySum } from "../tape/events/money-events";
import type { JobState } from "../tape/fold";
import { sumOf } from "./amount";

/** What a job's bills and payments are, as it is kept beside the tape. */
export interface Booked {
  bills: { number: string; on: string; sum: MoneySum; cancelled?: string }[];
  payments: { on: string; amount: number; what: string; means: string }[];
}

const isBooked = ({ broughtIn, booksTaken }: Pick<JobState, "broughtIn" | "booksTaken">, line: { seq: number }): boolean =>
  line.seq > broughtIn || booksTaken > broughtIn;

/** Days are those of the bench's clock, UTC. What came in an archive is in the books only when the owner of this shop has said so. */
export const bookedOf = (state: Pick<JobState, "bills" | "payments" | "broughtIn" | "booksTaken">): Booked => ({
  bills: state.bills
    .filter((b) => isBooked(state, b))
    .map((b) => ({
      number: b.number,
      on: b.at.slice(0, 10),
      sum: b.sum,
      ...(b.cancelled ? { cancelled: b.cancelled.at.slice(0, 10) } : {}),
    })),
  payments: state.payments.filter((p) => isBooked(state, p)).map(({ on, amount, what, means }) => ({ on, amount, what, means })),
});

export const BOOK_COLUMNS = [
  "date",
  "kind",
  "number",
  "job",
  "owner",
  "net",
  "tax",
  "tax name",
  "tax percent",
  "rounding",
  "total",
  "means",
] as const;
export type BookRow = Record<(typeof BOOK_COLUMNS)[number], string>;

/**
 * One row a tax rate of a bill, so that each can be booked to its account; the first row of a bill carries what no tax stands on and the
 * rounding. A bill that was cancelled stands twice, the second time with its sign turned. Amounts with a point, whatever the shop writes.
 */
export function bookRows(job: number, owner: string, { bills, payments }: Booked, places: number): BookRow[] {
  const money = (amount: number) => amount.toFixed(places).replace(/^-(0(\.0*)?)$/, "$1");
  const row = (fields: Partial<BookRow>): BookRow => ({
    ...(Object.fromEntries(BOOK_COLUMNS.map((c) => [c, ""])) as BookRow),
    job: String(job),
    owner,
    ...fields,
  });
  const bill = (b: Booked["bills"][number], on: string, kind: string, sign: 1 | -1): BookRow[] => {
    const taxes = b.sum.taxes.length > 0 ? b.sum.taxes : [{ name: "", percent: 0, base: b.sum.net, amount: 0 }];
    const untaxed = sumOf([b.sum.net, ...taxes.map((t) => -t.base)]);
    return taxes.map((t, i) => {
      // Several taxes on one base: the base is booked once.
      const repeats = untaxed < 0 && i > 0;
      const net = repeats ? 0 : i === 0 && untaxed > 0 ? sumOf([t.base, untaxed]) : t.base;
      const rounding = i === 0 ? b.sum.rounding : 0;
      return row({
        date: on,
        kind,
        number: b.number,
        net: money(sign * net),
        tax: money(sign * t.amount),
        "tax name": t.name,
        "tax percent": t.name ? String(t.percent) : "",
        rounding: money(sign * rounding),
        total: money(sign * sumOf([net, t.amount, rounding])),
      });
    });
  };
  return [
    ...bills.flatMap((b) => [...bill(b, b.on, "bill", 1), ...(b.cancelled ? bill(b, b.cancelled, "cancelled", -1) : [])]),
    ...payments.map((p) => row({ date: p.on, kind: p.what, total: money(p.amount), means: p.means })),
  ].sort((a, b) => a.date.localeCompare(b.date));
}
