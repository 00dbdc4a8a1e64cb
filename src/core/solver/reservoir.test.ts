/** The averaged law on whole amps and behind chokes, held against their own pulses. */

import { alter } from "../circuit/alter";
import { circuitOf, demoAmp } from "./circuits-for-tests";
import { idealVolts, operatingPoint } from "./operating-point";
import { periodicAverage } from "./steady";

describe("the average is that of the real pulses", () => {
  // Whole amps, whose load is anything but a resistor: what a low, dried-out or half-fed reservoir does to the first rail.
  test.each([
    ["wren-5", "C1=8u"],
    ["wren-5", "C1=open"],
    ["wren-5", "V3=half"],
    ["picture-house", "C1=20u"],
    ["minor", "C1=10u"],
  ])("%s with %s", (amp, change) => {
    const circuit = alter(demoAmp(amp), [change]);
    const truth = periodicAverage(circuit).get("b1")!;
    expect(Math.abs(idealVolts(operatingPoint(circuit), "b1") / truth - 1)).toBeLessThan(0.01);
  });
  test.each(["2k", "20k"])("choke input into %s: with little current the choke lifts the rail", (load) => {
    const circuit = circuitOf("*@mains 230 50", "XPS b 0 RECT_BRIDGE vac=300 rs=40", "L1 b c 5 ;@dcr 100", "C2 c 0 50u", `R1 c 0 ${load}`);
    const truth = periodicAverage(circuit);
    const op = operatingPoint(circuit);
    for (const node of ["b", "c"]) expect(Math.abs(idealVolts(op, node) / truth.get(node)! - 1)).toBeLessThan(0.01);
  });
});
