/** What is known of parts and nodes, and where they are: held against the Wren's own file and hand-worked figures. */

import { readFileSync } from "node:fs";
import { readCircuit } from "@/core/circuit/read";
import { drawCircuit } from "@/core/drawing/draw-circuit";
import type { Drawing } from "@/core/drawing/geometry";
import { layoutHere } from "@/core/drawing/layout-for-tests";
import type { Solution } from "@/core/expectation/solution";
import { foldJob } from "@/core/tape/fold";
import { tape } from "@/core/tape/tape-for-tests";
import { nodeFacts, partFacts } from "@/core/job/known-of";
import { coldLayer, modelLayer, outputLayer, placeOfCheck, suspectLayer, walkLayer, workLayer } from "./layers";
import { ownPoint } from "./own-point";
import { findByName, nextPart, placeOfNode } from "./places";
import { seenOf } from "./seen-of";

const { circuit } = readCircuit(readFileSync("demo/amps/wren-5.cir", "utf8"));
const solution: Solution = {
  converged: true,
  iterations: 1,
  ms: 1,
  unsettled: [],
  points: { B1: 270, "V2.k": 7.19 },
  nodes: { b1: 270, b2: 248, k2: 7.2, p2: 262, g2: 0, s2: 247.5 },
  tubes: {
    V2: {
      type: "EL84",
      plateVolts: 255,
      gridVolts: -7.2,
      screenVolts: 240,
      plateMilliamps: 36,
      screenMilliamps: 4,
      gridMicroamps: 0,
      plateWatts: 9.2,
      screenWatts: 1,
    },
  },
  stresses: [
    { part: "R1", kind: "watts", value: 0.22, rated: 2, share: 0.11 },
    { part: "V2", kind: "plate watts", value: 13.2, rated: 12, share: 1.1 },
  ],
  gains: {},
  undetermined: [],
};
const value = (facts: { name: string; value: string }[], name: string) => facts.find((f) => f.name === name)?.value;

test("a resistor: what it drops, what flows, what it burns and may burn", () => {
  const known = partFacts(circuit, "R1", solution)!;
  expect([known.title, known.place]).toEqual(["R1, 2.2 kΩ", "from B1 to B2"]);
  // 270 − 248 = 22 V; 22 V / 2.2 kΩ = 10 mA.
  expect(value(known.work, "across")).toBe("22.0 V");
  expect(value(known.work, "current")).toBe("10.0 mA");
  expect(value(known.work, "watts")).toBe("220 mW, 11 % of 2 W");
  expect(value(known.facts, "tolerance")).toBe("± 10 %");
  expect(value(known.facts, "known from")).toBe("read off the part");
});

test("a tube above its rating says so; a part without a solve shows what the file says", () => {
  const tube = partFacts(circuit, "XV2", solution)!;
  expect(tube.work.find((f) => f.name === "plate watts")).toMatchObject({ value: "13.2 W, 110 % of 12 W", over: true });
  expect(value(partFacts(circuit, "C1", undefined)!.facts, "rated")).toBe("450 V");
  expect(partFacts(circuit, "H1 V1", solution)).toBeUndefined();
});

test("a node: its pins by the basing, its parts with the terminal, chart and computed volts", () => {
  const known = nodeFacts(circuit, "k2", solution);
  expect(known.title).toBe("V2.k, V2 cathode");
  expect(known.pins).toEqual(["V2 pin 3"]);
  expect(known.parts.map((p) => [p.part, p.terminal])).toEqual([
    ["XV2", "cathode"],
    ["R4", ""],
    ["C4", ""],
  ]);
  expect([value(known.facts, "computed"), value(known.facts, "on the chart")]).toEqual(["7.19 V", "7.50 V"]);
  expect(nodeFacts(circuit, "0", solution)).toMatchObject({ title: "Chassis", parts: [] });
});

