/** Lines of money as a table with their taxes and total: the same on a quote, a bill and the report. */

import { formatMoney, type MoneyForm } from "../money/amount";
import type { MoneyLine, MoneySum } from "../tape/events/money-events";
import { figure } from "../language/language";
import * as texts from "../texts/papers";
import type { Block, Cell, Column } from "./block";

const COLUMNS: Column[] = [
  { title: texts.forWhat, share: 5 },
  { title: texts.kind, share: 1.8 },
  { title: texts.pieces, share: 1.2, align: "right" },
  { title: texts.price, share: 1.8, align: "right" },
  { title: texts.amount, share: 2, align: "right" },
];

/** Pieces as they are read: hours of labour with two decimals at most. */
const pieces = (n: number): string => figure(String(Math.round(n * 100) / 100));

const row = (name: string, amount: string): Cell[] => [name, "", "", "", amount];

/** @param more rows after the total: what was paid, what is due. */
export function moneyTable(
  lines: readonly MoneyLine[],
  sum: MoneySum,
  form: MoneyForm,
  more: [name: string, amount: number][] = [],
): Block {
  const money = (amount: number) => formatMoney(amount, form);
  const tax = sum.taxes.map((t) => row(texts.taxRow(t.name, figure(t.percent), sum.included, money(t.base)), money(t.amount)));
  return {
    block: "table",
    columns: COLUMNS,
    rows: lines.map((l) => [
      l.text,
      l.kind,
      l.kind === "labour" ? texts.hours(pieces(l.pieces)) : pieces(l.pieces),
      money(l.price),
      money(l.amount),
    ]),
    totals: [
      // On top they come before the total; what the prices hold already is said after it.
      ...(sum.included ? [] : [...(tax.length > 0 ? [row(texts.net(), money(sum.net))] : []), ...tax]),
      ...(sum.rounding === 0 ? [] : [row(texts.rounding(), money(sum.rounding))]),
      row(texts.total(), money(sum.total)),
      ...(sum.included ? tax : []),
      ...more.map(([name, amount]) => row(name, money(amount))),
    ],
  };
}

/** A bill, or what a bill would be, under its heading. */
export interface BillToShow {
  /** None for one that is not made out. */
  number?: string;
  /** The amp went home without a bill of its own: what it came to stands as the bill. */
  final?: boolean;
  lines: readonly MoneyLine[];
  sum: MoneySum;
  differences: readonly string[];
  paid: number;
  /** What is still owed; undefined where nothing was paid and nothing is said of it. */
  due?: number;
  payBy?: string;
  warranty?: string;
}

export function billTable(bill: BillToShow, form: MoneyForm): Block[] {
  const more: [string, number][] = bill.paid === 0 ? [] : [[texts.paidAlready(), -bill.paid]];
  if (bill.due !== undefined && (bill.paid !== 0 || bill.due !== bill.sum.total))
    more.push(bill.due < 0 ? [texts.paidTooMuch(), -bill.due] : [texts.stillDue(), bill.due]);
  return [
    { block: "heading", text: bill.number ? texts.billNumber(bill.number) : bill.final ? texts.bill() : texts.billSoFar() },
    moneyTable(bill.lines, bill.sum, form, more),
    ...(bill.payBy && (bill.due ?? bill.sum.total) > 0 ? [{ block: "text" as const, text: texts.payBy(bill.payBy) }] : []),
    ...(bill.differences.length > 0
      ? [
          { block: "text" as const, look: "strong" as const, text: texts.differences() },
          { block: "list" as const, items: [...bill.differences] },
        ]
      : []),
    ...(bill.warranty ? [{ block: "text" as const, look: "small" as const, text: bill.warranty }] : []),
  ];
}
