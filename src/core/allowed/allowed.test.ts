/** Lines that may not be logged, each with what stands against it; and the right ones beside them. */

import { readFileSync } from "node:fs";
import { energyOf, viewJob } from "../job/job-view";
import { DEFAULT_SETTINGS } from "../shop/settings";
import type { EventDraft } from "../tape/events/event";
import { at, tape } from "../tape/tape-for-tests";
import { allowed, type Line } from "./allowed";

const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
type Timed = [seconds: number, line: EventDraft];
const OPENED: Timed = [0, { type: "job-opened", payload: { owner: "O. Venn", amp: "Wren 5" } }];

function refusal(line: EventDraft, seconds: number, before: Timed[] = [], model: string | undefined = WREN) {
  const lines = tape(OPENED, ...before);
  const view = viewJob(lines, model, DEFAULT_SETTINGS, at(seconds));
  const job = {
    tape: lines,
    state: view.state,
    circuit: view.circuit,
    settings: DEFAULT_SETTINGS,
    energy: () => energyOf(view, at(seconds)).kind,
  };
  return allowed(job, line as Line, { at: at(seconds) });
}
const on = (more: object = {}): EventDraft => ({ type: "power", payload: { state: "on", plug: "in", through: "variable", ...more } });
const off: EventDraft = { type: "power", payload: { state: "off", plug: "out" } };
const passes = (ids: string): EventDraft => ({
  type: "gate-passed",
  payload: { station: "bring-up", reason: `${ids}: it ran here yesterday`, understood: true },
});
const danger: EventDraft = {
  type: "finding",
  payload: { station: "look", place: "mains cord", text: "bare wire", severity: "danger", brief: "allowed" },
};
const undo = (supersedes: number, reason = "a slip"): EventDraft => ({ type: "undo", supersedes, reason, payload: {} });
const change = (more: object = {}): EventDraft => ({
  type: "change",
  payload: { position: "R1", kind: "replacement", newPart: "2.2k", reversible: true, ...more },
});

describe("power", () => {
  test("straight to full mains, or without a word of what it goes through: the gate is passed first", () => {
    expect(refusal(on({ through: "straight" }), 10)).toMatchObject({ status: 409, says: expect.stringContaining("full mains") as string });
    expect(refusal({ type: "power", payload: { state: "on" } }, 10)).toMatchObject({ status: 409 });
    expect(refusal(on({ through: "straight" }), 10, [[5, passes("straight")]])).toBeUndefined();
    expect(refusal(on(), 10)).toBeUndefined();
  });
  test("with a danger open, unless that gate was passed since it was last switched", () => {
    expect(refusal(on(), 10, [[5, danger]])).toMatchObject({ status: 409, says: expect.stringContaining("bare wire") as string });
    expect(
      refusal(on(), 10, [
        [5, danger],
        [6, passes("straight")],
      ]),
    ).toMatchObject({ status: 409 });
    expect(
      refusal(on(), 10, [
        [5, danger],
        [6, passes("danger")],
      ]),
    ).toBeUndefined();
    const before: Timed[] = [
      [5, danger],
      [6, passes("danger")],
      [7, on()],
      [8, off],
    ];
    expect(refusal(on(), 10, before)).toMatchObject({ status: 409 });
  });
  test("an off line made into a power-on asks the same gates; a power-on may be put right", () => {
    const before: Timed[] = [
      [5, on()],
      [6, off],
    ];
    const straight = on({ through: "straight" });
    expect(
      refusal({ ...straight, supersedes: 3 } as EventDraft, 10, [
        [5, danger],
        [6, off],
      ]),
    ).toMatchObject({ status: 409 });
    expect(refusal({ ...straight, supersedes: 2 } as EventDraft, 10, before)).toBeUndefined();
  });
  test("off may always be said", () => {
    expect(
      refusal(off, 10, [
        [5, danger],
        [6, on()],
      ]),
    ).toBeUndefined();
  });
  test("an amp that went back is not switched on; taken in again it is", () => {
    const back: Timed = [5, { type: "returned", payload: { to: "the owner", oldPartsHanded: true } }];
    expect(refusal(on(), 10, [back])).toMatchObject({ status: 409, says: expect.stringContaining("line 2") as string });
    expect(refusal(on(), 10, [back, [6, { type: "taken-in", payload: { why: "hums again" } }]])).toBeUndefined();
    expect(refusal({ type: "taken-in", payload: { why: "hums again" } }, 10)).toMatchObject({ status: 409 });
  });
});

