import { readFileSync } from "node:fs";
import { alter } from "../circuit/alter";
import { readCircuit } from "../circuit/read";
import { madeFor, mainsDraw, ratedHeaterWatts } from "../solver/mains-draw";
import { operatingPoint } from "../solver/operating-point";
import { movesNotLive, predictBringUp } from "./predict-stages";
import { corridorAt, glowOf, judgeCurrent, judgeGlow, lampDoubt, lampFor } from "./corridor";
import { cableLoss, judgeCoil, judgeDummy, judgeMatch, lineLoad } from "./load";
import { chassisAmps, fuseFor, judgeFuse, largestToChassis, onLine, tapFor, transformerFor } from "./mains-frame";
import { settlingOf } from "./settle";
import { stageFit, stagesOf } from "./stages";

const load = (name: string) => readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8")).circuit;

describe("the stages follow the amp", () => {
  test("a tube rectifier, cathode bias: windings, rectifier, load, small, output, full, settling", () => {
    const stages = stagesOf(load("lantern-15"));
    expect(stages.map((s) => s.id)).toEqual(["no-tubes", "rectifier", "load", "small", "output", "full", "settle"]);
    expect(stages[0]!.without).toEqual(["V6", "V1", "V2", "V3", "V4", "V5"]);
    expect(stages[0]!.watch.map((w) => w.point)).toEqual(["HT.1", "HT.2", "H1", "H2"]);
    expect(stages[1]!.steps[0]).toBeGreaterThanOrEqual(0.5);
    expect(stages[3]!.watch.slice(0, 2).map((w) => w.point)).toEqual(["V4.g", "V5.g"]);
  });
  test("solid state with fixed bias: rails at once, bias proven at every socket, one tube at a time after a fuse", () => {
    const halberd = load("halberd-120");
    const stages = stagesOf(halberd, { oneAtATime: true });
    expect(stages.map((s) => s.id)).toEqual([
      "no-tubes",
      "bias",
      "load",
      "small",
      "output:V4",
      "output:V5",
      "output:V6",
      "output:V7",
      "full",
      "settle",
    ]);
    expect(stages[1]!.watch.map((w) => [w.point, w.must])).toEqual([
      ["V4.g", true],
      ["V5.g", true],
      ["V6.g", true],
      ["V7.g", true],
    ]);
    expect(stages[5]!.without).toEqual(["V6", "V7"]);
    expect(stages[5]!.after).toEqual(["no-tubes", "bias", "load", "small", "output:V4"]);
  });
  test("a line-connected string: isolation first, no tube is ever pulled", () => {
    const stages = stagesOf(load("minor"));
    expect(stages.map((s) => s.id)).toEqual(["isolation", "string", "load", "output", "full", "settle"]);
    expect(stages.every((s) => s.without.length === 0)).toBe(true);
  });
  test("a tube pulled that the stage needs, and the other way round", () => {
    const c = load("lantern-15");
    const [noTubes, rectifier] = stagesOf(c);
    expect(stageFit(c, rectifier!, ["V1", "V2", "V3", "V4", "V5", "V6"])).toEqual({ wantedIn: ["V6"], wantedOut: [] });
    expect(stageFit(c, noTubes!, ["V1", "V2", "V3", "V4", "V5"])).toEqual({ wantedIn: [], wantedOut: ["V6"] });
  });
});

