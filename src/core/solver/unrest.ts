/** Whether an operating point stays where it is: a tremolo or a parasitic swings about it instead. */

import type { OperatingPoint } from "./operating-point";
import { transient, TransientError, type TransientResult } from "./transient";

export interface Unrest {
  /** The swing was too violent to be followed; there are no figures then. */
  violent: boolean;
  /** Average volts of each node, and the distance between its extremes, over the last seconds watched. */
  average: Map<string, number>;
  swing: Map<string, number>;
}

const WATCHED = 2;
const STOP = 5;
/** Volts, and part of the node's own, from which a swing counts. */
const LEAST_VOLTS = 0.05;
const MOST_STEPS = 8000;

/**
 * Pushes every node by a few percent and watches what is left of it after some seconds.
 * @returns undefined when the amp comes to rest.
 */
export function unrestOf(op: OperatingPoint): Unrest | undefined {
  if (!op.converged || op.network.capacitors.length === 0) return undefined;
  const { network } = op;
  const count = network.nodes.length;
  const start = op.x.slice();
  for (let k = 0; k < count; k++) start[k]! *= 0.97;
  const keep = Array.from({ length: count }, (_, k) => k);
  let steps = 0;
  let run: TransientResult;
  try {
    run = transient(network, { start, stop: STOP, keep, mostStep: 0.1, progress: () => (steps += 50) < MOST_STEPS });
  } catch (error) {
    if (error instanceof TransientError) return { violent: true, average: new Map(), swing: new Map() };
    throw error;
  }
  const end = run.t.at(-1)!;
  // Stopped by its number of steps: fast swings; the second half of what was seen is then what there is.
  const from = run.finished ? end - WATCHED : end / 2;
  const first = run.t.findIndex((t) => t >= from);
  const average = new Map<string, number>();
  const swing = new Map<string, number>();
  let restless = false;
  for (let k = 0; k < count; k++) {
    const v = run.v[k]!;
    let [low, high, sum, turns] = [Infinity, -Infinity, 0, 0];
    for (let i = first; i < v.length; i++) {
      low = Math.min(low, v[i]!);
      high = Math.max(high, v[i]!);
      if (i > first) sum += ((v[i]! + v[i - 1]!) / 2) * (run.t[i]! - run.t[i - 1]!);
      if (i > first + 1 && (v[i]! - v[i - 1]!) * (v[i - 1]! - v[i - 2]!) < 0) turns++;
    }
    average.set(network.nodes[k]!, sum / (end - run.t[first]!));
    swing.set(network.nodes[k]!, high - low);
    // What only creeps to its place turns round at most once.
    if (turns >= 4 && high - low > LEAST_VOLTS + 1e-3 * Math.abs(op.x[k]!)) restless = true;
  }
  return restless ? { violent: false, average, swing } : undefined;
}
