/**
 * The power spectrum of a recording, averaged over frames, and the steady part of it: what is there nearly all the time.
 * Source: P. D. Welch, "The use of fast Fourier transform for the estimation of power spectra", IEEE Trans. AU-15, 1967; Hann's window.
 */

import { median } from "d3-array";
import FFT from "fft.js";
import * as texts from "../texts/sound";

export interface Spectrum {
  /** Hertz from one bin to the next. */
  step: number;
  /** Mean square in each bin, full scale of a sine being 0.5; the average over the frames. */
  power: Float64Array;
  /** The same, the lower third of the frames alone: a tone that stays is in both, a note that is played is not. */
  steady: Float64Array;
  frames: number;
}

/** Length of a frame, seconds: long enough to part 100 from 120 and a mains line from a note. */
const FRAME_SECONDS = 0.9;
/** More frames than this are spread over the recording. */
const MOST_FRAMES = 64;
/** Frames begin no closer than this part of their length: a short recording is cut finely, so that what stays can be told. */
const CLOSEST = 8;
/** Which part of the frames, from the quietest on, counts as steady. */
const STEADY_PART = 0.3;
/** Bins that a line of Hann's window reaches to each side. */
export const LINE_BINS = 2;

/** @param progress told 0 to 1. @throws RangeError for a recording of fewer than 64 samples. */
export function spectrumOf(samples: Float32Array, rate: number, progress?: (part: number) => void): Spectrum {
  const longest = 2 ** Math.floor(Math.log2(samples.length));
  const size = Math.min(longest, 2 ** Math.round(Math.log2(FRAME_SECONDS * rate)));
  if (size < 64) throw new RangeError(texts.recordingSamplesLeastWanted(samples.length));
  const possible = 1 + Math.floor((samples.length - size) / (size / CLOSEST));
  const frames = Math.min(MOST_FRAMES, possible);
  const hop = frames > 1 ? (samples.length - size) / (frames - 1) : 0;
  const fft = new FFT(size);
  const window = Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size));
  // Scaled so that the bins of a line add up to its mean square: Hann's window has a mean square of 3/8.
  const scale = 2 / (size * size * 0.375);
  const bins = size / 2;
  const all: Float32Array[] = [];
  const power = new Float64Array(bins);
  const data = new Float64Array(size);
  const out = fft.createComplexArray();
  for (let f = 0; f < frames; f++) {
    const from = Math.round(f * hop);
    for (let i = 0; i < size; i++) data[i] = samples[from + i]! * window[i]!;
    fft.realTransform(out, data);
    const one = new Float32Array(bins);
    for (let k = 0; k < bins; k++) {
      const p = scale * (out[2 * k]! * out[2 * k]! + out[2 * k + 1]! * out[2 * k + 1]!);
      one[k] = p;
      power[k]! += p / frames;
    }
    all.push(one);
    progress?.((f + 1) / frames);
  }
  return { step: rate / size, power, steady: lower(all, power), frames };
}

/** Of each bin the value below which the steady part of its frames lies, scaled so that noise has the same level in both. */
function lower(frames: Float32Array[], power: Float64Array): Float64Array {
  if (frames.length < 4) return power.slice();
  const column = new Float32Array(frames.length);
  const at = Math.floor(STEADY_PART * frames.length);
  return power.map((_, k) => {
    for (let f = 0; f < frames.length; f++) column[f] = frames[f]![k]!;
    column.sort();
    return column[at]!;
  });
}

/** Mean square of the line nearest to `hertz`, what lies around it taken off; and what lies around it, per bin. */
export function lineAt(
  spectrum: Pick<Spectrum, "step">,
  power: Float64Array,
  hertz: number,
): { power: number; floor: number; hertz: number } {
  const middle = Math.round(hertz / spectrum.step);
  let peak = middle;
  for (const k of [middle - 1, middle + 1]) if ((power[k] ?? 0) > (power[peak] ?? 0)) peak = k;
  if (peak < 1 || peak + LINE_BINS >= power.length) return { power: 0, floor: 0, hertz };
  const floor = floorAround(power, peak, spectrum.step);
  // Still rising away from where it is looked for: the skirt of something stronger beside it.
  if (peak !== middle && power[2 * peak - middle]! > power[peak]!) return { power: 0, floor, hertz };
  let sum = 0;
  for (let k = Math.max(0, peak - LINE_BINS); k <= peak + LINE_BINS; k++) sum += power[k]!;
  return { power: Math.max(0, sum - (2 * LINE_BINS + 1) * floor), floor, hertz: peakHertz(power, peak, spectrum.step) };
}

/** Median power per bin from four bins off the line to 12 Hz off it, or as far again where bins are wide. */
export function floorAround(power: Float64Array, bin: number, step: number): number {
  const reach = Math.max(4 + 6, Math.round(12 / step));
  const around: number[] = [];
  for (let d = LINE_BINS + 2; d <= reach; d++) {
    if (bin - d > 0) around.push(power[bin - d]!);
    if (bin + d < power.length) around.push(power[bin + d]!);
  }
  return median(around) ?? 0;
}

/** The frequency between bins by a parabola through the logarithms. Source: J. O. Smith and X. Serra, ICMC 1987. */
export function peakHertz(power: Float64Array, bin: number, step: number): number {
  const at = (k: number) => Math.log(Math.max(power[k] ?? 0, 1e-30));
  const [a, b, c] = [at(bin - 1), at(bin), at(bin + 1)];
  const curve = a - 2 * b + c;
  return (bin + (curve < 0 ? Math.max(-0.5, Math.min(0.5, (0.5 * (a - c)) / curve)) : 0)) * step;
}

/** Sum of the power between two frequencies. */
export function bandPower(spectrum: Spectrum, from: number, to: number, power = spectrum.power): number {
  let sum = 0;
  const last = Math.min(power.length - 1, Math.floor(to / spectrum.step));
  for (let k = Math.max(1, Math.ceil(from / spectrum.step)); k <= last; k++) sum += power[k]!;
  return sum;
}

/** Decibels relative to a sine of full scale. */
export const decibelsFull = (meanSquare: number) => 10 * Math.log10(Math.max(meanSquare, 1e-20) / 0.5);
