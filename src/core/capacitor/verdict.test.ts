import { readCircuit } from "../circuit/read";
import { writeCircuit } from "../circuit/write";
import { demoAmp } from "../solver/circuits-for-tests";
import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import type { EventDraft } from "../tape/events/event";
import { hasBadName, badNameFactor } from "../shop/bad-names";
import { isolate } from "../diagnosis/isolate";
import { boardTable } from "./board-table";
import { gridsCleaned, stripGrids } from "./board-cleaned";
import { knownCapacitors } from "./known";
import { roleOfCapacitor } from "./role";
import { capacitorStresses } from "./stress";
import { judgeCapacitor } from "./verdict";

const lantern = demoAmp("lantern-15");
const stresses = capacitorStresses(lantern, 230);
const ask = { school: "replace" as const, today: 2026 };
const judged = (part: string, drafts: EventDraft[] = [], more: object = {}, names: Parameters<typeof knownCapacitors>[2] = []) => {
  const state = foldJob(tape(...drafts.map((d, i): [number, EventDraft] => [i, d])));
  const c = knownCapacitors(lantern, state, names).find((x) => x.name === part)!;
  return judgeCapacitor(c, stresses.get(part), { ...ask, ...more });
};
const noted = (payload: object) => ({ type: "capacitor", payload: { part: "C1", ...payload } }) as EventDraft;
const test1 = (kind: string, value: number, more: object = {}) =>
  ({ type: "capacitor-test", payload: { part: "C1", kind, value, ...more } }) as EventDraft;

test("what each does in the six amps: first capacitors, filters, couplings, bypasses, bias", () => {
  const of = (amp: string) => {
    const circuit = demoAmp(amp);
    return Object.fromEntries(circuit.elements.filter((e) => e.letter === "C").map((e) => [e.name, roleOfCapacitor(circuit, e).role]));
  };
  expect(of("lantern-15")).toMatchObject({
    C1: "reservoir",
    C2: "filter",
    C4: "filter",
    C5: "cathode bypass",
    C6: "coupling",
    C8: "coupling",
    C9: "cathode bypass",
  });
  expect(of("drover-40")).toMatchObject({
    C20: "bias",
    C21: "bias",
    C1: "reservoir",
    C5: "coupling",
    C17: "screen bypass",
    C10: "cathode bypass",
  });
  expect(of("minor")).toMatchObject({ C1: "reservoir", C2: "filter", C4: "cathode bypass", C6: "coupling", C7: "treble" });
});

test("the three schools on an electrolytic of 1959", () => {
  expect(judged("C1").verdict).toBe("replace");
  expect(judged("C1", [], { school: "test" }).verdict).toBe("test");
  expect(judged("C1", [], { school: "reform" }).verdict).toBe("reform");
  expect(judged("C1", [test1("leakage", 0.4e-3, { volts: 350 })], { school: "test" }).verdict).toBe("keep");
  // A low-voltage bypass has nothing to form.
  expect(judged("C9", [], { school: "reform" }).verdict).toBe("test");
  // Measured and found sound, by its capacitance or by its leakage, it stays.
  const bypass = (kind: string, value: number) =>
    judged("C9", [{ type: "capacitor-test", payload: { part: "C9", kind, value } } as EventDraft], { school: "reform" }).verdict;
  expect(bypass("capacitance", 25e-6)).toBe("keep");
});

test("a measurement goes before the school, whatever it is", () => {
  expect(judged("C1", [test1("leakage", 6e-3, { volts: 400 })], { school: "reform" })).toMatchObject({
    verdict: "replace",
    why: expect.stringContaining("6.00 mA") as string,
  });
  expect(judged("C1", [test1("capacitance", 10e-6)], { school: "test" }).verdict).toBe("replace");
  expect(judged("C1", [test1("series ohms", 60)], { school: "test" }).verdict).toBe("replace");
  expect(judged("C6", [], { lifted: { read: 40, source: 250, gridLeakOhms: 220e3 } }).verdict).toBe("replace");
  expect(judged("C6", [], { school: "test", lifted: { read: 0.2, source: 250, gridLeakOhms: 220e3 } }).verdict).toBe("keep");
});

