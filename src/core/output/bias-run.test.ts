/** The hands-free bias of the Drover 40 as states: KT66 pair, 10 Ω under each cathode, 25 W of plate. Figures worked by hand. */

import { demoAmp } from "../solver/circuits-for-tests";
import { biasMissing, switchOffWithoutBias } from "../walk/bias-missing";
import * as bias from "./bias-run";
import { adjusterTurned } from "./bias-taken";
import { outputStages } from "./output-stage";

const drover = demoAmp("drover-40");
const start = bias.startBiasRun(drover, outputStages(drover)[0]!);
/** Plate amperes that go with 0.45 V, 45 mA, of cathode current: the rest is the screen's. */
const TARGET = bias.plateAmps(start, start.steps[0]!, 0.45)!;

/** Takes values one after the other. @returns the run, and the tables that became whole on the way. */
function take(run: bias.BiasRun, values: number[], target?: number) {
  const whole: string[] = [];
  for (const value of values) {
    const next = bias.takeValue(run, value, target);
    run = next.run;
    if (next.whole) whole.push(next.whole);
  }
  return { run, whole };
}
const found = take(start, [0.3, 0.4, -38, 420, 415]);
const points = (run: bias.BiasRun) => bias.stepOf(run)?.point;

test("the screen takes 5 to 10 % of a KT66's cathode current", () => {
  expect(TARGET).toBeGreaterThan(0.9 * 45e-3);
  expect(TARGET).toBeLessThan(0.95 * 45e-3);
});

test("both tubes, bias, supply and screens are read, then the adjuster is asked for with the probe still on the first tube", () => {
  expect(found.whole).toEqual(["before"]);
  expect(bias.stepOf(found.run)).toMatchObject({ what: "turn", tube: "V5", point: "V5.k" });
  expect(bias.sameProbe(found.run, start.steps[4])).toBe(true);
  const { V5, V6 } = bias.currentsOf(found.run, "before");
  expect(V5! / V6!).toBeCloseTo(3 / 4, 9);
  expect(V5! / TARGET).toBeCloseTo(30 / 45, 9);
  expect(bias.supplyRead(found.run)).toBe(420);
});

test("on target within 2 %; a reading is not taken while the adjuster is turned", () => {
  for (const [volts, is] of [
    [0.45, true],
    [0.458, true],
    [0.442, true],
    [0.46, false],
    [0.44, false],
    [0, false],
  ] as const)
    expect([volts, bias.isOnTarget(found.run, volts, TARGET)]).toEqual([volts, is]);
  expect(bias.takeValue(found.run, 0.45, TARGET).run).toBe(found.run);
});

describe("unlike tubes", () => {
  // V5 at 45 mA, V6 at 60: their mean is 52.5, so V5 has to stand at 45·45/52.5 = 38.57 mA.
  const after = take(bias.doneTurning(found.run), [0.45, 0.6], TARGET).run;
  test("the mean misses the target: the adjuster again, with the watched tube's own part of it", () => {
    expect(bias.stepOf(after)?.what).toBe("turn");
    expect(bias.watchedAmps(after, TARGET) / TARGET).toBeCloseTo(38.571 / 45, 4);
    expect(bias.isOnTarget(after, 0.386, TARGET)).toBe(true);
    expect(bias.isOnTarget(after, 0.45, TARGET)).toBe(false);
  });
  test("then everything is read to the end", () => {
    const { run, whole } = take(bias.doneTurning(after), [0.386, 0.514, -41, 424, 419], TARGET);
    expect([whole, points(run)]).toEqual([["after"], undefined]);
    const line = bias.tableLine(run, "after", { target: { school: "middle", amps: TARGET } });
    expect(line?.payload.rows.map((r) => r.tube)).toEqual(["V5", "V6"]);
  });
  test("three times at most: what is left is the tubes' own", () => {
    let run = after;
    let turns = 1;
    while (bias.stepOf(run)?.what === "turn" && turns < 9) {
      run = take(bias.doneTurning(run), [0.45, 0.6], TARGET).run;
      if (bias.stepOf(run)?.what === "turn") turns++;
    }
    expect([turns, points(run)]).toEqual([3, "BIAS"]);
  });
  test("where no target is known the readings go on", () => {
    expect(points(take(bias.doneTurning(found.run), [0.45, 0.6]).run)).toBe("BIAS");
  });
});

test("switch off: 25 W at 420 V are 59.5 mA of plate current, about 64 mA at the cathode", () => {
  expect(bias.isTooMuch(start, 0.6, 420)).toBe(false);
  expect(bias.isTooMuch(start, 0.68, 420)).toBe(true);
  expect(bias.isTooMuch(start, "over", 420)).toBe(true);
  expect(bias.isTooMuch(start, undefined, 420)).toBe(false);
  expect(bias.isTooMuch(bias.goToStep(start, 3), "over", 420)).toBe(false);
});

test("as found and as left have the plate volts of the solver, so that the two compare; only what is left was predicted", () => {
  const idle = { tubes: [{ name: "V5", plateVolts: 408 }] as never, rails: [{ point: "B1", label: "Reservoir", volts: 425 }] };
  const before = bias.tableLine(found.run, "before", { idle, mains: 231 })!.payload;
  expect(before.rows.map((r) => [r.tube, r.plateVolts])).toEqual([
    ["V5", 408],
    ["V6", 420],
  ]);
  expect(before.rows[0]!.plateWatts! / before.rows[0]!.plateMilliamps).toBeCloseTo(0.408, 3);
  expect(before.rails).toEqual([
    { point: "BIAS", volts: -38 },
    { point: "B1", volts: 420 },
    { point: "B2", volts: 415 },
  ]);
  expect([before.mains, before.targetMilliamps]).toEqual([231, undefined]);
  const { run } = take(bias.doneTurning(found.run), [0.45, 0.45, -40, 424, 418], TARGET);
  const after = bias.tableLine(run, "after", { idle, target: { school: "middle", amps: TARGET } })!.payload;
  expect(after.rails[1]).toEqual({ point: "B1", volts: 424, predicted: 425 });
  expect(after.targetMilliamps).toBeCloseTo(TARGET * 1e3, 1);
  expect(bias.tableLine(start, "before", {})).toBeUndefined();
});

test("the adjuster goes on the tape as it stands, with what it was turned for", () => {
  expect(adjusterTurned("T1", "P9", 0.123456, 0.042).payload).toEqual({ control: "P9", position: 0.1235, why: "idle of T1 to 42.0 mA" });
  expect(adjusterTurned("T1", "P9", undefined, undefined).payload).toEqual({ control: "P9", why: "" });
});

test("back and on stay within the steps", () => {
  expect(bias.goToStep(start, -3).at).toBe(0);
  expect(bias.stepOf(bias.goToStep(start, 99))).toBeUndefined();
});

test("a bias under its band, and only that, says switch off", () => {
  const row = (role: "bias" | "rail") => ({ role, expected: { volts: -40, low: -44, high: -36, basis: "chart" as const, note: "" } });
  // The band is low in its sign: −44 is the strong end, −36 the weak one.
  expect(biasMissing(row("bias"), 0)).toBe(true);
  expect(biasMissing(row("bias"), -10)).toBe(true);
  expect(biasMissing(row("bias"), -39)).toBe(false);
  expect(biasMissing(row("bias"), -60)).toBe(false);
  expect(biasMissing(row("rail"), 0)).toBe(false);
  expect(biasMissing({ role: "bias", expected: undefined }, 0)).toBe(false);
  expect(switchOffWithoutBias("Bias supply")).toContain("Switch off now");
});
