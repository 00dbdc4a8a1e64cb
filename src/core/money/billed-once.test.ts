/** Random jobs with a quote, an answer, work, and a bill in the middle: each minute and each part is charged once, or named as not charged. */

import fc from "fast-check";
import "@/fixed-draws-for-tests";
import { tasksOf } from "../repair/tasks";
import { DEFAULT_SETTINGS, type Settings } from "../shop/settings";
import type { EventDraft } from "../tape/events/event";
import type { MoneyLine } from "../tape/events/money-events";
import { foldJob } from "../tape/fold";
import { at, tape } from "../tape/tape-for-tests";
import { billDraft } from "./bill";
import { billIssued } from "./bill-acts";
import { quoteOption } from "./quote";

const NOW = at(100_000);
const SHOP: Settings = { ...DEFAULT_SETTINGS, timeZone: "UTC", money: { ...DEFAULT_SETTINGS.money, hourly: 60, stepMinutes: 15 } };
const STEP = 15;

interface Job {
  tasks: {
    estimate: number;
    part: boolean;
    fixed: boolean;
    quoted: boolean;
    minutes: number;
    fitted: boolean;
    cost: boolean;
    done: boolean;
  }[];
  answer: "none" | "yes" | "no" | "part";
  /** Which lines of the quote are declined, by their place. */
  declined: number[];
  loose: number;
  /** After so many lines of work a bill is made out. */
  billAfter: number;
}

const job: fc.Arbitrary<Job> = fc.record({
  tasks: fc.array(
    fc.record({
      ...{ estimate: fc.integer({ min: 0, max: 120 }), part: fc.boolean(), fixed: fc.boolean(), quoted: fc.boolean() },
      ...{ minutes: fc.integer({ min: 0, max: 90 }), fitted: fc.boolean(), cost: fc.boolean(), done: fc.boolean() },
    }),
    { minLength: 1, maxLength: 3 },
  ),
  answer: fc.constantFrom("none" as const, "yes" as const, "no" as const, "part" as const),
  declined: fc.uniqueArray(fc.integer({ min: 0, max: 5 }), { maxLength: 3 }),
  loose: fc.integer({ min: 0, max: 60 }),
  billAfter: fc.integer({ min: 0, max: 12 }),
});

const stateOf = (lines: readonly EventDraft[]) => foldJob(tape(...lines.map((d, i): [number, EventDraft] => [i, d])));
const position = (i: number) => `C${i + 1}`;
const name = (i: number) => `${position(i)}: renew`;

/** The tape of a job, bills made out as the program makes them, and everything that they say. */
function billed({ tasks, answer, declined, loose, billAfter }: Job): { lines: MoneyLine[]; says: string } {
  const drafts: EventDraft[] = tasks.map(({ estimate, part, fixed }, i) => ({
    type: "planned",
    payload: {
      ...{ position: position(i), what: "renew", phase: "power off", from: "technician", minutes: estimate, reversible: true },
      ...(part ? { parts: [{ text: `part ${i + 1}`, pieces: 1, cost: 10 + i, state: "in stock" }] } : {}),
      ...(fixed ? { fixedPrice: 70 + i } : {}),
    },
  }));
  const quoted = tasks.flatMap((t, i) => (t.quoted ? [i + 1] : []));
  if (quoted.length > 0) {
    const option = quoteOption({ name: "All of it", tasks: quoted }, tasksOf(stateOf(drafts), NOW), SHOP.money);
    drafts.push({ type: "quote", payload: { options: [option] } });
    const asks = drafts.length;
    const left = declined.filter((d) => d < option.lines.length);
    const how = answer === "part" && left.length === 0 ? "yes" : answer;
    if (how !== "none" && option.lines.length > 0)
      drafts.push({
        type: "approval",
        payload: { what: "the quote", answer: how, asks, on: "2026-03-02", ...(how === "part" ? { declined: left } : {}) },
      });
  }
  const work = tasks.flatMap((t, i): EventDraft[] => [
    ...(t.minutes > 0 ? [{ type: "time", payload: { minutes: t.minutes, planned: i + 1 } } as EventDraft] : []),
    ...(t.fitted
      ? [
          {
            type: "change",
            payload: {
              ...{ position: position(i), kind: "replacement", newPart: `part ${i + 1}`, reversible: true, planned: i + 1 },
              ...(t.cost ? { cost: 30 + i } : {}),
            },
          } as EventDraft,
        ]
      : []),
    ...(t.done && !t.fitted
      ? [{ type: "planned-ended", payload: { planned: i + 1, how: "done", ...(t.part ? { nothingChanged: true } : {}) } } as EventDraft]
      : []),
  ]);
  if (loose > 0) work.push({ type: "time", payload: { minutes: loose } });
  const lines: MoneyLine[] = [];
  const says: string[] = [];
  const makeOut = () => {
    const state = stateOf(drafts);
    const draft = billDraft(state, tasksOf(state, NOW), SHOP, NOW);
    says.push(...draft.differences);
    if (draft.lines.length === 0) return;
    const bill = billIssued(`1-${lines.length}`, draft, SHOP, NOW);
    lines.push(...bill.payload.lines);
    drafts.push(bill);
  };
  work.forEach((w, i) => {
    if (i === billAfter) makeOut();
    drafts.push(w);
  });
  makeOut();
  makeOut();
  return { lines, says: says.join("\n") };
}

test("each part that was fitted is on one line, or named", () => {
  fc.assert(
    fc.property(job, (j) => {
      const { lines, says } = billed(j);
      j.tasks.forEach((t, i) => {
        const on = lines.filter((l) => l.kind === "parts" && l.text.includes(`part ${i + 1}`));
        expect(on.length).toBeLessThanOrEqual(1);
        if (t.fitted && on.length === 0) expect(says).toContain(position(i));
        // What was not fitted is not charged.
        if (!t.fitted) expect(on).toEqual([]);
      });
    }),
    { numRuns: 400 },
  );
});

test("the minutes of each task are on the bills once, in the steps of the shop, or in a price, or named", () => {
  fc.assert(
    fc.property(job, (j) => {
      const { lines, says } = billed(j);
      j.tasks.forEach((t, i) => {
        const work = lines.filter((l) => l.kind !== "parts" && l.text === name(i));
        const priced = work.filter((l) => l.kind === "fixed price");
        const byQuote = work.filter((l) => l.planned !== undefined && l.kind === "labour");
        const byRate = work.filter((l) => l.planned === undefined && l.kind === "labour");
        // One price, one line of a quote, or the hours as they went: never two of them.
        expect([priced, byQuote, byRate].filter((each) => each.length > 0).length).toBeLessThanOrEqual(1);
        expect(Math.max(priced.length, byQuote.length)).toBeLessThanOrEqual(1);
        if (byRate.length > 0) expect(byRate.reduce((sum, l) => sum + l.minutes!, 0)).toBe(Math.ceil(t.minutes / STEP) * STEP);
        if (t.minutes > 0 && work.length === 0) expect(says + lines.map((l) => l.text).join()).toContain(position(i));
      });
      const loose = lines.filter((l) => l.key === "loose time");
      if (j.loose > 0 && loose.length === 0) expect(says).toMatch(new RegExp(`${j.loose} min|1 h`));
      if (loose.length > 0) expect(loose.reduce((sum, l) => sum + l.minutes!, 0)).toBe(Math.ceil(j.loose / STEP) * STEP);
    }),
    { numRuns: 400 },
  );
});
