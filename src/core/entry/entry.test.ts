import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { reservoirsOf } from "../supply/reservoirs";
import { completions, parseEntry, type EntryContext } from "./entry";
import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import { payloadErrors } from "../tape/events/validate";

const { circuit } = readCircuit(readFileSync("demo/amps/wren-5.cir", "utf8"));
const base: EntryContext = {
  circuit,
  reservoirs: reservoirsOf(circuit),
  energy: "live",
  state: foldJob([]),
  conditions: { mains: 231 },
  station: "walk",
  decimal: ".",
};
const entry = (text: string, more: Partial<EntryContext> = {}) => {
  const result = parseEntry(text, { ...base, ...more });
  // Whatever the line understands must be something that the tape accepts.
  if (result.ok) for (const d of result.drafts) expect(payloadErrors(d.type, d.payload)).toEqual([]);
  return result;
};
const draft = (text: string, more: Partial<EntryContext> = {}) => {
  const result = entry(text, more);
  if (!result.ok) throw new Error(`${text}: ${result.why}`);
  return result.drafts[0];
};

describe("the entry line", () => {
  test.each([
    ["B1 318", { point: "B1", kind: "dcv", value: 318 }],
    ["v2.k 7.4", { point: "V2.k", value: 7.4 }],
    ["V2.g 12m", { point: "V2.g", value: 0.012 }],
    ["B1 ac 2.1", { kind: "acv", value: 2.1 }],
    ["b1 -3 V", { value: -3 }],
    ["R4 ma 38", { point: "R4", kind: "ma", value: 38 }],
    ["R4 ma 38mA", { kind: "ma", value: 38 }],
    ["c6 leak 0.5", { point: "C6", kind: "leak", value: 0.5 }],
    ["V2 gm 82", { kind: "gm", value: 82 }],
  ])("%s is a reading", (text, payload) =>
    expect(draft(text)).toMatchObject({ type: "reading", payload: { ...payload, conditions: { mains: 231 } } }),
  );

  test("ohms with the power off", () => {
    expect(draft("r7 ohm 118k", { energy: "stored" })).toMatchObject({ payload: { point: "R7", kind: "ohm", value: 118e3 } });
    expect(draft("r7 118kΩ", { energy: "stored" })).toMatchObject({ payload: { kind: "ohm" } });
    expect(entry("r7 ohm 118k")).toMatchObject({ ok: false, accepted: "type off first" });
  });

  test("a reservoir with the power off is a discharge reading; any other voltage is refused until the amp is on", () => {
    expect(draft("c1 0.3", { energy: "stored" })).toMatchObject({ type: "discharge-reading", payload: { reservoir: "C1", volts: 0.3 } });
    expect(draft("B1 0.3", { energy: "unknown" })).toMatchObject({ type: "discharge-reading", payload: { reservoir: "C1" } });
    expect(entry("V2.k 7", { energy: "stored" })).toMatchObject({ ok: false, why: expect.stringContaining("not logged as on") });
  });

  test("what it understood is echoed before Enter", () => {
    expect(entry("v2.k 7.4")).toMatchObject({ echo: "V2.k (V2 cathode) 7.4 V DC" });
    expect(entry("fit C6 .022 630V film, was leaky")).toMatchObject({
      echo: "Fitted C6: 22 nF 630 V film in place of 22 nF 400 V paper, was leaky",
    });
    expect(entry("on variable without V2")).toMatchObject({ echo: "Power ON through variable, without V2: the amp is live" });
  });

  test("parts, findings, notes, power, mains", () => {
    expect(draft("fit C6 22n 630V film, was leaky")).toMatchObject({
      type: "change",
      payload: {
        position: "C6",
        newPart: "22 nF 630 V film",
        oldPart: "22 nF 400 V paper",
        oldMeasured: "leaky",
        reason: "was leaky",
        // As the ledger and Substitute write it: with its kind and its year, and that nobody has checked it in its place.
        set: ["C6=22nF", "C6.volts=630", "C6.kind=film", `C6.year=${new Date().getFullYear()}`],
        checks: [expect.stringContaining("not checked in its place")],
      },
    });
    expect(entry("fit C6 32 450V, dry")).toMatchObject({ ok: false, why: "32 µF or 32 pF?" });
    expect(draft("find V2 socket: loose pin 3")).toMatchObject({
      type: "finding",
      payload: { place: "V2 socket", text: "loose pin 3", station: "walk" },
    });
    expect(draft("note hum drops with V2 out")).toMatchObject({ type: "note", payload: { text: "hum drops with V2 out" } });
    expect(draft("off")).toMatchObject({ type: "power", payload: { state: "off", plug: "out" } });
    expect(draft("mains 231")).toMatchObject({ type: "mains", payload: { volts: 231 } });
    expect(draft("meter 9.02 9.0 battery")).toMatchObject({ type: "meter-check", payload: { source: "battery", expected: 9, read: 9.02 } });
    expect(draft("wait part GZ34")).toMatchObject({ type: "waiting", payload: { on: "part", what: "GZ34" } });
  });

  test("the take-apart list", () => {
    expect(draft("remove two screws, back panel left")).toMatchObject({
      type: "removed",
      payload: { what: "two screws", place: "back panel left" },
    });
    const state = foldJob(tape([0, { type: "removed", payload: { what: "two screws" } }]));
    expect(draft("back screws", { state })).toMatchObject({ type: "put-back", payload: { removed: 1 } });
    expect(entry("back knob", { state })).toMatchObject({ ok: false, accepted: "back two screws" });
  });

  test("a correction supersedes the reading and wants its reason", () => {
    const state = foldJob(tape([0, { type: "reading", payload: { point: "B1", kind: "dcv", value: 31.8, conditions: { mains: 228 } } }]));
    expect(draft("correct B1 318 misread the range", { state })).toMatchObject({
      supersedes: 1,
      reason: "misread the range",
      payload: { value: 318, conditions: { mains: 228 } },
    });
    expect(entry("correct B1 318", { state })).toMatchObject({ ok: false, why: expect.stringContaining("reason") });
    expect(draft("undo", { state })).toMatchObject({ type: "undo", supersedes: 1 });
    expect(entry("undo")).toMatchObject({ ok: false });
  });

  test.each([
    ["B1 4kV", /no tube amplifier/],
    ["R7 ohm -5", /cannot be negative/, "stored"],
    ["B9 3", /not a point or part of this amp/],
    ["B1", /no value/],
    ["B1 abc", /number/],
    ["B1 12,5", /comma/],
    ["on fire", /not understood/],
    ["mains 900", /not a mains/],
    ["fit", /no position/],
    ["fit C99 22n", /no C99/],
    ["on without V9", /no V9/],
    ["", /nothing was typed/],
    ["constructor 5", /not a point/],
    ["C6 __proto__", /number/],
  ])("%s is refused with the reason", (text, why, energy = "live") => {
    const result = entry(text, { energy: energy as "live" });
    expect(result).toMatchObject({ ok: false, why: expect.stringMatching(why) });
  });

  test("completes names", () => {
    expect(completions("v2", base)).toEqual(expect.arrayContaining(["V2.k", "V2.p", "V2.s", "V2.g"]));
    expect(completions("fit C", base)).toEqual(expect.arrayContaining(["C1", "C6"]));
    expect(completions("r7 o", base)).toEqual(["ohm"]);
    expect(completions("", base)).toEqual([]);
  });

  test("without a circuit any point that carries a number is taken", () => {
    expect(draft("TP4 12m", { circuit: undefined, reservoirs: [] })).toMatchObject({ payload: { point: "TP4", value: 0.012 } });
    expect(entry("hello 12", { circuit: undefined, reservoirs: [] })).toMatchObject({ ok: false });
    // A reservoir that was named in two words.
    const can = { ...base.reservoirs[0]!, name: "big can", label: "big can" };
    expect(draft("Big can 0.3", { circuit: undefined, reservoirs: [can], energy: "stored" })).toEqual({
      type: "discharge-reading",
      payload: { reservoir: "big can", volts: 0.3 },
    });
  });
});

