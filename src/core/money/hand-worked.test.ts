/**
 * Jobs worked by hand: the lines of each and the bill that a bookkeeper would write, to the coin. An hour is 60, billed in quarters begun;
 * parts cost the owner half as much again as the shop.
 */

import fc from "fast-check";
import "@/fixed-draws-for-tests";
import { tasksOf } from "../repair/tasks";
import { DEFAULT_SETTINGS, type Settings } from "../shop/settings";
import type { EventDraft } from "../tape/events/event";
import { foldJob } from "../tape/fold";
import { at, tape } from "../tape/tape-for-tests";
import { sumOf } from "./amount";
import { billDraft, owed } from "./bill";
import { billIssued } from "./bill-acts";
import { bookedOf, bookRows } from "./bookkeeping";
import { quoteOption } from "./quote";

const NOW = at(100_000);
const shop = (money: Partial<Settings["money"]> = {}): Settings => ({
  ...DEFAULT_SETTINGS,
  timeZone: "UTC",
  currency: "kr",
  money: { ...DEFAULT_SETTINGS.money, hourly: 60, stepMinutes: 15, marginPercent: 50, ...money },
});
const ALL = ["labour", "parts", "fixed price", "other"] as const;
const tax = (name: string, percent: number, ...on: (typeof ALL)[number][]) => ({ name, percent, on: on.length > 0 ? on : [...ALL] });

const stateOf = (drafts: readonly EventDraft[]) => foldJob(tape(...drafts.map((d, i): [number, EventDraft] => [i, d])));
const draftOf = (drafts: readonly EventDraft[], settings: Settings) => {
  const state = stateOf(drafts);
  return billDraft(state, tasksOf(state, NOW), settings, NOW);
};
const planned = (position: string, minutes: number, more: object = {}): EventDraft => ({
  type: "planned",
  payload: { position, what: "renew", phase: "power off", from: "technician", minutes, reversible: true, ...more },
});
const part = (cost: number, name: string) => ({ parts: [{ text: name, pieces: 1, cost, state: "in stock" }] });
const fitted = (position: string, more: object = {}): EventDraft => ({
  type: "change",
  payload: { position, kind: "replacement", newPart: `new ${position}`, reversible: true, ...more },
});
const worked = (minutes: number, task?: number): EventDraft => ({ type: "time", payload: { minutes, ...(task ? { planned: task } : {}) } });
const byHand = (amount: number, kind: (typeof ALL)[number] = "labour", text = "by hand"): EventDraft => ({
  type: "bill-line",
  payload: { text, amount, kind },
});
const answer = (asks: number, how: "yes" | "no" | "part" | "revoked", more: object = {}): EventDraft => ({
  type: "approval",
  payload: { what: "quote", answer: how, asks, on: "2026-03-02", by: "telephone", ...more },
});
const asked = (what: string, cost: number): EventDraft => ({ type: "approval", payload: { what, cost, answer: "asked" } });
/** A quote of ways, each of the tasks of those lines. */
const quote = (before: EventDraft[], ...ways: number[][]): EventDraft => {
  const tasks = tasksOf(stateOf(before), NOW);
  return {
    type: "quote",
    payload: { options: ways.map((tasks_, i) => quoteOption({ name: `Way ${i + 1}`, tasks: tasks_ }, tasks, shop().money)) },
  };
};
const paid = (amount: number, what: "payment" | "deposit" | "paid back" = "payment"): EventDraft => ({
  type: "payment",
  payload: { amount, on: "2026-03-02", means: "card", what },
});
/** The bill of what stands before it, made out. */
const made = (before: EventDraft[], settings: Settings, number = "1-1"): EventDraft =>
  billIssued(number, draftOf(before, settings), settings, NOW) as EventDraft;

const two = [planned("C6", 30, part(2, "22n")), planned("C7", 15, part(4, "47n"))];
const bare = [planned("C6", 30)];

interface Job {
  name: string;
  money?: Partial<Settings["money"]>;
  lines: EventDraft[];
  amounts: number[];
  total: number;
  /** Each has to be said, in its words. */
  says?: RegExp[];
  due?: number;
}

