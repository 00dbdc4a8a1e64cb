/** Circuits by their text: a library has few, and each is asked for at every line that is logged. */

import type { Circuit } from "./circuit";
import { readCircuit } from "./read";

const MOST_KEPT = 200;
const known = new Map<string, Circuit>();

/** The circuit of a file, read at the first call and shared after: it must not be changed. Bad lines are left out, as `readCircuit` does. */
export function readOnce(netlist: string): Circuit {
  let circuit = known.get(netlist);
  if (!circuit) {
    circuit = readCircuit(netlist).circuit;
    if (known.size >= MOST_KEPT) known.delete(known.keys().next().value!);
    known.set(netlist, circuit);
  }
  return circuit;
}