test("a gate stands against `on` too, and is passed with a reason that is logged", () => {
  const halberd = readCircuit(readFileSync("demo/amps/halberd-120.cir", "utf8")).circuit;
  const refused = entry("on lamp", { circuit: halberd, energy: "proven-dead" });
  expect(refused).toMatchObject({ ok: false, why: expect.stringContaining("Bias is not proven"), accepted: "on lamp because REASON" });
  const passed = entry("on lamp because it ran last night", { circuit: halberd, energy: "proven-dead" });
  expect(passed.ok && passed.drafts.map((d) => d.type)).toEqual(["gate-passed", "power"]);
  expect(draft("on lamp", { energy: "proven-dead" })).toMatchObject({ type: "power", payload: { state: "on", through: "lamp" } });
});

describe("places outside the netlist", () => {
  const dead = { energy: "proven-dead" as const, station: "cold-checks" as const };
  test.each([
    ["V2.heater ohm OL", { point: "V2.heater", kind: "ohm", value: 1e9 }],
    ["HT.1 ohm 58", { point: "HT.1", kind: "ohm", value: 58 }],
    ["b1:0 ohm open", { point: "b1:0", kind: "ohm", value: 1e9 }],
  ])("%s", (text, payload) => expect(draft(text, dead)).toMatchObject({ type: "reading", payload }));
  test("windings live, in AC volts; a name that is none of them is refused still", () => {
    expect(draft("HT.1 ac 286")).toMatchObject({ payload: { point: "HT.1", kind: "acv", value: 286 } });
    expect(entry("V2.heat ohm OL", dead)).toMatchObject({ ok: false });
    expect(entry("V2.heater ohm OL")).toMatchObject({ ok: false });
  });
});

