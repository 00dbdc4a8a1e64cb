import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import { normalDraws } from "../numeric/random";
import { judgeReform, type ReformReading } from "./reform-judge";
import { reformPlan, reformRefused } from "./reform-plan";
import { joulesOf, openRun, reformedTo, reformRuns, secondsUnder } from "./reform-run";
import { reformObstacles } from "./reform-safety";

const PART = { farads: 32e-6, volts: 450, kind: "electrolytic", year: 1959 };

test("hand-worked plan: 32 µF 450 V that sees 400 V", () => {
  const plan = reformPlan(PART, 398, { safe: 10 });
  // Allowed: 1.58 mA·400/450 = 1.404 mA; an eighth of 400 V at that is 34.2 kΩ, the next of E12 down 33 kΩ: 400²/(4·33 kΩ) = 1.21 W inside
  // at most, 4.8 W in the resistor on a puncture; ½·32 µF·400² = 2.56 J; 33 kΩ·32 µF·ln 40 = 3.90 s.
  expect(plan).toMatchObject({ target: 400, ohms: 33e3, watts: 5, dwellMinutes: 20 });
  expect(plan.inside).toBeCloseTo(1.21, 2);
  expect(plan.joules).toBeCloseTo(2.56, 3);
  expect(plan.downSeconds).toBeCloseTo(3.9, 2);
  expect(plan.steps[0]).toBe(50);
  expect(plan.steps.at(-1)).toBe(400);
  expect(plan.limit).toBeCloseTo((1.58e-3 * 400) / 450, 8);
});

test("nothing is formed above its rating or without one", () => {
  expect(() => reformPlan(PART, 480)).toThrow(/sees 480 V .* rated for 450 V/);
  expect(() => reformPlan({ farads: 32e-6, volts: NaN }, 300)).toThrow(/read them off/);
});

test("when not to try", () => {
  const sound = { farads: 32e-6, volts: 450, electrolytic: true };
  expect(reformRefused(sound)).toEqual([]);
  expect(reformRefused({ ...sound, seen: "vent has opened" })[0]).toContain("vent");
  expect(reformRefused({ ...sound, ohms: 800 })[0]).toContain("shorted");
  expect(reformRefused({ ...sound, left: 0.4 })[0]).toContain("40 %");
  expect(reformRefused({ ...sound, electrolytic: false, safety: true, farads: undefined, backwards: true })).toHaveLength(4);
});

const ASK = { began: 0, farads: 32e-6, ohms: 47e3, supply: 400, target: 400, limit: 1.4e-3, dwellSeconds: 600 };
/** Readings of a decay with a meter's noise, one each `every` seconds. */
function decaying(final: number, amplitude: number, tau: number, count: number, every = 60, seed = 1): ReformReading[] {
  const normal = normalDraws(seed);
  return Array.from({ length: count }, (_, i) => {
    const seconds = 30 + i * every;
    // As the meter shows it through 47 kΩ: the leak is an ohmic one, A·V/400.
    const whole = (final + amplitude * Math.exp(-seconds / tau)) * (1 + 0.003 * normal());
    const amps = whole / (1 + (whole * 47e3) / 400);
    return { seconds, supply: 400, volts: 400 - amps * 47e3, amps, digit: 1e-6 };
  });
}

test("keep: under the limit at its working voltage, held for the dwell", () => {
  expect(judgeReform({ ...ASK, points: decaying(0.15e-3, 3e-3, 300, 9) })).toMatchObject({ kind: "go on" });
  expect(judgeReform({ ...ASK, points: decaying(0.15e-3, 3e-3, 300, 40) })).toMatchObject({ kind: "keep" });
});

test("at a step below the target the supply is raised, not the capacitor kept", () => {
  const points = decaying(0.1e-3, 1e-3, 200, 20).map((p) => ({ ...p, supply: 200, volts: 200 - p.amps * 47e3 }));
  expect(judgeReform({ ...ASK, supply: 200, points })).toMatchObject({ kind: "raise" });
});

