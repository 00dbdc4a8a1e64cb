/** From a name as the trade says it to the parts of the circuit file. */

import { envelopeOf, fileName, type Circuit } from "@/core/circuit/circuit";

/** The symbols that a name stands for: both halves of "V1". */
export function partsNamed(circuit: Circuit, name: string): string[] {
  const exact = circuit.elements.filter((e) => e.name === name);
  return (exact.length > 0 ? exact : circuit.elements.filter((e) => envelopeOf(e.name) === name)).map(fileName);
}
