/**
 * The current of a rectifier as it really comes, in pulses, and the average voltage that it leaves: the periodic steady state of the
 * rectifier's law against the impedance that the rest of the amp shows at each multiple of the ripple's frequency.
 */

import { solveInPlace } from "../numeric/dense";
import { instantCurrent, pulsesAlike, type RectifierModel } from "./rectifier";

/** Ohms at the first, second, … multiple of the ripple's frequency: `re[0]`, `re[1]`, … */
export interface Impedances {
  re: Float64Array;
  im: Float64Array;
}

export interface PulseTrain {
  /** Average volts across the rectifier. */
  volts: number;
  /** Volts and amperes at `samples` equal steps of one period of the ripple; the winding's peak lies in the middle. */
  course: Float64Array;
  current: Float64Array;
}

/** Steps of one period. A half-wave pulse is a smaller part of its period. */
export const samplesOf = (model: RectifierModel) => (pulsesAlike(model) === 2 ? 128 : 192);
/** Multiples whose impedance is wanted. */
export const multiplesOf = (model: RectifierModel) => samplesOf(model) / 2;

const MOST_ROUNDS = 30;
/** Part of the winding's peak by which a voltage may still be off. */
const CLOSE = 1e-6;

/** Impedances of a capacitor alone. @param hertz of the ripple. */
export function capacitorImpedances(farads: number, hertz: number, multiples: number): Impedances {
  return {
    re: new Float64Array(multiples),
    im: Float64Array.from({ length: multiples }, (_, k) => -1 / (2 * Math.PI * hertz * (k + 1) * farads)),
  };
}

/**
 * Solves v = V + z∗i(v) with the mean of i equal to `amps`: harmonic balance by collocation, the unknowns reduced to the steps in
 * which the rectifier conducts. Source: K. S. Kundert and A. Sangiovanni-Vincentelli, "Simulation of nonlinear circuits in the
 * frequency domain", IEEE Trans. CAD-5, 1986.
 * @param amps average current into the amp, above zero. @param about a first guess: the average volts, or the pulses of a like case.
 * @returns undefined when no periodic answer was found.
 */
export function pulseTrain(model: RectifierModel, amps: number, z: Impedances, about: number | PulseTrain): PulseTrain | undefined {
  const n = samplesOf(model);
  const impulse = impulseOf(z, n);
  const phases = phasesOf(model, n);
  const out = new Float64Array(2);
  const current = new Float64Array(n);
  const slope = new Float64Array(n);
  /** Fills current and slope; gives how far each step and the mean are off. */
  const miss = (v: Float64Array, mean: number, into: Float64Array): number => {
    let sum = 0;
    for (let k = 0; k < n; k++) {
      instantCurrent(model, phases[k]!, v[k]!, out);
      current[k] = out[0]!;
      slope[k] = out[1]!;
      sum += out[0]!;
    }
    let worst = 0;
    for (let k = 0; k < n; k++) {
      let drop = 0;
      for (let m = 0, d = k + n; m < n; m++, d--) drop += impulse[d]! * current[m]!;
      into[k] = v[k]! - mean - drop;
      worst = Math.max(worst, Math.abs(into[k]!));
    }
    into[n] = sum / n - amps;
    return worst + (Math.abs(into[n]!) / amps) * 0.1 * model.peak;
  };
  const alike = typeof about === "number" ? undefined : about;
  let mean = alike?.volts ?? Math.min(about as number, 0.97 * model.peak);
  let v = alike?.course.slice() ?? new Float64Array(n).fill(mean);
  let off = new Float64Array(n + 1);
  let size = miss(v, mean, off);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    if (size < CLOSE * model.peak) return { volts: mean, course: v, current: current.slice() };
    const step = newtonStep(impulse, slope, off);
    if (!step) return undefined;
    let scale = 1;
    const [v0, mean0, size0] = [v, mean, size];
    for (;;) {
      v = v0.map((x, k) => x + scale * step[k]!);
      mean = mean0 + scale * step[n]!;
      off = new Float64Array(n + 1);
      size = miss(v, mean, off);
      if (size < size0 || scale < 0.02) break;
      scale /= 2;
    }
  }
  return undefined;
}

/** Phase of the mains at each step, the winding's peak in the middle. */
function phasesOf(model: RectifierModel, n: number): Float64Array {
  const angle = (2 * Math.PI) / pulsesAlike(model);
  const shift = model.opposite ? Math.PI : 0;
  const phases = new Float64Array(n);
  for (let k = 0; k < n; k++) phases[k] = angle * (k / n - 0.5) + shift;
  return phases;
}

const cosines = new Map<number, Float64Array>();

/** Cosine of each of `n` equal parts of a turn. */
function cosinesOf(n: number): Float64Array {
  let cos = cosines.get(n);
  if (!cos) cosines.set(n, (cos = Float64Array.from({ length: n }, (_, k) => Math.cos((2 * Math.PI * k) / n))));
  return cos;
}

/** Response in volts to one ampere in one step, the mean left out: `[d]` and `[d + n]` are d steps after it. */
function impulseOf(z: Impedances, n: number): Float64Array {
  const half = n / 2;
  const cos = cosinesOf(n);
  const out = new Float64Array(2 * n);
  for (let d = 0; d < n; d++) {
    let sum = 0;
    for (let k = 1, at = d; k <= half; k++) {
      const quarter = at >= n / 4 ? at - n / 4 : at + n - n / 4;
      const re = z.re[k - 1]! * cos[at]! - z.im[k - 1]! * cos[quarter]!;
      sum += k === half ? re : 2 * re;
      at += d;
      if (at >= n) at -= n;
    }
    out[d] = out[d + n] = sum / n;
  }
  return out;
}

/** Changes of all steps and of the mean, or undefined where the matrix has no answer. @param impulse as `impulseOf` gives it. */
function newtonStep(impulse: Float64Array, slope: Float64Array, off: Float64Array): Float64Array | undefined {
  const n = slope.length;
  let steepest = 0;
  for (const s of slope) steepest = Math.max(steepest, Math.abs(s));
  const active: number[] = [];
  for (let k = 0; k < n; k++) if (Math.abs(slope[k]!) > 1e-4 * steepest) active.push(k);
  const m = active.length;
  const size = m + 1;
  const a = new Float64Array(size * size);
  const b = new Float64Array(size);
  for (let r = 0; r < m; r++) {
    const k = active[r]!;
    for (let c = 0; c < m; c++) {
      const j = active[c]!;
      a[r * size + c] = (r === c ? 1 : 0) - impulse[k - j + n]! * slope[j]!;
    }
    a[r * size + m] = -1;
    b[r] = -off[k]!;
  }
  for (let c = 0; c < m; c++) a[m * size + c] = slope[active[c]!]! / n;
  b[m] = -off[n]!;
  const solved = b;
  if (!solveInPlace(a, b)) return undefined;
  const driven = Float64Array.from(active, (k, c) => slope[k]! * solved[c]!);
  const out = new Float64Array(n + 1);
  out[n] = solved[m]!;
  for (let k = 0; k < n; k++) {
    let sum = solved[m]! - off[k]!;
    for (let c = 0; c < m; c++) sum += impulse[k - active[c]! + n]! * driven[c]!;
    out[k] = sum;
  }
  return out;
}
