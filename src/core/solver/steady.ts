/** The truth about a supply: its real pulses, run until they repeat. Slow; what the averaged law is held against. */

import type { Circuit } from "../circuit/circuit";
import { compile } from "./compile";
import type { Network } from "./network";
import { operatingPoint, type OperatingPoint } from "./operating-point";
import { transient } from "./transient";

/** The averaged answer as the start of a pulsed run: nodes by name, branches in their order. */
export function startFrom(averaged: OperatingPoint, network: Network): Float64Array {
  const x = new Float64Array(network.size);
  network.nodes.forEach((name, k) => {
    const from = averaged.network.index.get(name);
    if (from !== undefined) x[k] = averaged.x[from]!;
  });
  network.branches.forEach((b, i) => (x[b.index] = averaged.x[averaged.network.nodes.length + i] ?? 0));
  return x;
}

/** Change from one second's average to the next at which it is taken to repeat. */
const STEADY_PART = 1e-5;

/**
 * Average volts of every node over whole mains periods, once they no longer change.
 * @param mains volts at the wall; the circuit's own unless given.
 */
export function periodicAverage(circuit: Circuit, mains?: number): Map<string, number> {
  const network = compile(circuit, { mains, supply: "pulsed" });
  let x = startFrom(operatingPoint(circuit, { mains }), network);
  const period = 1 / network.hertz;
  const keep = network.nodes.map((_, k) => k);
  let averages: number[] = [];
  for (let iteration = 0; iteration < 60; iteration++) {
    const run = transient(network, { start: x, stop: 10 * period, keep, mostStep: period / 100 });
    x = run.end.slice();
    const now = keep.map((_, i) => {
      let sum = 0;
      for (let k = 1; k < run.t.length; k++) sum += ((run.v[i]![k]! + run.v[i]![k - 1]!) / 2) * (run.t[k]! - run.t[k - 1]!);
      return sum / run.t.at(-1)!;
    });
    const settled = averages.length > 0 && now.every((v, i) => Math.abs(v - averages[i]!) <= STEADY_PART * Math.abs(v) + 1e-6);
    averages = now;
    if (settled) break;
  }
  return new Map(network.nodes.map((name, i) => [name, averages[i]!]));
}
