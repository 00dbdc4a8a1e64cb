/** What stands around a part in the sound amp: the resistance that a leak there meets, and the volts that drive it. */

import type { Circuit } from "../circuit/circuit";
import { factorAt, operatingPoint } from "../solver/operating-point";
import { workspaceOf } from "../solver/workspace";

export interface Surroundings {
  /** Ohms that the working amp shows between two nodes, tubes included. */
  ohms(a: string, b: string): number;
  /** Volts between two nodes, without a sign. */
  volts(a: string, b: string): number;
}

/** Where nothing can be solved: the middle of what is usual. */
const USUAL: Surroundings = { ohms: () => 100e3, volts: () => 100 };
const LEAST_OHMS = 1;
const MOST_OHMS = 1e8;

/** Solves the sound amp once. */
export function surroundingsOf(circuit: Circuit): Surroundings {
  const op = operatingPoint(circuit, { mains: circuit.mains?.volts });
  const { network, x } = op;
  const work = workspaceOf(network);
  if (!op.converged || !factorAt(work, x)) return USUAL;
  // The factors are kept: the network may be solved again before they are asked for.
  const solve = work.lu.kept();
  const columns = new Map<number, Float64Array>();
  const column = (k: number) => {
    let c = columns.get(k);
    if (!c) {
      c = new Float64Array(network.size);
      c[k] = 1;
      solve(c);
      columns.set(k, c);
    }
    return c;
  };
  const at = (node: string) => (node === "0" ? -1 : (network.index.get(node) ?? -1));
  const volts = (k: number) => (k < 0 ? 0 : x[k]!);
  return {
    ohms(a, b) {
      const [p, q] = [at(a), at(b)];
      const from = (one: number, other: number) => (one < 0 ? 0 : column(one)[one]! - (other < 0 ? 0 : column(one)[other]!));
      return Math.min(MOST_OHMS, Math.max(LEAST_OHMS, from(p, q) + from(q, p)));
    },
    volts: (a, b) => Math.abs(volts(at(a)) - volts(at(b))),
  };
}

/** Severities from `low` to `high` in even steps on a log scale, each at most `factor` from the next; the larger first. */
export function spaced(low: number, high: number, factor: number): number[] {
  const steps = Math.max(1, Math.ceil(Math.log(Math.max(high / low, 1.0001)) / Math.log(factor)));
  return Array.from({ length: steps + 1 }, (_, k) => high * (low / high) ** (k / steps));
}
