import { allowSlips } from "./answer-slips";

test("hand-worked: a tenth is shared by both answers", () => {
  const [a, b] = allowSlips([3, 1], 0.1);
  expect(a).toBeCloseTo(0.725, 12);
  expect(b).toBeCloseTo(0.275, 12);
});

test("no answer is ever impossible, and chances that are all nothing are alike", () => {
  expect(Math.min(...allowSlips([1, 0, 0, 0], 0.05))).toBeCloseTo(0.0125, 12);
  expect(allowSlips([0, 0], 0.05)).toEqual([0.5, 0.5]);
});
