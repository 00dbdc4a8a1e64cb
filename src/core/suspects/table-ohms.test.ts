/** Resistances that a table gives, whose networks share their room, against the ohmmeter on a circuit of its own each time. */

import { alter } from "../circuit/alter";
import { demoAmp } from "../solver/circuits-for-tests";
import { ohmmeter } from "../solver/ohmmeter";
import { FaultTable } from "./table";

test.each(["wren-5", "lantern-15"])("%s: every resistor and every pair of neighbours, under one fault after the other", (name) => {
  const circuit = demoAmp(name);
  const table = new FaultTable(circuit);
  const nodes = [...new Set(circuit.elements.flatMap((e) => e.nodes))];
  const faults = table.faults.filter((f) => f.changes(f.grid[0]!).length > 0);
  let asked = 0;
  circuit.elements
    .filter((e) => e.letter === "R")
    .forEach((e, i) => {
      // Places that nothing joins in the circuit as well: what one question leaves there must not answer the next.
      const pairs = [e.nodes, [nodes[(3 * i) % nodes.length]!, nodes[(7 * i + 2) % nodes.length]!]] as [string, string][];
      for (const fault of [faults[(5 * i) % faults.length]!, faults[(11 * i + 3) % faults.length]!]) {
        const changes = fault.changes(fault.grid[0]!);
        const altered = alter(circuit, changes);
        for (const [a, b] of pairs) {
          if (![a, b].every((n) => n === "0" || altered.elements.some((x) => x.nodes.includes(n)))) continue;
          const alone = ohmmeter(altered, a, b, { seconds: 0 }).settled;
          const shown = table.ohmsOf(changes, a, b);
          asked++;
          if (shown !== alone && !(Math.abs(shown / alone - 1) < 1e-6))
            throw new Error(`${fault.name}, ${a} to ${b}: ${shown} and ${alone}`);
        }
      }
    });
  expect(asked).toBeGreaterThan(30);
});