test("names are found as the trade writes them, whatever the case; what is not there is not", () => {
  expect(findByName(circuit, " r7 ")).toEqual({ part: "R7" });
  expect(findByName(circuit, "V2")).toEqual({ part: "XV2" });
  expect(findByName(circuit, "v1")).toEqual({ part: "XV1A" });
  expect(findByName(circuit, "B1")).toEqual({ node: "b1" });
  expect(findByName(circuit, "V1a.K")).toEqual({ node: "k1a" });
  expect(findByName(circuit, "g1b")).toEqual({ node: "g1b" });
  expect(findByName(circuit, "R99")).toBeUndefined();
  expect(findByName(circuit, "")).toBeUndefined();
});

describe("on the drawing", () => {
  let drawing: Drawing;
  beforeAll(async () => {
    drawing = await drawCircuit(circuit, layoutHere);
  });

  test("arrow keys reach every part from any part", () => {
    const reached = new Set<string>(["XV2"]);
    const queue = ["XV2"];
    while (queue.length > 0) {
      const at = queue.shift()!;
      for (const direction of ["left", "right", "up", "down"] as const) {
        const to = nextPart(drawing, at, direction)!;
        if (!reached.has(to)) queue.push(to);
        reached.add(to);
      }
    }
    expect([...reached].sort()).toEqual(drawing.symbols.map((s) => s.part).sort());
    expect(nextPart(drawing, undefined, "left")).toBe(drawing.symbols[0]!.part);
  });

  test("an arrow key goes to what lies there", () => {
    expect(nextPart(drawing, "XV1A", "up")).toBe("R8");
    expect(nextPart(drawing, "XV1A", "down")).toBe("R9");
    expect(nextPart(drawing, "R9", "right")).toBe("C8");
  });

  test("every node with a point has a place", () => {
    for (const p of circuit.points) expect(placeOfNode(drawing, p.node)).toBeDefined();
    expect(placeOfNode(drawing, "nowhere")).toBeUndefined();
  });
});

describe("a node that becomes a test point", () => {
  test("is named by its electrode, else by itself, and never as a part or a point is", () => {
    expect(ownPoint(circuit, "g1b")).toEqual({ name: "V1B.g", node: "g1b", label: "V1B grid" });
    // C5 is a capacitor.
    expect(ownPoint(circuit, "c5")).toMatchObject({ name: "C5.1", label: "the joint of P1, C5" });
    expect(ownPoint(circuit, "in").name).toBe("IN");
  });
});

test("the lines of a job about a part: by its whole name, without those that were struck, the newest first", () => {
  const events = tape(
    [0, { type: "finding", payload: { station: "look", place: "C5", text: "bulging", severity: "fault", brief: "allowed" } }],
    [1, { type: "finding", payload: { station: "look", place: "C55", text: "another", severity: "fault", brief: "allowed" } }],
    [2, { type: "note", payload: { text: "heated C5, no change" } }],
    [3, { type: "change", payload: { position: "C5", kind: "replacement", newPart: "22 nF", reversible: true } }],
    [4, { type: "undo", supersedes: 4, reason: "wrong part", payload: {} }],
    [5, { type: "reading", payload: { point: "V2.k", kind: "dcv", value: 7, conditions: { without: ["C5"] } } }],
  );
  const state = foldJob(events);
  expect(seenOf(state, circuit, { part: "C5" }).map((l) => l.event.seq)).toEqual([3, 1]);
  expect(seenOf(state, circuit, { node: "k2" }).map((l) => l.event.seq)).toEqual([6]);
});

