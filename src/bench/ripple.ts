/** Ripple on a rail: the supply's own pulses, run until they repeat, and what is left when the mean is taken off. */

import type { Circuit } from "@/core/circuit/circuit";
import { compile } from "@/core/solver/compile";
import type { OperatingPoint } from "@/core/solver/operating-point";
import { startFrom } from "@/core/solver/steady";
import { transient } from "@/core/solver/transient";

/** Mains periods that are run before the measured ones: the start is the averaged answer already. */
const BEFORE = 12;
const MEASURED = 4;

/** Volts rms at a node, the direct part left out. @param op the averaged operating point under the same mains. */
export function rippleAt(circuit: Circuit, node: string, mains: number, op: OperatingPoint): number {
  const network = compile(circuit, { mains, supply: "pulsed" });
  const k = network.index.get(node);
  if (k === undefined) return 0;
  const period = 1 / network.hertz;
  const from = BEFORE * period;
  const run = transient(network, { start: startFrom(op, network), stop: (BEFORE + MEASURED) * period, keep: [k], mostStep: period / 100 });
  let time = 0;
  let sum = 0;
  let square = 0;
  for (let i = 1; i < run.t.length; i++) {
    if (run.t[i]! < from) continue;
    const dt = run.t[i]! - run.t[i - 1]!;
    const v = (run.v[0]![i]! + run.v[0]![i - 1]!) / 2;
    time += dt;
    sum += v * dt;
    square += v * v * dt;
  }
  return time > 0 ? Math.sqrt(Math.max(0, square / time - (sum / time) ** 2)) : 0;
}
