/**
 * Short tapes that must not end in PROVEN DEAD, and the right ones beside them. What a careful technician would say of each was written
 * down before the code; none of it is taken from what the program answers.
 */

import { readFileSync } from "node:fs";
import { energyOf, viewJob } from "../job/job-view";
import { DEFAULT_SETTINGS } from "../shop/settings";
import type { EventDraft } from "../tape/events/event";
import { at, tape } from "../tape/tape-for-tests";

/** Three reservoirs, C1, C2, C3, of 32, 32 and 16 µF; nothing bleeds them when the tubes are cold. */
const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
type Timed = [seconds: number, line: EventDraft];

const on = (more: object = {}): EventDraft => ({ type: "power", payload: { state: "on", plug: "in", ...more } });
const off = (plug: "in" | "out" | undefined = "out"): EventDraft => ({
  type: "power",
  payload: { state: "off", ...(plug ? { plug } : {}) },
});
const meter = (read = 9, expected = 9, more: object = {}): EventDraft => ({
  type: "meter-check",
  payload: { source: "9 V battery", expected, read, ...more },
});
const dead = (reservoir: string, volts = 0.4): EventDraft => ({ type: "discharge-reading", payload: { reservoir, volts } });
const reading = (point: string, value: number, kind: "dcv" | "acv" | "ma" = "dcv"): EventDraft => ({
  type: "reading",
  payload: { point, kind, value, conditions: {} },
});
const tool: EventDraft = { type: "tool-check", payload: { marked: 2200, read: 2210 } };
const undo = (supersedes: number): EventDraft => ({ type: "undo", supersedes, reason: "slip", payload: {} });
const RESERVOIRS = ["C1", "C2", "C3"];

/** Meter, tool, each reservoir twice, a minute apart, tool, meter: over at `from` + 85. */
const proof = (from: number, reservoirs = RESERVOIRS): Timed[] => [
  [from, meter()],
  [from + 1, tool],
  ...reservoirs.map((r, i): Timed => [from + 2 + i, dead(r)]),
  ...reservoirs.map((r, i): Timed => [from + 70 + i, dead(r)]),
  [from + 80, tool],
  [from + 85, meter()],
];
const state = (seconds: number, lines: Timed[], settings = DEFAULT_SETTINGS, model: string | undefined = WREN) =>
  energyOf(viewJob(tape(...lines), model, settings, at(seconds)), at(seconds));
const kind = (seconds: number, lines: Timed[]) => state(seconds, lines).kind;
const LIVE_THEN_OFF: Timed[] = [
  [0, on()],
  [40, reading("B1", 292)],
  [60, off()],
];
const PROVEN: Timed[] = [...LIVE_THEN_OFF, ...proof(100)];

test("the right way: live, off with the plug out, meter, tool, each reservoir twice, tool, meter", () => {
  expect(kind(200, PROVEN)).toBe("proven-dead");
});

describe("a reading that cannot be true proves nothing", () => {
  const hurried = (from: number, live: Timed[]): Timed[] => [...live, ...proof(from).filter(([, e]) => e.type !== "tool-check")];

  test("292 V live, 0.4 V a second after off, nothing that bleeds it, no tool", () => {
    expect(kind(200, hurried(61, LIVE_THEN_OFF))).not.toBe("proven-dead");
    const s = state(66, [...LIVE_THEN_OFF, [61, meter()], [62, dead("C1")]]);
    expect(s).toMatchObject({ kind: "stored" });
    expect(s.kind === "stored" && s.proof.reservoirs[0]!.conflict).toContain("Was it discharged?");
  });

  test("the same low reading twice is no answer to the question", () => {
    const s = state(70, [...LIVE_THEN_OFF, [61, meter()], [62, dead("C1")], [64, dead("C1")], [66, dead("C1")]]);
    expect(s.kind === "stored" && s.proof.reservoirs[0]!.first).toBeUndefined();
  });

  test("380 V with the tubes out: nothing in the amp takes it away, however long ago", () => {
    const live: Timed[] = [
      [0, on({ without: ["V1", "V2"] })],
      [40, reading("B1", 380)],
      [60, off()],
    ];
    expect(kind(1000, hurried(700, live))).not.toBe("proven-dead");
    expect(kind(1000, [...live, ...proof(700)])).toBe("proven-dead");
  });

  test("hot tubes empty the rails they feed on in half a minute: then a low reading stands without a tool", () => {
    expect(kind(300, hurried(100, LIVE_THEN_OFF))).toBe("proven-dead");
  });

  test("a meter that has shown the charge there is believed when it shows none, at the second look", () => {
    const lines: Timed[] = [...LIVE_THEN_OFF, [61, meter()], [62, dead("C1", 280)], [70, dead("C1", 0.3)], [75, dead("C1", 0.3)]];
    const s = state(80, lines);
    expect(s.kind === "stored" && s.proof.reservoirs[0]).toMatchObject({ first: { volts: 0.3 }, conflict: undefined });
  });
});