describe("layers", () => {
  const row = (name: string, read?: number, verdict: "in" | "out" = "in") => {
    const point = circuit.points.find((p) => p.name === name)!;
    return {
      point,
      probeOn: "",
      role: "other" as const,
      range: "",
      idle: [],
      expected: { volts: 250, low: 240, high: 260, basis: "model" as const, note: "" },
      ...(read === undefined
        ? { verdict: "none" as const }
        : { verdict, reading: { point: name, kind: "dcv" as const, value: read, conditions: {}, seq: 1, at: "", who: "" } }),
    };
  };

  test("walk: expected, read and verdict at the node, the next one named", () => {
    const layer = walkLayer([row("B1", 251), row("V2.s")], "s2");
    expect(layer.nodes.b1).toEqual({ expected: "250 V", read: "251 V", verdict: "in" });
    expect(layer.nodes.s2).toEqual({ expected: "250 V" });
    expect(layer.next).toBe("s2");
  });

  test("a model: what it computes beside the chart, what stands too much", () => {
    const layer = modelLayer(circuit, solution);
    expect(layer.nodes.b1).toEqual({ expected: "(255 V)", read: "270 V" });
    expect(layer.parts).toEqual({ XV2: { text: "110 %", look: "strong" } });
  });

  test("suspects: the chosen one's parts strong, its own volts at the nodes, both halves of a tube for its envelope", () => {
    const layer = suspectLayer(
      circuit,
      [row("B1", 251)],
      [
        { refs: ["C6"], probability: 0.9 },
        { refs: ["V1"], probability: 0.04 },
        { refs: ["C6"], probability: 0.03 },
        { refs: ["R7"], probability: 0.004 },
      ],
      { refs: ["C6"], predicted: { B1: 255.2, "V2.k": 10.2 } },
      "g2",
    );
    expect(layer.nodes.b1).toMatchObject({ expected: "→ 255 V", read: "251 V" });
    expect(layer.parts).toEqual({
      C6: { text: "93 %", look: "strong" },
      XV1A: { text: "4 %", look: "plain" },
      XV1B: { text: "4 %", look: "plain" },
    });
  });

  test("cold checks: a rail to chassis is a node, a winding the part between, a resistor itself", () => {
    expect(placeOfCheck(circuit, "b1:0")).toEqual({ node: "b1" });
    expect(placeOfCheck(circuit, "b1:p2")).toEqual({ part: "XT1" });
    expect(placeOfCheck(circuit, "R7")).toEqual({ part: "R7" });
    expect(placeOfCheck(circuit, "heater V9")).toBeUndefined();
    const layer = coldLayer(
      circuit,
      [
        { point: "b1:0", expected: "220 kΩ" },
        { point: "R7", expected: "1.5 kΩ", read: "1.9 kΩ", verdict: "out" },
      ],
      "b1:0",
    );
    expect(layer.nodes.b1).toEqual({ expected: "220 kΩ", read: undefined, verdict: undefined });
    expect(layer.parts.R7).toEqual({ text: "1.9 kΩ", look: "strong" });
    expect(layer.next).toBe("b1");
  });

  test("output stage: plate current and part of the rating at the tube", () => {
    const idle = {
      tube: "V2",
      type: "EL84",
      cathodeAmps: 0.054,
      ohms: 180,
      sharedBy: 1,
      plateAmps: 0.0495,
      plateWatts: 12.6,
      ofRating: 1.05,
      ratedWatts: 12,
    };
    const layer = outputLayer(circuit, [{ ...row("V2.k", 9.8), idle: [idle] }]);
    expect(layer.parts.XV2).toEqual({ text: "49.5 mA, 105 %", look: "strong" });
    expect(layer.about).toEqual(["XV2"]);
  });

  test("work: what is not the model's any more; what was put back is the model's again", () => {
    const layer = workLayer(
      circuit,
      [],
      [
        { position: "C6", kind: "replacement", newPart: "22 nF" },
        { position: "r8", kind: "experiment", outcome: "open", newPart: "220 k", set: ["R8=220k", "R9=2k"] },
        { position: "R7", kind: "experiment", outcome: "reverted", newPart: "1 k" },
      ],
    );
    expect(layer.parts).toEqual({
      C6: { text: "new", look: "changed" },
      R8: { text: "experiment", look: "strong" },
      R9: { text: "experiment", look: "strong" },
    });
  });
});
