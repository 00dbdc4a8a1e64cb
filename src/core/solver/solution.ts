/** One nominal solve of a circuit, as plain data for a screen. */

import { alter, without } from "../circuit/alter";
import type { Circuit } from "../circuit/circuit";
import type { SolveConditions } from "../walk/modelled";
import { operatingPoint, readings, tubesAtWork, type OperatingPoint } from "./operating-point";
import { magnitude, SmallSignal } from "./small-signal";
import type { Solution } from "./port";
import { stresses } from "./stress";

const GAIN_HERTZ = 1000;

function stageGains(op: OperatingPoint): Record<string, number> {
  const signal = new SmallSignal(op);
  return Object.fromEntries(
    op.network.circuit.stages.flatMap((s) => {
      const [a, b] = [op.network.index.get(s.in), op.network.index.get(s.out)];
      return a === undefined || b === undefined ? [] : [[s.name, magnitude(signal.drive(a, 1, GAIN_HERTZ)[b]!)]];
    }),
  );
}

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
    gains: op.converged ? stageGains(op) : {},
    undetermined: op.undetermined,
  };
}
