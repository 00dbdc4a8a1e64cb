/** A bill from what was done, with each difference from what was agreed. */

import { DEFAULT_SETTINGS, type Settings } from "../shop/settings";
import type { EventDraft } from "../tape/events/event";
import { foldJob } from "../tape/fold";
import { at, tape } from "../tape/tape-for-tests";
import { tasksOf } from "../repair/tasks";
import { billDraft, owed } from "./bill";
import { bookedOf, bookRows } from "./bookkeeping";
import { quoteOption, unpricedParts } from "./quote";
import { benchMinutes, spentOf } from "./spent";

const settings: Settings = {
  ...DEFAULT_SETTINGS,
  currency: "kr",
  money: {
    ...DEFAULT_SETTINGS.money,
    hourly: 60,
    stepMinutes: 15,
    marginPercent: 50,
    taxes: [{ name: "VAT", percent: 25, on: ["labour", "parts", "fixed price", "other"] }],
  },
};
const NOW = at(100_000);
const planned = (position: string, minutes: number, cost?: number, more: object = {}): EventDraft => ({
  type: "planned",
  payload: {
    position,
    what: "renew",
    phase: "power off",
    from: "technician",
    minutes,
    reversible: true,
    ...(cost === undefined ? {} : { parts: [{ text: `new ${position}`, pieces: 1, cost, state: "in stock" }] }),
    ...more,
  },
});
const fitted = (position: string, task?: number, more: object = {}): EventDraft => ({
  type: "change",
  payload: { position, kind: "replacement", newPart: `new ${position}`, reversible: true, ...(task ? { planned: task } : {}), ...more },
});
const answer = (asks: number, how: "yes" | "no" | "part" | "revoked", more: object = {}): EventDraft => ({
  type: "approval",
  payload: { what: "quote", answer: how, asks, on: "2026-03-02", by: "telephone", ...more },
});
const stateOf = (...drafts: EventDraft[]) => foldJob(tape(...drafts.map((d, i): [number, EventDraft] => [i, d])));
const bill = (...drafts: EventDraft[]) => {
  const state = stateOf(...drafts);
  return billDraft(state, tasksOf(state, NOW), settings, NOW);
};
/** A quote of the tasks that the lines before it plan. */
const quote = (...drafts: EventDraft[]): EventDraft => {
  const tasks = tasksOf(stateOf(...drafts), NOW);
  return { type: "quote", payload: { options: [quoteOption({ name: "All", tasks: tasks.map((t) => t.root) }, tasks, settings.money)] } };
};
const two = [planned("C6", 30, 2), planned("C7", 15, 4)];

test("a quote: labour by the hour, parts with the margin, taxes inside", () => {
  const tasks = tasksOf(stateOf(...two), NOW);
  const option = quoteOption({ name: "All", aim: "make it last", tasks: [1, 2] }, tasks, settings.money);
  // 30 min at 60 an hour, 2 with half on it; 15 min, 4 with half on it.
  expect(option.lines.map((l) => l.amount)).toEqual([30, 3, 15, 6]);
  expect(option.sum).toEqual({
    net: 43.2,
    taxes: [{ name: "VAT", percent: 25, base: 43.2, on: ["labour", "parts", "fixed price", "other"], amount: 10.8 }],
    included: true,
    rounding: 0,
    total: 54,
  });
  expect(
    unpricedParts(tasksOf(stateOf(planned("C8", 5, undefined, { parts: [{ text: "x", pieces: 1, state: "to order" }] })), NOW)),
  ).toEqual(["C8: renew: x"]);
});

test("of an accepted quote what is done is billed as quoted; what is declined, open or left out is not, and says so", () => {
  const lines = [...two, planned("C8", 30), planned("C9", 30)];
  const b = bill(...lines, quote(...lines), answer(5, "part", { declined: [2, 3] }), fitted("C6", 1), {
    type: "planned-ended",
    payload: { planned: 4, how: "left out", why: "it measures well" },
  });
  expect(b.lines.map((l) => [l.text, l.amount])).toEqual([
    ["C6: renew (labour, 30 min)", 30],
    ["new C6 for C6", 3],
  ]);
  expect(b.sum.total).toBe(33);
  expect(b.differences).toEqual([
    "C7: renew (labour, 15 min): declined by you on 2026-03-02, not done and not billed.",
    "new C7 for C7: declined by you on 2026-03-02, not done and not billed.",
    "C8: renew (labour, 30 min): not done yet, not billed.",
    "C9: renew (labour, 30 min): not done: it measures well, not billed.",
  ]);
});

