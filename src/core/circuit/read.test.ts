import { readFileSync } from "node:fs";
import { readCircuit } from "./read";
import { evaluate, ExpressionError } from "./expression";
import { parseSpiceNumber } from "./spice-number";
import { findElement } from "./circuit";

const read = (body: string) => readCircuit(`title\n${body}\n.end`);
const errors = (body: string) => read(body).errors.map((e) => `${e.line}: ${e.found} | ${e.expected}`);

describe("numbers in a netlist", () => {
  test.each([
    ["4.7k", 4700],
    ["1MEG", 1e6],
    ["1meg", 1e6],
    ["1M", 1e-3],
    ["32u", 32e-6],
    ["32uF", 32e-6],
    ["1e3", 1000],
    ["100", 100],
    [".5", 0.5],
    ["2.2kohm", 2200],
  ])("%s", (text, value) => expect(parseSpiceNumber(text)).toMatchObject({ ok: true, value }));
  test("4k7 is refused with the way to write it", () => {
    expect(parseSpiceNumber("4k7")).toEqual({ ok: false, expected: "a number as netlists write it: 4.7k" });
    expect(parseSpiceNumber("2R2")).toEqual({ ok: false, expected: "a number as netlists write it: 2.2" });
  });
});

describe("expressions", () => {
  const params = new Map([["RK", 1500]]);
  test.each([
    ["2*RK+1k", 4000],
    ["-(1+2)^2", 9],
    ["sqrt(16)/min(2,4)", 2],
    ["2*3+4*5", 26],
    ["10-2-3", 5],
    ["2^3^2", 512],
  ])("%s", (text, value) => expect(evaluate(text, params)).toBeCloseTo(value, 9));
  test.each(["", "1+", "(1", "nope", "alert(1)", "1 2", "1/0", "constructor(1)", "(".repeat(20000)])("refuses %.20s", (text) => {
    expect(() => evaluate(text, params)).toThrow(ExpressionError);
  });
});