describe("places as they are said", () => {
  // Wren 5: V1 an EF86-like pentode or triode in front, V2 the output pentode; its points say which pins they are.

  test("a pin by its number, either way round, is the point on it", () => {
    // V2 is an EL84: cathode on pin 3, screen on pin 9, plate on pin 7 (published data sheet).
    expect(draft("V2 pin 3 7.4")).toMatchObject({ payload: { point: "V2.k", value: 7.4 } });
    expect(draft("pin 3 V2 7.4")).toMatchObject({ payload: { point: "V2.k", value: 7.4 } });
    expect(draft("pin 3 of v2 7.4 V")).toMatchObject({ payload: { point: "V2.k", value: 7.4 } });
  });
  test("an electrode by its name, either way round", () => {
    expect(draft("cathode V2 7.4")).toMatchObject({ payload: { point: "V2.k" } });
    expect(draft("V2 cathode 7.4")).toMatchObject({ payload: { point: "V2.k" } });
    expect(draft("anode of V1A 120")).toMatchObject({ payload: { point: "V1A.p" } });
    // The two halves of a twin triode are two places.
    expect(entry("anode of V1 120")).toMatchObject({ ok: false, accepted: "V1B plate, V1B.p; V1A plate, V1A.p" });
  });
  test("B+ and HT are the first rail, B+2 the second; HT with AC is the winding", () => {
    expect(draft("B+ 312")).toMatchObject({ payload: { point: "B1", value: 312 } });
    expect(draft("HT 312")).toMatchObject({ payload: { point: "B1" } });
    expect(draft("B+2 295")).toMatchObject({ payload: { point: "B2" } });
    expect(draft("HT ac 260")).toMatchObject({ payload: { point: "HT", kind: "acv" } });
    expect(draft("B+ 312", { circuit: undefined, reservoirs: [] })).toMatchObject({ payload: { point: "B1" } });
  });
  test("a pin without a test point is named, with those that have one", () => {
    const heater = entry("V2 pin 4 6.3");
    expect(heater).toMatchObject({ ok: false, why: expect.stringContaining("V2 pin 4 (heater)") });
    expect(heater).toMatchObject({ accepted: expect.stringMatching(/of V2: pin .*3/) });
    expect(entry("screen V9 300")).toMatchObject({ ok: false, why: "there is no V9 in this amp" });
    expect(entry("B+9 300")).toMatchObject({ ok: false, accepted: expect.stringContaining("B1") });
  });
});

