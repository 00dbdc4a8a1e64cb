/** A suspect as changes to its circuit, so that it can be solved at every point and not only where something was measured. */

import type { Circuit } from "../circuit/circuit";
import { faultsOf } from "./faults";

/**
 * In the words of `--set`, at the severity that fits the readings; without one, in the middle of what is known to occur.
 * Undefined for a suspect that changes nothing ("nothing wrong"), or that is on no list.
 * @example changesOf(wren, { fault: "C6 leaky", fitted: 15e6 }) // ["C6=leak:15000000"]
 */
export function changesOf(circuit: Circuit, suspect: { fault: string; fitted?: number }): string[] | undefined {
  const fault = faultsOf(circuit).find((f) => f.name === suspect.fault);
  return fault?.changes(suspect.fitted ?? fault.grid[Math.floor(fault.grid.length / 2)]!);
}
