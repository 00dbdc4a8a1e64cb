/** Solves a circuit for what its points should show: nominal, band, swing. */

import { alter, without } from "../circuit/alter";
import type { Circuit } from "../circuit/circuit";
import type { SolveConditions, Solved, SolvedPoint } from "./modelled";
import { idlingAboveSheet } from "../solver/idle";
import { monteCarlo } from "../solver/tolerance";
import { parasiticDoubt, limitCycleOf } from "../solver/limit-cycle";

const DRAWS = 400;

/**
 * Bands by 400 draws with a fixed seed, a 10 MΩ meter on each point in turn.
 * @param progress told how far it is, 0 to 1; answers false to stop.
 * @throws AlterError for a tube, switch or control that the circuit does not have.
 */
export function solveExpected(circuit: Circuit, conditions: SolveConditions, progress?: (part: number) => boolean): Solved {
  const amp = without(alter(circuit, conditions.set), conditions.without);
  const { op, bands } = monteCarlo(amp, { mains: conditions.mains, draws: DRAWS, progress });
  const unrest = limitCycleOf(op);
  const points: Record<string, SolvedPoint> = {};
  const aboveSheet = idlingAboveSheet(op);
  const wide = new Set(op.network.tubes.flatMap((t) => (aboveSheet.has(t.element.name) ? [t.element.nodes.at(-1)] : [])));
  for (const p of amp.points) {
    const band = bands.get(p.name)!;
    const mean = unrest?.average.get(p.node);
    const swing = unrest?.swing.get(p.node);
    if (mean === undefined || swing === undefined || swing < 0.02 * Math.abs(mean) + 0.05) {
      points[p.name] = { volts: band.nominal, low: band.low, high: band.high, ...(wide.has(p.node) ? { wide: true } : {}) };
      continue;
    }
    // Where the amp swings, the mean is read; parts spread it as they spread the operating point.
    points[p.name] = { volts: mean, low: mean + band.low - band.nominal, high: mean + band.high - band.nominal, swing };
  }
  const floating = new Set(op.undetermined);
  return {
    points,
    converged: op.converged,
    unsettled: op.unsettled,
    undetermined: amp.points.filter((p) => floating.has(p.node)).map((p) => p.name),
    violent: unrest?.violent ?? false,
    doubts: [...op.doubts, ...[parasiticDoubt(op)].filter((d) => d !== undefined)],
  };
}
