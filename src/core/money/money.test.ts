/** Amounts, sums and prices by hand-worked cases; sums held against whole-number arithmetic. */

import fc from "fast-check";
import "@/fixed-draws-for-tests";
import { setLanguage } from "../language/language";
import { DEFAULT_SETTINGS } from "../shop/settings";
import type { MoneyLine } from "../tape/events/money-events";
import { formatMoney, readAmount, roundTo, times } from "./amount";
import { billedMinutes, labourLine, partLine } from "./price";
import { moneySum } from "./sum";

const rates = { ...DEFAULT_SETTINGS.money, hourly: 80, marginPercent: 35 };
const line = (amount: number, kind: MoneyLine["kind"] = "labour") => ({ kind, amount });
const vat = (percent: number, on: MoneyLine["kind"][] = ["labour", "parts", "fixed price", "other"]) => ({ name: "VAT", percent, on });

test("halves go away from zero, whatever binary numbers make of them", () => {
  expect([roundTo(1.005, 2), roundTo(-1.005, 2), roundTo(2.675, 2), roundTo(0.5, 0), roundTo(-0.5, 0)]).toEqual([1.01, -1.01, 2.68, 1, -1]);
  expect(times(3, 0.335, 2)).toBe(1.01);
  // A hundredth of a hundredth less than nothing is nothing.
  expect(Object.is(roundTo(-0.0001, 2), 0)).toBe(true);
});

describe("an amount as it is written", () => {
  const form = (more: object, decimal: "." | "," = ".") => ({ currency: "kr", decimal, money: { ...DEFAULT_SETTINGS.money, ...more } });
  test.each([
    [-1234.5, form({}), "−1\u00a0234.50\u00a0kr"],
    [1234567.891, form({ thousands: ".", symbolFirst: true }, ","), "kr\u00a01.234.567,89"],
    [999, form({ thousands: "," }), "999.00\u00a0kr"],
    [1000, form({ thousands: ",", places: 0 }), "1,000\u00a0kr"],
    [-0.004, form({}), "0.00\u00a0kr"],
    [1.2345, form({ places: 3 }), "1.235\u00a0kr"],
  ])("%d", (amount, shop, written) => expect(formatMoney(amount, shop)).toBe(written));
});

describe("an amount as it is typed", () => {
  afterEach(() => setLanguage());
  const read = (text: string, decimal: "." | "," = ".", least?: number) => {
    setLanguage({ tube: "tube", mains: "mains", decimal });
    const r = readAmount(text, 2, least);
    return r.ok ? r.amount : r.why;
  };
  test.each([
    ["12.50", ".", 12.5],
    ["12,50", ".", 12.5],
    ["12,50", ",", 12.5],
    ["1,234.50", ".", 1234.5],
    ["1.234,50", ",", 1234.5],
    ["1 234,5", ",", 1234.5],
    ["1'234", ".", 1234],
    ["1,234,567", ".", 1234567],
    [".5", ".", 0.5],
    ["80.", ".", 80],
  ] as const)("%s with %s is %d", (text, decimal, amount) => expect(read(text, decimal)).toBe(amount));

  test("what is no amount is refused with what was read", () => {
    expect(read("")).toMatch(/no amount was typed; accepted: 12.50/);
    expect(read("ten")).toMatch(/read “ten”/);
    expect(read("1,234")).toMatch(/can be 1234 or 1.234/);
    expect(read("1.234", ",")).toMatch(/can be 1234 or 1,234/);
    expect(read("1.2.3")).toMatch(/no amount/);
    expect(read("1,23,4.5")).toMatch(/no amount/);
    expect(read("-5")).toMatch(/cannot be negative/);
    expect(read("-5", ".", -10)).toBe(-5);
    expect(read("1.005")).toMatch(/more than 2 decimals/);
    expect(read("99999999")).toMatch(/more than any bill/);
  });
});

