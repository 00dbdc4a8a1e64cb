/** Faults that were written by hand, readings from a general SPICE: how often the true part is named, and whether being sure is being right. */

import { readFileSync } from "node:fs";
import { AMPS, demoAmp } from "../../solver/circuits-for-tests";
import { hasSpice } from "../../solver/spice-for-tests";
import { FaultTable } from "../table";
import { HAND_FAULTS } from "./hand-faults-for-tests";
import { judge, shows, type Judged } from "./judge-for-tests";
import { benchReadings, type RecordedCase } from "./spice-bench-for-tests";

const recorded = JSON.parse(readFileSync("src/core/suspects/bed/recorded.json", "utf8")) as RecordedCase[];
const judged: Judged[] = [];
const share = (list: Judged[], good: (j: Judged) => boolean) => list.filter(good).length / list.length;

beforeAll(() => {
  for (const amp of AMPS) {
    const circuit = demoAmp(amp);
    const table = new FaultTable(circuit);
    for (const c of recorded.filter((r) => r.amp === amp && (r.refs.length === 0 || shows(r)))) judged.push(judge(table, c));
  }
});

test("the bed is broad: sixty faults and more of every amp, and sound ones", () => {
  expect(HAND_FAULTS.length).toBeGreaterThanOrEqual(60);
  expect(new Set(HAND_FAULTS.map((f) => f.amp)).size).toBe(AMPS.length);
  expect(new Set(recorded.filter((c) => c.refs.length > 0).map((c) => c.says)).size).toBeGreaterThanOrEqual(60);
  expect(judged.length).toBeGreaterThan(350);
});

test("the true part comes first in 85 % and among three in 95 %", () => {
  const faulty = judged.filter((j) => j.case.refs.length > 0);
  expect(share(faulty, (j) => j.place === 0)).toBeGreaterThanOrEqual(0.85);
  expect(share(faulty, (j) => j.place >= 0 && j.place < 3)).toBeGreaterThanOrEqual(0.95);
});

test("sound amps are called sound in 97 %", () => {
  expect(
    share(
      judged.filter((j) => j.case.refs.length === 0),
      (j) => j.place === 0,
    ),
  ).toBeGreaterThanOrEqual(0.97);
});

test("never sure and wrong: of what is said with 90 % or more, 95 % is right", () => {
  const sure = judged.filter((j) => j.probability >= 0.9);
  expect(sure.length).toBeGreaterThan(100);
  expect(share(sure, (j) => j.place === 0)).toBeGreaterThanOrEqual(0.95);
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