test("longer than quoted, and another part than quoted: billed as quoted, and said", () => {
  const b = bill(...two, quote(...two), answer(3, "yes"), fitted("C6", 1, { newPart: "another one", minutes: 50 }), fitted("C7", 2));
  expect(b.sum.total).toBe(54);
  expect(b.differences).toEqual([
    "C6: renew: took 50 min, quoted for 30 min; billed as quoted.",
    "C6: another one was fitted, new C6 for C6 was quoted; billed as quoted.",
  ]);
});

test("work beyond the quote: agreed later it is billed at its price, without a yes it is named and not charged", () => {
  const later = [
    ...two,
    quote(...two),
    answer(3, "yes"),
    planned("T1", 60),
    { type: "approval", payload: { what: "T1: a new transformer", answer: "asked", cost: 120, planned: [5] } } as EventDraft,
    answer(6, "yes"),
    fitted("T1", 5, { cost: 70 }),
    fitted("C9", undefined, { unagreed: "it smoked", cost: 1 }),
  ];
  const b = bill(...later);
  expect(b.lines.map((l) => [l.text, l.amount])).toEqual([["T1: a new transformer", 120]]);
  expect(b.differences).toEqual([
    "C6: renew (labour, 30 min): not done yet, not billed.",
    "new C6 for C6: not done yet, not billed.",
    "C7: renew (labour, 15 min): not done yet, not billed.",
    "new C7 for C7: not done yet, not billed.",
    "T1: a new transformer: not in the quote, agreed with you on 2026-03-02.",
    "new C9 for C9: done without being asked for first, because: it smoked. Not billed unless you agree.",
  ]);
});

test("a yes that was taken back: what was done before it is billed, what was not done is not", () => {
  const asked = (line: string): EventDraft => ({ type: "approval", payload: { what: `${line}: renew it`, answer: "asked", cost: 20 } });
  const done = bill(asked("C6"), answer(1, "yes"), fitted("C6"), answer(1, "revoked", { on: "2026-03-04" }));
  expect(done.sum.total).toBe(20);
  expect(done.differences).toContain(
    "C6: renew it: you took your yes back on 2026-03-04, after it had been done; billed as it was agreed.",
  );
  const never = bill(asked("C6"), answer(1, "yes"), answer(1, "revoked"));
  expect(never.lines).toEqual([]);
});

test("a price that was agreed for a position holds the time on its task: nothing is billed twice", () => {
  const b = bill(
    { type: "approval", payload: { what: "C6 and C7: renew both", answer: "asked", cost: 18 } },
    answer(1, "yes"),
    planned("C6", 30),
    planned("C7", 30),
    planned("R9", 30),
    fitted("C6", 3, { minutes: 20 }),
    fitted("C7", 4, { minutes: 20, cost: 3 }),
    fitted("R9", 5, { minutes: 15, cost: 1 }),
  );
  expect(b.lines.map((l) => [l.text, l.amount])).toEqual([
    ["C6 and C7: renew both", 18],
    ["new R9 for R9", 1.5],
    ["R9: renew (labour, 15 min)", 15],
  ]);
});

test("without a quote: the time on each task in steps, the parts, what was typed by hand; a change without a price is named", () => {
  const b = bill(
    planned("C6", 30),
    { type: "timer", payload: { turn: "started", planned: 1 } },
    { type: "timer", payload: { turn: "stopped" } },
    { type: "time", payload: { minutes: 20, planned: 1 } },
    { type: "time", payload: { minutes: 10, what: "looking for it" } },
    fitted("C6", 1, { cost: 2 }),
    fitted("R9"),
    { type: "bill-line", payload: { text: "carriage", amount: 12.5, kind: "other" } },
  );
  expect(b.lines.map((l) => [l.text, l.amount])).toEqual([
    ["new C6 for C6", 3],
    ["new R9 for R9", 0],
    ["C6: renew (labour, 30 min)", 30],
    ["Bench time (labour, 15 min)", 15],
    ["carriage", 12.5],
  ]);
  expect(b.differences).toEqual([
    "There was no quote: what was not agreed at a price is billed by the time and the parts that it took.",
    "new R9 for R9: no price was noted; it stands at nothing.",
  ]);
});