describe("hands inside", () => {
  test("no part is changed on a live amp; what was changed before it went on may come late", () => {
    expect(refusal(change(), 20, [[10, on()]])).toMatchObject({ status: 409, says: expect.stringContaining("live") as string });
    expect(
      refusal(change(), 20, [
        [10, on()],
        [15, off],
      ]),
    ).toBeUndefined();
    expect(refusal(change(), 5, [[10, on()]])).toBeUndefined();
  });
  test("no supply for reforming on a live one", () => {
    const begun: EventDraft = {
      type: "reform-begun",
      payload: {
        parts: [{ part: "C1", farads: 32e-6, rated: 450, target: 400, limit: 1e-3 }],
        ohms: 33e3,
        steps: [200],
        dwellMinutes: 10,
        lifted: true,
      },
    };
    expect(refusal(begun, 20, [[10, on()]])).toMatchObject({ status: 409 });
    expect(refusal(begun, 20)).toBeUndefined();
  });
});

test("a reason is words", () => {
  expect(refusal({ type: "gate-passed", payload: { station: "work", reason: "...", understood: true } }, 9)).toMatchObject({ status: 422 });
  expect(refusal(change({ unagreed: "." }), 9)).toMatchObject({ status: 422, field: "unagreed" });
  expect(refusal(undo(2, "."), 9, [[5, danger]])).toMatchObject({ status: 422, field: "reason" });
  expect(refusal(undo(2, "wrong job"), 9, [[5, danger]])).toBeUndefined();
});

describe("end-of-job tests: the verdict is worked out here", () => {
  const bond = (value: number | undefined, passed: boolean): EventDraft => ({
    type: "safety-test",
    payload: { test: "earth bond", ...(value === undefined ? {} : { value }), passed },
  });
  test("5 Ω against 0.1 Ω is not passed, 0.05 Ω is", () => {
    expect(refusal(bond(5, true), 9)).toMatchObject({ status: 422, says: expect.stringContaining("0.1 Ω") as string });
    expect(refusal(bond(5, false), 9)).toBeUndefined();
    expect(refusal(bond(0.05, true), 9)).toBeUndefined();
    expect(refusal(bond(0.05, false), 9)).toMatchObject({ status: 422 });
    expect(refusal(bond(undefined, true), 9)).toMatchObject({ status: 422 });
  });
  test("an insulation reading is no earth bond, an open bond is; a leakage is no 20 MA", () => {
    expect(refusal(bond(20e6, false), 9)).toMatchObject({ status: 422, says: expect.stringContaining("Insulation") as string });
    expect(refusal(bond(1e9, false), 9)).toBeUndefined();
    const leaks = (value: number, passed: boolean): EventDraft => ({ type: "safety-test", payload: { test: "leakage", value, passed } });
    expect(refusal(leaks(20e6, false), 9)).toMatchObject({ status: 422, says: expect.stringContaining("milliamperes") as string });
    expect(refusal(leaks(0.2e-3, true), 9)).toBeUndefined();
  });
  test("insulation is at least; what is looked at has no figure", () => {
    const insulation = (value: number): EventDraft => ({ type: "safety-test", payload: { test: "insulation", value, passed: true } });
    expect(refusal(insulation(1e6), 9)).toMatchObject({ status: 422 });
    expect(refusal(insulation(20e6), 9)).toBeUndefined();
    expect(refusal({ type: "safety-test", payload: { test: "cord", passed: true } }, 9)).toBeUndefined();
  });
});

describe("what the owner declined", () => {
  const before: Timed[] = [
    [1, { type: "planned", payload: { position: "C6", what: "renew", phase: "power off", from: "technician", reversible: true } }],
    [2, { type: "approval", payload: { what: "C6: renew", answer: "asked", planned: [2] } }],
    [3, { type: "approval", payload: { what: "C6: renew", answer: "no", asks: 3 } }],
  ];
  test("is neither done nor worked on by a timer; it is left out", () => {
    expect(refusal({ type: "planned-ended", payload: { planned: 2, how: "done" } }, 9, before)).toMatchObject({
      status: 409,
      says: expect.stringContaining("line 4") as string,
    });
    expect(refusal({ type: "timer", payload: { turn: "started", planned: 2 } }, 9, before)).toMatchObject({ status: 409 });
    expect(refusal({ type: "planned-ended", payload: { planned: 2, how: "left out" } }, 9, before)).toBeUndefined();
    expect(refusal({ type: "planned-ended", payload: { planned: 2, how: "done" } }, 9, before.slice(0, 1))).toBeUndefined();
  });
});

