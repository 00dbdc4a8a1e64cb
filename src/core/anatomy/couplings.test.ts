import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { couplings, gridLeakOf } from "./couplings";

test("the Lantern's couplings with the leak behind each: grid resistors, and the volume control", () => {
  const c = readCircuit(readFileSync("demo/amps/lantern-15.cir", "utf8")).circuit;
  const leaks = Object.fromEntries(couplings(c).map((e) => [e.name, gridLeakOf(c, e)?.ohms]));
  expect(leaks.C6).toBeCloseTo(220e3, 6);
  expect(leaks.C7).toBeCloseTo(220e3, 6);
  expect(leaks.C8).toBeCloseTo(1e6, 6);
  expect(leaks.C10).toBeCloseTo(1e6, 6);
  // Bypass capacitors and reservoirs are none.
  expect(Object.keys(leaks)).not.toContain("C9");
});
