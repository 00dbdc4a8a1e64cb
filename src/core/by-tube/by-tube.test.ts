/** What a technician says of readings without a circuit, written down by hand before the code was asked. */

import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import type { EventDraft } from "../tape/events/event";
import { findTubeType } from "../tubes/library";
import { byTube, placeOf, unnamedSockets } from "./places";
import { saysOf, usualAt } from "./says";

const seen = (tube: string, type: string): EventDraft => ({ type: "tube-seen", payload: { tube, type } });
const read = (point: string, value: number, kind: "dcv" | "acv" | "ohm" = "dcv"): EventDraft => ({
  type: "reading",
  payload: { point, kind, value, conditions: {} },
});
const of = (...lines: EventDraft[]) => byTube(foldJob(tape(...lines.map((l, i): [number, EventDraft] => [i, l]))));
const says = (...lines: EventDraft[]) => saysOf(of(...lines)).map((s) => `${s.verdict} ${s.where}: ${s.says}`);
/** A push-pull pair of EL84, cathode-biased, and a 12AX7 in front: rail 320 V. */
const SOUND = [
  seen("V1", "12AX7"),
  seen("V4", "EL84"),
  seen("V5", "EL84"),
  read("B1", 320),
  read("V1A.p", 190),
  read("V1A.k", 1.4),
  read("V1A.g", 0),
];
const PAIR = (k4: number, k5: number, g4 = 0) => [
  read("V4.p", 315),
  read("V4.s", 300),
  read("V4.g", g4),
  read("V4.k", k4),
  read("V5.p", 315),
  read("V5.k", k5),
];

describe("places", () => {
  const types = new Map([
    ["V1", findTubeType("ECC83")!],
    ["V4", findTubeType("EL84")!],
  ]);
  test("a pin is the electrode that the type has there, an electrode the pin (published data sheets)", () => {
    expect(placeOf("V1.6", types)).toEqual({ at: "tube", tube: "V1", half: "B", electrode: "plate", pin: 6 });
    expect(placeOf("V1A.k", types)).toMatchObject({ half: "A", electrode: "cathode", pin: 3 });
    expect(placeOf("V4.3", types)).toMatchObject({ electrode: "cathode", pin: 3 });
    expect(placeOf("V4.5", types)).toMatchObject({ electrode: "heater" });
    expect(placeOf("V9.6", types)).toEqual({ at: "tube", tube: "V9", pin: 6 });
    expect([placeOf("B1", types).at, placeOf("BIAS", types).at, placeOf("TP4", types).at]).toEqual(["rail", "rail", "other"]);
  });
  test("rails first, tubes by number, each by electrode; before the first change and after", () => {
    const change: EventDraft = { type: "change", payload: { position: "C6", kind: "replacement", newPart: "22 nF", reversible: true } };
    const list = of(
      seen("V10", "12AX7"),
      read("V2.k", 7),
      read("TP4", 1),
      read("V2.p", 240),
      read("B2", 300),
      read("B1", 320),
      change,
      read("V2.k", 7.5),
    );
    expect(list.rails.map((r) => r.name)).toEqual(["B1", "B2"]);
    expect(list.tubes.map((t) => [t.tube, t.rows.map((r) => r.name)])).toEqual([
      ["V2", ["V2.p", "V2.k"]],
      ["V10", []],
    ]);
    const cathode = list.tubes[0]!.rows[1]!;
    expect([cathode.before.dcv?.value, cathode.latest.dcv?.value]).toEqual([7, 7.5]);
    expect(list.others.map((r) => r.name)).toEqual(["TP4"]);
  });
  test("a pin and its electrode are one place, once the type is known; sockets that nobody named are told", () => {
    const list = of(seen("V4", "EL84"), read("V4.3", 11), read("V4.k", 135, "ohm"));
    expect(list.tubes[0]!.rows.map((r) => [r.name, r.latest.dcv?.value, r.latest.ohm?.value])).toEqual([["V4.k", 11, 135]]);
    expect(unnamedSockets(list)).toEqual(["V1", "V2", "V3"]);
    expect(unnamedSockets(of(seen("V1", "12AX7"), seen("V2", "EL84")))).toEqual([]);
  });
  test("an AC reading of a point is not its DC reading", () => {
    const [tube] = of(read("V2.k", 0.2, "acv"), read("V2.k", 7.5)).tubes;
    expect([tube!.rows[0]!.latest.acv?.value, tube!.rows[0]!.latest.dcv?.value]).toEqual([0.2, 7.5]);
  });
});

