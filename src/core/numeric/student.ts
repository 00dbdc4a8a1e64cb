/** Quantile of Student's t: how many standard errors an interval reaches for a chance of so much on both sides. */

/**
 * @param inside chance that the interval holds the truth, 0.95 for 95 %. @param freedom degrees of freedom, 1 or more.
 * Source: G. W. Hill, "Algorithm 396: Student's t-quantiles", Comm. ACM 13, 1970.
 * @example studentQuantile(0.95, 10) // 2.228
 */
export function studentQuantile(inside: number, freedom: number): number {
  if (!(inside > 0 && inside < 1) || !(freedom >= 1))
    throw new RangeError(`a chance between 0 and 1 and freedom from 1 are wanted; read ${inside}, ${freedom}`);
  const p = 1 - inside;
  const n = freedom;
  if (n === 1) return Math.cos((p * Math.PI) / 2) / Math.sin((p * Math.PI) / 2);
  if (n === 2) return Math.sqrt(2 / (p * (2 - p)) - 2);
  const a = 1 / (n - 0.5);
  const b = 48 / (a * a);
  let c = ((20700 / b) * a - 98) * a - 16;
  c = c * a + 96.36;
  const d = ((94.5 / (b + c) - 3) / b + 1) * Math.sqrt((a * Math.PI) / 2) * n;
  let y = (d * p) ** (2 / n);
  if (y > 0.05 + a) {
    const x = normalQuantile(p / 2);
    y = x * x;
    if (n < 5) c += 0.3 * (n - 4.5) * (x + 0.6);
    c = (((0.05 * d * x - 5) * x - 7) * x - 2) * x + b + c;
    y = (((((0.4 * y + 6.3) * y + 36) * y + 94.5) / c - y - 3) / b + 1) * x;
    y = a * y * y;
    y = y > 0.002 ? Math.exp(y) - 1 : 0.5 * y * y + y;
  } else {
    y = ((1 / (((n + 6) / (n * y) - 0.089 * d - 0.822) * (n + 2) * 3) + 0.5 / (n + 4)) * y - 1) * ((n + 1) / (n + 2)) + 1 / y;
  }
  return Math.sqrt(n * y);
}

/** Lower-tail quantile of the normal law; P. J. Acklam's rational approximation, relative error below 1.2e-9. */
function normalQuantile(p: number): number {
  const a = [-39.69683028665376, 220.9460984245205, -275.9285104469687, 138.357751867269, -30.66479806614716, 2.506628277459239];
  const b = [-54.47609879822406, 161.5858368580409, -155.6989798598866, 66.80131188771972, -13.28068155288572];
  const c = [-0.007784894002430293, -0.3223964580411365, -2.400758277161838, -2.549732539343734, 4.374664141464968, 2.938163982698783];
  const d = [0.007784695709041462, 0.3224671290700398, 2.445134137142996, 3.754408661907416];
  const poly = (k: readonly number[], x: number) => k.reduce((s, v) => s * x + v, 0);
  if (p < 0.02425) {
    const q = Math.sqrt(-2 * Math.log(p));
    return poly(c, q) / (poly(d, q) * q + 1);
  }
  if (p > 1 - 0.02425) return -normalQuantile(1 - p);
  const q = p - 0.5;
  const r = q * q;
  return (poly(a, r) * q) / (poly(b, r) * r + 1);
}
