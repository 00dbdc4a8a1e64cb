import { readFileSync } from "node:fs";
import fc from "fast-check";
import { readCircuit } from "../circuit/read";
import { AMPS, circuitOf, demoAmp } from "../solver/circuits-for-tests";
import { alter } from "../circuit/alter";
import { setLanguage } from "../language/language";
import { adjustersOf, balanceOf } from "./adjusters";
import { biasTable, driftOf } from "./bias-table";
import { fitStrengths, idleAtAim, positionForAim, solveIdle } from "./idle";
import { outputStages } from "./output-stage";
import { pairOf, SHEET_PAIRS } from "./pairs-for-tests";
import { readCurrent, type CurrentReading } from "./read-current";
import { targetsOf } from "./targets";

const drover = demoAmp("drover-40");
const [pair] = outputStages(drover) as [ReturnType<typeof outputStages>[number]];

test.each([
  ["wren-5", 1, "cathode", 1],
  ["minor", 1, "cathode", 1],
  ["lantern-15", 1, "cathode", 2],
  ["drover-40", 1, "fixed", 2],
  ["halberd-120", 1, "fixed", 4],
  ["picture-house", 2, "fixed", 2],
])("%s: %i stage, %s bias, %i tubes in each", (name, stages, bias, tubes) => {
  const found = outputStages(demoAmp(name));
  expect(found).toHaveLength(stages);
  for (const s of found) expect([s.bias, s.tubes.length]).toEqual([bias, tubes]);
});

test("bias from a supply and a cathode resistor is mixed; one with neither transformer nor tubes is no stage", () => {
  const mixed = alter(drover, ["R4=100", "R5=100"]);
  expect(outputStages(mixed)[0]!.bias).toBe("mixed");
  expect(outputStages(circuitOf("V1 a 0 10", "R1 a 0 1k"))).toEqual([]);
});

describe("a current is read in four ways, worked by hand", () => {
  const read = (reading: Omit<CurrentReading, "tube"> & { tube?: string }, plateVolts?: number) => {
    const r = readCurrent(pair, { tube: "V5", ...reading }, plateVolts);
    if (!r.ok) throw new Error(r.why);
    return r;
  };
  test("0.46 V across 10 Ω and 0.94 V across a screen resistor of 470 Ω: 46 mA, 2 mA, 44 mA", () => {
    const { current } = read({ way: "cathode resistor", value: 0.46, ohms: 10, screenVolts: 0.94 });
    expect(current.cathode).toBeCloseTo(0.046, 9);
    expect(current.screen).toBeCloseTo(0.002, 9);
    expect(current.plate).toBeCloseTo(0.044, 9);
    expect(current.screenBy).toBe("measured");
  });
  test("without it the sheet's share: KT66, 6.3 mA of 91.3", () => {
    const { current } = read({ way: "socket probe", value: 0.05 });
    expect(current.plate).toBeCloseTo(0.05 * (85 / 91.3), 6);
    expect(current.screenBy).toBe("type");
  });
  test("4.18 V across a half of 95 Ω is 44 mA of plate current, the screens not in it", () => {
    expect(read({ way: "half winding", value: 4.18, ohms: 95 }).current.plate).toBeCloseTo(0.044, 9);
  });
  test("a meter of 5 Ω across the half of 95 Ω takes 41.8 mA of 44", () => {
    expect(read({ way: "shunt", value: 0.0418, ohms: 95, meterOhms: 5 }).current.plate).toBeCloseTo(0.044, 9);
  });
  test("two tubes on a half, or on one cathode, share a reading", () => {
    const [halberd] = outputStages(demoAmp("halberd-120"));
    const half = readCurrent(halberd!, { tube: "V4", way: "half winding", value: 2.56, ohms: 32 });
    expect(half.ok && half.current.plate).toBeCloseTo(0.04, 9);
    const [lantern] = outputStages(demoAmp("lantern-15"));
    const shared = readCurrent(lantern!, { tube: "V4", way: "cathode resistor", value: 20 });
    expect(shared.ok && [shared.current.cathode, shared.current.sharedBy]).toEqual([expect.closeTo(0.04, 9), 2]);
  });
});

