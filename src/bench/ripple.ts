/** Ripple on a rail: the supply's own pulses, run until they repeat, and what is left when the mean is taken off. */

import type { Circuit } from "@/core/circuit/circuit";
import { compile } from "@/core/solver/compile";
import type { OperatingPoint } from "@/core/solver/operating-point";
import { startFrom } from "@/core/solver/steady";
import { transient } from "@/core/solver/transient";

/** Mains periods that are run before the measured ones: the start is the averaged answer already. */
const BEFORE = 12;
const MEASURED = 4;

/**
 * Volts rms at a node, the direct part left out. @param op the averaged operating point under the same mains.
 * @param before mains periods to settle: a choke that rings with its capacitor wants more. @param tolerance of a step.
 */
export function rippleAt(circuit: Circuit, node: string, mains: number, op: OperatingPoint, before = BEFORE, tolerance = 1e-3): number {
  const network = compile(circuit, { mains, supply: "pulsed" });
  const k = network.index.get(node);
  if (k === undefined) return 0;
  const period = 1 / network.hertz;
  const from = before * period;
  const run = transient(network, {
    start: startFrom(op, network),
    stop: (before + MEASURED) * period,
    keep: [k],
    mostStep: period / 100,
    tolerance,
  });
  // The averaged start is not quite where the pulses settle: the drift left of it is no ripple and goes with the straight line.
  const [time, volts] = measured(run.t, run.v[0]!, from);
  const of = (f: (i: number) => number) => time.reduce((sum, _, i) => sum + f(i) * (i > 0 ? time[i]! - time[i - 1]! : 0), 0);
  const span = of(() => 1);
  if (span <= 0) return 0;
  const [mid, mean] = [of((i) => time[i]!) / span, of((i) => volts[i]!) / span];
  const slope = of((i) => (time[i]! - mid) * (volts[i]! - mean)) / of((i) => (time[i]! - mid) ** 2);
  return Math.sqrt(Math.max(0, of((i) => (volts[i]! - mean - slope * (time[i]! - mid)) ** 2) / span));
}

/** Middles of the steps from a time on. */
function measured(t: readonly number[], v: readonly number[], from: number): [number[], number[]] {
  const kept = t.flatMap((_, i) => (i > 0 && t[i]! >= from ? [i] : []));
  return [kept.map((i) => (t[i]! + t[i - 1]!) / 2), kept.map((i) => (v[i]! + v[i - 1]!) / 2)];
}
