/** Bills and payments of a shop as rows for its bookkeeping. */

import { group } from "d3-array";
import type { BillKind } from "../shop/bill-kinds";
import type { MoneyLine, MoneySum, TaxLine } from "../tape/events/money-events";
import type { JobState } from "../tape/fold";
import { percentOf, roundTo, sumOf, taxWithin } from "./amount";

/** What a job's bills and payments are, as it is kept beside the tape. */
export interface Booked {
  bills: { number: string; on: string; lines?: Pick<MoneyLine, "kind" | "amount">[]; sum: MoneySum; cancelled?: string }[];
  payments: { on: string; amount: number; what: string; means: string }[];
}

const isBooked = ({ broughtIn, booksTaken }: Pick<JobState, "broughtIn" | "booksTaken">, line: { seq: number }): boolean =>
  line.seq > broughtIn || booksTaken > broughtIn;

/** Days are those of the shop, by the server's clock; of tapes of before, the bench's, UTC. What came in an archive is in the books only when the owner of this shop has said so. */
export const bookedOf = (state: Pick<JobState, "bills" | "payments" | "broughtIn" | "booksTaken">): Booked => ({
  bills: state.bills
    .filter((b) => isBooked(state, b))
    .map((b) => ({
      number: b.number,
      on: b.on ?? b.at.slice(0, 10),
      lines: b.lines.map(({ kind, amount }) => ({ kind, amount })),
      sum: b.sum,
      ...(b.cancelled ? { cancelled: b.cancelled.on ?? b.cancelled.at.slice(0, 10) } : {}),
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

interface BillPart {
  net: number;
  tax?: TaxLine;
  amount: number;
}

/** What a bill comes to, by the lines that have the same taxes: their sum is the bill's, whatever stands on what. */
function billParts({ lines, sum }: Booked["bills"][number], places: number): BillPart[] {
  // Of before: which lines a tax stood on is not known.
  if (lines === undefined || sum.taxes.some((t) => t.on === undefined))
    return [{ net: sum.net, amount: 0 }, ...sum.taxes.map((tax): BillPart => ({ net: 0, tax, amount: tax.amount }))];
  const taxesOf = (kind: BillKind) => sum.taxes.filter((t) => t.on!.includes(kind));
  const left = new Map(sum.taxes.map((t) => [t, t.amount]));
  const groups = [
    ...group(lines, (l) =>
      taxesOf(l.kind)
        .map((t) => sum.taxes.indexOf(t))
        .join(),
    ),
  ];
  const out = groups.flatMap(([key, own], i): BillPart[] => {
    const all = sumOf(own.map((l) => l.amount));
    const taxes = key === "" ? [] : key.split(",").map((at) => sum.taxes[Number(at)]!);
    if (taxes.length === 0) return [{ net: all, amount: 0 }];
    const together = sumOf(taxes.map((t) => t.percent));
    const shares = taxes.map((tax) => {
      // Each tax is rounded once for the whole bill: the last lines that it stands on have what is left of it.
      const last = !groups.slice(i + 1).some(([other]) => other.split(",").includes(String(sum.taxes.indexOf(tax))));
      const share = sum.included
        ? roundTo((taxWithin(all, together, places + 4) * tax.percent) / together, places)
        : percentOf(all, tax.percent, places);
      const amount = last ? left.get(tax)! : share;
      left.set(tax, sumOf([left.get(tax)!, -amount]));
      return { tax, amount };
    });
    const net = sum.included ? sumOf([all, ...shares.map((s) => -s.amount)]) : all;
    // Several taxes on one net: it is booked once.
    return shares.map((s, at) => ({ net: at === 0 ? net : 0, ...s }));
  });
  return out.length > 0 ? out : [{ net: 0, amount: 0 }];
}

/**
 * One row for the lines of a bill with the same taxes and each of their rates, so that each can be booked to its account; the first row of
 * a bill carries its rounding. A bill that was cancelled stands twice, the second time with its sign turned. Amounts with a point, whatever the shop writes.
 */
export function bookRows(job: number, owner: string, { bills, payments }: Booked, places: number): BookRow[] {
  const money = (amount: number) => amount.toFixed(places).replace(/^-(0(\.0*)?)$/, "$1");
  const row = (fields: Partial<BookRow>): BookRow => ({
    ...(Object.fromEntries(BOOK_COLUMNS.map((c) => [c, ""])) as BookRow),
    job: String(job),
    owner,
    ...fields,
  });
  const bill = (b: Booked["bills"][number], on: string, kind: string, sign: 1 | -1): BookRow[] =>
    billParts(b, places).map(({ net, tax, amount }, i) => {
      const rounding = i === 0 ? b.sum.rounding : 0;
      return row({
        date: on,
        kind,
        number: b.number,
        net: money(sign * net),
        tax: money(sign * amount),
        "tax name": tax?.name ?? "",
        "tax percent": tax ? String(tax.percent) : "",
        rounding: money(sign * rounding),
        total: money(sign * sumOf([net, amount, rounding])),
      });
    });
  return [
    ...bills.flatMap((b) => [...bill(b, b.on, "bill", 1), ...(b.cancelled ? bill(b, b.cancelled, "cancelled", -1) : [])]),
    ...payments.map((p) => row({ date: p.on, kind: p.what, total: money(p.amount), means: p.means })),
  ].sort((a, b) => a.date.localeCompare(b.date));
}