describe("a sound amp", () => {
  test("nothing is said of it", () => expect(says(...SOUND, ...PAIR(11, 10.6))).toEqual([]));
});

describe("faults that show without a circuit", () => {
  test("a grid above its cathode: the leaky coupling capacitor", () => {
    expect(says(...SOUND, ...PAIR(11, 10.6, 14)).join()).toMatch(/^out V4: The grid is 3\.0\d* V above its cathode/);
    // Contact potential is no fault.
    expect(says(seen("V1", "12AX7"), read("V1A.k", 0), read("V1A.g", 0.3), read("V1A.p", 190), read("B1", 320))).toEqual([]);
  });
  test("positive volts at an output tube's grid, though below its cathode", () => {
    expect(says(...SOUND, ...PAIR(16.5, 15.9, 14))).toEqual([expect.stringMatching(/^watch V4: 14\.0 V at the grid of an output tube/)]);
  });
  test("no bias: 0 V at grid and cathode of an output tube with its plate up", () => {
    expect(says(...SOUND, ...PAIR(0.1, 10.6)).filter((s) => s.startsWith("out"))).toEqual([expect.stringContaining("V4: Bias is missing")]);
    // With fixed bias it is held back.
    expect(says(...SOUND, ...PAIR(0.1, 0.1, -14)).filter((s) => s.includes("Bias is missing"))).toEqual([]);
  });
  test("a screen without volts", () => {
    expect(
      says(seen("V4", "EL84"), read("B1", 320), read("V4.p", 318), read("V4.s", 1), read("V4.k", 0), read("V4.g", -11)).join(),
    ).toContain("The screen has no volts");
  });
  test("a plate at its rail carries no current; an output tube's may", () => {
    expect(says(seen("V1", "12AX7"), read("B2", 290), read("V1A.p", 289))).toEqual([
      expect.stringMatching(/^out V1A: The plate stands at B2/),
    ]);
    expect(says(seen("V4", "EL84"), read("B2", 290), read("V4.p", 289))).toEqual([]);
    // Of an unknown type it is a question.
    expect(says(read("B2", 290), read("V1.p", 289))).toEqual([expect.stringMatching(/^watch V1: .*if it has a plate resistor/)]);
  });
  test("plate and cathode at one voltage; a plate without volts", () => {
    expect(says(seen("V1", "12AX7"), read("B1", 300), read("V1A.p", 120), read("V1A.k", 119)).join()).toContain(
      "Plate and cathode are both",
    );
    expect(says(seen("V1", "12AX7"), read("B1", 300), read("V1B.p", 0.3)).join()).toContain("V1B: The plate has no volts");
  });
  test("heaters a tenth off", () => {
    expect(says(seen("V4", "EL84"), read("V4.heater", 5.1, "acv"))).toEqual([expect.stringContaining("made for 6.3 V")]);
    expect(says(seen("V4", "EL84"), read("V4.heater", 6.0, "acv"))).toEqual([]);
    expect(says(seen("V4", "EL84"), read("V4.4", 5.1, "acv"))).toEqual([expect.stringContaining("made for 6.3 V")]);
  });
  test("dissipation by the cathode resistor: 11 V over 135 Ω are 81 mA; 304 V of them 22 W where 12 are rated", () => {
    // EL84: the screen takes 5.5 of 53.5 mA at the sheet's point, so 73 mA go to the plate: 22.2 W, 185 %.
    const [line] = says(seen("V4", "EL84"), read("V4.p", 315), read("V4.k", 11), read("V4.k", 135, "ohm"), read("V4.g", 0));
    expect(line).toMatch(/^out V4: 81\.5 mA by its cathode resistor: 22\.\d W in the plate, 18\d % of the 12 W/);
    expect(says(seen("V4", "EL84"), read("V4.p", 315), read("V4.k", 11), read("V4.k", 270, "ohm"))[0]).toMatch(/^in V4: 40\.7 mA .*9\d %/);
  });
  test("twins that differ", () => {
    expect(says(...SOUND, ...PAIR(13.5, 8))).toEqual([
      expect.stringMatching(/^watch V4, V5: They differ at the cathode: 13\.5 V and 8\.0\d* V/),
    ]);
  });
});

test("usual figures are named, never judged", () => {
  expect(usualAt("plate", findTubeType("12AX7"), 300)).toBe("135 V to 240 V with a plate resistor");
  expect(usualAt("plate", findTubeType("EL84"), 300)).toBe("270 V to 300 V");
  expect(usualAt("plate", undefined, 300)).toBeUndefined();
  expect(usualAt("heater", findTubeType("EL84"), undefined)).toBe("6.3 V");
});