test("over its rating, backwards, seen bad, unknown rating", () => {
  expect(judged("C1", [noted({ volts: 350, year: 2020 })]).why).toMatch(/sees up to \d+ V and is rated for 350 V/);
  expect(judged("C1", [noted({ year: 2020 })]).verdict).toBe("keep");
  expect(judged("C1", [], { school: "test", seen: "vent open" }).why).toContain("vent open");
  const bare = readCircuit(writeCircuit(lantern).replace(/@volts 500 /, "")).circuit;
  const c = knownCapacitors(bare, foldJob([])).find((x) => x.name === "C1")!;
  expect(judgeCapacitor(c, stresses.get("C1"), ask)).toMatchObject({
    verdict: "look",
    why: expect.stringContaining("read them off") as string,
  });
});

test("from the line to the chassis: only class Y, found at the look or noted; what was read off it counts", () => {
  const state = (...drafts: EventDraft[]) => foldJob(tape(...drafts.map((d, i): [number, EventDraft] => [i, d])));
  const seen = { type: "inspection", payload: { item: "line-capacitor", what: "A capacitor", result: "found" } } as EventDraft;
  const loose = (...drafts: EventDraft[]) => knownCapacitors(lantern, state(...drafts)).find((c) => !c.element);
  expect(loose(seen)).toMatchObject({ name: "CY", role: { safety: "Y" } });
  expect(judgeCapacitor(loose(seen)!, undefined, ask)).toMatchObject({ verdict: "replace", danger: true });
  const fitted = {
    type: "capacitor",
    payload: { part: "CY", place: "line to chassis", safetyClass: "Y", farads: 4.7e-9, volts: 275, kind: "ceramic" },
  } as EventDraft;
  expect(judgeCapacitor(loose(seen, fitted)!, undefined, ask).verdict).toBe("keep");
});

test("replaced here: kept, and its old tests no longer count", () => {
  const change = {
    type: "change",
    payload: { position: "C1", kind: "replacement", newPart: "33 µF 500 V", reversible: true },
  } as EventDraft;
  expect(judged("C1", [test1("leakage", 6e-3, { volts: 400 }), change]).why).toBe("replaced in this job, line 2");
});

test("after a replacement only what was read off the new part counts; on the mains its class has to be", () => {
  const change = (position: string) =>
    ({ type: "change", payload: { position, kind: "replacement", newPart: "new", reversible: true } }) as EventDraft;
  const state = foldJob(tape([0, noted({ volts: 350, year: 1959 })], [1, change("C1")]));
  expect(knownCapacitors(lantern, state).find((c) => c.name === "C1")).toMatchObject({ volts: 500, replaced: 2 });
  const line: EventDraft = { type: "capacitor", payload: { part: "CY", place: "line to chassis" } };
  const cy = (...more: EventDraft[]) => {
    const all = [line, change("CY"), ...more];
    const found = knownCapacitors(lantern, foldJob(tape(...all.map((d, i): [number, EventDraft] => [i, d])))).find((c) => c.name === "CY")!;
    return judgeCapacitor(found, undefined, ask);
  };
  expect(cy()).toMatchObject({ verdict: "look", danger: true });
  expect(cy({ type: "capacitor", payload: { part: "CY", safetyClass: "none" } }).verdict).toBe("replace");
  expect(cy({ type: "capacitor", payload: { part: "CY", safetyClass: "Y" } }).verdict).toBe("keep");
});

