import { heard, rippleBucket, sideChances, sweptChances, touchedChances } from "./answer-chances";

const likeliest = (chances: number[]) => chances.indexOf(Math.max(...chances));

test.each([
  [-40, 0],
  [-10, 1],
  [0, 2],
  [3, 2],
  [9, 3],
])("a change of %d dB is heard as the %dth of gone, less, no change, more; chances are a whole", (db, at) => {
  const chances = heard(db);
  expect(likeliest(chances)).toBe(at);
  expect(chances.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
});

test("half-way between two words either may be said", () => {
  const [, less, same] = heard(-4.5);
  expect(less!).toBeCloseTo(same!, 1);
});

test.each([
  [0.3, "less than it should be"],
  [1, "as it should be"],
  [3, "two to five times"],
  [9, "over five times"],
])("ripple of %d times a sound amp's reads as %s", (ratio, word) => expect(rippleBucket(ratio)).toBe(word));

test("a slow turn: steady, up, part-way, down", () => {
  expect(likeliest(sweptChances([1, 1, 1, 1, 1]))).toBe(0);
  expect(likeliest(sweptChances([0.001, 0.1, 0.3, 0.6, 1]))).toBe(1);
  expect(likeliest(sweptChances([0.001, 0.7, 1, 0.7, 0.001]))).toBe(2);
  expect(likeliest(sweptChances([1, 0.6, 0.3, 0.1, 0.001]))).toBe(3);
});

test("a touched grid is loud, soft or silent by what comes through", () => {
  expect(likeliest(touchedChances(1, 1))).toBe(0);
  expect(likeliest(touchedChances(0.07, 1))).toBe(1);
  expect(likeliest(touchedChances(1e-4, 1))).toBe(2);
});

test("the side that has it by more than the ear's doubt, else all alike", () => {
  expect(likeliest(sideChances([1, 0.01]))).toBe(0);
  expect(likeliest(sideChances([0.01, 1]))).toBe(1);
  expect(likeliest(sideChances([1, 0.9]))).toBe(2);
});