test("go on, with the time that it needs: the truth lies in the interval", () => {
  const [final, amplitude, tau] = [0.4e-3, 5e-3, 1500];
  const points = decaying(final, amplitude, tau, 20);
  const said = judgeReform({ ...ASK, points });
  const truth = tau * Math.log(amplitude / (ASK.limit - final)) - points.at(-1)!.seconds;
  expect(said.kind).toBe("go on");
  expect(said.left!.within[0]).toBeLessThanOrEqual(truth);
  expect(said.left!.within[1]).toBeGreaterThanOrEqual(truth);
  expect(Math.abs(said.left!.seconds / truth - 1)).toBeLessThan(0.2);
});

test("stop: it would settle above its limit; it rises; it is punctured", () => {
  // 3 mA at 400 V: through 47 kΩ the meter shows 3/(1 + 3 mA·47 kΩ/400 V) = 2.22 mA.
  expect(judgeReform({ ...ASK, points: decaying(3e-3, 2e-3, 300, 60) })).toMatchObject({
    kind: "stop",
    why: expect.stringContaining("settle at 2.2 mA") as string,
  });
  const rising = [
    ...decaying(2e-3, 1e-3, 300, 12),
    ...[2.6e-3, 2.9e-3, 3.3e-3].map((amps, i) => ({ seconds: 800 + i * 60, supply: 400, volts: 250, amps, digit: 1e-6 })),
  ];
  expect(judgeReform({ ...ASK, points: rising })).toMatchObject({ kind: "stop", why: expect.stringContaining("rises") as string });
  const held = { seconds: 300, supply: 400, volts: 320, amps: 1.7e-3 };
  expect(judgeReform({ ...ASK, points: [held, { seconds: 360, supply: 400, volts: 6, amps: 8.4e-3 }] })).toMatchObject({
    kind: "stop",
    why: expect.stringContaining("punctured") as string,
  });
});

test("no verdict out of too little: few readings, or while it charges", () => {
  expect(judgeReform({ ...ASK, points: [] }).why).toContain("no reading");
  expect(judgeReform({ ...ASK, points: [{ seconds: 1, supply: 400, volts: 180, amps: 4.6e-3 }] })).toMatchObject({ kind: "go on" });
  expect(judgeReform({ ...ASK, points: decaying(3e-3, 2e-3, 300, 4) })).toMatchObject({ kind: "go on" });
});

test("a bad one takes all that the resistor lets through: no verdict while its volts come up, one when they do not", () => {
  const at = (seconds: number, volts: number) => ({ seconds, supply: 400, volts, amps: (400 - volts) / 47e3, digit: 1e-6 });
  expect(judgeReform({ ...ASK, points: [at(60, 4), at(600, 30), at(1200, 90)] })).toMatchObject({
    kind: "go on",
    why: expect.stringContaining("go on while its volts rise") as string,
  });
  expect(judgeReform({ ...ASK, points: [at(60, 4), at(600, 30), at(1200, 31), at(2400, 33)] })).toMatchObject({
    kind: "stop",
    why: expect.stringContaining("comes up no more") as string,
  });
});

test("a meter that changes its range in the middle: the coarse readings weigh little", () => {
  const [final, amplitude, tau] = [0.4e-3, 5e-3, 1500];
  const points = decaying(final, amplitude, tau, 30).map((p, i) =>
    i % 7 === 3 ? { ...p, amps: Math.round(p.amps / 1e-3) * 1e-3, digit: 1e-3 } : p,
  );
  const said = judgeReform({ ...ASK, points });
  expect(said.kind).toBe("go on");
  expect(Math.abs(said.fit!.tau / tau - 1)).toBeLessThan(0.15);
});

const begun = (at: object = {}) => ({
  type: "reform-begun" as const,
  payload: {
    parts: [{ part: "C1", farads: 32e-6, rated: 450, target: 400, limit: 1.4e-3 }],
    ohms: 47e3,
    steps: [200, 400],
    dwellMinutes: 10,
    lifted: true,
  },
  ...at,
});
const point = (seconds: number, amps: number, supply = 200) => ({
  type: "reform-point" as const,
  payload: { reform: 1, part: "C1", seconds, supply, volts: supply - amps * 47e3, amps },
});
const turn = (what: "step" | "paused" | "resumed" | "ended", supply: number, more: object = {}) => ({
  type: "reform-turn" as const,
  payload: { reform: 1, what, supply, ...more },
});

