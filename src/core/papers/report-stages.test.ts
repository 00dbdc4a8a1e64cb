/** The stage of the fault in the report, and the bench sheet, from the Lantern's own file. */

import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { drawCircuit } from "../drawing/draw-circuit";
import type { Drawing } from "../drawing/geometry";
import { layoutHere } from "../drawing/layout-for-tests";
import { lineworkOf } from "../drawing/linework";
import { svgOf } from "../drawing/svg";
import { solveOnce } from "../expectation/solve-once";
import { benchSheet } from "./bench-sheet";
import type { BeforeAfter } from "./before-after";
import type { Report } from "./report";
import type { Block } from "./block";
import { reportStages } from "./report-stages";

const { circuit } = readCircuit(readFileSync("demo/amps/lantern-15.cir", "utf8"));
let drawing: Drawing;
beforeAll(async () => {
  drawing = await drawCircuit(circuit, layoutHere);
});

const part = (position: string): Report["parts"][number] => ({ position, old: "", fitted: "new", why: "", reversible: true, oldWent: "" });
const at = (point: string, before: [string, "in" | "out"], after?: [string, "in" | "out"]): BeforeAfter => ({
  point,
  label: point,
  expected: "",
  before: { text: before[0], verdict: before[1] },
  after: after && { text: after[0], verdict: after[1] },
});
const drawings = (blocks: Block[]) => blocks.flatMap((b) => (b.block === "drawing" ? [b] : []));
const words = (b: { texts: { text: string }[] }) => b.texts.map((t) => t.text);

test("the stage of a part that was changed, before and after, where a point came back into its band", () => {
  const beforeAfter = [
    at("V3A.p", ["172 V", "out"], ["229 V", "in"]),
    at("V3A.k", ["42.9 V", "out"], ["54.7 V", "in"]),
    at("B1", ["322 V", "in"], ["323 V", "in"]),
  ];
  const blocks = reportStages({ parts: [part("R9")], beforeAfter }, circuit, drawing, "boxes");
  const [before, after] = drawings(blocks);
  expect(blocks[0]).toEqual({ block: "heading", text: "Where the fault was" });
  expect(words(before!)).toEqual(expect.arrayContaining(["172 V", "42.9 V", "R9", "V3A", "R11"]));
  expect(words(after!)).toEqual(expect.arrayContaining(["229 V", "54.7 V"]));
  // Only the stage: neither the far end of the sheet nor the rail's own volts.
  for (const text of ["T1", "322 V"]) expect(words(before!)).not.toContain(text);
  // The part itself is framed.
  expect(before!.strokes.at(-1)).toMatchObject({ dashed: true });
});

test("no stage where nothing came back, where nothing was read, or where the part is not drawn", () => {
  const out: [string, "out"] = ["172 V", "out"];
  for (const beforeAfter of [[at("V3A.p", out, out)], [at("V3A.p", out)], [at("V3A.p", ["229 V", "in"], ["229 V", "in"])], []])
    expect(reportStages({ parts: [part("R9")], beforeAfter }, circuit, drawing, "boxes")).toEqual([]);
  expect(
    reportStages({ parts: [part("mains cord")], beforeAfter: [at("V3A.p", out, ["229 V", "in"])] }, circuit, drawing, "boxes"),
  ).toEqual([]);
});

test("two parts of one stage make one picture; more than two stages are not shown", () => {
  const back = circuit.points.map((p) => at(p.name, ["0 V", "out"], ["1 V", "in"]));
  expect(drawings(reportStages({ parts: [part("R9"), part("R10")], beforeAfter: back }, circuit, drawing, "boxes"))).toHaveLength(2);
  expect(
    drawings(reportStages({ parts: ["R16", "R9", "R4", "R19"].map(part), beforeAfter: back }, circuit, drawing, "boxes")),
  ).toHaveLength(4);
});

test("the bench sheet: the schematic with its volts, every point, every socket, the supply and the output tubes", () => {
  const solution = solveOnce(circuit, { mains: 240, without: [], set: [] });
  const blocks = benchSheet(circuit, drawing, solution, "boxes", 240);
  const tables = blocks.flatMap((b) => (b.block === "table" ? [b] : []));
  expect(blocks.flatMap((b) => (b.block === "heading" ? [b.text] : [])).slice(1)).toEqual([
    "Test points, in the order of the walk",
    "Sockets, by pin number",
    "Supply",
    "Output tubes at idle",
  ]);
  expect(tables[0]!.rows.map((r) => r[0])).toEqual([...circuit.points].sort((a, b) => a.order - b.order).map((p) => p.name));
  expect(tables[1]!.rows.map((r) => r[0])).toEqual(["V1 12AX7", "V2 12AX7", "V3 12AX7", "V4 6V6GT", "V5 6V6GT", "V6 GZ34"]);
  // The published basing of the 6V6GT: plate 3, screen 4, grid 5, cathode 8, heater 2 and 7.
  expect(tables[1]!.rows[3]!.map((cell) => String(cell).split("\n")[0])).toEqual([
    "V4 6V6GT",
    "",
    "heater",
    "plate",
    "screen",
    "grid",
    "",
    "heater",
    "cathode",
    "",
  ]);
  // What R1 (470 Ω) drops, by Ohm's law.
  const [b1, b2] = [solution.points.B1!, solution.points.B2!];
  expect(tables[2]!.rows[1]!.at(-1)).toBe(`${(((b1 - b2) / 470) * 1e3).toPrecision(3)} mA`);
  expect(tables[3]!.rows).toHaveLength(2);
  expect(words(drawings(blocks)[0]!)).toContain("(325 V)");
});

test("an SVG of its own is well formed, whatever the names are, and has every part", () => {
  const svg = svgOf(lineworkOf(drawing, circuit, "zigzags", { b1: ['<"325" & more>'] }), "Tarn & Wicke <Lantern>");
  expect(svg).toContain("<title>Tarn &amp; Wicke &lt;Lantern&gt;</title>");
  expect(svg).toContain("&lt;&quot;325&quot; &amp; more&gt;");
  // Every element that is opened is closed.
  const open: string[] = [];
  for (const [, close, name, self] of svg.matchAll(/<(\/?)([a-z]+)(?:[^<>"]|"[^"]*")*?(\/?)>/g)) {
    if (self) continue;
    if (close) expect(open.pop()).toBe(name);
    else open.push(name!);
  }
  expect(open).toEqual([]);
  for (const e of circuit.elements) expect(svg).toContain(`>${e.name}<`);
});
