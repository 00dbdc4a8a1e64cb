/** Preferred number series of IEC 60063, and the values of it around a wanted one. */

import * as texts from "../texts/quantity";

const E24 = [1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2, 9.1];

export type Series = "E6" | "E12" | "E24" | "E96";

/** One decade, 1 to under 10. E96 is the rounded geometric series; the lower ones are IEC's table. */
export function decade(series: Series): number[] {
  if (series === "E96") return Array.from({ length: 96 }, (_, i) => Number((10 ** (i / 96)).toFixed(2)));
  const stride = { E6: 4, E12: 2, E24: 1 }[series];
  return E24.filter((_, i) => i % stride === 0);
}

/**
 * The values of a series on either side of `value` and the nearer of them by ratio.
 * @throws RangeError when the value is not a positive number.
 */
export function nearestInSeries(value: number, series: Series = "E24"): { below: number; above: number; nearest: number } {
  if (!(value > 0) || !Number.isFinite(value)) throw new RangeError(texts.preferredValueNearPositive(value));
  const power = Math.floor(Math.log10(value));
  const around = [power - 1, power, power + 1].flatMap((p) => decade(series).map((m) => Number(`${m}e${p}`)));
  const below = Math.max(...around.filter((v) => v <= value * (1 + 1e-12)));
  const above = Math.min(...around.filter((v) => v >= value * (1 - 1e-12)));
  return { below, above, nearest: value / below <= above / value ? below : above };
}

export interface Pair {
  a: number;
  b: number;
  together: "series" | "parallel";
  /** Ohms of the pair, and its distance from the wanted value: 0.01 is 1 %. */
  value: number;
  error: number;
}

/** Resistances of two in series and in parallel. */
export const inSeries = (a: number, b: number) => a + b;
export const inParallel = (a: number, b: number) => (a * b) / (a + b);

/**
 * The pairs of preferred values, in series or parallel, that come nearest to `wanted`, the best first; the larger value is `a`.
 * @throws RangeError when the value is not a positive number.
 */
export function nearestPairs(wanted: number, series: Series = "E12", most = 5): Pair[] {
  if (!(wanted > 0) || !Number.isFinite(wanted)) throw new RangeError(texts.pairComesNearPositive(wanted));
  const power = Math.floor(Math.log10(wanted));
  const values = [-2, -1, 0, 1, 2].flatMap((p) => decade(series).map((m) => Number(`${m}e${power + p}`)));
  const pairs: Pair[] = [];
  for (const a of values)
    for (const b of values) {
      if (b > a) continue;
      for (const together of ["series", "parallel"] as const) {
        const value = together === "series" ? inSeries(a, b) : inParallel(a, b);
        pairs.push({ a, b, together, value, error: value / wanted - 1 });
      }
    }
  return pairs.sort((x, y) => Math.abs(x.error) - Math.abs(y.error) || x.a - y.a).slice(0, most);
}
