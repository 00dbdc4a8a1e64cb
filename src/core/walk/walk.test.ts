import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { writeCircuit } from "../circuit/write";
import { viewJob } from "../job/job-view";
import { DEFAULT_SETTINGS } from "../shop/settings";
import { at, tape } from "../tape/tape-for-tests";
import type { EventDraft } from "../tape/events/event";
import { couplingCapacitorsTo, ohmsToGround, roleOf, supplyChain } from "../anatomy/points";
import { chartScaled, meterRange, verdictOf } from "../expectation/expectation";
import { stageColumns, staircase } from "./walk";

const load = (name: string) => readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8")).circuit;
const wren = load("wren-5");
const lantern = load("lantern-15");
const drover = load("drover-40");
const point = (c: typeof wren, name: string) => c.points.find((p) => p.name === name)!;
const rows = (c: typeof wren, mains: number, ...readings: [string, number][]) =>
  viewJob(
    tape(
      [0, { type: "mains", payload: { volts: mains } }],
      ...readings.map(([p, value], i): [number, EventDraft] => [
        i + 1,
        { type: "reading", payload: { point: p, kind: "dcv", value, conditions: { mains } } },
      ]),
    ),
    // As a file, which is what a job has.
    writeCircuit(c),
    DEFAULT_SETTINGS,
    at(99),
  ).rows;
const row = (c: typeof wren, mains: number, name: string, value: number) =>
  rows(c, mains, [name, value]).find((r) => r.point.name === name)!;

describe("what a point is", () => {
  test("roles", () => {
    expect(["B1", "B3", "V2.k", "V2.p", "V2.s", "V2.g"].map((n) => roleOf(wren, point(wren, n)))).toEqual([
      "rail",
      "rail",
      "cathode",
      "plate",
      "screen",
      "grid",
    ]);
    expect(roleOf(drover, point(drover, "BIAS"))).toBe("bias");
  });
  test("the supply chain goes down from the rectifier with its droppers", () => {
    const chain = (c: typeof wren) => supplyChain(c).map((s) => [s.point.name, s.droppers.map((d) => d.name).join("+")]);
    expect(chain(wren)).toEqual([
      ["B1", ""],
      ["B2", "R1"],
      ["B3", "R2"],
    ]);
    expect(chain(lantern)).toEqual([
      ["B1", ""],
      ["B2", "R1"],
      ["B3", "R2"],
      ["B4", "R3"],
    ]);
    expect(chain(drover)).toEqual([
      ["B1", ""],
      ["B2", "SB+L1"],
      ["B3", "R1"],
      ["B4", "R2"],
    ]);
  });
  test("ohms from a cathode to ground, through a chain too", () => {
    expect(ohmsToGround(wren, "k2")).toBeCloseTo(180, 6);
    expect(ohmsToGround(lantern, "k3a")).toBeCloseTo(57_500, 2);
    expect(ohmsToGround(wren, "p2")).toBe(Infinity);
  });
  test("the capacitor that could put volts on a grid", () => {
    expect(couplingCapacitorsTo(wren, "g2").map((c) => c.name)).toEqual(["C6"]);
    expect(couplingCapacitorsTo(wren, "g1b").map((c) => c.name)).toEqual(["C5"]);
    expect(couplingCapacitorsTo(lantern, "g5").map((c) => c.name)).toEqual(["C7"]);
  });
});

