/** Networks made from one another against networks compiled anew: every single fault of two amps, volt by volt. */

import { alter } from "../circuit/alter";
import { faultsOf } from "../suspects/faults";
import { demoAmp } from "./circuits-for-tests";
import { compile } from "./compile";
import { Workspace } from "./workspace";
import { idealVolts, solveOperatingPoint } from "./operating-point";
import { Variants } from "./variant";

test.each(["wren-5", "drover-40"])("%s: each fault stands as it does compiled anew", (name) => {
  const circuit = demoAmp(name);
  const variants = new Variants(circuit, {});
  let work: Workspace | undefined;
  let shared = 0;
  let faults = 0;
  for (const fault of faultsOf(circuit)) {
    const altered = alter(circuit, fault.changes(fault.grid[0]!));
    const network = variants.network(altered);
    const alone = compile(altered);
    expect([...network.index.keys()].sort()).toEqual([...alone.index.keys()].sort());
    // One room for all of them, as a table has it: what one leaves there must not be seen by the next.
    work = new Workspace(network, work?.network.size === network.size ? work : undefined);
    const [a, b] = [solveOperatingPoint(network, undefined, work), solveOperatingPoint(alone)];
    expect(a.converged).toBe(b.converged);
    faults++;
    if (network.index === variants.base.index) shared++;
    if (!a.converged) continue;
    expect([...a.undetermined].sort()).toEqual([...b.undetermined].sort());
    // Two that have several states may settle in different ones: swapped leads.
    if (fault.name.includes("swapped")) continue;
    for (const node of network.nodes) {
      const [va, vb] = [idealVolts(a, node), idealVolts(b, node)];
      if (!a.undetermined.includes(node) && Math.abs(va - vb) > 1e-4 * Math.max(1, Math.abs(vb)))
        throw new Error(`${fault.name}, ${node}: ${va} and ${vb}`);
    }
  }
  // Most faults change numbers, not structure.
  expect(shared).toBeGreaterThan(0.6 * faults);
});

test("the first network is as it was after its variants", () => {
  const circuit = demoAmp("wren-5");
  const variants = new Variants(circuit, {});
  const before = solveOperatingPoint(variants.base).x.slice();
  for (const changes of [["R7=open"], ["C3=leak:47k"], ["V2=weak:0.4"], ["mains=0.9"], ["V3=half"]])
    solveOperatingPoint(variants.network(alter(circuit, changes)));
  solveOperatingPoint(variants.base).x.forEach((v, k) => expect(v).toBeCloseTo(before[k]!, 9));
});
