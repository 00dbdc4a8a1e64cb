/**
 * The current of a rectifier as it really comes, in pulses, and the average voltage that it leaves: the periodic steady state of the
 * rectifier's law against the impedance that the rest of the amp shows at each multiple of the ripple's frequency.
 */

import { solveInPlace } from "../numeric/dense";
import { instantCurrent, pulsesAlike, RECTIFIER_LEAK, type RectifierModel } from "./rectifier";

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

/**
 * Solves v = V + z∗i(v) with the mean of i equal to `amps`: harmonic balance by collocation, the unknowns reduced to the steps in
 * which the rectifier conducts. Source: K. S. Kundert and A. Sangiovanni-Vincentelli, "Simulation of nonlinear circuits in the
 * frequency domain", IEEE Trans. CAD-5, 1986.
 * @param amps average current into the amp, above zero. @param impulse of the amp at the rectifier, over `samplesOf(model)` steps.
 * @param about a first guess: the average volts, or the pulses of a like case.
 * @returns undefined when no periodic answer was found.
 */
export function pulseTrain(model: RectifierModel, amps: number, impulse: Float64Array, about: number | PulseTrain): PulseTrain | undefined {
  const n = samplesOf(model);
  const round = roundOf(n);
  const { v, step } = round;
  const phases = phasesOf(model, n);
  const alike = typeof about === "number" ? undefined : about;
  let mean = alike?.volts ?? Math.min(about as number, 0.97 * model.peak);
  if (alike) v.set(alike.course);
  else v.fill(mean);
  const before = new Float64Array(n);
  let size = miss(round, model, phases, impulse, mean, amps);
  for (let count = 0; count < MOST_ROUNDS; count++) {
    if (size < CLOSE * model.peak) return { volts: mean, course: v.slice(), current: round.current.slice() };
    if (!newtonStep(round, impulse)) return undefined;
    let scale = 1;
    const [mean0, size0] = [mean, size];
    before.set(v);
    for (;;) {
      for (let k = 0; k < n; k++) v[k] = before[k]! + scale * step[k]!;
      mean = mean0 + scale * step[n]!;
      size = miss(round, model, phases, impulse, mean, amps);
      if (size < size0 || scale < 0.02) break;
      scale /= 2;
    }
  }
  return undefined;
}

/** Working room of a round, by the number of its steps: taken from one search to the next. */
interface Round {
  v: Float64Array;
  current: Float64Array;
  /** Siemens; below zero. */
  slope: Float64Array;
  /** How far each step is off, volts, and the mean current, amperes. */
  off: Float64Array;
  /** Changes of all steps and of the mean. */
  step: Float64Array;
  /** Steps in which the rectifier conducts, the first `conducting` of them. */
  active: Int32Array;
  conducting: number;
  /** What it passes in each step beside its leak. */
  pulses: Float64Array;
  driven: Float64Array;
  /** Matrices by their size. */
  matrices: Map<number, { a: Float64Array; b: Float64Array }>;
}

const rounds = new Map<number, Round>();

function roundOf(n: number): Round {
  let round = rounds.get(n);
  if (!round) {
    const zeros = (count: number) => new Float64Array(count);
    round = {
      v: zeros(n),
      current: zeros(n),
      slope: zeros(n),
      off: zeros(n + 1),
      step: zeros(n + 1),
      driven: zeros(n),
      pulses: zeros(n),
    } as Round;
    Object.assign(round, { active: new Int32Array(n), conducting: 0, matrices: new Map() });
    rounds.set(n, round);
  }
  return round;
}

const instant = new Float64Array(2);

/**
 * Fills current, slope and how far each step and the mean are off. What the leak beside the pulses adds to the ripple is not counted here:
 * it belongs to the amp's impedance. @returns the whole of it in volts.
 */