describe("what each stage should show", () => {
  const lantern = load("lantern-15");
  const p = predictBringUp(lantern, 230, 100);
  const of = (id: string) => p.stages.find((s) => s.stage === id)!;
  test("currents rise from stage to stage, and the corridor holds them", () => {
    const last = ["no-tubes", "rectifier", "small", "full"].map((id) => of(id).steps.at(-1)!.amps);
    expect([...last].sort((a, b) => a - b)).toEqual(last);
    for (const s of p.stages) for (const x of s.steps) expect(x.low <= x.amps && x.amps <= x.high).toBe(true);
    expect(of("full").steps[0]!.amps).toBeCloseTo(p.fullAmps!, 6);
  });
  test("no tubes: nothing but magnetising current, 12 % of what the transformer was made for", () => {
    const op = operatingPoint(lantern, { mains: 230 });
    const draw = mainsDraw(op);
    const made = draw.heaterWatts + draw.supplyWatts;
    expect(madeFor(lantern)).toBeCloseTo(made, 6);
    expect(of("no-tubes").steps.at(-1)!.amps).toBeCloseTo((0.12 * made) / 230, 3);
    // 270 V a half at the circuit's own mains, 6 % more without its load.
    expect(of("no-tubes").steps.at(-1)!.volts["HT.1"]).toBeCloseTo(270 * 1.06, 3);
  });
  test("the unloaded rail stands near the winding's peak; loaded it comes down to the chart", () => {
    expect(of("rectifier").steps.at(-1)!.volts.B1).toBeGreaterThan(0.97 * Math.SQRT2 * 270);
    expect(of("full").steps.at(-1)!.volts.B1).toBeLessThan(330);
  });
  test("half the volts warm no cathode: little more than the heaters is drawn at the first turn of the dial", () => {
    const first = of("output").steps[0]!;
    expect(first.mains).toBeCloseTo(115, 6);
    expect(first.amps / of("output").steps.at(-1)!.amps).toBeLessThan(0.3);
    expect(first.volts["V4.k"]! / of("output").steps.at(-1)!.volts["V4.k"]!).toBeLessThan(0.25);
  });
  test("the Minor: 0.15 A through the string and its ballast, 17.5 W of heaters", () => {
    const minor = load("minor");
    expect(ratedHeaterWatts(minor)).toBeCloseTo(97.6 * 0.15 + 0.15 ** 2 * 130, 6);
    // One open heater puts all out: next to nothing is drawn.
    const open = alter(minor, ["V3=heater-open"]);
    expect(ratedHeaterWatts(open)).toBe(0);
    const dead = operatingPoint(open, { mains: 117 });
    expect(dead.converged && mainsDraw(dead).amps).toBeLessThan(0.02);
  });
  test("a shorted winding half takes amperes with every tube out", () => {
    const shorted = predictBringUp(alter(lantern, ["V6=winding-short"]), 230, 100);
    const s = shorted.stages.find((x) => x.stage === "no-tubes")!;
    // 270²/120 = 607 W and the transformer's losses, at 230 V.
    expect(s.steps.at(-1)!.amps).toBeCloseTo((607.5 * 1.1) / 230, 1);
    expect(glowOf(s.lamp!.glow)).toBe("bright");
    expect(judgeCurrent(of("no-tubes").steps, 58, 0.7)).toMatchObject({ verdict: "out", stop: true });
  });
  test("controls that must not be moved live: the bias adjuster of every fixed-bias amp", () => {
    expect(movesNotLive(load("halberd-120"), 230).map((m) => m.control)).toEqual(["P9"]);
    expect(movesNotLive(load("halberd-120"), 230)[0]!.kind).toBe("control");
    expect(movesNotLive(load("drover-40"), 230).map((m) => m.control)).toEqual(["P9"]);
    expect(movesNotLive(load("wren-5"), 230)).toEqual([]);
    // A mode switch that moves a screen from the supply to the plate floats it half-way.
    expect(movesNotLive(load("lantern-15"), 230).find((m) => m.kind === "switch")).toMatchObject({
      control: "S2A",
      kind: "switch",
      why: expect.stringContaining("an electrode of V4 is left floating"),
    });
  });
});

describe("readings against the corridor", () => {
  const steps = [
    { mains: 115, amps: 0.1, low: 0.08, high: 0.12, volts: {} },
    { mains: 230, amps: 0.28, low: 0.25, high: 0.31, volts: {} },
  ];
  test("between steps, below the first and beyond the last it goes on straight", () => {
    expect(corridorAt(steps, 172.5)).toEqual({
      amps: expect.closeTo(0.19, 9),
      low: expect.closeTo(0.165, 9),
      high: expect.closeTo(0.215, 9),
      over: Infinity,
    });
    expect(corridorAt(steps, 57.5)!.amps).toBeCloseTo(0.05, 9);
    expect(corridorAt(steps, 241.5)!.high).toBeCloseTo(0.329, 9);
    expect(corridorAt([], 100)).toBeUndefined();
  });
  test("mains that wanders is judged at the volts of each reading", () => {
    for (const volts of [222, 228, 230, 236, 241]) expect(judgeCurrent(steps, volts, corridorAt(steps, volts)!.amps)!.verdict).toBe("in");
    expect(judgeCurrent(steps, 115, 0.15)).toMatchObject({ verdict: "watch", stop: false });
    expect(judgeCurrent(steps, 115, 0.5)).toMatchObject({ verdict: "out", stop: true });
    expect(judgeCurrent(steps, 230, 0.1)).toMatchObject({ verdict: "watch", stop: false });
  });
  test("the lamp: brighter than it should be stops, darker asks", () => {
    const lamp = { watts: 100, ampVolts: 174, amps: 0.2, glow: 0.11 };
    expect(judgeGlow("glowing", lamp).verdict).toBe("in");
    expect(judgeGlow("bright", lamp)).toMatchObject({ verdict: "out", stop: true });
    expect(judgeGlow("dark", lamp)).toMatchObject({ verdict: "watch", stop: false });
  });
  test("a lamp of the wrong power is named in both directions", () => {
    const { lamps } = predictBringUp(load("halberd-120"), 230, 0);
    const fits = lampFor(lamps)!;
    expect(fits.share).toBeGreaterThanOrEqual(0.7);
    expect(lampDoubt(25, lamps)).toContain("too small");
    expect(lampDoubt(fits.watts, lamps)).toBe("");
    expect(lampDoubt(1000, lamps)).toContain("too large");
    const wren = predictBringUp(load("wren-5"), 230, 0).lamps;
    expect(lampDoubt(300, wren)).toContain("too large");
  });
});

