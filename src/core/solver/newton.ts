/** Newton's method on a network: devices linearised about held voltages, with aids that always end. */

import type { Workspace } from "./workspace";

export interface NewtonOptions {
  iterations?: number;
  /** How much less than the usual will do: 1000 where a reading is wanted to a few digits. */
  loose?: number;
  /** Siemens from every node to ground, for the aids; 0 in every final solve. */
  gmin?: number;
  sourceScale?: number;
  /** Siemens from every node to its voltage in `anchor`: a capacitor over one step of pseudo-transient continuation. */
  pseudo?: number;
  anchor?: Float64Array;
}

export interface NewtonResult {
  converged: boolean;
  iterations: number;
  /** Unknown that moved most in the last iteration. */
  worst: number;
}

/** Convergence as SPICE has it: the largest change of the last iteration, in volts and as a part of the value. */
const VNTOL = 1e-7;
const RELTOL = 1e-9;

/** Runs Newton iterations from `x`, which is overwritten. */
export function newton(work: Workspace, x: Float64Array, options: NewtonOptions = {}): NewtonResult {
  const { network, lu, b } = work;
  const n = network.size;
  const nodes = network.nodes.length;
  const { iterations = 60, loose = 1, gmin = 0, sourceScale = 1, pseudo = 0, anchor } = options;
  work.assemble(sourceScale);
  work.hold(x);
  let worst = 0;
  let calm = false;
  for (let iteration = 1; iteration <= iterations; iteration++) {
    work.begin();
    const heldBack = work.stamp(x, true);
    const extra = gmin + pseudo;
    if (extra > 0)
      for (let k = 0; k < nodes; k++) {
        lu.a[k * n + k]! += extra;
        if (anchor) b[k]! += pseudo * anchor[k]!;
      }
    const singular = lu.factor();
    if (singular >= 0) return { converged: false, iterations: iteration, worst: singular };
    lu.solve(b);
    let over = 0;
    worst = 0;
    // Late iterations that still swing are halved: two points that answer each other meet in the middle.
    const damping = iteration > 25 && iteration % 2 ? 0.5 : 1;
    for (let k = 0; k < n; k++) {
      const change = b[k]! - x[k]!;
      const ratio = k < nodes ? Math.abs(change) / (loose * (VNTOL + RELTOL * Math.abs(b[k]!))) : 0;
      if (!(ratio <= over)) {
        over = ratio;
        worst = k;
      }
      x[k] = x[k]! + damping * change;
    }
    if (!Number.isFinite(over)) return { converged: false, iterations: iteration, worst };
    if (over <= 1 && !heldBack && damping === 1) {
      // One more iteration after the first calm one: Newton squares what is left of the error.
      if (calm || loose > 1 || network.devices.length === 0) return { converged: true, iterations: iteration, worst };
      calm = true;
    } else calm = false;
  }
  return { converged: false, iterations, worst };
}

/** Which aid brought the answer. */
export type Aid = "none" | "gmin" | "sources" | "pseudo-transient";

export interface SolveResult extends NewtonResult {
  aid: Aid;
}

/**
 * Newton from `x`; then with a conductance at every node that is taken away by and by; then with the sources rising; then
 * by pseudo-transient continuation. The last solve of each has none of the aid left. Overwrites `x` with the answer.
 */
export function solveNewton(work: Workspace, x: Float64Array): SolveResult {
  const start = x.slice();
  const direct = newton(work, x);
  if (direct.converged) return { ...direct, aid: "none" };
  let iterations = direct.iterations;

  x.fill(0);
  let ok = true;
  for (let g = 1e-2; g > 1e-13 && ok; g /= 10) {
    const step = newton(work, x, { gmin: g, iterations: 50 });
    iterations += step.iterations;
    ok = step.converged;
  }
  if (ok) {
    const last = newton(work, x);
    iterations += last.iterations;
    if (last.converged) return { ...last, iterations, aid: "gmin" };
  }

  x.fill(0);
  ok = true;
  let reached = 0;
  let stride = 0.1;
  const kept = x.slice();
  while (reached < 1 && stride > 1e-3) {
    const scale = Math.min(1, reached + stride);
    const step = newton(work, x, { sourceScale: scale, gmin: scale < 1 ? 1e-9 : 0, iterations: 40 });
    iterations += step.iterations;
    if (step.converged) {
      reached = scale;
      kept.set(x);
      stride *= 1.5;
    } else {
      x.set(kept);
      stride /= 2;
    }
  }
  if (reached >= 1) return { converged: true, iterations, worst: 0, aid: "sources" };

  return { ...pseudoTransient(work, x, start, iterations), aid: "pseudo-transient" };
}

/** Pseudo-transient continuation: steps of a made-up time with a capacitor at every node, as the amp would settle after switch-on. */
function pseudoTransient(work: Workspace, x: Float64Array, start: Float64Array, before: number): NewtonResult {
  x.set(start);
  if (!x.every(Number.isFinite)) x.fill(0);
  let pseudo = 1e-2;
  let iterations = before;
  let worst = 0;
  const anchor = x.slice();
  for (let step = 0; step < 400; step++) {
    anchor.set(x);
    const r = newton(work, x, { pseudo, anchor, iterations: 25 });
    iterations += r.iterations;
    worst = r.worst;
    if (r.converged) {
      pseudo *= 0.6;
      if (pseudo < 1e-11) {
        anchor.set(x);
        const last = newton(work, x);
        iterations += last.iterations;
        if (last.converged) return { ...last, iterations };
        x.set(anchor);
        pseudo = 1e-6;
      }
    } else {
      x.set(anchor);
      pseudo *= 4;
      if (pseudo > 1e3) break;
    }
  }
  return { converged: false, iterations, worst };
}
