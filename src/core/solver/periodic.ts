/**
 * The whole amp, tubes and all, over one period of the mains as it repeats: where a rail swings so far that the amp is no longer
 * linear around its average. Newton's method on the state at the period's start (shooting).
 * Source: T. J. Aprille and T. N. Trick, "Steady-state analysis of nonlinear circuits with periodic inputs", Proc. IEEE 60, 1972;
 * the linear systems by GMRES as in R. Telichevesky, K. S. Kundert and J. K. White, DAC 1995. Steps by the second-order backward
 * differentiation formula, which takes little from a resonance; the first of a period by backward Euler.
 */

import { pulsesAlike } from "../supply/rectifier";
import { gmres } from "../numeric/gmres";
import { assembleStorage, type Network, type RectifierPart } from "./network";
import type { Workspace } from "./workspace";

/** Steps of one period of the pulses: half the mains' where both half-waves are alike. */
const STEPS = 120;
const MOST_SHOOTING_ITERATIONS = 12;
const MOST_ITERATIONS = 40;
/** Volts by which the end of a period may miss its start. */
const RELTOL = 2e-4;
/** Vectors of a linear solve: about as many as the amp has slow states. */
const KRYLOV_DIMENSION = 60;
/** How well a linear solve is done, as a part of the miss: the first shots are far off whatever they do. */
const ROUGHLY = 0.03;
const EXACTLY = 1e-3;
const ROUGH_SHOTS = 1;

/**
 * Average of every unknown over one period with the rectifiers of `parts` pulsing and the others averaged.
 * @param start unknowns to begin from: the averaged solve. @returns undefined when no periodic answer was found.
 */
export function periodicMean(
  network: Network,
  work: Workspace,
  parts: readonly RectifierPart[],
  start: Float64Array,
): Float64Array | undefined {
  const restore = pulsing(network, parts);
  try {
    return shoot(network, work, start, parts.every((p) => pulsesAlike(p.model) === 2) ? 2 : 1);
  } finally {
    restore();
  }
}

/** Puts pulsing devices in the place of averaged ones; gives back what undoes it. */
function pulsing(network: Network, parts: readonly RectifierPart[]): () => void {
  const before = network.devices.slice();
  for (const part of parts) network.devices[network.devices.indexOf(part.device)] = part.pulsed;
  network.clock.running = true;
  return () => {
    network.devices.splice(0, before.length, ...before);
    network.clock.running = false;
  };
}