describe("what cannot be is refused or doubted, with what was likely meant", () => {
  const why = (reading: CurrentReading, volts?: number) => {
    const r = readCurrent(pair, reading, volts);
    return r.ok ? r.doubts.join(" ") : `${r.why}; ${r.accepted}`;
  };
  test.each([
    [{ tube: "V5", way: "cathode resistor", value: -0.4 }, undefined, "leads lie the other way"],
    [{ tube: "V9", way: "socket probe", value: 0.04 }, undefined, "V9 is no output tube of this stage; V5, V6"],
    [{ tube: "V5", way: "socket probe", value: 42 }, 420, "35m"],
    [{ tube: "V5", way: "cathode resistor", value: 460 }, 420, "millivolts"],
    [{ tube: "V5", way: "cathode resistor", value: 0.46, ohms: 1 }, 420, "Is the cathode resistor really 1.00 Ω"],
    [{ tube: "V5", way: "half winding", value: 4, ohms: 0 }, undefined, "the resistance of its half"],
    [{ tube: "V5", way: "socket probe", value: 0.04, screenVolts: 470 }, undefined, "the screen would draw more"],
    [{ tube: "V5", way: "socket probe", value: NaN }, undefined, "not a number"],
  ] as [CurrentReading, number | undefined, string][])("%j", (reading, volts, says) => {
    expect(why(reading, volts)).toContain(says);
  });
  test("a tube that was not read, and a stage of mixed types, are named", () => {
    const odd = alter(drover, ["V6=type:6L6GC"]);
    const table = biasTable(outputStages(odd)[0]!, [{ tube: "V5", way: "socket probe", value: 0.04 }], () => ({ plate: 420 }));
    expect(table.missing).toEqual(["V6"]);
    expect(table.mixed).toEqual(["KT66", "6L6GC"]);
  });
});

test("the table: watts, part of the rating, spread and what magnetises the core, by hand", () => {
  const table = biasTable(
    pair,
    [
      { tube: "V5", way: "half winding", value: 3.8, ohms: 95 },
      { tube: "V6", way: "half winding", value: 3.744, ohms: 104 },
    ],
    () => ({ plate: 425, screen: 425 }),
  );
  // 40 mA and 36 mA at 425 V of 25 W.
  expect(table.rows.map((r) => r.plateWatts)).toEqual([expect.closeTo(17, 6), expect.closeTo(15.3, 6)]);
  expect(table.rows[0]!.ofRating).toBeCloseTo(0.68, 6);
  expect(table.spread).toBeCloseTo(4 / 38, 6);
  expect(table.standing).toBeCloseTo(0.004, 6);
});

test("an idle that still climbs has not settled", () => {
  const climbing = [0, 2, 4, 6].map((minutes) => ({ minutes, amps: 0.04 * (1 + 0.01 * minutes) }));
  expect(driftOf(climbing)).toMatchObject({ settled: false });
  expect(driftOf(climbing)!.perMinute).toBeCloseTo(0.01 / 1.03, 4);
  expect(driftOf([20, 22, 24].map((minutes) => ({ minutes, amps: 0.04 + minutes * 1e-6 })))).toMatchObject({ settled: true });
  expect(driftOf([{ minutes: 1, amps: 0.04 }])).toBeUndefined();
});

test.each(SHEET_PAIRS)("the zero-signal dissipation of a class AB1 table: $type at $plate V", (p) => {
  const { idle } = solveIdle(pairOf(p));
  const cathode = p.cathode ? -idle.tubes[0]!.gridVolts : 0;
  const published = (p.plateMilliamps / 1e3) * (p.plate - cathode);
  expect(idle.tubes[0]!.plateWatts / published).toBeGreaterThan(0.9);
  expect(idle.tubes[0]!.plateWatts / published).toBeLessThan(1.1);
});

test("tubes fitted to a reading give it back with their own rails, in fixed and in cathode bias", () => {
  for (const [name, read] of [
    ["drover-40", { V5: 0.03, V6: 0.036 }],
    ["lantern-15", { V4: 0.03, V5: 0.033 }],
  ] as const) {
    const fitted = fitStrengths(demoAmp(name), new Map(Object.entries(read)), 235);
    for (const [tube, amps] of Object.entries(read)) expect(fitted.idle.tubes.find((t) => t.name === tube)!.plate / amps).toBeCloseTo(1, 2);
    expect(fitted.unlike).toEqual([]);
  }
  expect(fitStrengths(drover, new Map([["V5", 0.4]])).unlike).toEqual(["V5"]);
});

