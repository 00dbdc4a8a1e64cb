import { digitsOf, readingOf } from "./held-reading";
import { feedHold, startHold, type Sample } from "./hold";

const hold = (values: number[], digit: number) =>
  values.reduce((s, value, i) => feedHold(s, { at: i * 250, value, digit } as Sample), startHold());

test("digits are those of the display, four at most", () => {
  expect(digitsOf(238.1, 0.1)).toBe(4);
  expect(digitsOf(-0.36, 0.00001)).toBe(4);
  expect(digitsOf(0, 0.1)).toBe(2);
  expect(digitsOf(1000, 0.1)).toBe(4);
  expect(digitsOf(0.7, 0.1)).toBe(2);
});

test("a held value goes on the tape to the last digit of the display", () => {
  const reading = readingOf(hold([238.1, 238.2, 238.1, 238.2, 238.1, 238.1], 0.1), "V2.p", { mains: 229.6 });
  expect(reading).toEqual({ point: "V2.p", kind: "dcv", value: 238.1, digits: 4, conditions: { mains: 229.6 } });
});

test("taken by the key before it stood still, the tape says so; a swing says its ends", () => {
  expect(readingOf(hold([12, 80, 140], 0.1), "B1", {})).toMatchObject({
    value: 140,
    note: expect.stringContaining("before it stood") as string,
  });
  const swing = hold(
    Array.from({ length: 24 }, (_, i) => 226 + 14 * Math.sin(i * 1.9)),
    0.1,
  );
  expect(readingOf(swing, "V3B.p", {})!.note).toMatch(/^swings from 21\d V to 2[34]\d V, mean taken$/);
});

test("nothing is taken from an empty or an overloaded display", () => {
  expect(readingOf(startHold(), "B1", {})).toBeUndefined();
  expect(readingOf(feedHold(startHold(), { at: 1, over: true, digit: 0.1 }), "B1", {})).toBeUndefined();
});
