/** What is sent against what goes out: a quote or a bill that contradicts itself or the tape is refused with both figures. */

import { DEFAULT_SETTINGS, type Settings } from "../shop/settings";
import type { EventDraft } from "../tape/events/event";
import type { MoneyLine, MoneySum } from "../tape/events/money-events";
import { foldJob } from "../tape/fold";
import { at, tape } from "../tape/tape-for-tests";
import { billToStore, lineProblem, quoteToStore, sumProblem } from "./issued";

const settings: Settings = {
  ...DEFAULT_SETTINGS,
  timeZone: "Europe/Oslo",
  currency: "kr",
  money: { ...DEFAULT_SETTINGS.money, quoteDays: 30, payDays: 14, taxes: [{ name: "VAT", percent: 25, on: ["labour", "parts"] }] },
};
const line = (more: Partial<MoneyLine> = {}): MoneyLine => ({ text: "C6", kind: "parts", pieces: 2, price: 10, amount: 20, ...more });
/** 20 with a quarter inside: 16 and 4. */
const SUM: MoneySum = { net: 16, taxes: [{ name: "VAT", percent: 25, base: 16, amount: 4 }], included: true, rounding: 0, total: 20 };

test("an amount is its pieces at their price, labour its minutes by the hour", () => {
  expect(lineProblem(line(), settings)).toBeUndefined();
  expect(lineProblem(line({ pieces: 1, price: 1, amount: 40 }), settings)).toMatch(/1\.00.kr, and 40\.00.kr was read/);
  // 20 minutes at 40 an hour are 13.333: a third of an hour as 0.3333 pieces would be 13.332.
  expect(lineProblem(line({ kind: "labour", pieces: 0.3333, price: 40, minutes: 20, amount: 13.33 }), settings)).toBeUndefined();
  expect(lineProblem(line({ kind: "labour", pieces: 0.3333, price: 40, minutes: 20, amount: 20 }), settings)).toMatch(/13\.33/);
});

test("a sum is that of its lines by the taxes and coins of the shop", () => {
  expect(sumProblem([line()], SUM, settings)).toBeUndefined();
  // A tax of 20 on a base of 1, a rounding of 100: what is inside agrees with itself and not with the lines.
  expect(sumProblem([line()], { ...SUM, net: 0, taxes: [{ name: "VAT", percent: 25, base: 1, amount: 20 }] }, settings)).toMatch(
    /VAT 25 % 4\.00/,
  );
  expect(sumProblem([line()], { ...SUM, rounding: 100, total: 120 }, settings)).toMatch(/come to 20\.00.kr, and 120\.00/);
  expect(sumProblem([line()], { ...SUM, taxes: [], net: 20 }, settings)).toMatch(/taxes are VAT 25 %/);
});

test("a quote gets the day at the shop and the shop's days from then, whatever clock a device has", () => {
  const quote = { options: [{ name: "All", lines: [line()], sum: SUM }], validUntil: "2099-01-01" };
  // Half past eleven at night in UTC is the next day in Oslo.
  const issued = quoteToStore(quote, settings, Date.parse("2026-11-30T23:30:00Z"));
  expect(issued).toMatchObject({ payload: { on: "2026-12-01", validUntil: "2026-12-31" } });
  expect(quoteToStore({ options: [{ ...quote.options[0]!, lines: [line({ amount: 40 })] }] }, settings, 0)).toMatchObject({
    differs: expect.stringMatching(/^All: C6: /) as string,
  });
});

test("a bill goes out as the shop makes it; what was looked at before something else was logged is not", () => {
  const byHand = (amount: number): EventDraft => ({ type: "bill-line", payload: { text: "C6", amount, kind: "parts" } });
  const state = foldJob(tape([0, byHand(20)]));
  const seen = { text: "C6", kind: "parts" as const, pieces: 1, price: 20, amount: 20, key: "line 1" };
  const sent = { number: "9", lines: [seen], sum: SUM, differences: [], paid: 0 };
  const issued = billToStore(sent, "1004-1", state, settings, at(10));
  expect(issued).toMatchObject({ payload: { number: "1004-1", on: "2026-03-02", payBy: "2026-03-16", sum: { total: 20 }, lines: [seen] } });
  const later = foldJob(tape([0, byHand(20)], [5, byHand(30)]));
  expect(billToStore(sent, "1004-1", later, settings, at(10))).toMatchObject({
    differs: expect.stringMatching(/50\.00.kr now, and 20\.00/) as string,
  });
  expect(billToStore({ ...sent, paid: 1e6 }, "1004-1", state, settings, at(10))).toMatchObject({
    differs: expect.stringContaining("paid") as string,
  });
  expect(billToStore(sent, "1004-1", foldJob([]), settings, at(10))).toMatchObject({
    differs: expect.stringContaining("nothing to bill") as string,
  });
});
