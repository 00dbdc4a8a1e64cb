/** Which capacitors of an amp hold a dangerous charge, and how they bleed when the power is off. */

import type { Circuit, Element } from "../circuit/circuit";
import { wiperShare } from "../circuit/taper";
import { solve, symmetricEigen } from "../numeric/dense";
import { storedEnergy } from "./stored-energy";

export interface Reservoir {
  /** The name to read it by: its first capacitor, "C1". */
  name: string;
  /** All capacitors that lie across the same two nodes. */
  parts: string[];
  node: string;
  returnNode: string;
  /** Its node in the circuit, where it is reckoned at a place of its own. */
  stood?: string;
  farads: number;
  /** Lowest rating among its parts; the most it could hold if nothing else is known. */
  ratedVolts?: number;
  label: string;
}

/** Below this an electrolytic is a cathode bypass or a filter of a few volts, not a reservoir. */
const LEAST_FARADS = 1e-6;
const LEAST_VOLTS = 63;

/** The reservoirs of a circuit in the order of its file, each to be proven dead on its own. */
export function reservoirsOf(circuit: Circuit): Reservoir[] {
  const found = new Map<string, Reservoir>();
  for (const c of circuit.elements) {
    if (c.letter !== "C" || (c.value ?? 0) < LEAST_FARADS || (c.notes.volts ?? Infinity) < LEAST_VOLTS) continue;
    const [a, b] = c.nodes as [string, string];
    const [node, returnNode] = a === "0" ? [b, a] : [a, b];
    const key = [node, returnNode].sort().join("~");
    const known = found.get(key);
    if (known) {
      known.parts.push(c.name);
      known.farads += c.value!;
      known.ratedVolts = Math.min(known.ratedVolts ?? Infinity, c.notes.volts ?? Infinity);
      continue;
    }
    const point = circuit.points.find((p) => p.node === node);
    found.set(key, {
      name: c.name,
      parts: [c.name],
      node,
      returnNode,
      farads: c.value!,
      ratedVolts: c.notes.volts,
      label: point?.label ?? c.notes.label ?? `${c.name} at ${node}`,
    });
  }
  return [...found.values()];
}

/** A way for direct current in the dead amp. */
export interface ColdPath {
  /** The part: a resistor, a winding, a closed switch. */
  name: string;
  a: string;
  b: string;
  ohms: number;
}

/** Resistances that stay connected with the power off and the tubes cold: resistors, pots, windings, closed switches. */
export function coldPaths(circuit: Circuit): ColdPath[] {
  const out: ColdPath[] = [];
  const winding = (e: Element) => (typeof e.params.dcr === "number" ? e.params.dcr : 10);
  for (const e of circuit.elements) {
    const n = e.nodes as [string, string, string, ...string[]];
    const path = (a: string, b: string, ohms: number) => out.push({ name: e.name, a, b, ohms });
    if (e.letter === "R") path(n[0], n[1], e.value!);
    else if (e.letter === "L") path(n[0], n[1], e.notes.dcr ?? 10);
    else if (e.type === "SW" && e.params.state !== "open") path(n[0], n[1], 0.1);
    else if (e.type === "SW2") path(n[0], e.params.state === 2 ? n[2] : n[1], 0.1);
    else if (e.type === "POT") {
      const share = wiperShare(String(e.params.taper ?? "linear"), typeof e.params.pos === "number" ? e.params.pos : 0.5);
      path(n[0], n[1], Math.max(1, e.value! * share));
      path(n[1], n[2], Math.max(1, e.value! * (1 - share)));
    } else if (e.type === "OPT_SE") path(n[0], n[1], winding(e));
    else if (e.type === "OPT_PP") {
      path(n[0], n[1], winding(e));
      path(n[1], n[2], typeof e.params.dcr2 === "number" ? e.params.dcr2 : winding(e));
    }
  }
  return out;
}

/** How a set of charged reservoirs falls: a sum of exponentials, exact for the resistors alone. */
export interface Decay {
  /** Volts of each reservoir `seconds` after the start, in the order given. */
  voltsAt(seconds: number): number[];
  joulesAt(seconds: number): number;
  /** Seconds until every reservoir is at or below `safeVolts`; Infinity when nothing bleeds them. */
  secondsTo(safeVolts: number): number;
}

/** Longest time worth naming; beyond it the charge is taken to stay. */
const FOREVER = 30 * 24 * 3600;

