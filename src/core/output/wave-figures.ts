/** A waveform of whole periods in figures: harmonics, crossover notch, halves; the same for a computed and a measured one. */

import * as texts from "../texts/output";

export const HARMONICS = 9;

export interface WaveFigures {
  /** Volts peak of the first to the ninth harmonic. */
  harmonics: number[];
  /** Harmonics two to nine against the first, in parts. */
  distortion: number;
  /**
   * Depth of the crossover notch, 0 to 1. The time that the wave takes through a fifth of its swing is held against a sine's; where it takes
   * longer than on both sides of it, by that much it stands still. 0 is a clean crossing, near 1 a wave that stops there. An even bend of
   * the whole wave, as second harmonic makes it, is no notch; of an unbalanced pair it lies beside zero and is found there.
   */
  notch: number;
  /** Volts of the highest and the lowest point, from the mean. */
  top: number;
  bottom: number;
  /** Difference of the two in parts of their mean. */
  asymmetry: number;
  /** Volts rms. */
  rms: number;
  /** Radians by which the fundamental leads a sine. */
  phase: number;
}

/** Half the width of the window that the time is taken through, how far to each side its neighbours lie, and where it is looked for: parts of the peak. */
const WINDOW = 0.1;
const BESIDE = 0.3;
const LOOKED = 0.5;
const STEPS = 20;

/**
 * @param samples volts, evenly spaced over `periods` whole periods, the first sample not repeated at the end. At least 32 a period.
 * @throws RangeError with fewer samples, or where nothing moves.
 */
export function waveFigures(samples: ArrayLike<number>, periods = 1): WaveFigures {
  const n = samples.length;
  if (n < 32 * periods) throw new RangeError(texts.samplesWanted(32 * periods, n));
  let mean = 0;
  for (let i = 0; i < n; i++) mean += samples[i]!;
  mean /= n;
  const wave = Float64Array.from({ length: n }, (_, i) => samples[i]! - mean);
  const parts = Array.from({ length: HARMONICS }, (_, h) => component(wave, (h + 1) * periods));
  const harmonics = parts.map((p) => p.size);
  const top = wave.reduce((a, b) => Math.max(a, b), -Infinity);
  const bottom = wave.reduce((a, b) => Math.min(a, b), Infinity);
  if (!(harmonics[0]! > 1e-12)) throw new RangeError(texts.nothingMoves());
  const over = Math.hypot(...harmonics.slice(1));
  return {
    harmonics,
    distortion: over / harmonics[0]!,
    notch: notchOf(wave, top, bottom, periods),
    top,
    bottom,
    asymmetry: (2 * Math.abs(top + bottom)) / (top - bottom),
    rms: Math.sqrt(wave.reduce((sum, v) => sum + v * v, 0) / n),
    phase: parts[0]!.phase,
  };
}

/** Peak and phase of a harmonic, by the discrete Fourier sum. */
function component(wave: Float64Array, cycles: number): { size: number; phase: number } {
  let [re, im] = [0, 0];
  for (let i = 0; i < wave.length; i++) {
    const angle = (2 * Math.PI * cycles * i) / wave.length;
    re += wave[i]! * Math.cos(angle);
    im += wave[i]! * Math.sin(angle);
  }
  // A sine of phase 0 has re = 0 and im > 0.
  return { size: (2 * Math.hypot(re, im)) / wave.length, phase: Math.atan2(re, im) };
}

function notchOf(wave: Float64Array, top: number, bottom: number, periods: number): number {
  const n = wave.length;
  const peak = (top - bottom) / 2;
  const middle = (top + bottom) / 2;
  // Samples of the rising and the falling way apart: a notch may be in one alone.
  const length = n / periods;
  const cycle = wave.subarray(0, Math.round(length));
  const lowest = cycle.indexOf(cycle.reduce((a, b) => Math.min(a, b), Infinity));
  const highest = cycle.indexOf(cycle.reduce((a, b) => Math.max(a, b), -Infinity));
  const from = (start: number, end: number) => {
    const steps = (((end - start) % cycle.length) + cycle.length) % cycle.length || cycle.length;
    return Array.from({ length: steps + 1 }, (_, i) => (cycle[(start + i) % cycle.length]! - middle) / peak);
  };
  const deepest = (way: number[]) => {
    const slow = (level: number) => {
      let inside = 0;
      for (let i = 0; i + 1 < way.length; i++) inside += shareInside(way[i]! - level, way[i + 1]! - level, WINDOW);
      return inside / (Math.asin(Math.min(1, level + WINDOW)) - Math.asin(Math.max(-1, level - WINDOW)));
    };
    let depth = 0;
    for (let k = 0; k <= STEPS; k++) {
      const level = LOOKED * ((2 * k) / STEPS - 1);
      const here = slow(level);
      // Slower than on both sides: what only bends is slower than on one.
      const beside = Math.max(slow(level - BESIDE), slow(level + BESIDE));
      if (here > beside) depth = Math.max(depth, 1 - beside / here);
    }
    return depth;
  };
  return Math.max(deepest(from(lowest, highest)), deepest(from(highest, lowest)));
}

/** Part of a straight step from a to b that lies within ±band. */
function shareInside(a: number, b: number, band: number): number {
  const [low, high] = a < b ? [a, b] : [b, a];
  if (high === low) return Math.abs(a) <= band ? 1 : 0;
  return Math.max(0, Math.min(high, band) - Math.max(low, -band)) / (high - low);
}
