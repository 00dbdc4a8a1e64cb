/** The averaged supplies, held against their own pulses by time stepping and against a general SPICE with decks written by hand. */

import { LONG } from "../numeric/draws-for-tests";
import { alter } from "../circuit/alter";
import { faultsOf } from "../suspects/faults";
import { circuitOf, demoAmp } from "./circuits-for-tests";
import { idealVolts, operatingPoint } from "./operating-point";
import { periodicAverage } from "./steady";
import { figuresIn, hasSpice, runSpice } from "./spice-for-tests";

/** Wanted everywhere. */
const CLOSE = 0.015;
/** Relative; beside a supply of hundreds of volts a node within volts of zero is held against `least`. */
const off = (volts: number, truth: number, least = 1) => Math.abs(volts - truth) / Math.max(Math.abs(truth), least);

describe("the average is that of the real pulses", () => {
  const KINDS = {
    "bridge, silicon": "XPS b 0 RECT_BRIDGE vac=300 rs=40",
    "full-wave, tube": "XPS b 0 RECT_FULL vac=300 rs=120 tube=GZ34",
    "full-wave, one side weak": "XPS b 0 RECT_FULL vac=300 rs=120",
    "half-wave, tube": "XPS b 0 RECT_HALF vac=240 rs=80 tube=35Z5GT",
    "half-wave, selenium": "XPS b 0 RECT_HALF vac=240 rs=80 tube=selenium",
  };
  const loads = { "a resistor": ["R1 b 0 3k"], "a choke and a stage": ["L1 b c 5 ;@dcr 150", "C2 c 0 32u", "R1 c 0 5k"] };
  for (const [kind, line] of Object.entries(KINDS))
    for (const [load, lines] of Object.entries(loads))
      for (const farads of ["open", "1u", "4u", "16u", "33u", "100u"])
        for (const mains of [0.85, 1.15]) {
          test(`${kind}, ${farads}, into ${load}, mains × ${mains}`, () => {
            const whole = circuitOf("*@mains 230 50", line, "C1 b 0 10u", ...lines);
            const changes = [`C1=${farads}`, ...(kind.includes("weak") ? ["PS=weakside:8"] : [])];
            const circuit = alter(whole, changes);
            const truth = periodicAverage(circuit, 230 * mains);
            const op = operatingPoint(circuit, { mains: 230 * mains });
            expect(op.doubts).toEqual([]);
            for (const node of ["b", ...(load === "a resistor" ? [] : ["c"])])
              expect(off(idealVolts(op, node), truth.get(node)!)).toBeLessThan(CLOSE);
          });
        }

  // Whole amps, whose load is anything but a resistor.
  test.each([
    ["minor", "C1=open"],
    ["minor", "C1=4u"],
    ["wren-5", "C1=open"],
    ["wren-5", "C1=8u"],
    ["wren-5", "V3=half"],
    ["lantern-15", "C1=32u"],
    ...(LONG
      ? [
          ["picture-house", "C1=open"],
          ["picture-house", "C1=100u"],
        ]
      : []),
  ])("%s with %s, at every test point", (amp, change) => {
    const circuit = alter(demoAmp(amp), [change]);
    const truth = periodicAverage(circuit);
    const op = operatingPoint(circuit);
    expect(op.doubts).toEqual([]);
    for (const p of circuit.points) expect(off(idealVolts(op, p.node), truth.get(p.node)!)).toBeLessThan(CLOSE);
  });
});

describe("two diodes and two capacitors", () => {
  const full = ["XPS b 0 m DOUBLER vac=117 rs=10", "C2 b m 100u", "C3 m 0 100u"];
  const cascade = ["XPS b 0 x w DOUBLER_HALF vac=117 rs=10", "C2 x w 100u", "C3 b 0 100u"];
  const tapped = ["XPS b 0 m RECT_BRIDGE vac=240 rs=20", "C2 b 0 100u", "C3 m 0 100u", "R2 m 0 10k"];
  const series = ["XPS m 0 RECT_BRIDGE vac=117 rs=20", "XP2 b m RECT_FULL vac=117 rs=60 tube=EZ80", "C2 b m 50u", "C3 m 0 50u"];
  const cases: [string, string[], string[]][] = [
    ["full-wave doubler", full, []],
    ["full-wave doubler, upper capacitor dried out", full, ["C2=10u"]],
    ["full-wave doubler, lower capacitor open", full, ["C3=open"]],
    ["full-wave doubler, upper capacitor leaks", full, ["C2=leak:4k"]],
    ["full-wave doubler, lower diode dead", full, ["PS=lower:dead"]],
    ["full-wave doubler, upper diode shorted", full, ["PS=upper:through"]],
    ["cascade", cascade, []],
    ["cascade, series capacitor dried out", cascade, ["C2=10u"]],
    ["cascade, reservoir dried out", cascade, ["C3=10u"]],
    ["cascade, upper diode dead", cascade, ["PS=upper:dead"]],
    ["bridge whose centre tap feeds half", tapped, []],
    ["two supplies in series", series, []],
  ];
  test.each(cases)("%s: every node as its pulses have it", (_, lines, changes) => {
    const circuit = alter(circuitOf("*@mains 117 60", ...lines, "R1 b 0 4k"), changes);
    const truth = periodicAverage(circuit);
    const op = operatingPoint(circuit);
    expect(op.converged && op.doubts.length === 0).toBe(true);
    for (const [node, volts] of truth) if (!node.includes("#")) expect(off(idealVolts(op, node), volts, 20)).toBeLessThan(CLOSE);
  });
  test("no bleeder is no reason to refuse it, and a fault of one capacitor shows", () => {
    const circuit = circuitOf("*@mains 117 60", ...full, "R1 b 0 4k");
    const sound = operatingPoint(circuit);
    for (const change of ["C2=open", "C3=open", "C2=short", "PS=upper:dead", "PS=lower:dead"])
      expect(off(idealVolts(operatingPoint(alter(circuit, [change])), "b"), idealVolts(sound, "b"))).toBeGreaterThan(0.2);
    expect(faultsOf(circuit).map((f) => f.name)).toEqual(expect.arrayContaining(["PS upper diode dead", "PS lower diode dead"]));
  });
});