describe("taken without sense", () => {
  test("a job is opened once, and its opening stays", () => {
    expect(refusal(OPENED[1], 9)).toMatchObject({ status: 409 });
    expect(refusal(undo(1), 9)).toMatchObject({ status: 409 });
  });
  test("a timer that never ran is not stopped", () => {
    expect(refusal({ type: "timer", payload: { turn: "stopped" } }, 9)).toMatchObject({ status: 409 });
    expect(refusal({ type: "timer", payload: { turn: "stopped" } }, 9, [[5, { type: "timer", payload: { turn: "started" } }]])).toBe(
      undefined,
    );
  });
  test("no line of 1970", () => {
    expect(refusal({ type: "note", payload: { text: "old" } }, -50 * 365 * 86400)).toMatchObject({ status: 422, field: "at" });
    expect(refusal({ type: "note", payload: { text: "from the day before" } }, -86400)).toBeUndefined();
  });
  test("a stage has a name of the bring-up's kind", () => {
    for (const stage of ["__proto__", "constructor()", "Output V4"])
      expect([stage, refusal({ type: "stage", payload: { stage, result: "passed" } }, 9)?.status]).toEqual([stage, 422]);
    for (const stage of ["no-tubes", "output:V4", "full"])
      expect(refusal({ type: "stage", payload: { stage, result: "passed" } }, 9)).toBeUndefined();
  });
  test("the line of a circuit comes with the circuit alone", () => {
    expect(refusal({ type: "circuit-given", payload: { name: "another" } }, 9)).toMatchObject({ status: 422 });
  });
});

describe("what stands on a bill", () => {
  const line = { text: "bench time", kind: "labour", pieces: 1, price: 90, amount: 90, key: "line 2" } as const;
  const bill: Timed[] = [
    [1, { type: "bill-line", payload: { text: "bench time", amount: 90, kind: "labour" } }],
    [
      2,
      {
        type: "bill",
        payload: {
          number: "1001-1",
          lines: [line],
          sum: { net: 90, taxes: [], included: true, rounding: 0, total: 90 },
          differences: [],
          paid: 0,
        },
      },
    ],
  ];
  test("is not struck, nor the bill; a cancelled bill frees it and stays cancelled", () => {
    expect(refusal(undo(2), 9, bill)).toMatchObject({ status: 409, says: expect.stringContaining("1001-1") as string });
    expect(refusal(undo(3), 9, bill)).toMatchObject({ status: 409, says: expect.stringContaining("cancelled") as string });
    const cancelled: Timed[] = [...bill, [4, { type: "bill-cancelled", payload: { bill: 3, why: "wrong rate" } }]];
    expect(refusal(undo(2), 9, cancelled)).toBeUndefined();
    expect(refusal(undo(4), 9, cancelled)).toMatchObject({ status: 409 });
    expect(refusal({ type: "bill-cancelled", payload: { bill: 3, why: "twice" } }, 9, cancelled)).toMatchObject({
      status: 409,
      says: expect.stringContaining("line 4") as string,
    });
  });
});

