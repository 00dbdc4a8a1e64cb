/** How well a hypothesis explains readings whose errors hang together, when any of them may be plain wrong. */

import { invert } from "../numeric/dense";

/** Chance that a reading is a slip: wrong pin, wrong range, a digit. */
export const SLIP = 0.02;

/** Distance, in sigmas, from which a reading contradicts a prediction. */
export const CONTRADICTS = 2.7;

export interface Explained {
  /** Natural logarithm of the likelihood. */
  log: number;
  /** Readings taken as slips. */
  slips: number[];
  /** Each reading's distance from the prediction in its own sigmas, by what the others say where they hang together. */
  distance: Float64Array;
}

/** A covariance made ready: itself, its inverse, both row-major, and the logarithm of its determinant; undefined where it is none. */
export type Prepared = { cov: Float64Array; inverse: Float64Array; logDet: number } | undefined;

/** Part of its first value below which what is left of a diagonal of the inverse is the rounding of what was taken off. */
const WORN = 1e-6;

/** @param cov n × n, symmetric; left as it was. */
export function prepare(cov: Float64Array): Prepared {
  const inverse = cov.slice();
  const logDet = invert(inverse, Math.round(Math.sqrt(cov.length)));
  return logDet === undefined ? undefined : { cov, inverse, logDet };
}

/** Inverse of a covariance without some rows and columns, which are zero in it; undefined where it is none. */
function inverseWithout(cov: Float64Array, out: Uint8Array): Float64Array | undefined {
  const n = out.length;
  const left = Array.from(out.keys()).filter((i) => !out[i]);
  const m = left.length;
  const part = new Float64Array(m * m);
  left.forEach((i, a) => left.forEach((j, b) => (part[a * m + b] = cov[i * n + j]!)));
  if (m > 0 && invert(part, m) === undefined) return undefined;
  const inverse = new Float64Array(n * n);
  left.forEach((i, a) => left.forEach((j, b) => (inverse[i * n + j] = part[a * m + b]!)));
  return inverse;
}

/** The same with a covariance that is used once. */
export function explain(y: Float64Array, mean: Float64Array, cov: Float64Array, slipDensity: Float64Array, mostSlips: number): Explained {
  return explainWith(prepare(cov), y, mean, slipDensity, mostSlips);
}

/**
 * Log-likelihood of `y` under a normal law with `mean` and a prepared covariance, the worst readings taken out one after the other as
 * slips with density `slipDensity[i]` wherever that is the better explanation.
 * Leaving reading i out of a normal law: Q − (P r)ᵢ²/Pᵢᵢ and log|Σ| + log Pᵢᵢ with P = Σ⁻¹.
 */
export function explainWith(
  prepared: Prepared,
  y: Float64Array,
  mean: Float64Array,
  slipDensity: Float64Array,
  mostSlips: number,
): Explained {
  const n = y.length;
  if (!prepared) return { log: -Infinity, slips: [], distance: new Float64Array(n).fill(Infinity) };
  const { logDet } = prepared;
  let p = prepared.inverse;
  const r = new Float64Array(n);
  for (let i = 0; i < n; i++) r[i] = y[i]! - mean[i]!;
  const pr = new Float64Array(n);
  const times = () => {
    for (let i = 0; i < n; i++) {
      let sum = 0;
      for (let j = 0; j < n; j++) sum += p[i * n + j]! * r[j]!;
      pr[i] = sum;
    }
  };
  times();
  let q = 0;
  for (let i = 0; i < n; i++) q += r[i]! * pr[i]!;
  let log = -0.5 * (q + logDet + n * Math.log(2 * Math.PI)) + n * Math.log(1 - SLIP);
  const distance = new Float64Array(n);
  for (let i = 0; i < n; i++) distance[i] = Math.abs(pr[i]!) / Math.sqrt(p[i * n + i]!);
  const slips: number[] = [];
  const out = new Uint8Array(n);
  for (let round = 0; round < mostSlips; round++) {
    let best = -1;
    let gain = 0;
    for (let i = 0; i < n; i++) {
      if (out[i]) continue;
      const pii = p[i * n + i]!;
      // What the normal law loses by explaining reading i, against calling it a slip.
      const without =
        0.5 * ((pr[i]! * pr[i]!) / pii - Math.log(pii) + Math.log(2 * Math.PI)) - Math.log(1 - SLIP) + Math.log(SLIP * slipDensity[i]!);
      if (without > gain) {
        gain = without;
        best = i;
      }
    }
    if (best < 0) break;
    if (slips.length === 0) p = p.slice();
    log += gain;
    slips.push(best);
    out[best] = 1;
    // Σ without row and column `best`, inverted: P − P·e eᵀ·P/Pᵢᵢ, whose row and column are then zero.
    const pii = p[best * n + best]!;
    const column = Float64Array.from({ length: n }, (_, i) => p[i * n + best]!);
    for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) p[i * n + j]! -= (column[i]! * column[j]!) / pii;
    for (let i = 0; i < n; i++) {
      p[i * n + best] = 0;
      p[best * n + i] = 0;
    }
    r[best] = 0;
    // Readings that hang together by many digits leave a difference of nearly equal numbers: then it is inverted anew.
    for (let i = 0; i < n; i++)
      if (!out[i] && !(p[i * n + i]! > WORN * prepared.inverse[i * n + i]!)) {
        const again = inverseWithout(prepared.cov, out);
        if (!again) return { log: -Infinity, slips, distance };
        p = again;
        break;
      }
    times();
  }
  return { log, slips, distance };
}