describe("labour and parts", () => {
  test("labour is billed in steps that were begun", () => {
    expect([billedMinutes(31, 15), billedMinutes(30, 15), billedMinutes(0, 15), billedMinutes(1, 1)]).toEqual([45, 30, 0, 1]);
    expect(labourLine("C6", 31, rates)).toMatchObject({ pieces: 0.75, price: 80, amount: 60, minutes: 45 });
    // Twenty minutes in steps of five at 79.95: 26.65.
    expect(labourLine("C6", 20, { ...rates, stepMinutes: 5, hourly: 79.95 })).toMatchObject({ pieces: 0.3333, amount: 26.65 });
  });
  test("a part with its margin, rounded once for one piece", () => {
    expect(partLine("22 nF", 3, 1.2, rates)).toMatchObject({ price: 1.62, amount: 4.86 });
    // 0.37 and 35 %: 0.4995, which is 0.50.
    expect(partLine("22 nF", 7, 0.37, rates)).toMatchObject({ price: 0.5, amount: 3.5 });
  });
});

describe("sums", () => {
  test("taxes on top: on the sum, not line by line", () => {
    // 100.10 + 19.99 = 120.09; a quarter is 30.0225; line by line it would be 25.03 + 5.00.
    expect(moneySum([line(100.1), line(19.99, "parts")], { ...rates, pricesIncludeTax: false, taxes: [vat(25)] })).toEqual({
      net: 120.09,
      taxes: [{ name: "VAT", percent: 25, base: 120.09, on: ["labour", "parts", "fixed price", "other"], amount: 30.02 }],
      included: false,
      rounding: 0,
      total: 150.11,
    });
  });
  test("taxes inside the prices", () => {
    // 120.09 · 25/125 = 24.018.
    expect(moneySum([line(120.09)], { ...rates, taxes: [vat(25)] })).toMatchObject({
      net: 96.07,
      taxes: [{ base: 96.07, amount: 24.02 }],
      total: 120.09,
    });
  });
  test("two taxes inside one price are both reckoned on what is left without either", () => {
    // 114.98 / 1.14975 = 100.0043: 5 % of it is 5.0002, 9.975 % is 9.9754.
    const taxes = [
      { name: "A", percent: 5, on: ["labour" as const] },
      { name: "B", percent: 9.975, on: ["labour" as const] },
    ];
    const sum = moneySum([line(114.98)], { ...rates, taxes });
    expect(sum.taxes.map((t) => t.amount)).toEqual([5, 9.98]);
    expect([sum.net, sum.total]).toEqual([100, 114.98]);
  });
  test("a tax on parts alone leaves labour untaxed; one of nothing is not named", () => {
    const sum = moneySum([line(100), line(50, "parts")], { ...rates, pricesIncludeTax: false, taxes: [vat(10, ["parts"]), vat(0)] });
    expect(sum).toMatchObject({ net: 150, taxes: [{ base: 50, amount: 5 }], total: 155 });
  });
  test("to the coin that is paid with", () => {
    const total = (amount: number, cashStep: number) => {
      const sum = moneySum([line(amount)], { ...rates, cashStep });
      return [sum.total, sum.rounding];
    };
    expect(total(150.11, 5)).toEqual([150.1, -0.01]);
    expect(total(150.13, 5)).toEqual([150.15, 0.02]);
    expect(total(150.125, 1)).toEqual([150.13, 0.005]);
    expect(total(-2.5, 100)).toEqual([-3, -0.5]);
  });
  test("against whole-number arithmetic in hundredths: one rate, inside or on top", () => {
    const half = (n: bigint, d: bigint) => (n < 0n ? -((-2n * n + d) / (2n * d)) : (2n * n + d) / (2n * d));
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -5000, max: 500000 }), { minLength: 1, maxLength: 20 }),
        fc.integer({ min: 1, max: 100 }),
        fc.boolean(),
        (cents, percent, included) => {
          const sum = moneySum(
            cents.map((c) => line(c / 100)),
            { ...rates, taxes: [vat(percent)], pricesIncludeTax: included },
          );
          const all = cents.reduce((s, c) => s + BigInt(c), 0n);
          const tax = half(all * BigInt(percent), included ? 100n + BigInt(percent) : 100n);
          expect(Math.round(sum.taxes[0]!.amount * 100)).toBe(Number(tax));
          expect(Math.round(sum.total * 100)).toBe(Number(included ? all : all + tax));
        },
      ),
    );
  });
});
