import type { Element } from "../circuit/circuit";
import { judgeInCircuit } from "./in-circuit";

const r = (value: number, tol?: number): Element => ({
  name: "R1",
  letter: "R",
  nodes: ["a", "b"],
  value,
  params: {},
  notes: { tol },
  line: 1,
});

test.each<[number, number, string]>([
  [100e3, 100e3, "in"],
  [100e3, 91e3, "in"],
  [100e3, 115e3, "watch"],
  [100e3, 148e3, "out"],
  [100e3, 12e3, "watch"],
  [100e3, 1e9, "out"],
])("%d marked, %d read: %s", (marked, read, verdict) => {
  expect(judgeInCircuit(r(marked, 0.1), read).verdict).toBe(verdict);
});
test("says open or high", () => {
  expect(judgeInCircuit(r(1e3, 0.05), 1e7).why).toMatch(/open/);
  expect(judgeInCircuit(r(1e3, 0.05), 1500).why).toMatch(/high/);
});