function shoot(network: Network, work: Workspace, start: Float64Array, alike: 1 | 2): Float64Array | undefined {
  const n = network.size;
  const steps = alike === 2 ? STEPS : 2 * STEPS;
  const h = 1 / (network.hertz * alike * steps);
  const storage = new Float64Array(n * n);
  assembleStorage(network, storage);
  const stored = storedPerStep(storage, n, h);
  work.assemble();
  // The linear part with what is stored, at the places that can be filled: of a first step and of the others.
  const { places } = work;
  const bases = [1, 1.5].map((share) => {
    const base = work.linear.slice();
    stored.perStep.forEach((value, k) => (base[stored.rows[k]! * n + stored.columns[k]!]! += share * value));
    return Float64Array.from(places, (place) => base[place]!);
  });
  const { lu, rhs, b } = work;
  const known = new Float64Array(n);
  /** One step in place; false when Newton did not end. The factors of its last iteration stay in `lu`. */
  const step = (x: Float64Array, before: Float64Array, earlier: Float64Array | undefined): boolean => {
    past(before, earlier, known);
    work.hold(x);
    for (let iteration = 0; iteration < MOST_ITERATIONS; iteration++) {
      const base = bases[earlier ? 1 : 0]!;
      for (let k = 0; k < places.length; k++) lu.a[places[k]!] = base[k]!;
      b.set(rhs);
      addStored(stored, known, b);
      const heldBack = work.stamp(x, true);
      if (lu.factor() >= 0) return false;
      lu.solve(b);
      let worst = 0;
      for (let k = 0; k < n; k++) worst = Math.max(worst, Math.abs(b[k]! - x[k]!) / (1e-4 + 1e-5 * Math.abs(b[k]!)));
      if (!Number.isFinite(worst)) return false;
      // Late iterations that still swing go half the way: two points that answer each other meet in the middle.
      const part = iteration > 12 && iteration % 3 ? 0.5 : 1;
      for (let k = 0; k < n; k++) x[k]! += part * (b[k]! - x[k]!);
      if (worst <= 1 && !heldBack && part === 1) return true;
    }
    return false;
  };
  const x0 = start.slice();
  for (let shot = 0; shot < MOST_SHOOTING_ITERATIONS; shot++) {
    const x = x0.slice();
    const mean = new Float64Array(n);
    const factors: ((v: Float64Array) => void)[] = [];
    let earlier: Float64Array | undefined;
    for (let k = 1; k <= steps; k++) {
      network.clock.phase = (2 * Math.PI * k) / (alike * steps) - Math.PI / 2;
      const before = x.slice();
      if (!step(x, before, earlier)) return undefined;
      earlier = before;
      factors.push(lu.kept());
      for (let i = 0; i < n; i++) mean[i]! += x[i]! / steps;
    }
    const miss = x.map((v, i) => v - x0[i]!);
    const nodes = network.nodes.length;
    let worst = 0;
    for (let i = 0; i < nodes; i++) worst = Math.max(worst, Math.abs(miss[i]!));
    // The first period starts from what no period ends with: it is never the answer.
    if (shot > 0 && worst < RELTOL) return mean;
    const change = gmres(
      (v) => {
        const end = carried(v, stored, factors);
        return v.map((value, i) => value - end[i]!);
      },
      miss,
      shot < ROUGH_SHOTS ? ROUGHLY : EXACTLY,
      KRYLOV_DIMENSION,
    );
    for (let i = 0; i < n; i++) x0[i]! += change[i]!;
    if (!x0.every(Number.isFinite)) return undefined;
  }
  return undefined;
}

/** Capacitances and inductances of the amp as a list: at `rows[k]`, `columns[k]`, per step of time. */
interface Stored {
  rows: Int32Array;
  columns: Int32Array;
  perStep: Float64Array;
}

function storedPerStep(storage: Float64Array, n: number, h: number): Stored {
  const places: number[] = [];
  storage.forEach((value, k) => value && places.push(k));
  return {
    rows: Int32Array.from(places, (k) => Math.floor(k / n)),
    columns: Int32Array.from(places, (k) => k % n),
    perStep: Float64Array.from(places, (k) => storage[k]! / h),
  };
}

/** Adds what is stored at `v` to `into`. */
function addStored({ rows, columns, perStep }: Stored, v: Float64Array, into: Float64Array): void {
  for (let k = 0; k < perStep.length; k++) into[rows[k]!]! += perStep[k]! * v[columns[k]!]!;
}

/** What the formula takes of the steps before, into `known`: 2·x₋₁ − x₋₂/2 against 1.5·x, or x₋₁ against x where there is only one. */
function past(before: Float64Array, earlier: Float64Array | undefined, known: Float64Array): void {
  if (!earlier) known.set(before);
  else for (let i = 0; i < known.length; i++) known[i] = 2 * before[i]! - 0.5 * earlier[i]!;
}

/** What a small change at the start of the period has become at its end. */
function carried(v: Float64Array, stored: Stored, factors: readonly ((v: Float64Array) => void)[]): Float64Array {
  const known = new Float64Array(v.length);
  // Three vectors in turn: what is solved for, and the two steps before it.
  const ring = [new Float64Array(v.length), new Float64Array(v.length), new Float64Array(v.length)];
  let d = v;
  let earlier: Float64Array | undefined;
  factors.forEach((solve, k) => {
    past(d, earlier, known);
    const b = ring[k % 3]!.fill(0);
    addStored(stored, known, b);
    solve(b);
    earlier = d;
    d = b;
  });
  return d;
}