const JOBS: Job[] = [
  { name: "40 minutes: three quarters are begun", lines: [worked(40)], amounts: [45], total: 45, says: [/There was no quote/] },
  { name: "a part of 2 and 20 minutes with it", lines: [fitted("C6", { cost: 2, minutes: 20 })], amounts: [3, 30], total: 33 },
  {
    name: "a quote accepted and done",
    lines: [
      ...two,
      quote(two, [1, 2]),
      answer(3, "yes"),
      fitted("C6", { planned: 1, newPart: "22n" }),
      fitted("C7", { planned: 2, newPart: "47n" }),
    ],
    amounts: [30, 3, 15, 6],
    total: 54,
    says: [],
  },
  {
    name: "the owner declines only the part: its labour is billed as quoted and not by the hour beside it",
    lines: [
      ...two,
      quote(two, [1, 2]),
      answer(3, "part", { declined: [1] }),
      fitted("C6", { planned: 1, unagreed: "he brought the part himself" }),
      worked(30, 1),
      fitted("C7", { planned: 2 }),
    ],
    amounts: [30, 15, 6],
    total: 51,
    says: [/22n for C6: declined by you/, /new C6 for C6: done without being asked/],
  },
  {
    name: "an agreed price holds its own time",
    lines: [asked("C6: renew it", 50), answer(1, "yes"), fitted("C6", { minutes: 20 })],
    amounts: [50],
    total: 50,
  },
  {
    name: "the cheaper way accepted, and a task outside it done: by time and parts, and said",
    lines: [
      ...two,
      quote(two, [1, 2], [1]),
      answer(3, "yes", { option: 1 }),
      fitted("C6", { planned: 1 }),
      worked(15, 2),
      fitted("C7", { planned: 2, cost: 4 }),
    ],
    amounts: [30, 3, 6, 15],
    total: 54,
    says: [/C7: renew: not in what you accepted/],
  },
  {
    name: "a part with a cost of its own under a task that was quoted without one: in the price, and said",
    lines: [...bare, quote(bare, [1]), answer(2, "yes"), fitted("C6", { planned: 1, cost: 4 })],
    amounts: [30],
    total: 30,
    says: [/new C6 for C6 \(6\.00.kr\): in the agreed price/],
  },
  {
    name: "a fixed price, and twice the time that was planned: the price, and said",
    lines: [planned("tests", 30, { fixedPrice: 45 }), worked(60, 1), { type: "planned-ended", payload: { planned: 1, how: "done" } }],
    amounts: [45],
    total: 45,
    says: [/took 1 h, planned for 30 min; billed at its fixed price/],
  },
  {
    name: "bench time beside a quote is in it, and said",
    lines: [...bare, quote(bare, [1]), answer(2, "yes"), fitted("C6", { planned: 1 }), worked(25)],
    amounts: [30],
    total: 30,
    says: [/25 min of bench time on no task: in the quote/],
  },
  { name: "tax inside: 125 holds 25", money: { taxes: [tax("VAT", 25)] }, lines: [byHand(125)], amounts: [125], total: 125 },
  {
    name: "tax on top: 100 and 25",
    money: { taxes: [tax("VAT", 25)], pricesIncludeTax: false },
    lines: [byHand(100)],
    amounts: [100],
    total: 125,
  },
  {
    // GST 5 % of 300 is 15, PST 7 % of the parts, 200, is 14.
    name: "GST on all, PST on parts",
    money: { taxes: [tax("GST", 5), tax("PST", 7, "parts")], pricesIncludeTax: false },
    lines: [byHand(100), byHand(200, "parts")],
    amounts: [100, 200],
    total: 329,
  },
  {
    // 15 min of 5001 are 1250.25, and there are no cents; a tenth of 1250 is 125.
    name: "a currency without cents",
    money: { places: 0, hourly: 5001, taxes: [tax("VAT", 10)], pricesIncludeTax: false },
    lines: [worked(15)],
    amounts: [1250],
    total: 1375,
  },
  { name: "cash by five hundredths", money: { cashStep: 5 }, lines: [byHand(10.03)], amounts: [10.03], total: 10.05 },
  { name: "a deposit of 20 before 45", lines: [paid(20, "deposit"), worked(40)], amounts: [45], total: 45, due: 25 },
  {
    name: "a quote that was declined is not one that never was",
    lines: [...bare, quote(bare, [1]), answer(2, "no"), byHand(10, "other", "a look")],
    amounts: [10],
    total: 10,
    says: [/^You did not accept the quote/],
  },
];

