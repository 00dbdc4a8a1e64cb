/** One nominal solve of a circuit, as plain data for a screen. */

import { alter, without } from "../circuit/alter";
import type { Circuit } from "../circuit/circuit";
import type { SolveConditions } from "../walk/modelled";
import { operatingPoint, readings, tubesAtWork } from "./operating-point";
import type { Solution } from "./port";
import { stresses } from "./stress";

/** @throws AlterError, NoMainsError as the conditions demand. */
export function solveOnce(circuit: Circuit, conditions: SolveConditions, meterOhms = 10e6): Solution {
  const amp = without(alter(circuit, conditions.set), conditions.without);
  const started = performance.now();
  const op = operatingPoint(amp, { mains: conditions.mains });
  const ms = performance.now() - started;
  return {
    converged: op.converged,
    iterations: op.iterations,
    ms,
    unsettled: op.unsettled,
    points: Object.fromEntries(op.converged ? readings(op, amp.points, meterOhms) : []),
    nodes: Object.fromEntries(op.network.nodes.map((name, k) => [name, op.x[k]!])),
    tubes: Object.fromEntries(op.converged ? tubesAtWork(op) : []),
    stresses: op.converged ? stresses(op) : [],
    undetermined: op.undetermined,
  };
}