describe("several readings on a line", () => {
  test.each(["B1 318, B2 300, V2.k 7.4", "B1 318; B2 300; V2.k 7.4", "B1 318 B2 300 V2.k 7.4"])("%s", (text) => {
    const read = entry(text);
    expect(read.ok && read.drafts.map((d) => (d.payload as { point: string; value: number }).value)).toEqual([318, 300, 7.4]);
  });
  test("where none can be taken now, the reason is theirs", () => {
    expect(entry("V2.k 7, V2.p 240", { energy: "stored" })).toMatchObject({ ok: false, why: expect.stringContaining("not logged as on") });
  });
  test("one that cannot be read is named, and none is logged", () => {
    expect(entry("B1 318, B2 3oo")).toMatchObject({ ok: false, read: "B2 3oo", why: expect.stringContaining("B2 3oo") });
  });
  test("a comma of another line stays what it is", () => {
    expect(draft("fit C6 .022 630V film, was leaky")).toMatchObject({ type: "change" });
    expect(draft("note hum, then crackle")).toMatchObject({ type: "note", payload: { text: "hum, then crackle" } });
    expect(draft("B1 318,5", { decimal: "," })).toMatchObject({ payload: { value: 318.5 } });
  });
});

describe("what was logged is named by what it says", () => {
  const before = (...lines: Parameters<typeof tape>) => ({ state: foldJob(tape(...lines)) });
  const read = (point: string, value: number, kind = "dcv") =>
    ({ type: "reading", payload: { point, kind, value, digits: 3, conditions: {} } }) as never;
  const state = before([0, read("B2", 343)], [1, read("R1", 1500, "ohm")], [2, read("R1", 38, "ma")], [3, read("B2", 301)]);
  test("correct takes the kind that is said, or the unit that is typed, else the latest", () => {
    expect(draft("correct R1 ohm 1.02k leads not zeroed", state)).toMatchObject({
      supersedes: 2,
      reason: "leads not zeroed",
      payload: { kind: "ohm", value: 1020 },
    });
    expect(draft("correct R1 1.02kΩ leads not zeroed", state)).toMatchObject({ supersedes: 2 });
    expect(draft("correct R1 41 misread", state)).toMatchObject({ supersedes: 3, payload: { kind: "ma", value: 41 } });
    expect(draft("correct B2 305 misread", state)).toMatchObject({ supersedes: 4 });
    expect(entry("correct R1 ohm 1.02k", state)).toMatchObject({ ok: false, why: expect.stringContaining("needs its reason") });
  });
  test("undo by the value, by the line, or the last; the preview says what goes", () => {
    expect(draft("undo B2 343", state)).toMatchObject({ type: "undo", supersedes: 1, reason: "undone" });
    expect(entry("undo B2 343 because wrong pin", state)).toMatchObject({ echo: expect.stringContaining("B2 343 V") });
    expect(draft("undo B2 343 because wrong pin", state)).toMatchObject({ supersedes: 1, reason: "wrong pin" });
    expect(draft("undo R1 ohm", state)).toMatchObject({ supersedes: 2 });
    expect(draft("undo line 3", state)).toMatchObject({ supersedes: 3 });
    expect(draft("undo wrong amp", state)).toMatchObject({ supersedes: 4, reason: "wrong amp" });
    expect(entry("undo B2 999", state)).toMatchObject({ ok: false, accepted: "B2 343 V, B2 301 V" });
    expect(entry("undo 77", state)).toMatchObject({ ok: false, why: expect.stringContaining("line 77") });
  });
  test("a reading of the proof is corrected too", () => {
    const proof = before([0, { type: "discharge-reading", payload: { reservoir: "C1", volts: 30 } }]);
    expect(draft("correct C1 0.3 misread the range", { ...proof, energy: "stored" })).toMatchObject({
      type: "discharge-reading",
      supersedes: 1,
      payload: { reservoir: "C1", volts: 0.3 },
    });
  });
});

describe("what stands on a part is no reading", () => {
  test.each(["B1 16u 450V", "B1 12 5"])("%s", (text) => {
    expect(entry(text)).toMatchObject({ ok: false });
  });
  test("a word that is no number is named", () => {
    expect(entry("B1 abc")).toMatchObject({ ok: false, why: "“abc” is no number" });
  });
});
