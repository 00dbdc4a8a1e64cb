/** What is no part of the amp: the mains, the meter, the hand, and what is on no list. */

import { alter } from "../circuit/alter";
import { demoAmp } from "../solver/circuits-for-tests";
import { operatingPoint, readings } from "../solver/operating-point";
import { rippleOf } from "../solver/ripple";
import type { Evidence } from "../diagnosis/evidence";
import { mainsKnown } from "./mains-known";
import { nextMeasurements } from "./next";
import { rank } from "./rank";
import { FaultTable } from "./table";

const circuit = demoAmp("wren-5");
const table = new FaultTable(circuit);
const conditions = { mains: 230, without: [], set: [] };
const read = (changes: string[], mains = 230): Evidence[] =>
  [...readings(operatingPoint(alter(circuit, changes), { mains }), circuit.points)].map(([point, value]) => ({
    point,
    kind: "dcv",
    value,
    conditions,
  }));

describe("the mains", () => {
  test("all rails and cathodes at nine tenths are the mains, not a tube", () => {
    const [top] = rank(table, read([], 0.88 * 230)).suspects;
    expect(top!.refs).toEqual(["mains"]);
    expect(top!.fitted).toBeGreaterThan(0.84);
    expect(top!.fitted).toBeLessThan(0.92);
  });
  test("three percent off what was typed is no finding; measured at the amp it weighs more", () => {
    expect(rank(table, read([], 0.97 * 230)).suspects[0]!.refs).toEqual([]);
    const sound = (mains: "measured" | "assumed") =>
      rank(table, read([], 0.95 * 230), undefined, { mains }).suspects.find((s) => s.refs.length === 0)!.probability;
    expect(sound("assumed")).toBeGreaterThan(sound("measured"));
  });
  test("it is asked for as long as nobody measured it, cheaper than anything else", () => {
    const { posterior } = rank(table, read([], 0.9 * 230).slice(0, 3));
    const asked = nextMeasurements(posterior, conditions, 10, "entered");
    expect(asked.find((n) => n.kind === "mains")).toMatchObject({ point: "mains", cost: 0.3 });
    expect(asked[0]!.kind).toBe("mains");
    expect(nextMeasurements(posterior, conditions, 10, "measured").some((n) => n.kind === "mains")).toBe(false);
  });
  test("how it is known, by the tape", () => {
    const on = { state: "on" as const, at: "2026-11-20T10:00:00Z", seq: 5, without: [], through: undefined } as never;
    expect(mainsKnown({ mainsSeq: undefined, power: undefined })).toBe("assumed");
    expect(mainsKnown({ mainsSeq: 3, mainsAt: "2026-11-18T10:00:00Z", power: on })).toBe("entered");
    expect(mainsKnown({ mainsSeq: 4, mainsAt: "2026-11-20T09:58:00Z", power: on })).toBe("measured");
    expect(mainsKnown({ mainsSeq: 7, power: on })).toBe("measured");
  });
});

describe("the meter and the hand", () => {
  const with_ = (point: string, value: number) => read([]).map((e) => (e.point === point ? { ...e, value } : e));
  test.each([
    ["V2.k", 0.00788, /volts read as millivolts|millivolts/],
    ["B2", -254.7, /other sign/],
    ["V2.k", 254, /what V2\.[sp] should show: the probe may have been on the neighbouring pin/],
  ])("%s at %d V", (point, value, why) => {
    const ranking = rank(table, with_(point, value));
    expect(ranking.recheck).toContain(point);
    expect(ranking.slips[point]).toMatch(why);
  });
  test("no readings: nothing wrong leads, nothing is sure", () => {
    const [top] = rank(table, []).suspects;
    expect(top!.refs).toEqual([]);
    expect(top!.probability).toBeLessThan(0.6);
  });
});

test("readings that no fault of this circuit makes are called that, not given to the nearest part", () => {
  const odd = read([]).map((e) => ({
    ...e,
    value: e.value * ({ B2: 0.6, "V1A.p": 1.5, "V1B.k": 3, "V2.k": 0.5, "V1A.k": 2.2 }[e.point] ?? 1),
  }));
  const ranking = rank(table, odd);
  const known = ranking.suspects.find((s) => !s.unknown && s.refs.length > 0);
  expect(ranking.suspects[0]!.unknown ?? ranking.circuitDoubtful).toBe(true);
  expect(known?.groupProbability ?? 0).toBeLessThan(0.5);
});

test("a dried-out decoupler shows in its rail's ripple alone", () => {
  const changed = alter(circuit, ["C2=2u"]);
  const ripple = rippleOf(operatingPoint(changed, { mains: 230 }));
  const acv = ["B1", "B2", "B3"].map((point): Evidence => ({ point, kind: "acv", value: ripple.get(point.toLowerCase())!, conditions }));
  const [top] = rank(table, [...read(["C2=2u"]), ...acv]).suspects;
  expect([...top!.refs, ...top!.groupRefs.flat()]).toContain("C2");
});

test("a pair that adds nothing to one of its own two is not listed", () => {
  const { suspects } = rank(table, read(["V2=weak:0.4"]));
  expect(suspects[0]!.refs).toEqual(["V2"]);
  expect(suspects.filter((s) => s.fault.includes(" and ") && s.groupProbability > 0.02)).toEqual([]);
});

test("an ohmmeter across a resistor tells a misread code: ten times as much is seen cold as well", () => {
  const ohm: Evidence = { point: "R7", kind: "ohm", value: 15.1e3, conditions: { without: [], set: [] } };
  const misread = rank(table, [...read(["R7=15k"]), ohm]).suspects.find((s) => s.group.includes("R7 ten times its value (code misread)"))!;
  expect(misread.refs).toEqual(["R7"]);
  // The last of the evidence is the ohmmeter's: 15 kΩ is predicted, not the sound amp's 1.5 kΩ.
  const alone = rank(table, [ohm]).posterior.weighed.find((w) => w.fault.name === "R7 ten times its value (code misread)")!;
  expect(Math.exp(alone.mean[0]!)).toBeGreaterThan(14e3);
});
