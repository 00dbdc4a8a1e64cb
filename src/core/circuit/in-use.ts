/** The circuit in use: the model's, with the experiments that are in the amp now. */

import type { JobState } from "../job/fold";
import { alter } from "./alter";
import { readCircuit } from "./read";
import { writeCircuit } from "./write";

/** Changes of the experiments that are open or were kept, in the engine's words, in the order of the tape. */
export function experimentsIn(state: Pick<JobState, "changes">): string[] {
  return state.changes.flatMap((c) => (c.kind === "experiment" && c.outcome !== "reverted" ? (c.set ?? []) : []));
}

/** @returns the file of the circuit in use; the model's own where nothing is tried, or where a change cannot be made to it. */
export function netlistInUse(netlist: string, changes: readonly string[]): { netlist: string; refused?: string } {
  if (changes.length === 0) return { netlist };
  try {
    const { circuit, errors } = readCircuit(netlist);
    return errors.length > 0 ? { netlist } : { netlist: writeCircuit(alter(circuit, changes)) };
  } catch (error) {
    return { netlist, refused: (error as Error).message };
  }
}
