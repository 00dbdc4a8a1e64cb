import { solveOnce } from "../expectation/solve-once";
import { demoAmp } from "../solver/circuits-for-tests";
import { mainsLower } from "../texts/suspects";
import { changesOf } from "./changes-of";
import { faultsOf } from "./faults";

const wren = demoAmp("wren-5");
const at = (set: string[]) => solveOnce(wren, { mains: 230, without: [], set }).points;
const sound = at([]);

test("every fault of the amp can be solved from its changes, those too that no circuit file can say", () => {
  for (const { name } of faultsOf(wren))
    expect({ name, solved: Object.keys(at(changesOf(wren, { fault: name })!)).length > 0 }).toEqual({ name, solved: true });
});

test("a leak shows the volts that Ohm's law gives on the grid", () => {
  // 131 V or so behind 15 MΩ, into R5 (470 kΩ) beside the meter's 10 MΩ.
  const shown = at(changesOf(wren, { fault: "C6 leaky", fitted: 15e6 })!);
  const beside = 1 / (1 / 470e3 + 1 / 10e6);
  expect(shown["V2.g"]).toBeCloseTo((shown["V1B.p"]! * beside) / (15e6 + beside), 1);
});

test("a mains that is low moves every rail; a weak tube lowers its own cathode", () => {
  const low = at(changesOf(wren, { fault: mainsLower(), fitted: 0.9 })!);
  for (const rail of ["B1", "B2", "B3"]) expect(low[rail]! / sound[rail]!).toBeCloseTo(0.9, 1);
  expect(at(changesOf(wren, { fault: "V2 weak", fitted: 0.4 })!)["V2.k"]).toBeLessThan(0.8 * sound["V2.k"]!);
});

test("nothing wrong, and a fault of no list, change nothing", () => {
  expect(changesOf(wren, { fault: "nothing wrong" })).toBeUndefined();
  expect(changesOf(wren, { fault: "R99 open" })).toBeUndefined();
});