describe("the circuit file", () => {
  const wren = readCircuit(readFileSync("demo/amps/wren-5.cir", "utf8"));

  test.each(["wren-5", "lantern-15", "drover-40"])("%s reads without an error", (name) => {
    const { errors, warnings, circuit } = readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8"));
    expect(errors).toEqual([]);
    expect(warnings.filter((w) => !w.found.includes("one part on it"))).toEqual([]);
    expect(circuit.points.length).toBeGreaterThanOrEqual(11);
  });

  test("points, parts and notes of the Wren", () => {
    expect(wren.circuit.mains).toEqual({ volts: 230, hertz: 50 });
    expect(wren.circuit.chart).toEqual({ mains: 220, meterOhmsPerVolt: 20000, note: "Printed inside the back panel" });
    expect(wren.circuit.points[0]).toMatchObject({ name: "B1", node: "b1", order: 10, label: "Reservoir", pin: "C1 +", chart: 255 });
    expect(findElement(wren.circuit, "c1")).toMatchObject({
      value: 32e-6,
      notes: { volts: 450, kind: "electrolytic", section: "can1", year: 1961 },
    });
    expect(findElement(wren.circuit, "XV1A")).toMatchObject({ name: "V1A", type: "12AX7", nodes: ["p1a", "g1a", "k1a"] });
    expect(findElement(wren.circuit, "R4")?.notes.tol).toBeCloseTo(0.05);
    expect(findElement(wren.circuit, "P1")).toMatchObject({ value: 1e6, params: { taper: "audio", pos: 0.5 } });
    expect(wren.circuit.heaters[0]).toMatchObject({ volts: 6.3, tubes: ["V1", "V2"], string: false });
  });

  test("every bad line is reported with what was found and what was expected", () => {
    expect(
      errors("R1 a 0 4k7\nR2 a 0\nC1 a 0 -3u\nXV1 a b 12AX7\nXV2 a b c 99ZZ9\nQ1 a b c\n*@pint B1 node=a\nR3 a 0 1k ;@wats 3"),
    ).toEqual([
      "2: 4k7 | RNAME node node OHMS: a number as netlists write it: 4.7k",
      "3: R2 a 0 | RNAME node node OHMS",
      "4: -3u | a value above zero",
      "5: 2 nodes for 12AX7 | 3: plate grid cathode",
      expect.stringMatching(/^6: type 99ZZ9 \| a tube of the library/),
      "7: Q1 | an element (R, C, L, K, V, I, D, X), a dot command or a * comment",
      expect.stringMatching(/^8: \*@pint \| one of \*@mains/),
      expect.stringMatching(/^9: @wats \| one of @tol/),
    ]);
  });

  test("1M in a resistor is milli, and warned about", () => {
    const { circuit, warnings } = read("R1 a 0 1M\nR2 a 0 1k");
    expect(findElement(circuit, "R1")?.value).toBe(0.001);
    expect(warnings).toContainEqual({ line: 2, found: "1M", expected: expect.stringContaining("1MEG") });
  });

  test("ground, floating nodes, loops of sources, names used twice", () => {
    expect(errors("R1 a b 1k\nR2 a b 1k")[0]).toMatch(/no part that goes to ground/);
    expect(errors("R1 a 0 1k\nC1 a b 1n\nR2 b c 1k\nC2 c 0 1n")).toEqual([
      expect.stringMatching(/node b floats/),
      expect.stringMatching(/node c floats/),
    ]);
    expect(errors("V1 a 0 5\nV2 a 0 6")).toEqual([expect.stringMatching(/V2 closes a loop of voltage sources/)]);
    expect(errors("R1 a 0 1k\nR1 a 0 2k")).toEqual([expect.stringMatching(/a second R1 \(the first is on line 2\)/)]);
    expect(errors("V1 b 0 250\nR1 b p 100k\nXV1 p g k 12AX7\nR2 k 0 1.5k\nC1 p g 22n")).toEqual([expect.stringMatching(/node g floats/)]);
  });

  test("parameters, continuation lines and subcircuits", () => {
    const { circuit, errors } = read(
      ".param RL=100k\n.param RK={RL/50}\nR1 b\n+ p {RL}\n.subckt pad a b\nR1 a m 10k\nR2 m b {RK}\n.ends\nXA b 0 pad\nXB p 0 pad",
    );
    expect(errors).toEqual([]);
    expect(findElement(circuit, "R1")?.value).toBe(100e3);
    expect(circuit.elements.map((e) => [e.name, ...e.nodes])).toEqual([
      ["R1", "b", "p"],
      ["A.R1", "b", "a.m"],
      ["A.R2", "a.m", "0"],
      ["B.R1", "p", "b.m"],
      ["B.R2", "b.m", "0"],
    ]);
    expect(findElement(circuit, "B.R2")?.value).toBe(2000);
  });

  test(".include is refused and a subcircuit inside itself ends", () => {
    expect(errors("R1 a 0 1k\n.include /etc/passwd")[0]).toMatch(/no other file is opened/);
    expect(errors(".subckt s a\nXQ a s\n.ends\nR1 a 0 1k\nXW a s")[0]).toMatch(/at most 8 deep/);
  });

  // How long it takes is measured by the bench; here it must end, with what it found.
  test("junk, a missing file, ten thousand bad lines, four thousand good ones", () => {
    expect(readCircuit("\u0000\u0001PNG").errors[0]?.found).toMatch(/binary/);
    expect(readCircuit("").errors).not.toEqual([]);
    const many = readCircuit("t\n" + Array.from({ length: 10_000 }, (_, i) => `R${i} n${i} n${i + 1} 4k7`).join("\n"));
    expect(many.errors).toHaveLength(500);
    const good = readCircuit("t\n" + Array.from({ length: 4_000 }, (_, i) => `R${i} n${i} ${i === 0 ? 0 : `n${i - 1}`} 1k`).join("\n"));
    expect(good.errors).toEqual([]);
  });
});
