import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import type { EventDraft } from "../tape/events/event";
import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import { changesIn, circuitInUse } from "./circuit-in-use";

const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
const trial = (outcome: "open" | "kept" | "reverted", set: string[], more: object = {}): EventDraft =>
  ({
    type: "change",
    payload: { position: "R8", kind: "experiment", newPart: "trial", reversible: true, outcome, set },
    ...more,
  }) as EventDraft;
const ohms = (netlist: string, name: string) => readCircuit(netlist).circuit.elements.find((e) => e.name === name)!.value;
const state = (...drafts: EventDraft[]) => foldJob(tape(...drafts.map((d, i): [number, EventDraft] => [i, d])));

test("experiments that are open or kept are in the circuit in use; one that was put back is not", () => {
  const s = state(trial("open", ["R8=220k"]), trial("kept", ["R9=2.2k"]), trial("reverted", ["R7=1k"]));
  expect(changesIn(s)).toEqual(["R8=220k", "R9=2.2k"]);
  const { netlist, circuit, leftOut } = circuitInUse(s, WREN);
  expect(leftOut).toEqual([]);
  expect(ohms(netlist, "R8")).toBe(220e3);
  expect(ohms(netlist, "R9")).toBe(2200);
  expect(ohms(netlist, "R7")).toBe(ohms(WREN, "R7"));
  // Points and notes are those of the model.
  expect(circuit.points).toHaveLength(readCircuit(WREN).circuit.points.length);
});

test("without experiments the model's own text stands", () => {
  expect(circuitInUse(state(), WREN)).toMatchObject({ netlist: WREN, leftOut: [] });
});

test("an experiment that the model cannot take is left out and named; the others are in", () => {
  const { netlist, leftOut } = circuitInUse(state(trial("open", ["R99=1k"]), trial("kept", ["R9=2.2k"])), WREN);
  expect(leftOut).toEqual([{ line: 1, position: "R8", why: expect.stringContaining("there is no R99") }]);
  expect(ohms(netlist, "R9")).toBe(2200);
});

test("the circuit as it was: before an experiment began, while it was in, after it was put back", () => {
  const note: EventDraft = { type: "note", payload: { text: "x" } };
  const s = state(note, trial("open", ["R8=220k"]), note, trial("reverted", ["R8=220k"], { supersedes: 2, reason: "no better" }), note);
  const at = (line?: number) => ohms(circuitInUse(s, WREN, line).netlist, "R8");
  const model = ohms(WREN, "R8");
  expect([at(1), at(3), at(5), at()]).toEqual([model, 220e3, model, model]);
});

test("a new part with its value counts from its line on; an experiment on it comes on top; one without a value changes nothing", () => {
  const fitted = (set?: string[]): EventDraft => ({
    type: "change",
    payload: { position: "C1", kind: "replacement", newPart: "47 µF 500 V", reversible: true, ...(set ? { set } : {}) },
  });
  const note: EventDraft = { type: "note", payload: { text: "x" } };
  const s = state(note, fitted(["C1=47uF", "C1.volts=500", "C1.year=2026"]), note, trial("open", ["C1=100uF"]), note);
  const at = (line?: number) => ohms(circuitInUse(s, WREN, line).netlist, "C1");
  expect([at(1), at(3), at()]).toEqual([32e-6, 47e-6, 100e-6]);
  expect(circuitInUse(s, WREN).circuit.elements.find((e) => e.name === "C1")!.notes).toMatchObject({ volts: 500, year: 2026 });
  expect(circuitInUse(state(fitted()), WREN).netlist).toBe(WREN);
});

test("an experiment that was struck is not in the circuit", () => {
  const undo: EventDraft = { type: "undo", supersedes: 1, reason: "wrong part", payload: {} } as EventDraft;
  expect(circuitInUse(state(trial("kept", ["R8=220k"]), undo), WREN).netlist).toBe(WREN);
});

describe("test points of the job's own", () => {
  const point = (name: string, node: string, label = "made here"): EventDraft => ({ type: "point", payload: { name, node, label } });

  test("stand in the circuit in use, after the file's, and the rest of its text is as it was", () => {
    const { netlist, circuit } = circuitInUse(state(point("C5.1", "c5", 'the "hot" end of P1')), WREN);
    expect(circuit.points.at(-1)).toMatchObject({ name: "C5.1", node: "c5", label: "the 'hot' end of P1", order: 120 });
    expect(netlist.replace(/\*@point C5\.1.*\n/, "")).toBe(WREN.trimEnd().replace(/\n\.end$/, "\n.end") + "\n");
    expect(readCircuit(netlist).errors).toEqual([]);
  });

  test("are left out where the node is not there or the name is taken; with an experiment they stand in its circuit", () => {
    const s = state(point("X.1", "nowhere"), point("b1", "c5"), trial("open", ["R8=220k"]), point("G1A", "G1A"));
    const { netlist, circuit } = circuitInUse(s, WREN);
    expect(circuit.points.filter((p) => p.order > 110).map((p) => p.name)).toEqual(["G1A"]);
    expect(ohms(netlist, "R8")).toBe(220e3);
  });

  test("one that was struck is gone", () => {
    const undo: EventDraft = { type: "undo", supersedes: 1, reason: "not needed", payload: {} } as EventDraft;
    expect(circuitInUse(state(point("C5.1", "c5"), undo), WREN).netlist).toBe(WREN);
  });
});

test("a model without test points is read with the usual ones; the job's own come after them", () => {
  const bare = WREN.replace(/^\*@point.*\n/gm, "");
  const { circuit } = circuitInUse(state({ type: "point", payload: { name: "C5.1", node: "c5", label: "made here" } }), bare);
  expect(circuit.points.map((p) => p.name)).toEqual([
    "B1",
    "B2",
    "B3",
    "V2.g",
    "V2.k",
    "V2.p",
    "V2.s",
    "V1A.p",
    "V1A.k",
    "V1B.p",
    "V1B.k",
    "C5.1",
  ]);
});

test("an adjuster and a tube from stock are in the circuit in use, the last of each", () => {
  const state = foldJob(
    tape(
      [0, { type: "adjusted", payload: { control: "P9", position: 0.4 } }],
      [2, { type: "tube-fitted", payload: { tube: "V5", type: "KT66", number: 3, strength: 0.9 } }],
      [4, { type: "adjusted", payload: { control: "P9", position: 0.55 } }],
    ),
  );
  expect(changesIn(state)).toEqual(["V5=strength:0.9", "P9=0.55"]);
  const { circuit, leftOut } = circuitInUse(state, readFileSync("demo/amps/drover-40.cir", "utf8"));
  expect(leftOut).toEqual([]);
  expect(circuit.elements.find((e) => e.name === "P9")!.params.pos).toBeCloseTo(0.55, 9);
  expect(circuit.elements.find((e) => e.name === "V5")!.notes.strength).toBeCloseTo(0.9, 9);
});