test("a school's target has its share of the rating, and the supply falls as the idle rises", () => {
  const targets = targetsOf(drover, pair, { label: 0.03, brief: "reliability" });
  const by = (school: string) => targets.find((t) => t.school === school)!;
  expect(by("cool").ofRating).toBeCloseTo(0.55, 2);
  expect(by("hot").ofRating).toBeCloseTo(0.8, 2);
  expect(by("label").amps).toBeCloseTo(0.03, 4);
  expect(by("brief").ofRating).toBeCloseTo(0.55, 2);
  const b1 = (school: string) => by(school).idle.rails.find((r) => r.point === "B1")!.volts;
  expect(b1("cool")).toBeGreaterThan(b1("middle"));
  expect(b1("middle")).toBeGreaterThan(b1("hot"));
  // Another way to the same idle: the adjuster itself.
  const turned = positionForAim(drover, "P9", ["V5", "V6"], { amps: by("middle").amps });
  if (!("position" in turned)) throw new Error("not reached");
  expect(turned.idle.rails.find((r) => r.point === "B1")!.volts).toBeCloseTo(b1("middle"), 0);
});

test("an adjuster is named with the tubes that it moves; a volume control is none", () => {
  expect(adjustersOf(drover)).toMatchObject([{ name: "P9", role: "level", stages: ["T1"] }]);
  expect(adjustersOf(demoAmp("picture-house")).map((a) => [a.name, a.stages])).toEqual([
    ["P5", ["T1"]],
    ["P6", ["T2"]],
  ]);
  expect(adjustersOf(demoAmp("wren-5"))).toEqual([]);
});

test("a balance control is found, and its nulls lie where the halves are alike", () => {
  // Each grid leak ends at its own divider, and one control shares the bias between the two.
  const text = readFileSync("demo/amps/drover-40.cir", "utf8")
    .replace("R8 g5 bw ", "R8 g5 ba5 ")
    .replace("R9 g6 bw ", "R9 g6 ba6 ")
    .replace(".end", "XP8 ba5 bn ba6 POT value=50k taper=linear pos=0.4\nR80 ba5 0 82k\nR81 ba6 0 82k\n.end");
  const balanced = readCircuit(text).circuit;
  const found = adjustersOf(balanced);
  const balance = found.find((a) => a.role === "balance");
  expect(found.map((a) => a.name)).toEqual(["P8"]);
  const [stage] = outputStages(balanced);
  const equal = balanceOf(balanced, stage!, balance!, "equal current");
  expect(equal.there).toBeLessThan(equal.now);
  // The two tubes are alike and the circuit around them too: the middle.
  expect(equal.position).toBeCloseTo(0.5, 1);
  expect(balanceOf(balanced, stage!, balance!, "injected hum").position).toBeCloseTo(0.5, 0);
});

test("no target and no position passes a rating unmarked, over random pairs", () => {
  const types = ["6V6GT", "6L6GC", "EL34", "KT66", "EL84"];
  fc.assert(
    fc.property(
      fc.constantFrom(...types),
      fc.integer({ min: 220, max: 450 }),
      fc.double({ min: 0.1, max: 1, noNaN: true }),
      (type, volts, share) => {
        const circuit = pairOf({ type, plate: volts, screen: Math.min(volts, 300), grid: -20, zpp: 6000, cathode: 0 });
        const [stage] = outputStages(circuit);
        const at = idleAtAim(circuit, stage!, { ofRating: share });
        if (!at) return true;
        for (const t of at.idle.tubes) expect(t.ofRating!).toBeCloseTo(share, 2);
        for (const t of targetsOf(circuit, stage!, { own: 0.2 }))
          expect(t.above).toBe(t.idle.tubes.some((x) => x.ofRating! > 1 || (x.ofScreenRating ?? 0) > 1));
        return true;
      },
    ),
    { numRuns: 15, seed: 17 },
  );
});

test("every demo amp's stage idles at what the solver's own table of tubes says", () => {
  for (const name of AMPS) for (const t of solveIdle(demoAmp(name)).idle.tubes) expect(t.plate * t.plateVolts).toBeCloseTo(t.plateWatts, 9);
});

test("texts follow the shop's words", () => {
  setLanguage({ tube: "valve", mains: "mains", decimal: "." });
  const r = readCurrent(pair, { tube: "V9", way: "socket probe", value: 1 });
  expect(r.ok ? "" : r.why).toContain("no output valve");
  setLanguage({ tube: "tube", mains: "mains", decimal: "." });
});
