import { demoAmp } from "../solver/circuits-for-tests";
import type { EventDraft } from "../tape/events/event";
import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import { answerBias, answerDrive } from "./answers";
import { biasSteps } from "./bias-steps";
import { stageRead, usualWay } from "./from-tape";
import { outputStages } from "./output-stage";
import { testStrength } from "./test-strength";
import { findTubeType } from "../tubes/library";

const drover = demoAmp("drover-40");
const [pair] = outputStages(drover);
const volts = (point: string, value: number, warmMinutes?: number): EventDraft => ({
  type: "reading",
  payload: { point, kind: "dcv", value, conditions: { mains: 230, ...(warmMinutes === undefined ? {} : { warmMinutes }) } },
});

test("currents, volts and grids out of the tape; what was read before the adjuster was turned no longer counts", () => {
  const before = foldJob(tape([0, volts("V5.k", 0.105)], [2, volts("V6.k", 0.112)], [4, volts("V5.p", 440)], [6, volts("V5.g", -52.8)]));
  const read = stageRead(drover, pair!, before);
  expect(Object.keys(read.read)).toEqual(["V5", "V6"]);
  expect(read.volts.V5!.plate).toBeCloseTo(440 - 0.105, 6);
  expect(read.platesRead).toEqual(["V5"]);
  expect(read.grids).toEqual({ g5: -52.8 });
  const after = foldJob(
    tape([0, volts("V5.k", 0.105)], [2, { type: "adjusted", payload: { control: "P9", position: 0.5 } }], [4, volts("V6.k", 0.4)]),
  );
  expect(Object.keys(stageRead(drover, pair!, after).read)).toEqual(["V6"]);
});

test("tubes in parallel share the plate volts that were read under the name of one of them", () => {
  const halberd = demoAmp("halberd-120");
  const [four] = outputStages(halberd);
  const read = stageRead(halberd, four!, foldJob(tape([0, volts("V4.p", 470)])));
  const half = four!.tubes.find((t) => t.name === "V4")!.half;
  const alike = four!.tubes.filter((t) => t.half === half).map((t) => t.name);
  expect(alike).toHaveLength(2);
  expect(read.platesRead).toEqual(alike);
  expect(alike.map((name) => read.volts[name]!.plate)).toEqual([470, 470]);
});

test("a reading through a lamp, or with an output tube out, is of another amp", () => {
  const lamp: EventDraft = { type: "reading", payload: { point: "V5.k", kind: "dcv", value: 0.2, conditions: { limiter: "lamp" } } };
  const out: EventDraft = { type: "reading", payload: { point: "V5.k", kind: "dcv", value: 0.2, conditions: { without: ["V6"] } } };
  expect(stageRead(drover, pair!, foldJob(tape([0, lamp], [2, out]))).readings).toEqual([]);
});

test("the drift is by the minutes that the readings were taken at", () => {
  const state = foldJob(tape([0, volts("V5.k", 0.4, 2)], [120, volts("V5.k", 0.42, 4)], [240, volts("V5.k", 0.44, 6)]));
  expect(stageRead(drover, pair!, state).drift.V5).toMatchObject({ settled: false, span: 4 });
});

test("both tubes cold alike is a turned adjuster, one alone is a weak tube", () => {
  const both = answerBias(drover, { stage: "T1", mains: 230, read: { V5: 0.01, V6: 0.01 }, facts: {} });
  expect(both.adjusters[0]!.position).toBeLessThan(0.2);
  for (const s of Object.values(both.strengths)) expect(s).toBeGreaterThan(0.7);
  const one = answerBias(drover, { stage: "T1", mains: 230, read: { V5: 0.02, V6: 0.042 }, grids: { g5: -43.8 }, facts: {} });
  expect(one.adjusters[0]!.position).toBeGreaterThan(0.45);
  expect(one.strengths.V5! / one.strengths.V6!).toBeLessThan(0.6);
});

test("the steps of the hands-free bias: tubes, rails, the turn, and everything again", () => {
  const steps = biasSteps(drover, pair!);
  expect(steps.map((s) => (s.what === "turn" ? "turn" : `${s.when} ${s.point}`))).toEqual([
    ...["V5.k", "V6.k", "BIAS", "B1", "B2"].map((p) => `before ${p}`),
    "turn",
    ...["V5.k", "V6.k", "BIAS", "B1", "B2"].map((p) => `after ${p}`),
  ]);
  expect(usualWay(pair!)).toBe("cathode resistor");
  // Two tubes on one resistor are read once.
  const lantern = demoAmp("lantern-15");
  const shared = biasSteps(lantern, outputStages(lantern)[0]!, "cathode resistor");
  expect(shared.filter((s) => s.what === "read" && s.when === "before" && s.tube)).toHaveLength(1);
});

test("a test at the sheet's own point is a strength of one; at a point where the sheet's tube hardly draws it says nothing", () => {
  const el84 = findTubeType("EL84")!;
  expect(testStrength(el84, { milliamps: 48, plateVolts: 250, screenVolts: 250, gridVolts: -7.3 })).toBeCloseTo(1, 1);
  expect(testStrength(el84, { milliamps: 24, plateVolts: 250, screenVolts: 250, gridVolts: -7.3 })).toBeCloseTo(0.5, 1);
  expect(testStrength(el84, { milliamps: 1, plateVolts: 250, screenVolts: 250, gridVolts: -40 })).toBeUndefined();
});

test("the drive is found at which the model's grid shifts as one that was read, and told where none does", () => {
  const wren = demoAmp("wren-5");
  const found = answerDrive(wren, { stage: "T1", tube: "V2", shift: -12 })!;
  expect(found.times).toBeGreaterThan(1);
  expect(found.shift).toBeGreaterThan(-15);
  expect(found.shift).toBeLessThan(-9);
  expect(answerDrive(wren, { stage: "T1", tube: "V2", shift: -200 })).toBeUndefined();
});
