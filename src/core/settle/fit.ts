/** One fit of the unknowns: damped Gauss-Newton with priors, Huber weights, and the figure that stands farthest from the rest. */

import { invert, solve } from "../numeric/dense";
import { computed, type Amp } from "./amp-at-mains";
import * as texts from "../texts/settle";
import type { Given } from "./given";
import type { Unknown } from "./unknowns";

/** Error of a chart's figure or of a meter, relative; and volts that no reading of small volts is better than. */
const RELATIVE = 0.015;
const LEAST_VOLTS = 0.02;
const STEP = 0.01;
const MOST_STEPS = 25;

const errorOf = (g: Given) => Math.hypot(RELATIVE * Math.abs(g.volts), g.step / Math.sqrt(12), LEAST_VOLTS);

export interface Fit {
  theta: number[];
  values: number[];
  /** In sigmas of each figure's own error. */
  residual: number[];
  covariance: number[][];
  jacobian: number[][];
}

export function fitTo(
  amps: readonly Amp[],
  given: readonly Given[],
  unknowns: readonly Unknown[],
  left: ReadonlySet<number>,
  progress: (part: number) => boolean,
  start?: readonly number[],
): Fit {
  const prior = unknowns.map((u) => Math.log(u.usual));
  const bound = (theta: number[]) => theta.map((t, k) => Math.min(Math.log(unknowns[k]!.most), Math.max(Math.log(unknowns[k]!.least), t)));
  const costOf = (theta: readonly number[], values: readonly number[]) =>
    given.reduce((sum, g, i) => (left.has(i) ? sum : sum + robust((values[i]! - g.volts) / errorOf(g))), 0) +
    unknowns.reduce((sum, u, k) => sum + ((theta[k]! - prior[k]!) / u.sigma) ** 2, 0);
  // The middle of what is usual, or where a fit before ended; where an amp does not converge there, what the file says.
  let theta = start ? [...start] : bound(prior);
  let first = computed(amps, given, unknowns, theta);
  if (!first) first = computed(amps, given, unknowns, (theta = unknowns.map(() => 0)));
  if (!first) throw new Error(texts.doesNotConverge("?"));
  let values = first;
  let cost = costOf(theta, values);
  let damping = 1e-3;
  let jacobian = jacobianOf(amps, given, unknowns, theta);
  for (let step = 0; step < MOST_STEPS; step++) {
    if (!progress(step / MOST_STEPS)) throw new Error("cancelled");
    const { normal, gradient } = normalOf(given, unknowns, left, jacobian, values, theta, prior);
    const damped = normal.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) : v)));
    const delta = unknowns.length === 0 ? [] : solve(damped.flat(), gradient);
    const next = bound(theta.map((t, k) => t + delta[k]!));
    const there = computed(amps, given, unknowns, next);
    const its = there ? costOf(next, there) : Infinity;
    if (its <= cost) {
      const moved = cost - its;
      [theta, values, cost] = [next, there!, its];
      damping = Math.max(1e-6, damping / 5);
      if (moved < 1e-4 * (1 + cost)) break;
      jacobian = jacobianOf(amps, given, unknowns, theta);
    } else {
      damping *= 10;
      if (damping > 1e6) break;
    }
  }
  // The networks stand at the answer again.
  computed(amps, given, unknowns, theta);
  const { normal } = normalOf(given, unknowns, left, jacobian, values, theta, prior, true);
  // With priors in it the matrix is positive.
  const flat = Float64Array.from(normal.flat());
  invert(flat, unknowns.length);
  const covariance = normal.map((row, i) => row.map((_, j) => flat[i * unknowns.length + j]!));
  return { theta, values, residual: values.map((v, i) => (given[i]!.volts - v) / errorOf(given[i]!)), covariance, jacobian };
}

/** Huber's: a figure that is far off pulls no harder than one at two sigmas. */
const BEND = 2;
const robust = (r: number) => (Math.abs(r) <= BEND ? r * r : 2 * BEND * Math.abs(r) - BEND * BEND);
const weight = (r: number) => (Math.abs(r) <= BEND ? 1 : BEND / Math.abs(r));

/** dV/dθ by differences: rows in the order of the figures. */
function jacobianOf(amps: readonly Amp[], given: readonly Given[], unknowns: readonly Unknown[], theta: readonly number[]): number[][] {
  const rows = given.map(() => new Array<number>(unknowns.length).fill(0));
  const base = computed(amps, given, unknowns, theta, false);
  if (!base) return rows;
  unknowns.forEach((u, k) => {
    for (const amp of amps) u.turn(amp.op.network, Math.exp(theta[k]! + STEP));
    const out = new Array<number>(given.length).fill(NaN);
    const ok = amps.every((amp) => amp.read(out, false));
    for (const amp of amps) u.turn(amp.op.network, Math.exp(theta[k]!));
    if (ok) given.forEach((_, i) => (rows[i]![k] = (out[i]! - base[i]!) / STEP));
  });
  return rows;
}

function normalOf(
  given: readonly Given[],
  unknowns: readonly Unknown[],
  left: ReadonlySet<number>,
  jacobian: number[][],
  values: readonly number[],
  theta: readonly number[],
  prior: readonly number[],
  plain = false,
) {
  const n = unknowns.length;
  const normal = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  const gradient = new Array<number>(n).fill(0);
  given.forEach((g, i) => {
    if (left.has(i)) return;
    const sigma = errorOf(g);
    const r = (g.volts - values[i]!) / sigma;
    const w = plain ? 1 : weight(r);
    for (let a = 0; a < n; a++) {
      const ja = jacobian[i]![a]! / sigma;
      gradient[a]! += w * ja * r;
      for (let b = 0; b < n; b++) normal[a]![b]! += (w * ja * jacobian[i]![b]!) / sigma;
    }
  });
  unknowns.forEach((u, k) => {
    normal[k]![k]! += 1 / u.sigma ** 2;
    gradient[k]! += (prior[k]! - theta[k]!) / u.sigma ** 2;
  });
  return { normal, gradient };
}

/** Studentised residual from which a figure is a misprint. */
const MISPRINT = 4;

/** The figure that is farthest from what all others say, where that is far enough to be a misprint. */
export function farthest(fit: Fit, given: readonly Given[], left: ReadonlySet<number>): number | undefined {
  let worst: number | undefined;
  let most = MISPRINT;
  given.forEach((g, i) => {
    if (left.has(i)) return;
    const sigma = errorOf(g);
    const j = fit.jacobian[i]!.map((v) => v / sigma);
    // How much of the figure's own variance the fit has taken up.
    const leverage = Math.min(
      0.999,
      j.reduce((sum, a, k) => sum + a * j.reduce((s, b, m) => s + b * fit.covariance[k]![m]!, 0), 0),
    );
    const t = Math.abs(fit.residual[i]!) / Math.sqrt(1 - leverage);
    if (t <= most) return;
    most = t;
    worst = i;
  });
  return worst;
}
