/**
 * Faults that were written by hand, readings from a general SPICE: how often the true part is named, and whether being sure is being
 * right. Each amp has a file of its own (wren-5.test.ts and so on); here is what they have to come to together.
 */

import { readFileSync } from "node:fs";
import { AMPS } from "../../solver/circuits-for-tests";
import { hasSpice } from "../../solver/spice-for-tests";
import { casesOf, LEAST, recorded, type Least } from "./bed-of-amp-for-tests";
import { HAND_FAULTS } from "./hand-faults-for-tests";
import { benchReadings } from "./spice-bench-for-tests";

const judged = AMPS.flatMap((amp) => casesOf(amp));
const faulty = judged.filter((c) => c.refs.length > 0).length;
const sound = judged.length - faulty;
const together = (of: keyof Least) => AMPS.reduce((sum, amp) => sum + LEAST[amp]![of], 0);

test("the bed is broad: sixty faults and more of every amp, and sound ones", () => {
  expect(HAND_FAULTS.length).toBeGreaterThanOrEqual(60);
  expect(new Set(HAND_FAULTS.map((f) => f.amp)).size).toBe(AMPS.length);
  expect(new Set(recorded.filter((c) => c.refs.length > 0).map((c) => c.says)).size).toBeGreaterThanOrEqual(60);
  expect(judged.length).toBeGreaterThan(350);
});

test("the true part comes first in 85 % and among three in 95 %", () => {
  expect(together("first") / faulty).toBeGreaterThanOrEqual(0.85);
  expect(together("three") / faulty).toBeGreaterThanOrEqual(0.95);
});

test("sound amps are called sound in 97 %", () => {
  expect(together("sound") / sound).toBeGreaterThanOrEqual(0.97);
});

test("never sure and wrong: of what is said with 90 % or more, 95 % is right", () => {
  expect(together("sure")).toBeGreaterThan(100);
  expect(1 - together("sureAndWrong") / together("sure")).toBeGreaterThanOrEqual(0.95);
});

(hasSpice() ? test : test.skip)("what is recorded is what SPICE gives", () => {
  for (const fault of HAND_FAULTS.filter((f, i) => i % 12 === 3 && !f.ripple)) {
    const known = recorded.find((c) => c.amp === fault.amp && c.says === "sound")!;
    const text = readFileSync(`demo/amps/${fault.amp}.cir`, "utf8");
    const now = benchReadings({ text, emission: {}, mains: 1, types: {} }, known.seed);
    for (const [point, volts] of Object.entries(known.reading.dcv))
      expect(Math.abs(now.dcv[point]! - volts)).toBeLessThan(0.002 * Math.abs(volts) + 0.002);
  }
});