(hasSpice() ? describe : describe.skip)("supplies in a general SPICE, decks written by hand", () => {
  const DIODE = ".model dd D(is=2n n=1.9 rs=0.01)";
  const decks: [string, string[], string[], string][] = [
    [
      "bridge, 8 µF",
      [
        "V1 a c sin(0 424.26 50)",
        "Rs a aa 40",
        "D1 aa b dd",
        "D2 c b dd",
        "D3 0 aa dd",
        "D4 0 c dd",
        "Ra a 0 1meg",
        "Rc c 0 1meg",
        "C1 b 0 8u",
        "R1 b 0 3k",
      ],
      ["XPS b 0 RECT_BRIDGE vac=300 rs=40", "C1 b 0 8u", "R1 b 0 3k"],
      "b",
    ],
    [
      "half-wave, no reservoir, one stage of filter",
      ["V1 a 0 sin(0 165.46 50)", "Rs a aa 33", "D1 aa b dd", "R1 b c 1.2k", "C2 c 0 40u", "R2 c 0 4k", "Rx b 0 100k"],
      ["XPS b 0 RECT_HALF vac=117 rs=33", "R1 b c 1.2k", "C2 c 0 40u", "R2 c 0 4k", "Rx b 0 100k"],
      "c",
    ],
    [
      "full-wave doubler",
      ["V1 a m sin(0 165.46 50)", "Rs a aa 10", "D1 aa b dd", "D2 0 aa dd", "C2 b m 60u", "C3 m 0 60u", "R1 b 0 3k"],
      ["XPS b 0 m DOUBLER vac=117 rs=10", "C2 b m 60u", "C3 m 0 60u", "R1 b 0 3k"],
      "b",
    ],
    [
      "half-wave cascade",
      ["V1 w0 0 sin(0 165.46 50)", "Rs w0 w 10", "C2 x w 60u", "D1 0 x dd", "D2 x b dd", "C3 b 0 60u", "R1 b 0 3k"],
      ["XPS b 0 x w DOUBLER_HALF vac=117 rs=10", "C2 x w 60u", "C3 b 0 60u", "R1 b 0 3k"],
      "b",
    ],
    [
      "bridge whose centre tap feeds half",
      [
        "V1 a0 m sin(0 169.7 50)",
        "V2 m c0 sin(0 169.7 50)",
        "Rs1 a0 a 20",
        "Rs2 c0 c 20",
        "D1 a b dd",
        "D2 c b dd",
        "D3 0 a dd",
        "D4 0 c dd",
        "C2 b 0 100u",
        "C3 m 0 100u",
        "R1 b 0 4k",
        "R2 m 0 3k",
      ],
      ["XPS b 0 m RECT_BRIDGE vac=240 rs=20", "C2 b 0 100u", "C3 m 0 100u", "R1 b 0 4k", "R2 m 0 3k"],
      "m",
    ],
  ];
  test.each(decks)("%s", (_, deck, lines, node) => {
    // Two hundredths of a second at the end of a second and a half: everything has settled, whole periods are averaged.
    const text = ["a supply", ...deck, DIODE, ".end", ""].join("\n");
    const printed = runSpice(text, ["tran 20u 1.5 1.3 20u uic", `meas tran mean avg v(${node}) from=1.3 to=1.5`]);
    const truth = figuresIn(printed).get("mean")!;
    const op = operatingPoint(circuitOf("*@mains 230 50", ...lines));
    expect(off(idealVolts(op, node), truth)).toBeLessThan(CLOSE);
  });
});
