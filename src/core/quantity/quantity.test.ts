import { OPEN_OHMS, readOhms } from "./ohms";
import { parseQuantity } from "./parse";
import { formatDuration, formatQuantity, formatVolts } from "./format";
import { ELECTROLYTIC_VOLTS, ratingFor, STANDARD_WATTS } from "./ratings";
import { decade, inParallel, nearestInSeries, nearestPairs } from "./series";
import type { Unit } from "./unit";

const value = (text: string, unit?: Unit, decimal?: "." | ",") => {
  const parsed = parseQuantity(text, { unit, decimal });
  if (!parsed.ok) throw new Error(`${text}: ${parsed.why}`);
  return parsed.quantity;
};

describe("values as technicians write them", () => {
  test.each([
    ["4k7", 4700],
    ["4.7k", 4700],
    ["4700", 4700],
    ["2R2", 2.2],
    ["1M", 1e6],
    ["470kΩ", 470e3],
    ["470 kohm", 470e3],
    ["2M2", 2.2e6],
    ["31mV", 0.031],
    ["-51.5", -51.5],
    ["−51.5", -51.5],
    ["1e3", 1000],
    ["0u1", 1e-7],
    ["250p", 250e-12],
    ["22nF", 22e-9],
    ["100R", 100],
    ["12m", 0.012],
    ["318 V", 318],
    ["4R7", 4.7],
    ["68 mA", 0.068],
  ])("%s", (text, expected) => expect(value(text).value).toBe(expected));

  test("a bare capacitance under 1 is microfarads", () => {
    expect(value(".022", "F")).toMatchObject({ value: 22e-9, echo: "22 nF" });
    expect(value("0.022u", "F").value).toBe(22e-9);
    expect(value("22n", "F").value).toBe(22e-9);
  });

  test("a bare capacitance of 1 or more is asked about", () => {
    const parsed = parseQuantity("32", { unit: "F" });
    expect(parsed).toMatchObject({ ok: false, why: "32 µF or 32 pF?" });
    expect(parsed.ok ? [] : parsed.choices?.map((c) => c.value)).toEqual([32e-6, 32e-12]);
  });

  test("commas only where the shop writes commas", () => {
    expect(value("12,5", undefined, ",").value).toBe(12.5);
    expect(parseQuantity("12,5")).toMatchObject({ ok: false });
    expect(parseQuantity("1,234.5", { decimal: "," })).toMatchObject({ ok: false });
  });

  test.each(["", "abc", "4k7k", "4.7k7", "12 parsecs", "--3", "1e999", "5x"])("refuses %p and says what was read", (text) => {
    const parsed = parseQuantity(text);
    expect(parsed).toMatchObject({ ok: false, read: text.trim() });
  });

  test("refuses another unit than the one wanted", () => {
    expect(parseQuantity("22n", { unit: "V" }).ok).toBe(true);
    expect(parseQuantity("22nF", { unit: "V" })).toMatchObject({ ok: false, why: "it is in farads, and volts are wanted here" });
  });
});

describe("values as Scutum shows them", () => {
  test.each<[number, Unit | undefined, number, string]>([
    [4700, "Ω", 2, "4.7 kΩ"],
    [22e-9, "F", 2, "22 nF"],
    [0.0312, "A", 3, "31.2 mA"],
    [305, "V", 3, "305 V"],
    [1234, "V", 4, "1234 V"],
    [-51.5, "V", 3, "−51.5 V"],
    [0, "V", 3, "0 V"],
    [999.6, "Ω", 3, "1.00 kΩ"],
    [1e6, "Ω", 2, "1.0 MΩ"],
    [0.0004, "V", 2, "400 µV"],
    [1.9, "J", 2, "1.9 J"],
  ])("%d %s", (v, unit, digits, shown) => expect(formatQuantity(v, unit, digits)).toBe(shown));

  test("what is shown reads back as the same value", () => {
    for (const v of [4700, 0.0312, 22e-9, 1.5e6, 3.3e-12, 68]) {
      expect(value(formatQuantity(v, undefined, 4).replace(" ", "")).value).toBeCloseTo(v, 15);
    }
  });

  test("volts and times", () => {
    expect([305.4, 51.52, 7.2, 0.4, -0.0001].map(formatVolts)).toEqual(["305 V", "51.5 V", "7.20 V", "0.400 V", "0.000 V"]);
    expect([4, 60, 130, 3660, Infinity].map(formatDuration)).toEqual(["4 s", "1 min", "2 min 10 s", "1 h 1 min", "never by itself"]);
  });
});

describe("preferred values", () => {
  test("E12 and E96 have the standard members", () => {
    expect(decade("E12")).toEqual([1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2]);
    expect(decade("E96")).toHaveLength(96);
    expect(decade("E96")).toEqual(expect.arrayContaining([1.02, 4.99, 9.76]));
  });
  test("pairs that exist: 250 Ω of E12 in parallel and in series", () => {
    const best = nearestPairs(250, "E12", 8);
    // 220 + 33 = 253, 270 ∥ 3.3k = 249.6: the second is nearer.
    expect(Math.abs(best[0]!.error)).toBeLessThan(0.002);
    expect(best).toEqual(expect.arrayContaining([expect.objectContaining({ a: 3300, b: 270, together: "parallel" })]));
    expect(nearestPairs(440, "E12")[0]).toMatchObject({ a: 220, b: 220, together: "series", error: 0 });
    expect(inParallel(1e3, 1e3)).toBe(500);
    expect(() => nearestPairs(-1)).toThrow(RangeError);
  });
  test("ratings are rounded up to what is sold", () => {
    expect(ratingFor(1.2, STANDARD_WATTS)).toBe(2);
    expect(ratingFor(450, ELECTROLYTIC_VOLTS)).toBe(450);
    expect(ratingFor(900, ELECTROLYTIC_VOLTS)).toBeUndefined();
  });
  test("brackets the wanted value", () => {
    expect(nearestInSeries(250, "E12")).toEqual({ below: 220, above: 270, nearest: 270 });
    expect(nearestInSeries(4700, "E6")).toEqual({ below: 4700, above: 4700, nearest: 4700 });
    expect(nearestInSeries(9500, "E24")).toMatchObject({ below: 9100, above: 10000 });
    expect(() => nearestInSeries(0)).toThrow(RangeError);
  });
});

test("ohms with the meter's overload among them, or what is accepted", () => {
  expect([readOhms("OL", "."), readOhms(" open ", "."), readOhms("4k7", "."), readOhms("1,5k", ",")]).toEqual([
    OPEN_OHMS,
    OPEN_OHMS,
    4700,
    1500,
  ]);
  expect(readOhms("banana", ".")).toContain("or OL");
  expect(readOhms("-3", ".")).toContain("zero or more");
});