test("the parts planned for a task are charged once, however many changes it took; a part with a cost of its own stands beside them", () => {
  const parts = [
    { text: "new C6", pieces: 1, cost: 2, state: "in stock" },
    { text: "new C7", pieces: 1, cost: 4, state: "in stock" },
  ];
  const task = planned("C6 and C7", 0, undefined, { parts });
  const { lines } = bill(task, fitted("C6", 1), fitted("C7", 1), fitted("R9", 1, { cost: 10 }));
  // 2 and 4 with half on it, once; 10 with half on it.
  expect(lines.map((l) => [l.text, l.amount])).toEqual([
    ["new C6 for C6; new C7 for C7", 9],
    ["new R9 for R9", 15],
  ]);
});

test("a price that was agreed for C12 is not for C1", () => {
  const asked: EventDraft = { type: "approval", payload: { what: "May C12 be renewed?", answer: "asked", cost: 20 } };
  const { lines } = bill(asked, answer(1, "yes"), fitted("C1", undefined, { cost: 2 }), fitted("C12", undefined, { cost: 2 }));
  expect(lines.map((l) => [l.kind, l.amount])).toEqual([
    ["fixed price", 20],
    ["parts", 3],
  ]);
});

test("a quote that was taken back: what was done before that is billed as quoted, the rest is gone", () => {
  const b = bill(...two, quote(...two), answer(3, "yes"), fitted("C6", 1), answer(3, "revoked", { on: "2026-03-05" }), {
    type: "planned-ended",
    payload: { planned: 2, how: "done" },
  });
  expect(b.lines.map((l) => [l.text, l.amount])).toEqual([
    ["C6: renew (labour, 30 min)", 30],
    ["new C6 for C6", 3],
  ]);
  // Of C7, done after the yes was gone, the quote says nothing any more.
  expect(b.differences.filter((d) => d.includes("C6"))).toEqual([
    "C6: renew (labour, 30 min): you took your yes back on 2026-03-05, after it had been done; billed as it was agreed.",
    "new C6 for C6: you took your yes back on 2026-03-05, after it had been done; billed as it was agreed.",
  ]);
  expect(b.differences.filter((d) => /C7.*(not done yet|quoted)/.test(d))).toEqual([]);
});

test("a tenth longer than quoted is not worth a word, a fifth is", () => {
  const told = (minutes: number) =>
    bill(...two, quote(...two), answer(3, "yes"), fitted("C6", 1, { minutes }), fitted("C7", 2)).differences.filter((d) =>
      d.includes("took"),
    );
  expect(told(33)).toEqual([]);
  expect(told(36)).toEqual(["C6: renew: took 36 min, quoted for 30 min; billed as quoted."]);
});

test("with nothing to bill nothing is said of a quote that is missing; one without an answer is told as that", () => {
  expect(bill(planned("C6", 30)).differences).toEqual([]);
  expect(bill(...two, quote(...two), fitted("C6", 1)).differences[0]).toContain("The quote has no answer yet");
});

test("two quotes: the second adds to the first, and counts where both hold a task", () => {
  const more = [...two, quote(...two), answer(3, "yes"), planned("C8", 15)];
  const tasks = tasksOf(stateOf(...more), NOW).map((t) => (t.root === 2 ? { ...t, estimate: 60 } : t));
  const second: EventDraft = {
    type: "quote",
    payload: { options: [quoteOption({ name: "More", tasks: [2, 5] }, tasks, settings.money)] },
  };
  const b = bill(...more, second, answer(6, "yes"), fitted("C6", 1), fitted("C7", 2), fitted("C8", 5));
  expect(b.lines.map((l) => [l.text, l.amount])).toEqual([
    ["C7: renew (labour, 1 h)", 60],
    ["new C7 for C7", 6],
    ["C8: renew (labour, 15 min)", 15],
    ["C6: renew (labour, 30 min)", 30],
    ["new C6 for C6", 3],
  ]);
});