describe("a meter is proved on volts that are well above the safe ones", () => {
  const with_ = (m: EventDraft): Timed[] => PROVEN.map(([t, e]) => [t, e.type === "meter-check" ? m : e]);
  test("not on 0 V, not on 0.1 V, not on 5 V of no name", () => {
    for (const volts of [0, 0.1, 5]) expect([volts, kind(200, with_(meter(volts, volts)))]).toEqual([volts, "stored"]);
    expect(kind(200, with_(meter(8.9)))).toBe("proven-dead");
  });

  test("the shop's own source counts by its name", () => {
    const own = meter(5, 5, { source: "5 V reference" });
    expect(state(200, with_(own), { ...DEFAULT_SETTINGS, meterSource: "5 V Reference" }).kind).toBe("proven-dead");
    expect(kind(200, with_(own))).toBe("stored");
  });

  test("not a day before, and not longer ago than the shop's minutes", () => {
    const before = (seconds: number): Timed[] => [[100 - seconds, meter()], ...LIVE_THEN_OFF, ...proof(100).slice(1)];
    expect(kind(200, before(86400))).toBe("stored");
    expect(kind(200, before(31 * 60))).toBe("stored");
    expect(state(200, before(86400)).kind === "stored").toBe(true);
    // Proved just before it was switched on for the last time, ten minutes ago: the meter does not care for the amp.
    expect(kind(200, before(600))).toBe("proven-dead");
    expect(state(200, before(600), { ...DEFAULT_SETTINGS, meterMinutes: 5 }).kind).toBe("stored");
  });

  test("the same meter before and after", () => {
    const two: Timed[] = PROVEN.map(([t, e]) => [t, e.type === "meter-check" ? meter(9, 9, { meter: t === 100 ? "red" : "black" }) : e]);
    expect(kind(200, two)).toBe("stored");
    const one: Timed[] = PROVEN.map(([t, e]) => [t, e.type === "meter-check" ? meter(9, 9, { meter: "red" }) : e]);
    expect(kind(200, one)).toBe("proven-dead");
  });
});

