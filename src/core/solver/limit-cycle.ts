/** The limit cycle of an amp whose operating point does not hold: a tremolo, a parasitic. Its natural modes decide whether there is one. */

import type { OperatingPoint } from "./operating-point";
import { growingModes } from "./stability";
import { transient, TransientError, type TransientResult } from "./transient";
import * as texts from "../texts/solver";

export interface LimitCycle {
  /** The swing was too violent to be followed, or the amp runs away to another state; there are no figures then. */
  violent: boolean;
  /** Average volts of each node, and the distance between its extremes, over the last seconds watched. */
  average: Map<string, number>;
  swing: Map<string, number>;
}

/**
 * Above this many hertz a growing mode says more about what the drawing leaves out (leads, shields, the layout) than about the amp: it is
 * named, and the operating point stands.
 */
const BEYOND_THE_DRAWING = 150e3;
const STEPS_A_TURN = 100;
const WATCHED = 2;
const STOP = 5;
/** Volts, and part of the node's own, from which a swing counts. */
const LEAST_VOLTS = 0.05;
/** A node that ends so far from where it was solved has left it. */
const AWAY_VOLTS = 1;
const AWAY_PART = 0.1;
const MOST_STEPS = 8000;

/** A mode above the drawing's reach that grows, in words; undefined where none does. */
export function parasiticDoubt(op: OperatingPoint): string | undefined {
  if (!op.converged || op.network.capacitors.length === 0) return undefined;
  const fast = growingModes(op).find((m) => m.hertz >= BEYOND_THE_DRAWING);
  return fast && texts.drawnWouldOscillateAbout(Math.round(fast.hertz / 1e3));
}

/**
 * Pushes every node by a few percent and watches what is left of it after some seconds, where a mode grows at all.
 * @returns undefined when the amp comes to rest.
 */
export function limitCycleOf(op: OperatingPoint): LimitCycle | undefined {
  if (!op.converged || op.network.capacitors.length === 0) return undefined;
  const growing = growingModes(op).filter((m) => m.hertz < BEYOND_THE_DRAWING);
  if (growing.length === 0) return undefined;
  // Fine enough for the fastest of them; what is faster still is damped.
  const fastest = Math.max(1, ...growing.map((m) => Math.max(m.hertz, m.growth / (2 * Math.PI))));
  const leastStep = 1 / (STEPS_A_TURN * fastest);
  const { network } = op;
  const count = network.nodes.length;
  const start = op.x.slice();
  for (let k = 0; k < count; k++) start[k]! *= 0.97;
  const keep = Array.from({ length: count }, (_, k) => k);
  let steps = 0;
  let run: TransientResult;
  try {
    run = transient(network, {
      start,
      stop: STOP,
      keep,
      mostStep: Math.min(0.1, 1 / (4 * fastest)),
      leastStep,
      progress: () => (steps += 50) < MOST_STEPS,
    });
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
  if (restless) return { violent: false, average, swing };
  // A mode that grows without turning leads away for good.
  const away = network.nodes.some((_, k) => Math.abs(run.end[k]! - op.x[k]!) > AWAY_VOLTS + AWAY_PART * Math.abs(op.x[k]!));
  return away ? { violent: true, average: new Map(), swing: new Map() } : undefined;
}
