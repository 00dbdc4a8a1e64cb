/** Each point is read by one meter alone: against the circuit with ten megohms drawn from that point to ground. */

import { alter } from "../circuit/alter";
import { faultsOf } from "../suspects/faults";
import { demoAmp } from "./circuits-for-tests";
import { compile } from "./compile";
import { idealVolts, operatingPoint, readings, solveOperatingPoint } from "./operating-point";
import { Workspace } from "./workspace";

test("wren-5: every fifth fault, every point", () => {
  const circuit = demoAmp("wren-5");
  for (const fault of faultsOf(circuit).filter((f, i) => i % 5 === 0 && !f.name.includes("swapped"))) {
    const altered = alter(circuit, fault.changes(fault.grid[0]!));
    const op = operatingPoint(altered);
    if (!op.converged) continue;
    const read = readings(op, circuit.points);
    for (const { name, node } of circuit.points) {
      if (node === "0" || !op.network.index.has(node) || op.undetermined.includes(node)) continue;
      const alone = operatingPoint(alter(altered, [`${node}~0=10M`]));
      if (alone.converged)
        expect(Math.abs(read.get(name)! - idealVolts(alone, node))).toBeLessThan(2e-3 * Math.max(1, Math.abs(read.get(name)!)));
    }
  }
});

test("after readings the amp stands without a meter in its matrix", () => {
  const circuit = demoAmp("wren-5");
  for (const fault of faultsOf(circuit).filter((f) => f.grid.length > 0)) {
    const network = compile(alter(circuit, fault.changes(fault.grid[0]!)));
    const work = new Workspace(network);
    const op = solveOperatingPoint(network, undefined, work);
    if (!op.converged) continue;
    readings(op, circuit.points, 10e6, work);
    const left = work.linear.slice();
    work.assemble();
    expect(left).toEqual(work.linear);
  }
});