describe("a sign of power or charge after the proof ends it, and the guard says which", () => {
  const bias: EventDraft = {
    type: "bias",
    payload: { stage: "T1", when: "before", rows: [{ tube: "V2", way: "cathode resistor", plateMilliamps: 42 }], rails: [] },
  };
  const soak: EventDraft = {
    type: "soak-begun",
    payload: { fault: "cuts out", failures: 1, hours: 1, onsetMinutes: 0, confidence: 0.9 },
  };
  test.each<[string, EventDraft]>([
    ["320 V DC at B1", reading("B1", 320)],
    ["240 V AC at B1", reading("B1", 240, "acv")],
    ["6.3 V AC at a heater", reading("HT.1", 6.3, "acv")],
    ["volts at a point that nobody knows", reading("the red wire", -58)],
    ["milliamperes", reading("V2.k", 42, "ma")],
    ["mains current", { type: "mains-current", payload: { volts: 230, amps: 0.34 } }],
    ["a lamp that glows", { type: "mains-current", payload: { volts: 0, lamp: 60, glow: "glowing" } }],
    ["a bias", bias],
    ["a stage passed under power", { type: "stage", payload: { stage: "output:V2", result: "passed" } }],
    ["still live", { type: "still-live", payload: { away: 100 } }],
    ["a soak", soak],
    ["300 V at a reservoir of no name here", dead("C77", 300)],
    ["300 V at one that was proven", dead("C2", 300)],
    ["a capacitor tested at 400 V", { type: "capacitor-test", payload: { part: "C2", kind: "leakage", value: 1e-6, volts: 400 } }],
  ])("%s", (_, line) => {
    const after = state(300, [...PROVEN, [250, line]]);
    expect(after.kind).not.toBe("proven-dead");
    // Struck out again, the proof does not come back by itself.
    expect(kind(300, [...PROVEN, [250, line], [260, undo(PROVEN.length + 1)]])).not.toBe("proven-dead");
    // What is shown again afterwards, from off and plug out on, holds.
    if (line.type !== "discharge-reading" || line.payload.reservoir !== "C77")
      expect(kind(600, [...PROVEN, [250, line], [300, off()], ...proof(400)])).toBe("proven-dead");
  });

  test("the guard names the line", () => {
    const s = state(300, [...PROVEN, [250, { type: "mains-current", payload: { volts: 230, amps: 0.34 } }]]);
    expect(s).toMatchObject({ kind: "unknown" });
    expect(s.kind === "unknown" && s.why).toContain(`line ${PROVEN.length + 1}`);
    expect(kind(300, [...PROVEN, [250, { type: "still-live", payload: { away: 100 } }]])).toBe("live");
  });

  test.each<[string, EventDraft]>([
    ["0 V", reading("B1", 0.02)],
    ["ohms", { type: "reading", payload: { point: "R1", kind: "ohm", value: 47e3, conditions: {} } }],
    ["no mains current", { type: "mains-current", payload: { volts: 0, amps: 0 } }],
    ["a stage beside the amp", { type: "stage", payload: { stage: "load", result: "passed" } }],
    ["a note", { type: "note", payload: { text: "320 V at B1 by the chart" } }],
    ["a part replaced", { type: "change", payload: { position: "R1", kind: "replacement", newPart: "47k", reversible: true } }],
  ])("%s says nothing of power", (_, line) => {
    expect(kind(300, [...PROVEN, [250, line]])).toBe("proven-dead");
  });

  test("what was read live and stored late, with the time at which it was read, is no sign of now", () => {
    expect(kind(300, [...PROVEN, [45, reading("B2", 250)]])).toBe("proven-dead");
  });
});

describe("what was read at the wrong time counts for nothing", () => {
  test("before anybody said off", () => {
    expect(kind(300, [[0, on()], ...proof(30), [130, off()]])).not.toBe("proven-dead");
    expect(kind(300, proof(30))).not.toBe("proven-dead");
    expect(kind(300, [...proof(30), [130, off()]])).not.toBe("proven-dead");
  });
  test("with the plug in, or nothing said of the plug", () => {
    expect(kind(300, [[0, on()], [60, off("in")], ...proof(100)])).not.toBe("proven-dead");
    expect(kind(300, [[0, on()], [60, off("in")], ...proof(100), [200, off("out")]])).not.toBe("proven-dead");
    expect(kind(300, [[0, on()], [60, { type: "power", payload: { state: "off" } }], ...proof(100)])).not.toBe("proven-dead");
  });
  test("while it was on, stored late by a tablet without network", () => {
    expect(kind(300, [[0, on()], [200, off()], ...proof(100)])).not.toBe("proven-dead");
  });
});

describe("a proof of another day", () => {
  test("its readings are no first ones of today's; one more low reading takes nothing from one that holds", () => {
    const day = 24 * 3600;
    const once = proof(day).filter(([t, e]) => e.type !== "discharge-reading" || t < day + 50);
    expect(kind(day + 200, [...PROVEN, ...once])).not.toBe("proven-dead");
    expect(kind(day + 200, [...PROVEN, ...proof(day)])).toBe("proven-dead");
    expect(kind(400, [...PROVEN, [300, dead("C1", 0.3)]])).toBe("proven-dead");
    // Begun an hour ago and left: the first readings are as old as the meter's check.
    const begun = PROVEN.slice(0, 8);
    expect(kind(4000, [...begun, [3600, meter()], ...proof(3600).slice(5)])).not.toBe("proven-dead");
  });
});

