/** The circuit of a netlist, read once for as long as a worker is asked of the same one. */

import type { Circuit } from "@/core/circuit/circuit";
import { readCircuit } from "@/core/circuit/read";

let last: { netlist: string; circuit: Circuit } | undefined;

/** @throws Error with the line that cannot be read, what was found there and what is expected. */
export function circuitOf(netlist: string): Circuit {
  if (last?.netlist === netlist) return last.circuit;
  const { circuit, errors } = readCircuit(netlist);
  if (errors.length > 0)
    throw new Error(`line ${errors[0]!.line} cannot be read: found ${errors[0]!.found}; expected ${errors[0]!.expected}`);
  last = { netlist, circuit };
  return circuit;
}