test("a pause over the night does not count; the next step begins its readings anew", () => {
  const events = tape(
    [0, begun()],
    [600, point(600, 0.5e-3)],
    [900, turn("paused", 0)],
    [900 + 12 * 3600, turn("resumed", 200)],
    [1500 + 12 * 3600, point(1500, 0.3e-3)],
    [1600 + 12 * 3600, turn("step", 400)],
  );
  const [run] = reformRuns(foldJob(events));
  expect(run).toMatchObject({ state: "running", supply: 400, stepBegan: 1600 });
  expect(run!.parts[0]!.readings).toHaveLength(2);
  expect(run!.parts[0]!.step).toHaveLength(0);
  expect(run!.stretches).toHaveLength(2);
  expect(secondsUnder(foldJob(events).reforms[0]!, Date.parse(events[0]!.at) + (2600 + 12 * 3600) * 1000 - 900 * 0)).toBe(2600);
  expect(joulesOf(run!)).toBeCloseTo(2.56, 3);
});

test("over the change of summer time seconds are seconds: the tape's times are UTC", () => {
  // 29 March 2026, 00:30 to 03:30 UTC: clocks on the wall jump an hour in between.
  const events = tape([0, begun()]).map((e) => ({ ...e, at: "2026-03-29T00:30:00.000Z" }));
  expect(secondsUnder(foldJob(events).reforms[0]!, Date.parse("2026-03-29T03:30:00.000Z"))).toBe(3 * 3600);
});

test("a tester's clock that stood or went back is said, and its readings are left out", () => {
  const events = tape([0, begun()], [60, point(60, 0.9e-3)], [120, point(60, 0.8e-3)], [180, point(120, 0.7e-3)], [240, point(30, 0.6e-3)]);
  const [run] = reformRuns(foldJob(events));
  expect(run!.parts[0]!.readings.map((r) => r.seconds)).toEqual([60, 120]);
  expect(run!.parts[0]!.doubts).toEqual([expect.stringContaining("stood still"), expect.stringContaining("went back")]);
});

test("one of several is settled while the others go on", () => {
  const both = {
    ...begun(),
    payload: {
      ...begun().payload,
      parts: [...begun().payload.parts, { part: "C2", farads: 16e-6, rated: 450, target: 380, limit: 0.9e-3 }],
    },
  };
  const events = tape([0, both], [700, turn("ended", 200, { part: "C2", result: "replace", why: "rises" })]);
  const runs = reformRuns(foldJob(events));
  expect(openRun(runs)).toMatchObject({ state: "running" });
  expect([reformedTo(runs, "C1"), reformedTo(runs, "C2")]).toEqual([undefined, "replace"]);
  expect(reformRuns(foldJob([...events, ...tape([0, turn("ended", 0)]).map((e) => ({ ...e, seq: 3, at: events[1]!.at }))]))[0]!.state).toBe(
    "ended",
  );
});

test("what has to be in order before a supply goes on", () => {
  const fine = {
    inAmp: false,
    lineConnected: false,
    caseLead: "minus" as const,
    canOnChassis: true,
    voltsOnNegative: false,
    isolatedSupply: true,
    plugOut: true,
  };
  const ids = (s: object) => reformObstacles({ ...fine, ...s }).map((o) => `${o.id}${o.never ? "!" : ""}`);
  expect(ids({})).toEqual([]);
  expect(ids({ plugOut: false })).toEqual(["plug!"]);
  expect(ids({ caseLead: "unknown" })).toEqual(["case"]);
  expect(ids({ inAmp: true, voltsOnNegative: true, isolatedSupply: false })).toEqual(["negative!", "lift"]);
  expect(ids({ inAmp: true, voltsOnNegative: true })).toEqual(["negative", "lift"]);
  expect(ids({ inAmp: true, lineConnected: true, isolatedSupply: false })).toEqual(["line!", "lift"]);
});