describe("a supply for reforming", () => {
  const begun = (part = "C1", steps = [200, 400]): EventDraft => ({
    type: "reform-begun",
    payload: { parts: [{ part, farads: 32e-6, rated: 450, target: 400, limit: 1e-3 }], ohms: 33e3, steps, dwellMinutes: 10, lifted: true },
  });
  const turn = (reform: number, what: "paused" | "ended", supply = 0): EventDraft => ({
    type: "reform-turn",
    payload: { reform, what, supply },
  });
  const START: Timed[] = [
    [0, off()],
    [1, begun()],
  ];
  test("readings made while it was on prove nothing when it is off", () => {
    for (const what of ["ended", "paused"] as const)
      expect(kind(400, [...START, ...proof(100), [300, turn(2, what)]])).not.toBe("proven-dead");
    expect(kind(900, [...START, [300, turn(2, "ended")], ...proof(400)])).toBe("proven-dead");
  });
  test("paused with the supply at 400 V is not off", () => {
    expect(kind(900, [...START, [300, turn(2, "paused", 400)], ...proof(400)])).toBe("live");
  });
  test("of two supplies one is off: the amp is live", () => {
    const two: Timed[] = [...START, [2, begun("C2")], [300, turn(2, "ended")], ...proof(400)];
    expect(kind(900, two)).toBe("live");
    expect(kind(1900, [...two, [1000, turn(3, "ended")], ...proof(1100)])).toBe("proven-dead");
  });
});

describe("what was in the amp while it was live has to be proven", () => {
  const change = (set: string[], more: object = {}): EventDraft => ({
    type: "change",
    payload: { position: "C1", kind: "replacement", newPart: "another", reversible: true, set, ...more },
  });
  const others = ["C2", "C3"];
  test("C1 changed to 100 nF after it was last live", () => {
    expect(kind(300, [...LIVE_THEN_OFF, [70, change(["C1=100n"])], ...proof(100, others)])).not.toBe("proven-dead");
    expect(kind(300, [...LIVE_THEN_OFF, [70, change(["C1=100n"])], ...proof(100)])).toBe("proven-dead");
    // Not in it when it was on: no reservoir any more.
    expect(kind(300, [[-10, change(["C1=100n"])], ...LIVE_THEN_OFF, ...proof(100, others)])).toBe("proven-dead");
  });
  test("C1 opened as an experiment, and the experiment undone after the proof", () => {
    const open = change(["C1=open"], { kind: "experiment", outcome: "open" });
    expect(kind(300, [...LIVE_THEN_OFF, [70, open], ...proof(100, others)])).not.toBe("proven-dead");
    const before: Timed[] = [[-10, open], ...LIVE_THEN_OFF, ...proof(100, others)];
    expect(kind(300, before)).toBe("proven-dead");
    expect(kind(300, [...before, [250, undo(1)]])).not.toBe("proven-dead");
  });
  test("the job was given another circuit after the proof", () => {
    const given: EventDraft = { type: "circuit-given", payload: { name: "Lantern 15" } };
    const s = state(300, [...PROVEN, [250, given]]);
    expect(s.kind).not.toBe("proven-dead");
    expect(kind(600, [...PROVEN, [250, given], ...proof(400)])).toBe("proven-dead");
  });
});

describe("a power-on that was taken back", () => {
  test("undone or corrected, it leaves nothing proven", () => {
    const undone = state(300, [...PROVEN, [250, on()], [260, undo(PROVEN.length + 1)]]);
    expect(undone).toMatchObject({ kind: "unknown", why: expect.stringContaining(`line ${PROVEN.length + 1}`) as string });
    const corrected: EventDraft = { type: "power", supersedes: PROVEN.length + 1, reason: "slip", payload: { state: "off", plug: "out" } };
    expect(kind(300, [...PROVEN, [250, on()], [260, corrected]])).not.toBe("proven-dead");
  });
  test("undone at once, before the proof, it changes nothing of what has to be shown", () => {
    const lines: Timed[] = [...LIVE_THEN_OFF, [70, on()], [75, undo(LIVE_THEN_OFF.length + 1)], [80, off()], ...proof(100)];
    expect(kind(300, lines)).toBe("proven-dead");
  });
});