test.each(JOBS.map((j) => [j.name, j] as const))("%s", (_, { lines, money, amounts, total, says, due }) => {
  const bill = draftOf(lines, shop(money));
  expect(bill.lines.map((l) => l.amount)).toEqual(amounts);
  expect(bill.sum.total).toBe(total);
  for (const words of says ?? []) expect(bill.differences).toContainEqual(expect.stringMatching(words));
  if (says?.length === 0) expect(bill.differences).toEqual([]);
  if (due !== undefined) expect(bill.due).toBe(due);
});

/** What the rows of a job's books come to, payments left out. */
const booked = (lines: EventDraft[], settings: Settings) =>
  bookRows(1, "O. Venn", bookedOf(stateOf(lines)), settings.money.places).filter((r) => r.kind === "bill" || r.kind === "cancelled");
const totalOf = (rows: { total: string }[]) => sumOf(rows.map((r) => Number(r.total)));

test("books by hand: two taxes of which one does not touch a line", () => {
  const settings = shop({ taxes: [tax("A", 10, "labour"), tax("B", 11, "labour")], pricesIncludeTax: false });
  const lines = [byHand(100), byHand(110, "other")];
  const rows = booked([...lines, made(lines, settings)], settings);
  // 100 with A 10 and B 11, and 110 without: 231.
  expect(rows.map((r) => [r["tax name"], r.net, r.tax, r.total])).toEqual([
    ["A", "100.00", "10.00", "110.00"],
    ["B", "0.00", "11.00", "11.00"],
    ["", "110.00", "0.00", "110.00"],
  ]);
  expect(totalOf(rows)).toBe(231);
});

test("a bill that is cancelled stands twice in the books, and nothing of it is owed; it can be billed anew", () => {
  const settings = shop();
  const lines = [worked(40), paid(20, "deposit")];
  const cancelled: EventDraft[] = [...lines, made(lines, settings), { type: "bill-cancelled", payload: { bill: 3, why: "wrong rate" } }];
  expect(totalOf(booked(cancelled, settings))).toBe(0);
  expect(owed(stateOf(cancelled))).toBe(-20);
  expect(draftOf(cancelled, settings)).toMatchObject({ sum: { total: 45 }, paid: 20, due: 25 });
  const again = [...cancelled, made(cancelled, settings, "1-2")];
  expect(totalOf(booked(again, settings))).toBe(45);
  expect(owed(stateOf(again))).toBe(25);
});

test("the books come to the standing bills and the credits, whatever lines, taxes and coins there are", () => {
  const kinds = fc.constantFrom(...ALL);
  const cents = fc.integer({ min: -20_000, max: 200_000 });
  const taxes = fc.uniqueArray(
    fc.record({
      name: fc.constantFrom("A", "B", "C"),
      percent: fc.integer({ min: 1, max: 30 }),
      on: fc.subarray([...ALL], { minLength: 1 }),
    }),
    {
      selector: (t) => t.name,
      maxLength: 3,
    },
  );
  fc.assert(
    fc.property(
      fc.array(fc.tuple(cents, kinds), { minLength: 1, maxLength: 6 }),
      taxes,
      fc.boolean(),
      fc.constantFrom(1, 5, 100),
      fc.boolean(),
      (amounts, rates, pricesIncludeTax, cashStep, cancel) => {
        const settings = shop({ taxes: rates, pricesIncludeTax, cashStep });
        const lines = amounts.map(([c, kind]) => byHand(c / 100, kind));
        const bill = made(lines, settings);
        const { total } = (bill.payload as { sum: { total: number } }).sum;
        const all = [
          ...lines,
          bill,
          ...(cancel ? [{ type: "bill-cancelled", payload: { bill: lines.length + 1, why: "x y z" } } as EventDraft] : []),
        ];
        expect(totalOf(booked(all, settings))).toBe(cancel ? 0 : total);
      },
    ),
  );
});