function miss(round: Round, model: RectifierModel, phases: Float64Array, impulse: Float64Array, mean: number, amps: number): number {
  const { v, current, slope, off, active, pulses } = round;
  const n = v.length;
  let sum = 0;
  let conducting = 0;
  for (let k = 0; k < n; k++) {
    instantCurrent(model, phases[k]!, v[k]!, instant);
    current[k] = instant[0]!;
    slope[k] = instant[1]!;
    sum += instant[0]!;
    if (slope[k] !== -RECTIFIER_LEAK) active[conducting++] = k;
  }
  round.conducting = conducting;
  for (let c = 0; c < conducting; c++) pulses[active[c]!] = current[active[c]!]! - RECTIFIER_LEAK * (model.peak - v[active[c]!]!);
  let worst = 0;
  for (let k = 0; k < n; k++) {
    let drop = 0;
    for (let c = 0; c < conducting; c++) {
      const m = active[c]!;
      drop += impulse[k - m + n]! * pulses[m]!;
    }
    off[k] = v[k]! - mean - drop;
    worst = Math.max(worst, Math.abs(off[k]!));
  }
  off[n] = sum / n - amps;
  return worst + (Math.abs(off[n]!) / amps) * 0.1 * model.peak;
}

/** Finds the changes of all steps and of the mean. @param impulse as `impulseOf` gives it. @returns false where the matrix has no answer. */
function newtonStep(round: Round, impulse: Float64Array): boolean {
  const { slope, off, step, active, driven } = round;
  const n = slope.length;
  let steepest = 0;
  for (const s of slope) steepest = Math.max(steepest, Math.abs(s));
  let m = 0;
  for (let k = 0; k < n; k++) if (Math.abs(slope[k]!) > 1e-4 * steepest) active[m++] = k;
  const size = m + 1;
  let room = round.matrices.get(size);
  if (!room) round.matrices.set(size, (room = { a: new Float64Array(size * size), b: new Float64Array(size) }));
  const { a, b } = room;
  for (let r = 0; r < m; r++) {
    const k = active[r]! + n;
    const row = r * size;
    for (let c = 0; c < m; c++) {
      const j = active[c]!;
      a[row + c] = -impulse[k - j]! * slope[j]!;
    }
    a[row + r]! += 1;
    a[row + m] = -1;
    b[r] = -off[active[r]!]!;
  }
  for (let c = 0; c < m; c++) a[m * size + c] = slope[active[c]!]! / n;
  a[m * size + m] = 0;
  b[m] = -off[n]!;
  if (!solveInPlace(a, b)) return false;
  for (let c = 0; c < m; c++) driven[c] = slope[active[c]!]! * b[c]!;
  step[n] = b[m]!;
  for (let k = 0; k < n; k++) {
    let sum = b[m]! - off[k]!;
    for (let c = 0; c < m; c++) sum += impulse[k - active[c]! + n]! * driven[c]!;
    step[k] = sum;
  }
  return true;
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

/** Response in volts to one ampere in one of `n` steps, the mean left out: `[d]` and `[d + n]` are d steps after it. */
export function impulseOf(z: Impedances, n: number): Float64Array {
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

const ofOneFarad = new Map<number, Float64Array>();

/** The same of a capacitor alone, whose impedance is 1/(jωC) at every multiple. @param hertz of the ripple. */
export function capacitorImpulse(farads: number, hertz: number, n: number): Float64Array {
  let one = ofOneFarad.get(n);
  if (!one) {
    const half = n / 2;
    const im = Float64Array.from({ length: half }, (_, k) => -1 / (2 * Math.PI * (k + 1)));
    ofOneFarad.set(n, (one = impulseOf({ re: new Float64Array(half), im }, n)));
  }
  const scale = 1 / (farads * hertz);
  return one.map((v) => v * scale);
}

/** Volts peak to peak. */
export function swingOf({ course }: PulseTrain): number {
  let [low, high] = [Infinity, -Infinity];
  for (const v of course) [low, high] = [Math.min(low, v), Math.max(high, v)];
  return high - low;
}