describe("safe has to be quick", () => {
  const once = (from: number): Timed[] => proof(from).filter(([t, e]) => e.type !== "discharge-reading" || t < from + 50);
  test("a second reading only where dielectric absorption can bring it above the safe volts", () => {
    // A tenth of 292 V is above 10 V: again after a minute. Of 60 V it is 6 V: the first reading stands.
    expect(kind(300, [...LIVE_THEN_OFF, ...once(100)])).not.toBe("proven-dead");
    const low: Timed[] = [[0, on()], ...["B1", "B2", "B3"].map((p): Timed => [40, reading(p, 60)]), [60, off()], ...once(100)];
    const s = state(300, low);
    expect(s.kind).toBe("proven-dead");
    expect(s.kind === "proven-dead" && s.proof.reservoirs[0]!.onceBecause).toMatch(/held 60(\.0)? V/);
  });
  test("while the clip is on what it discharges cannot charge; taken off, the minute begins", () => {
    const clip = (state_: "on" | "off", reservoir = "C1"): EventDraft => ({ type: "clip", payload: { reservoir, state: state_ } });
    const clipped: Timed[] = [...LIVE_THEN_OFF, [62, meter()], [63, tool], [64, clip("on")]];
    // The Wren's three lie on one chain of resistors: the clip on C1 discharges them all.
    const read: Timed[] = [...clipped, [90, dead("C1")], [91, dead("C2")], [92, dead("C3")], [93, tool], [94, meter()]];
    expect(kind(100, read)).toBe("proven-dead");
    const taken: Timed[] = [...read, [200, clip("off")]];
    expect(kind(210, taken)).not.toBe("proven-dead");
    const soon: Timed[] = [...taken, [230, dead("C1")], [231, dead("C2")], [232, dead("C3")], [233, tool], [234, meter()]];
    expect(kind(240, soon)).not.toBe("proven-dead");
    const later: Timed[] = [...taken, [261, dead("C1")], [262, dead("C2")], [263, dead("C3")], [264, tool], [265, meter()]];
    expect(kind(270, later)).toBe("proven-dead");
  });
});

describe("an amp that went back is not here", () => {
  const back: EventDraft = { type: "returned", payload: { to: "the owner", oldPartsHanded: true } };
  test("no proof, no charge; taken in again it is unknown", () => {
    expect(kind(300, [...PROVEN, [250, back]])).toBe("not-here");
    expect(kind(900, [...PROVEN, [250, back], [800, { type: "taken-in", payload: { why: "hums again" } }]])).toBe("unknown");
    expect(kind(300, [...PROVEN, [250, back], [260, undo(PROVEN.length + 1)]])).toBe("proven-dead");
    // Somebody measured it here, whatever the hand-over says.
    expect(kind(900, [...PROVEN, [250, back], [800, on()]])).toBe("live");
  });
});

describe("the tool is clipped where the discharge plan says", () => {
  const named = (name: string): EventDraft => ({ type: "reservoir", payload: { name, farads: 32e-6, volts: 450 } });
  const steps = (s: ReturnType<typeof state>) =>
    s.kind === "stored" ? s.proof.missing.flatMap((m) => (m.do === "discharge" ? [m.reservoir] : [])) : [s.kind];

  test("three reservoirs joined by droppers are one clip; the clip covers them all", () => {
    const live: Timed[] = [...LIVE_THEN_OFF, [90, meter()], [91, tool]];
    const s = state(100, live);
    expect(steps(s)).toHaveLength(1);
    const place = steps(s)[0]!;
    expect(steps(state(101, [...live, [100, { type: "clip", payload: { reservoir: place, state: "on" } }]]))).toEqual([]);
  });

  test("two of which nobody knows how they hang together are two clips, one after the other", () => {
    const held: Timed[] = [
      [0, named("CA")],
      [1, named("CB")],
      [2, on()],
      [60, off()],
      [70, meter()],
      [71, tool],
      [72, dead("CA", 300)],
      [73, dead("CB", 120)],
    ];
    const at80 = (more: Timed[] = []) => steps(state(80, [...held, ...more], DEFAULT_SETTINGS, undefined));
    expect(at80()).toHaveLength(1);
    const first = at80()[0]!;
    expect(at80([[75, { type: "clip", payload: { reservoir: first, state: "on" } }]])).toEqual(["CA", "CB"].filter((c) => c !== first));
  });
});
