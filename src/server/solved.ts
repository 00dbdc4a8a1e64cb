/** Solved expectations on the server, kept by netlist and conditions. */

import { createHash } from "node:crypto";
import type { Circuit } from "@/core/circuit/circuit";
import { AlterError } from "@/core/circuit/alter";
import { solveExpected } from "@/core/solver/expected";
import { solveKey, type Solved, type SolvedLookup } from "@/core/walk/modelled";

const MOST_KEPT = 500;
const kept = new Map<string, Solved | undefined>();

/** Solves what it is asked for, once. Conditions that name what the circuit does not have give nothing. */
export function solvedHere(circuit: Circuit, netlist: string): SolvedLookup {
  const hash = createHash("sha256").update(netlist).digest("hex");
  return (conditions) => {
    const key = `${hash} ${solveKey(conditions)}`;
    if (!kept.has(key)) {
      kept.set(key, solveOrNothing(circuit, conditions));
      if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!);
    }
    return kept.get(key);
  };
}

function solveOrNothing(circuit: Circuit, conditions: Parameters<SolvedLookup>[0]): Solved | undefined {
  try {
    return solveExpected(circuit, conditions);
  } catch (error) {
    if (error instanceof AlterError) return undefined;
    throw error;
  }
}