describe("after a bill", () => {
  const first = [fitted("C6", undefined, { cost: 2 }), { type: "time", payload: { minutes: 10 } } as EventDraft];
  const issue = (...before: EventDraft[]): EventDraft => {
    const { lines, sum, differences, paid } = bill(...before);
    return { type: "bill", payload: { number: "1004-1", lines, sum, differences, paid } };
  };
  const issued = issue(...first);

  test("nothing is billed twice; what comes after stands on the next", () => {
    expect(bill(...first, issued).lines).toEqual([]);
    const next = bill(...first, issued, fitted("C7", undefined, { cost: 4 }), { type: "time", payload: { minutes: 10 } });
    expect(next.lines.map((l) => [l.text, l.amount])).toEqual([
      ["new C7 for C7", 6],
      ["Bench time (labour, 15 min)", 15],
    ]);
    expect(next.differences).toContain("1 of the lines stand on bill 1004-1 already.");
  });

  test("time that goes on at a task after its bill is billed as what came on top", () => {
    const work = [planned("C6", 30), { type: "time", payload: { minutes: 20, planned: 1 } } as EventDraft];
    const next = bill(...work, issue(...work), { type: "time", payload: { minutes: 25, planned: 1 } });
    // Twenty minutes were billed as thirty; forty-five in all are fifteen more.
    expect(next.lines.map((l) => [l.text, l.amount])).toEqual([["C6: renew (labour, 15 min)", 15]]);
  });

  test("a bill that was cancelled frees its lines", () => {
    const again = bill(...first, issued, { type: "bill-cancelled", payload: { bill: 3, why: "wrong" } });
    expect(again.sum.total).toBe(18);
  });

  test("a deposit counts once; what is owed is bills less payments", () => {
    const paid: EventDraft = { type: "payment", payload: { amount: 20, on: "2026-03-01", means: "cash", what: "deposit" } };
    expect(bill(...first, paid)).toMatchObject({ paid: 20, due: -2 });
    const state = stateOf(...first, paid, issued, {
      type: "payment",
      payload: { amount: -2, on: "2026-03-02", means: "cash", what: "paid back" },
    });
    expect(owed(state)).toBe(0);
    const next = bill(...first, paid, issued, fitted("C7", undefined, { cost: 4 }));
    expect(next).toMatchObject({ paid: 2, due: 4 });
  });

  test("the rows for the bookkeeping: one a tax rate, a cancelled bill turned round, amounts with a point", () => {
    const state = stateOf(
      ...first,
      issued,
      { type: "payment", payload: { amount: 18, on: "2026-03-05", means: "card", what: "payment" } },
      { type: "bill-cancelled", payload: { bill: 3, why: "wrong" } },
    );
    const rows = bookRows(1004, "Osric Venn", bookedOf(state), 2);
    expect(rows.map((r) => [r.date, r.kind, r.number, r.net, r.tax, r["tax percent"], r.total])).toEqual([
      ["2026-03-02", "bill", "1004-1", "14.40", "3.60", "25", "18.00"],
      ["2026-03-02", "cancelled", "1004-1", "-14.40", "-3.60", "25", "-18.00"],
      ["2026-03-05", "payment", "", "", "", "", "18.00"],
    ]);
  });
});

describe("against the limit and the date", () => {
  const brief = (spendingLimit: number, dueDate?: string): EventDraft => ({
    type: "brief",
    payload: { order: ["cost"], spendingLimit, ...(dueDate ? { dueDate } : {}) },
  });
  const says = (...drafts: EventDraft[]) => {
    const state = stateOf(...drafts);
    return spentOf(state, tasksOf(state, at(3600)), settings, at(3600));
  };
  test("warned before it is passed, and when it is", () => {
    const done = [planned("C6", 30, 2), fitted("C6", 1, { minutes: 30 })];
    // 30 of labour and a part of 2 with half on it.
    expect(says(...done, brief(100))).toMatchObject({ spent: 33, all: 33, warnings: [] });
    expect(says(...done, brief(35)).warnings).toEqual([
      { says: expect.stringMatching(/2.00.kr is left of the owner's limit of 35.00.kr/), passed: false },
    ]);
    expect(says(...done, planned("C7", 15, 4), brief(50)).warnings[0]).toMatchObject({
      says: expect.stringMatching(/comes to 54.00/),
      passed: false,
    });
    expect(says(...done, brief(30)).warnings[0]).toMatchObject({ passed: true });
  });
  test("the bench time until the date: Monday to Wednesday are three days", () => {
    expect(benchMinutes("2026-03-02", "2026-03-04", 5)).toBe(900);
    // Over a weekend: Friday and Monday.
    expect(benchMinutes("2026-03-06", "2026-03-09", 5)).toBe(600);
    const late = says(planned("C6", 901), brief(5000, "2026-03-04"));
    expect(late.warnings.map((w) => w.says)).toEqual(["15 h 1 min of work is open, and 15 h of bench time until 2026-03-04"]);
    expect(says(planned("C6", 10), brief(5000, "2026-03-01")).warnings[0]).toMatchObject({ passed: true });
  });
});
