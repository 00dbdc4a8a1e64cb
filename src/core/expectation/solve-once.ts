/** One nominal solve of a circuit, as plain data for a screen. */

import { alter, without } from "../circuit/alter";
import type { Circuit } from "../circuit/circuit";
import type { SolveConditions } from "./modelled";
import { operatingPoint, readings, tubesAtWork, type OperatingPoint } from "../solver/operating-point";
import { magnitude, SmallSignal } from "../solver/small-signal";
import type { Solution } from "./solution";
import { stresses } from "../solver/stress";

const GAIN_HERTZ = 1000;

/** With a tone at the first stage's input, each stage's output over its own input. */
function stageGains(op: OperatingPoint): Record<string, number> {
  const { stages } = op.network.circuit;
  const at = (node: string) => op.network.index.get(node);
  const first = stages[0] && at(stages[0].in);
  if (first === undefined) return {};
  const signal = new SmallSignal(op).drive(first, 1, GAIN_HERTZ);
  return Object.fromEntries(
    stages.flatMap((s) => {
      const [a, b] = [at(s.in), at(s.out)];
      if (a === undefined || b === undefined) return [];
      const input = magnitude(signal[a]!);
      return input > 1e-9 ? [[s.name, magnitude(signal[b]!) / input]] : [];
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