describe("speaker and load", () => {
  test("a coil of 6.4 Ω is an 8 Ω speaker; open and short are named", () => {
    expect(judgeCoil(6.4, 8)).toMatchObject({ nominal: 8, verdict: "in" });
    expect(judgeCoil(1e6, 8).verdict).toBe("out");
    expect(judgeCoil(0.2, 8).verdict).toBe("out");
    expect(judgeCoil(3.2, 16)).toMatchObject({ verdict: "out", why: expect.stringContaining("below the tap") });
    expect(judgeMatch(16, 8).verdict).toBe("watch");
  });
  test("a dummy load bears twice the sine power", () => {
    expect(judgeDummy(8, 50, 8, 15)).toMatchObject({ wanted: 30, verdict: "in" });
    expect(judgeDummy(8, 20, 8, 15).verdict).toBe("watch");
    expect(judgeDummy(8, 10, 8, 15).verdict).toBe("out");
  });
  test("hand-worked: 5 m of 0.75 mm² is 0.23 Ω, 2.8 % of 8 Ω; 120 W on a 100 V line is 83 Ω", () => {
    const { ohms, share } = cableLoss(5, 0.75, 8);
    expect(ohms).toBeCloseTo(0.2299, 3);
    expect(share).toBeCloseTo(0.0279, 3);
    expect(lineLoad(100, 120)).toBeCloseTo(83.33, 2);
  });
});

describe("the mains frame", () => {
  test("hand-worked: 47 nF to chassis at 230 V 50 Hz passes 3.4 mA; 0.5 mA allows 6.9 nF", () => {
    expect(chassisAmps(47e-9, 230, 50)).toBeCloseTo(3.396e-3, 6);
    expect(largestToChassis(0.5e-3, 230, 50)).toBeCloseTo(6.92e-9, 11);
  });
  test("a 117 V 60 Hz set on 120 V 50 Hz: rails up 3 %, flux up 23 %", () => {
    expect(onLine({ volts: 117, hertz: 60 }, { volts: 120, hertz: 50 })).toMatchObject({
      verdict: "out",
      flux: expect.closeTo(1.2308, 3),
      rails: expect.closeTo(1.0256, 3),
    });
    expect(onLine({ volts: 230, hertz: 50 }, { volts: 230, hertz: 50 })).toMatchObject({ verdict: "in", why: "" });
    expect(onLine({ volts: 220, hertz: 50 }, { volts: 236, hertz: 50 }).verdict).toBe("watch");
    expect(onLine({ volts: 117, hertz: 50 }, { volts: 230, hertz: 50 }).verdict).toBe("out");
  });
  test("taps, fuses, transformers", () => {
    expect(tapFor([110, 200, 220, 240], 230)).toBe(240);
    expect(tapFor([110, 200, 220, 240], 224)).toBe(220);
    expect(tapFor([110, 200], 230)).toBe(200);
    expect(fuseFor(0.28)).toBe(0.5);
    expect(judgeFuse(5, 0.28)).toMatchObject({ verdict: "out", why: expect.stringContaining("0.5 A") });
    expect(judgeFuse(0.25, 0.28).verdict).toBe("out");
    expect(judgeFuse(0.5, 0.28).verdict).toBe("in");
    expect(transformerFor(60)).toBe(80);
  });
});

describe("a settling run", () => {
  const run = (end: number, by: number, tau: number, minutes: number[], noise = 0) =>
    settlingOf(minutes.map((m, i) => ({ minutes: m, volts: end + by * Math.exp(-m / tau) + noise * (i % 2 ? 1 : -1) })));
  test("settled, on its way, drifting, too few", () => {
    expect(run(-43, 3, 4, [0, 5, 10, 15, 20, 30, 40])).toMatchObject({ verdict: "settled", end: expect.closeTo(-43, 1) });
    expect(run(-43, 6, 20, [0, 5, 10, 15, 20, 25])).toMatchObject({
      verdict: "settling",
      end: expect.closeTo(-43, 0),
      minutes: expect.closeTo(20, -1),
    });
    expect(settlingOf([0, 5, 10, 15, 20, 25].map((m) => ({ minutes: m, volts: -43 + 0.5 * m })))).toMatchObject({ verdict: "drifting" });
    expect(run(-43, 3, 4, [0, 5, 10])).toMatchObject({ verdict: "too few" });
  });
  test("a meter's last digit is no drift", () => {
    expect(run(-43, 0, 4, [0, 5, 10, 15, 20, 25], 0.05).verdict).toBe("settled");
  });
});
