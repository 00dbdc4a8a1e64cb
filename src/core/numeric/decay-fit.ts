/** A falling current fitted as final + amplitude·e^(−t/τ), with the intervals that its noise leaves. */

import { studentQuantile } from "./student";

export interface DecayPoint {
  /** Seconds. */
  t: number;
  /** In any unit; the answer has the same. */
  value: number;
  /** Standard error of the value in proportion to that of the others: the meter's digit and its percent. */
  sigma: number;
}

export type Interval = readonly [low: number, high: number];

export interface DecayFit {
  final: number;
  amplitude: number;
  /** Seconds. */
  tau: number;
  /** Noise in parts of the sigmas that were given. */
  noise: number;
  /** Each holds the truth in 95 of 100 cases. */
  within: { final: Interval; amplitude?: Interval; tau: Interval };
  /** Value at a time. */
  at(t: number): number;
}

const INSIDE = 0.95;
/** Fewer do not tell a curve from a line. */
export const LEAST_POINTS = 5;
/** Time constants that are looked at, in parts of the shortest step and of the span. */
const SHORTEST = 0.2;
const LONGEST = 60;
const GRID = 28;
/** Of the logarithm of a time constant. */
const CLOSE = 1e-5;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** Weighted sums from which the best final and amplitude for a time constant follow: the model is linear in both. */
function linear(points: readonly DecayPoint[], tau: number): { final: number; amplitude: number; cost: number } {
  const start = points[0]!.t;
  let [sw, se, see, sy, sey] = [0, 0, 0, 0, 0];
  for (const p of points) {
    const w = 1 / p.sigma ** 2;
    const e = Math.exp(-(p.t - start) / tau);
    sw += w;
    se += w * e;
    see += w * e * e;
    sy += w * p.value;
    sey += w * e * p.value;
  }
  const det = sw * see - se * se;
  const amplitude = det > 0 ? (sw * sey - se * sy) / det : 0;
  const final = (sy - amplitude * se) / sw;
  return { final, amplitude, cost: costOf(points, (p) => final + amplitude * Math.exp(-(p.t - start) / tau)) };
}

function costOf(points: readonly DecayPoint[], model: (p: DecayPoint) => number): number {
  return points.reduce((s, p) => s + ((p.value - model(p)) / p.sigma) ** 2, 0);
}

/** The least of a function of a time constant: a grid over its logarithm, then golden section between the neighbours. */
function leastOver(tauLow: number, tauHigh: number, cost: (tau: number) => number): { tau: number; cost: number } {
  const at = (i: number) => tauLow * (tauHigh / tauLow) ** (i / (GRID - 1));
  let best = 0;
  let least = Infinity;
  for (let i = 0; i < GRID; i++) {
    const c = cost(at(i));
    if (c < least) [best, least] = [i, c];
  }
  let [a, b] = [Math.log(at(Math.max(0, best - 1))), Math.log(at(Math.min(GRID - 1, best + 1)))];
  const inner = () => [b - GOLDEN * (b - a), a + GOLDEN * (b - a)] as const;
  let [x1, x2] = inner();
  let [f1, f2] = [cost(Math.exp(x1)), cost(Math.exp(x2))];
  while (b - a > CLOSE) {
    if (f1 <= f2) {
      b = x2;
      [x2, f2] = [x1, f1];
      x1 = inner()[0];
      f1 = cost(Math.exp(x1));
    } else {
      a = x1;
      [x1, f1] = [x2, f2];
      x2 = inner()[1];
      f2 = cost(Math.exp(x2));
    }
  }
  const tau = Math.exp((a + b) / 2);
  return { tau, cost: Math.min(cost(tau), least) };
}

/** Where a cost that rises from its least passes a threshold, on one side; the end of the range where it never does. */
function crossing(from: number, to: number, threshold: number, cost: (x: number) => number): number {
  let [inside, outside] = [from, from];
  const step = (to - from) / 24;
  for (let i = 1; i <= 24; i++) {
    outside = from + step * i;
    if (cost(outside) > threshold) break;
    inside = outside;
  }
  if (inside === outside) return to;
  for (let i = 0; i < 24; i++) {
    const middle = (inside + outside) / 2;
    if (cost(middle) > threshold) outside = middle;
    else inside = middle;
  }
  return (inside + outside) / 2;
}

interface Span {
  low: number;
  high: number;
}

