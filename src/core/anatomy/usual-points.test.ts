/** The usual points against those that were written by hand into the six files. */

import { readdirSync, readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { whereToProbe } from "./sockets";
import { usualPoints, withUsualPoints } from "./usual-points";

const AMPS = readdirSync("demo/amps").filter((name) => name.endsWith(".cir"));
const fileOf = (name: string) => readFileSync(`demo/amps/${name}`, "utf8");
const bare = (text: string) => text.replace(/^\*@point.*\n/gm, "");

test.each(AMPS)("%s: the nodes that its maker's chart has, under the same names", (name) => {
  const { circuit } = readCircuit(fileOf(name));
  const usual = usualPoints({ ...circuit, points: [] });
  const byNode = new Map(usual.map((p) => [p.node, p]));
  // By hand: the middle of a reservoir in two halves and the grid of a first stage under contact bias are extras that no other amp has.
  const extras = ["B1M", "V1.g"];
  expect(circuit.points.filter((p) => !byNode.has(p.node) && !extras.includes(p.name)).map((p) => p.name)).toEqual([]);
  for (const p of circuit.points) {
    const found = byNode.get(p.node);
    // A tube's point has its name everywhere; a pair's cathodes are called by the envelope in the files. Rails are numbered anew.
    if (found?.name.includes(".") && p.name.includes("."))
      expect(found.name.replace(/^(V\d+)[AB]?\./, "$1.")).toBe(p.name.replace(/^(V\d+)[AB]?\./, "$1."));
  }
  expect(new Set(usual.map((p) => p.name)).size).toBe(usual.length);
});

test("a file without points is read with them: in the order of the walk, with pins by the basing, its own lines untouched", () => {
  const text = bare(fileOf("wren-5.cir"));
  const whole = withUsualPoints(text, readCircuit(text).circuit);
  const { circuit, errors } = readCircuit(whole);
  expect(errors).toEqual([]);
  expect(circuit.points.map((p) => [p.name, whereToProbe(circuit, p)])).toEqual([
    ["B1", "C1 +"],
    ["B2", "C2 +"],
    ["B3", "C3 +"],
    ["V2.g", "V2 pin 2"],
    ["V2.k", "V2 pin 3"],
    ["V2.p", "V2 pin 7"],
    ["V2.s", "V2 pin 9"],
    ["V1A.p", "V1 pin 1"],
    ["V1A.k", "V1 pin 3"],
    ["V1B.p", "V1 pin 6"],
    ["V1B.k", "V1 pin 8"],
  ]);
  expect(whole.replace(/^\*@point.*\n/gm, "")).toBe(text);
});

test("a file with a point of its own is left alone, and one with nothing to probe stays without", () => {
  const wren = fileOf("wren-5.cir");
  expect(withUsualPoints(wren, readCircuit(wren).circuit)).toBe(wren);
  const two = "Two parts\nR1 a 0 1k\nR2 a b 1k\nC1 b 0 1n\n.end\n";
  expect(withUsualPoints(two, readCircuit(two).circuit)).toBe(two);
});

test("a point is never called like a part: then it has a number", () => {
  const { circuit } = readCircuit(
    "Named\n*@mains 230 50\nXPS hv 0 RECT_BRIDGE vac=250 rs=50 tube=silicon\nB1 hv 0 1k".replace("B1", "RB1") + "\nC1 hv 0 32u\n.end",
  );
  const clash = { ...circuit, elements: circuit.elements.map((e) => (e.name === "RB1" ? { ...e, name: "B1" } : e)) };
  expect(usualPoints(clash).map((p) => p.name)).toEqual(["B1.2"]);
});
