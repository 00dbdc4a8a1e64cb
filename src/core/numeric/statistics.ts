/** Figures of a sample. */

/** The value below which the part `p` of a sorted sample lies, by linear interpolation; NaN for an empty one. */
export function quantileSorted(sorted: ArrayLike<number>, p: number): number {
  const n = sorted.length;
  if (n === 0) return NaN;
  const at = Math.min(n - 1, Math.max(0, (n - 1) * p));
  const low = Math.floor(at);
  const high = Math.min(n - 1, low + 1);
  return sorted[low]! + (sorted[high]! - sorted[low]!) * (at - low);
}

/** 1/(1 + e^(−x)): from 0 to 1, a half at 0. */
export const logistic = (x: number) => 1 / (1 + Math.exp(-x));