test("a bad name of the shop: the part's line says so, by its words and years", () => {
  const name = {
    id: 1,
    letter: "C" as const,
    words: "black cat",
    fromYear: 1955,
    toYear: 1962,
    does: "leaks",
    evidence: [{ text: "job 3", at: "", who: "J.M." }],
  };
  expect(hasBadName({ letter: "C", text: "Black Cat 0.022", year: 1959 }, name)).toBe(true);
  expect(hasBadName({ letter: "C", text: "Black Cat 0.022", year: 1970 }, name)).toBe(false);
  expect(hasBadName({ letter: "R", text: "black cat" }, name)).toBe(false);
  expect(badNameFactor([name])).toBe(2);
  const marked = { type: "capacitor", payload: { part: "C6", marking: "black cat" } } as EventDraft;
  expect(judged("C6", [marked], { school: "test" }, [name])).toMatchObject({
    verdict: "replace",
    why: expect.stringContaining("bad name") as string,
  });
});

test("a conductive board is told from a leaky capacitor and from grid current, and a contradiction is not settled", () => {
  const table = boardTable("C8", "V3A");
  const after = (...answers: [string, string][]) =>
    isolate(
      table,
      answers.map(([test, outcome]) => ({ test, outcome })),
    );
  expect(after(["neighbours", "several grids"], ["breath", "rises"], ["lift", "stays"]).found!.id).toBe("board");
  expect(after(["neighbours", "one grid"], ["pull", "stays"], ["lift", "gone"]).found!.id).toBe("capacitor");
  expect(after(["pull", "gone"], ["breath", "no change"]).found!.id).toBe("tube");
  expect(after(["breath", "rises"]).found).toBeUndefined();
  expect(after(["breath", "rises"], ["lift", "gone"]).found).toBeUndefined();
});

test("before and after cleaning, in ohms; what is left is said", () => {
  const grids = stripGrids(lantern).map((g) => g.point);
  expect(grids).toEqual(["V4.g", "V5.g"]);
  const read = (value: number) => ({ type: "reading", payload: { point: "V4.g", kind: "dcv", value } }) as EventDraft;
  const state = (...drafts: EventDraft[]) => foldJob(tape(...drafts.map((d, i): [number, EventDraft] => [i, d])));
  const cleaned = { type: "board-cleaned", payload: { grids: ["V4.g"] } } as EventDraft;
  const volts = (node: string) => (node === "p3a" ? 230 : 0);
  const of = (...drafts: EventDraft[]) => gridsCleaned(lantern, state(...drafts), volts, () => 0);
  expect(of(read(4))).toEqual([]);
  const [found] = of(read(4), cleaned, read(0.5));
  // 4 V at 220 kΩ ∥ 10 MΩ is 18.58 µA: 226/18.58 µA = 12.2 MΩ.
  expect(found!.ohmsBefore! / 1e6).toBeCloseTo(12.2, 1);
  expect(found!.left).toBe(true);
  expect(of(read(4), cleaned, read(0.05))[0]!.left).toBe(false);
});

test("without a circuit: each that the tape names, once, by whatever it is called", () => {
  const all = (...drafts: EventDraft[]) => knownCapacitors(undefined, foldJob(tape(...drafts.map((d, i): [number, EventDraft] => [i, d]))));
  const can: EventDraft = { type: "reservoir", payload: { name: "big can", farads: 32e-6, volts: 450 } };
  const coupling: EventDraft = { type: "capacitor", payload: { part: "C6", farads: 22e-9, kind: "paper" } };
  const tested: EventDraft = { type: "capacitor-test", payload: { part: "c6", kind: "capacitance", value: 24e-9 } };
  const known = all(can, coupling, tested);
  expect(known.map((c) => [c.name, c.farads, c.volts, c.role.role, c.role.danger ?? false])).toEqual([
    ["big can", 32e-6, 450, "reservoir", false],
    ["C6", 22e-9, undefined, "tone", false],
  ]);
  expect(known[1]!.tests).toHaveLength(1);
  // Nobody has read its volts, and nothing says what it bears.
  expect(judgeCapacitor(known[1]!, undefined, ask).verdict).toBe("look");
  // What was fitted in its place has to be read off anew.
  const changed: EventDraft = {
    type: "change",
    payload: { position: "big can", kind: "replacement", newPart: "47 µF 500 V", reversible: true },
  };
  expect(all(can, changed)[0]).toMatchObject({ farads: undefined, volts: undefined, replaced: 2 });
});
