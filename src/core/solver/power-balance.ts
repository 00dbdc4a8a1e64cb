/** Where the power of an operating point comes from and goes to. */

import type { OperatingPoint } from "./operating-point";

export interface PowerBalance {
  /** Watts that sources and rectifiers give. */
  delivered: number;
  /** Watts that resistors, windings, tubes and junctions turn to heat. */
  dissipated: number;
}

/**
 * Sums v·i over everything, each current from the part's own law: by Tellegen's theorem the two are equal when every node balances.
 * Source: B. D. H. Tellegen, "A general network theorem, with applications", Philips Research Reports 7, 1952.
 */
export function powerBalance(op: OperatingPoint): PowerBalance {
  const { network, x } = op;
  const volts = (k: number) => (k < 0 ? 0 : x[k]!);
  let delivered = 0;
  let dissipated = 0;
  const add = (watts: number) => {
    if (watts >= 0) dissipated += watts;
    else delivered -= watts;
  };
  for (const { a, b, siemens } of network.conductors) add((volts(a) - volts(b)) ** 2 * siemens);
  for (const b of network.branches) {
    const amps = x[b.index]!;
    add(amps * amps * b.ohms);
    add((volts(b.a) - volts(b.b) - b.ohms * amps) * amps);
  }
  for (const { a, b, amps } of network.sources) add((volts(a) - volts(b)) * amps);
  for (let k = 0; k < network.nodes.length; k++) add(-volts(k) * (network.offset?.[k] ?? 0));
  const i = new Float64Array(4);
  const g = new Float64Array(16);
  for (const d of network.devices) {
    const v = Float64Array.from(d.at, volts);
    d.evaluate(v, i, g);
    add(v.reduce((sum, volt, k) => sum + volt * i[k]!, 0));
  }
  return { delivered, dissipated };
}
