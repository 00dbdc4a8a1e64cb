/** A waveform of whole periods in figures: harmonics, crossover notch, halves; the same for a computed and a measured one. */

import * as texts from "../texts/output";

export const HARMONICS = 9;

export interface WaveFigures {
  /** Volts peak of the first to the ninth harmonic. */
  harmonics: number[];
  /** Harmonics two to nine against the first, in parts. */
  distortion: number;
  /**
   * Depth of the crossover notch, 0 to 1: one less the time in which a clean sine of this size passes through its middle tenth, over the time
   * in which the wave does. 0 is a clean crossing, near 1 a wave that stands at zero.
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

/** Part of the peak on each side of zero that the notch is looked for in. */
const MIDDLE = 0.1;

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
    notch: notchOf(wave, harmonics[0]!, periods),
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

function notchOf(wave: Float64Array, peak: number, periods: number): number {
  const n = wave.length;
  const band = MIDDLE * peak;
  // Samples inside the middle band, each counted for the part of its step that lies inside.
  let inside = 0;
  for (let i = 0; i < n; i++) inside += shareInside(wave[i]!, wave[(i + 1) % n]!, band);
  const clean = ((2 * Math.asin(MIDDLE)) / Math.PI) * (n / periods) * periods;
  return inside > clean ? 1 - clean / inside : 0;
}

/** Part of a straight step from a to b that lies within ±band. */
function shareInside(a: number, b: number, band: number): number {
  const [low, high] = a < b ? [a, b] : [b, a];
  if (high === low) return Math.abs(a) <= band ? 1 : 0;
  return Math.max(0, Math.min(high, band) - Math.max(low, -band)) / (high - low);
}
