import { circuitOf, demoAmp } from "../solver/circuits-for-tests";
import { judgeGrid } from "./grid-evidence";
import { runBlocking } from "./blocking";
import { timeConstant } from "./grid-return";
import { remediesOf } from "./remedies";
import { outputStages } from "./output-stage";
import { playAtClip, toneAmp } from "./tone";

/** A single-ended stage whose grid's way back is one capacitor and one leak: driver of low resistance, bias from a source. */
const single = (leak: number, farads: string) => {
  const c = circuitOf(
    "VB b 0 300",
    "VG bias 0 -18",
    "*@stage V1 in=in out=k1",
    "*@stage V2 in=g out=p",
    "XT1 b p out 0 OPT_SE zp=5000 load=8 dcr=100 lp=20",
    "R50 out 0 8",
    "XV2 p b g 0 6V6GT",
    `R1 g bias ${leak}`,
    `C1 k1 g ${farads}`,
    // A cathode follower: next to no resistance.
    "XV1 b in2 k1 12AU7",
    "R2 k1 0 10k",
    "C2 in in2 100n",
    "R3 in2 0 1MEG",
    "R4 in2 b 2.2MEG",
    "R5 in 0 1MEG",
  );
  const [stage] = outputStages(c);
  return { c, stage: stage! };
};

test.each([
  [470e3, "22n", 470e3 * 22e-9],
  [220e3, "100n", 220e3 * 100e-9],
])("where the closed form holds, recovery is three time constants: %i Ω, %s", (leak, farads, seconds) => {
  const { c, stage } = single(leak, farads);
  expect(timeConstant(c, "g")!.seconds).toBeCloseTo(seconds, 6);
  const run = runBlocking(c, stage, { peak: 60, watch: 8 * seconds });
  expect(run.shift).toBeLessThan(-5);
  // To 5 % of the shift: τ·ln 20.
  expect(run.recovery! / (seconds * Math.log(20))).toBeGreaterThan(0.9);
  expect(run.recovery! / (seconds * Math.log(20))).toBeLessThan(1.1);
});

test("elsewhere the transient agrees with a finer one", () => {
  const amp = demoAmp("halberd-120");
  const [stage] = outputStages(amp);
  const peak = 3 * playAtClip(toneAmp(amp, stage!)).peak;
  const [usual, fine] = [1e-3, 2e-5].map((tolerance) => runBlocking(amp, stage!, { peak, tolerance }));
  expect(usual!.shift / fine!.shift).toBeCloseTo(1, 1);
  expect(Math.abs(usual!.recovery! / fine!.recovery! - 1)).toBeLessThan(0.1);
  // More drive, more shift; at half the drive of clip what is left is the end of the tone itself.
  const [clean] = [runBlocking(amp, stage!, { peak: peak / 6 })];
  expect(clean!.shift).toBeGreaterThan(-5);
  expect(usual!.shift).toBeLessThan(-10);
});

test("it can be stopped", () => {
  const { c, stage } = single(470e3, "22n");
  expect(runBlocking(c, stage, { peak: 60 }, () => false).finished).toBe(false);
});

test("each remedy by the same drive: a smaller capacitor is back sooner and has less bass", () => {
  const { c, stage } = single(470e3, "100n");
  const remedies = remediesOf(c, stage, { peak: 60 });
  const by = (kind: string) => remedies.find((r) => r.kind === kind)!;
  expect(by("coupling capacitor").set).toEqual(["C1=47n"]);
  expect(by("coupling capacitor").recovery!).toBeLessThan(by("none").recovery! * 0.7);
  expect(by("coupling capacitor").bass ?? 0).toBeGreaterThanOrEqual(by("none").bass ?? 0);
  expect(by("grid leak").recovery!).toBeLessThan(by("none").recovery!);
  expect(by("grid stopper").shift).toBeGreaterThan(by("none").shift);
  expect(by("driver tube")).toBeUndefined();
});

describe("grid volts at rest, under drive and after tell blocking from a leaking capacitor", () => {
  const volts = { tube: "V4", expected: -43 };
  test.each([
    [{ rest: -43.2, driven: -58, after: -52 }, "blocking"],
    [{ rest: -30, driven: -30.4, after: -30.2 }, "leaky capacitor"],
    [{ rest: -36, driven: -50, after: -44 }, "both"],
    [{ rest: -42.6, driven: -43, after: -42.8 }, "neither"],
    [{ rest: -60, driven: -61, after: -60 }, "cannot tell"],
    [{ rest: -43, driven: -30, after: -38 }, "cannot tell"],
  ])("%j: %s", (read, verdict) => expect(judgeGrid({ ...volts, ...read }).verdict).toBe(verdict));
  test("a timed reading gives the time constant: 15 V fallen to 5.52 V in 22 ms is one", () => {
    const judged = judgeGrid({ ...volts, rest: -43, driven: -58, after: -43 - 15 / Math.E, seconds: 0.022 });
    expect(judged.constant).toBeCloseTo(0.022, 6);
  });
});
