/** Solved expectations on the server, kept by circuit file and conditions. */

import { createHash } from "node:crypto";
import { AlterError } from "@/core/circuit/alter";
import { readOnce } from "@/core/circuit/read-once";
import type { Solved, SolvedLookup } from "@/core/expectation/modelled";
import { solveKey } from "@/core/expectation/modelled";
import { solveExpected } from "@/core/expectation/solve-expected";

const MOST_KEPT = 500;
const kept = new Map<string, Solved | undefined>();

/** Solves what it is asked for, once. Conditions that name what the circuit does not have give nothing. */
export function solvedHere(netlist: string): SolvedLookup {
  const hash = createHash("sha256").update(netlist).digest("hex");
  return (conditions) => {
    const key = `${hash} ${solveKey(conditions)}`;
    if (!kept.has(key)) {
      kept.set(key, solveOrNothing(netlist, conditions));
      if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!);
    }
    return kept.get(key);
  };
}

function solveOrNothing(netlist: string, conditions: Parameters<SolvedLookup>[0]): Solved | undefined {
  try {
    return solveExpected(readOnce(netlist), conditions);
  } catch (error) {
    if (error instanceof AlterError) return undefined;
    throw error;
  }
}
