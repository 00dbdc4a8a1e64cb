/** The operating point over a range of one thing: mains volts, or a part's value. */

import { alter } from "../circuit/alter";
import type { Circuit } from "../circuit/circuit";
import { operatingPoint, readings, type OperatingPoint } from "./operating-point";

export interface SweepStep {
  at: number;
  op: OperatingPoint;
  /** As a 10 MΩ meter reads them; NaN where the step did not converge. */
  points: Map<string, number>;
}

/** Solves at each mains voltage in turn, each from the answer before. @throws NoMainsError without `*@mains`. */
export function sweepMains(circuit: Circuit, volts: readonly number[]): SweepStep[] {
  return sweep(volts, (at, start) => operatingPoint(circuit, { mains: at }, start));
}

/** Solves with a part at each value in turn: ohms, farads, a control's position. @throws AlterError for a part that is not there. */
export function sweepPart(circuit: Circuit, part: string, values: readonly number[]): SweepStep[] {
  return sweep(values, (at, start) => operatingPoint(alter(circuit, [`${part}=${at}`]), {}, start));
}

function sweep(values: readonly number[], solve: (at: number, start: Float64Array | undefined) => OperatingPoint): SweepStep[] {
  let start: Float64Array | undefined;
  return values.map((at) => {
    const op = solve(at, start);
    if (op.converged) start = op.x;
    return { at, op, points: readings(op, op.network.circuit.points) };
  });
}