describe("money and answers", () => {
  const payment = (amount: number, what: string, on = "2026-03-02"): EventDraft => ({
    type: "payment",
    payload: { amount, on, means: "card", what } as never,
  });
  test("a payment is more than nothing, what is paid back below it and no more than was paid, on a day that has come", () => {
    expect(refusal(payment(20, "payment"), 10)).toBeUndefined();
    expect(refusal(payment(-20, "payment"), 10)).toMatchObject({ status: 422, field: "amount" });
    expect(refusal(payment(20, "paid back"), 10)).toMatchObject({ status: 422, field: "amount" });
    expect(refusal(payment(-1e6, "paid back"), 10)).toMatchObject({ status: 409, says: expect.stringContaining("0.00") as string });
    expect(refusal(payment(-20, "paid back"), 10, [[5, payment(20, "deposit")]])).toBeUndefined();
    expect(refusal(payment(20, "payment", "2099-01-01"), 10)).toMatchObject({ status: 422, field: "on" });
    // A slip is put right: the line that is corrected does not count beside the new one.
    const wrong: Timed[] = [
      [5, payment(200, "payment")],
      [6, payment(-15, "paid back")],
    ];
    expect(refusal({ ...payment(-200, "paid back"), supersedes: 3, reason: "all of it" } as EventDraft, 10, wrong)).toBeUndefined();
    expect(refusal({ ...payment(-201, "paid back"), supersedes: 3, reason: "all of it" } as EventDraft, 10, wrong)).toMatchObject({
      status: 409,
    });
  });

  const line = { text: "bench time", kind: "labour", pieces: 1, price: 90, amount: 90 } as const;
  const sum = { net: 90, taxes: [], included: true, rounding: 0, total: 90 };
  const quote = (validUntil = "2026-03-30"): Timed => [
    5,
    { type: "quote", payload: { options: [{ name: "All", lines: [line], sum }], validUntil } },
  ];
  const answer = (how: string, more: object = {}): EventDraft => ({
    type: "approval",
    payload: { what: "quote", answer: how, asks: 2, ...more } as never,
  });
  test("an answer is to what was asked last, to a way that there is, while the quote is valid", () => {
    expect(refusal(answer("yes"), 10, [quote()])).toBeUndefined();
    expect(refusal(answer("yes", { option: 3 }), 10, [quote()])).toMatchObject({ status: 422, field: "option" });
    expect(refusal(answer("part", { declined: [0] }), 10, [quote()])).toBeUndefined();
    expect(refusal(answer("part", { declined: [1] }), 10, [quote()])).toMatchObject({ status: 422, field: "declined" });
    expect(refusal(answer("yes", { on: "2099-01-01" }), 10, [quote()])).toMatchObject({ status: 422, field: "on" });
    expect(refusal(answer("yes"), 10, [quote("2026-02-01")])).toMatchObject({
      status: 409,
      says: expect.stringContaining("valid until 2026-02-01") as string,
    });
    // A no needs no valid quote; a yes is taken back only where there is one.
    expect(refusal(answer("no"), 10, [quote("2026-02-01")])).toBeUndefined();
    expect(refusal(answer("revoked"), 10, [quote()])).toMatchObject({ status: 409 });
    expect(refusal(answer("revoked"), 10, [quote(), [6, answer("yes")]])).toBeUndefined();
    const anew: Timed[] = [quote(), [6, { ...quote()[1], supersedes: 2, reason: "dearer part" } as EventDraft]];
    expect(refusal(answer("yes"), 10, anew)).toMatchObject({ status: 409, says: expect.stringContaining("line 3") as string });
    expect(refusal(answer("yes", { asks: 3 }), 10, anew)).toBeUndefined();
  });

  test("a deposit that was paid back is not struck; put right it may be", () => {
    const paid: Timed[] = [
      [5, payment(50, "deposit")],
      [6, payment(-30, "paid back")],
    ];
    expect(refusal(undo(2), 10, paid)).toMatchObject({ status: 409, says: expect.stringContaining("30") as string });
    expect(refusal(undo(3), 10, paid)).toBeUndefined();
    expect(refusal(undo(2), 10, [paid[0]!])).toBeUndefined();
    expect(refusal({ ...payment(60, "deposit"), supersedes: 2, reason: "it was 60" } as EventDraft, 10, paid)).toBeUndefined();
  });

  test("what was agreed to is neither struck nor altered; a yes that was worked on is not struck, only taken back by the owner", () => {
    const agreed: Timed[] = [quote(), [6, answer("yes")]];
    const dearer = { ...quote()[1], supersedes: 2, reason: "a dearer part" } as EventDraft;
    expect(refusal(dearer, 10, agreed)).toMatchObject({ status: 409, says: expect.stringContaining("line 3") as string });
    expect(refusal(undo(2), 10, agreed)).toMatchObject({ status: 409 });
    expect(refusal(undo(2), 10, [quote()])).toBeUndefined();
    expect(refusal(undo(3), 10, agreed)).toBeUndefined();
    // A question about C6, a yes, and C6 is changed on it.
    const asked: EventDraft = { type: "approval", payload: { what: "C6: renew it", answer: "asked", cost: 40 } };
    const worked: Timed[] = [
      [5, asked],
      [6, answer("yes")],
      [7, change({ position: "C6" })],
    ];
    expect(refusal(undo(3), 10, worked)).toMatchObject({ status: 409, says: expect.stringContaining("C6") as string });
    expect(refusal({ ...answer("no"), supersedes: 3, reason: "misheard" } as EventDraft, 10, worked)).toMatchObject({ status: 409 });
    expect(refusal({ ...answer("yes", { by: "telephone" }), supersedes: 3, reason: "how" } as EventDraft, 10, worked)).toBeUndefined();
    expect(refusal(answer("revoked"), 10, worked)).toBeUndefined();
    expect(refusal(undo(3), 10, worked.slice(0, 2))).toBeUndefined();
  });

  test("a task that was planned with parts is done when somebody says what was fitted, or that nothing was", () => {
    const planned = (more: object = {}): Timed => [
      5,
      {
        type: "planned",
        payload: { position: "C6", what: "renew it", phase: "power off", from: "technician", reversible: true, ...more },
      } as EventDraft,
    ];
    const parts = [{ text: "22 nF 630 V", pieces: 1, state: "in stock" }];
    const done = (more: object = {}): EventDraft => ({ type: "planned-ended", payload: { planned: 2, how: "done", ...more } });
    expect(refusal(done(), 10, [planned()])).toBeUndefined();
    expect(refusal(done(), 10, [planned({ parts })])).toMatchObject({ status: 409, field: "nothingChanged" });
    expect(refusal(done({ nothingChanged: true }), 10, [planned({ parts })])).toBeUndefined();
    expect(refusal({ type: "planned-ended", payload: { planned: 2, how: "left out" } }, 10, [planned({ parts })])).toBeUndefined();
    expect(refusal(done(), 10, [planned({ parts }), [6, change({ position: "C6" })]])).toBeUndefined();
    expect(refusal(done(), 10, [planned({ parts }), [6, change({ position: "R1" })]])).toMatchObject({ status: 409 });
  });
});