/**
 * Solves C dv/dt = −Y v for the reservoirs, Y being the admittance that the cold resistors show them.
 * With the tubes hot the rails fall faster; that help is left out, so the estimate errs on the high side.
 * @param initial volts of each reservoir at time zero.
 */
export function decayOf(
  circuit: Circuit | undefined,
  reservoirs: Pick<Reservoir, "node" | "returnNode" | "farads">[],
  initial: number[],
): Decay {
  const n = reservoirs.length;
  const y = circuit && n > 0 ? portAdmittance(circuit, reservoirs) : new Array<number>(n * n).fill(0);
  const root = reservoirs.map((r) => Math.sqrt(r.farads));
  const scaled = y.map((value, k) => value / (root[Math.floor(k / n)]! * root[k % n]!));
  const { values, vectors } = symmetricEigen(scaled, n);
  const start = vectors.map((v) => v.reduce((sum, x, i) => sum + x * root[i]! * initial[i]!, 0));

  const voltsAt = (seconds: number) => {
    const out = new Array<number>(n).fill(0);
    for (let k = 0; k < n; k++) {
      const amount = start[k]! * Math.exp(-Math.max(0, values[k]!) * seconds);
      for (let i = 0; i < n; i++) out[i]! += (amount * vectors[k]![i]!) / root[i]!;
    }
    return out;
  };
  const peak = (seconds: number) => Math.max(0, ...voltsAt(seconds).map(Math.abs));
  return {
    voltsAt,
    joulesAt: (seconds) => voltsAt(seconds).reduce((sum, v, i) => sum + storedEnergy(reservoirs[i]!.farads, v), 0),
    secondsTo(safeVolts) {
      if (peak(0) <= safeVolts) return 0;
      let high = 1;
      while (peak(high) > safeVolts) {
        high *= 2;
        if (high > FOREVER) return Infinity;
      }
      let low = 0;
      while (high - low > Math.max(0.01, high * 1e-6)) {
        const middle = (low + high) / 2;
        if (peak(middle) > safeVolts) low = middle;
        else high = middle;
      }
      return high;
    },
  };
}

/** Admittance matrix (n × n, siemens) of the cold resistor network at the reservoirs' terminals. */
function portAdmittance(circuit: Circuit, ports: Pick<Reservoir, "node" | "returnNode">[]): number[] {
  const index = new Map<string, number>();
  const at = (node: string) => {
    if (node === "0") return -1;
    if (!index.has(node)) index.set(node, index.size);
    return index.get(node)!;
  };
  const branches = coldPaths(circuit).map(({ a, b, ohms }) => [at(a), at(b), 1 / ohms] as const);
  const ends = ports.map((p) => [at(p.node), at(p.returnNode)] as const);
  const size = index.size;
  const g = new Float64Array(size * size);
  // A leak far below any bleeder keeps a node that nothing ties down from making the matrix singular.
  for (let i = 0; i < size; i++) g[i * size + i] = 1e-14;
  for (const [a, b, siemens] of branches) {
    if (a >= 0) g[a * size + a]! += siemens;
    if (b >= 0) g[b * size + b]! += siemens;
    if (a >= 0 && b >= 0) {
      g[a * size + b]! -= siemens;
      g[b * size + a]! -= siemens;
    }
  }
  const n = ports.length;
  const z = new Float64Array(n * n);
  ends.forEach(([a, b], j) => {
    const inject = new Array<number>(size).fill(0);
    if (a >= 0) inject[a]! += 1;
    if (b >= 0) inject[b]! -= 1;
    const v = solve(g, inject);
    ends.forEach(([p, q], i) => (z[i * n + j] = (p >= 0 ? v[p]! : 0) - (q >= 0 ? v[q]! : 0)));
  });
  const y = new Array<number>(n * n).fill(0);
  for (let j = 0; j < n; j++) {
    const column = solve(
      z,
      Array.from({ length: n }, (_, i) => (i === j ? 1 : 0)),
    );
    for (let i = 0; i < n; i++) y[i * n + j] = column[i]!;
  }
  // Rounding leaves the two triangles a hair apart; the eigenvalues want them equal.
  for (let i = 0; i < n; i++) for (let j = 0; j < i; j++) y[i * n + j] = y[j * n + i] = (y[i * n + j]! + y[j * n + i]!) / 2;
  return y;
}