describe("expectations from the scaled chart", () => {
  const source = chartScaled(wren);
  test("the chart's mains and today's", () => {
    expect(source.expect(point(wren, "B1"), { mains: 242 })).toMatchObject({
      volts: expect.closeTo(280.5),
      low: expect.closeTo(252.45),
      high: expect.closeTo(308.55),
      basis: "chart",
    });
    expect(source.expect(point(wren, "B1"), { mains: 220 })).toMatchObject({ volts: 255, note: "chart 255 V" });
  });
  test("a zero on the chart has an absolute band", () =>
    expect(source.expect(point(wren, "V2.g"), { mains: 230 })).toMatchObject({ low: -0.3, high: 0.3 }));
  test("it is silent where it does not hold", () => {
    expect(source.expect(point(wren, "B1"), { without: ["V2"] })).toEqual({ none: "the chart holds with all tubes fitted; V2 removed" });
    expect(source.expect(point(wren, "B1"), { limiter: "lamp" })).toHaveProperty("none");
    expect(source.expect(point(wren, "B1"), { mains: 120 })).toEqual({ none: expect.stringContaining("does not scale down to 120 V") });
  });
  test("verdicts", () => {
    const e = { volts: 100, low: 90, high: 110, basis: "chart" as const, note: "" };
    expect([100, 90, 112, 84, 80, 140].map((v) => verdictOf(v, e))).toEqual(["in", "in", "watch", "out", "out", "out"]);
  });
  test("the meter's range", () =>
    expect([0, 0.42, 7, 160, 340].map(meterRange)).toEqual(["auto range", "2 V DC", "20 V DC", "1000 V DC", "1000 V DC"]));
});

describe("first reasons", () => {
  test.each<[string, number, RegExp]>([
    ["V2.k", 0, /no current.*look at V2\.p next/],
    ["V2.k", 14, /draws too much.*R4 is open or high.*grid next/],
    ["V2.g", 3.5, /C6 leaks.*Pull the tube/],
    ["B1", 0, /No high tension: rectifier, fuse/],
    ["B3", 0, /R2 open.*Look at B2 next/],
    ["V1A.p", 224, /Dead tube, or open cathode\. Look at V1A\.k next/],
    ["V1A.p", 60, /R8 has gone high.*V1A\.k tells them apart/],
    ["V2.s", 0, /R3 open/],
    ["B1", -280, /other way round/],
  ])("%s at %d V", (name, value, reason) => expect(row(wren, 230, name, value).reason).toMatch(reason));
  test("missing bias says switch off", () => expect(row(drover, 230, "BIAS", -2).reason).toMatch(/Switch off/));
  test("a reading in band needs no reason", () => expect(row(wren, 220, "B1", 275)).toMatchObject({ verdict: "in", reason: undefined }));
});

describe("currents and dissipation", () => {
  test("hand-worked: 8.1 V across 180 Ω, plate at 275 V, EL84", () => {
    const idle = rows(wren, 230, ["V2.k", 8.1], ["V2.p", 275]).find((r) => r.point.name === "V2.k")!.idle[0]!;
    expect(idle.cathodeAmps).toBeCloseTo(0.045, 9);
    // Screen share of the published point: 5.5 / 53.5.
    expect(idle.plateAmps).toBeCloseTo(0.045 * (48 / 53.5), 9);
    expect(idle.plateWatts).toBeCloseTo(0.045 * (48 / 53.5) * 266.9, 6);
    expect(idle.ofRating).toBeCloseTo(0.898, 2);
  });
  test("a shared cathode resistor is halved between its tubes", () => {
    const idle = rows(lantern, 240, ["V4.k", 19.5], ["V4.p", 338]).find((r) => r.point.name === "V4.k")!.idle;
    expect(idle.map((i) => [i.tube, i.sharedBy])).toEqual([
      ["V4", 2],
      ["V5", 2],
    ]);
    expect(idle[0]!.cathodeAmps).toBeCloseTo(0.039, 9);
    expect(idle[1]!.plateWatts).toBeUndefined();
  });
});

describe("pictures' content", () => {
  test("the staircase has a step per rail, the columns a cell per electrode", () => {
    const all = rows(drover, 230, ["B1", 436], ["B2", 300]);
    expect(staircase(drover, all).map((s) => [s.name, s.droppers, s.verdict])).toEqual([
      ["B1", "", "in"],
      ["B2", "SB + L1", "out"],
      ["B3", "R1", "none"],
      ["B4", "R2", "none"],
    ]);
    const columns = stageColumns(drover, all);
    expect(columns[0]).toMatchObject({ tube: "V5", type: "KT66" });
    expect(columns.find((c) => c.tube === "V1")?.cells.map((c) => c.electrode)).toEqual(["plate", "screen", "cathode", "grid"]);
  });
});