function spanOf(points: readonly DecayPoint[]): Span {
  const span = points.at(-1)!.t - points[0]!.t;
  const steps = points.slice(1).map((p, i) => p.t - points[i]!.t);
  return { low: SHORTEST * Math.min(...steps.filter((s) => s > 0)), high: LONGEST * span };
}

/**
 * Least squares with the two linear unknowns solved for each time constant (G. H. Golub and V. Pereyra, "The differentiation of
 * pseudo-inverses and nonlinear least squares problems", SIAM J. Numer. Anal. 10, 1973); intervals by the profile of the cost,
 * F = t² (D. M. Bates and D. G. Watts, "Nonlinear Regression Analysis", 1988).
 * @param points in the order of their times. @returns undefined with fewer than five points, or where nothing falls.
 */
export function fitDecay(points: readonly DecayPoint[]): DecayFit | undefined {
  if (points.length < LEAST_POINTS || !(points.at(-1)!.t > points[0]!.t)) return undefined;
  const { low, high } = spanOf(points);
  const best = leastOver(low, high, (tau) => linear(points, tau).cost);
  const { final, amplitude } = linear(points, best.tau);
  if (!(amplitude > 0)) return undefined;
  const start = points[0]!.t;
  const freedom = points.length - 3;
  const threshold = thresholdOf(best.cost, freedom);
  const logCost = (x: number) => linear(points, Math.exp(x)).cost;
  const tau: Interval = [
    Math.exp(crossing(Math.log(best.tau), Math.log(low), threshold, logCost)),
    Math.exp(crossing(Math.log(best.tau), Math.log(high), threshold, logCost)),
  ];
  const finalCost = (fixed: number) => leastOver(low, high, (t) => withFinal(points, fixed, t)).cost;
  const reach = Math.max(amplitude, Math.abs(final)) * 3;
  return {
    final,
    amplitude,
    tau: best.tau,
    noise: Math.sqrt(best.cost / freedom),
    within: { final: [crossing(final, final - reach, threshold, finalCost), crossing(final, final + reach, threshold, finalCost)], tau },
    at: (t) => final + amplitude * Math.exp(-(t - start) / best.tau),
  };
}

const thresholdOf = (least: number, freedom: number) => least * (1 + studentQuantile(INSIDE, freedom) ** 2 / freedom) + 1e-12;

/** Cost with the final value given and the amplitude the best one. */
function withFinal(points: readonly DecayPoint[], final: number, tau: number): number {
  const start = points[0]!.t;
  let [ee, ey] = [0, 0];
  for (const p of points) {
    const e = Math.exp(-(p.t - start) / tau) / p.sigma;
    ee += e * e;
    ey += (e * (p.value - final)) / p.sigma;
  }
  const amplitude = ee > 0 ? ey / ee : 0;
  return costOf(points, (p) => final + amplitude * Math.exp(-(p.t - start) / tau));
}

/**
 * When the fitted current comes down to a limit: seconds on the points' own clock, and the interval that holds it in 95 of 100 cases.
 * The limit's time t* takes the amplitude's place in the model, value = final + (limit − final)·e^((t* − t)/τ), linear in the final value.
 * @returns undefined where the fit says never. The upper end is Infinity where a final value above the limit is not ruled out.
 */
export function timeToLimit(
  points: readonly DecayPoint[],
  fit: DecayFit,
  limit: number,
): { seconds: number; within: Interval } | undefined {
  const start = points[0]!.t;
  if (!(fit.final < limit)) return undefined;
  const seconds = start + Math.max(0, fit.tau * Math.log(fit.amplitude / (limit - fit.final)));
  const { low, high } = spanOf(points);
  const threshold = thresholdOf(linear(points, fit.tau).cost, points.length - 3);
  const cost = (at: number) =>
    leastOver(low, high, (tau) => {
      let [gg, gy] = [0, 0];
      for (const p of points) {
        const e = Math.exp(Math.min(50, (at - p.t) / tau));
        const g = (1 - e) / p.sigma;
        gg += g * g;
        gy += (g * (p.value - limit * e)) / p.sigma;
      }
      const final = gg > 0 ? Math.min(gy / gg, limit) : 0;
      return costOf(points, (p) => final + (limit - final) * Math.exp(Math.min(50, (at - p.t) / tau)));
    }).cost;
  const far = seconds + 20 * fit.tau;
  const upper = crossing(seconds, far, threshold, cost);
  return { seconds, within: [Math.max(start, crossing(seconds, start - fit.tau, threshold, cost)), upper >= far ? Infinity : upper] };
}
