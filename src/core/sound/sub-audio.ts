/** What repeats too slowly to be heard as a tone: motor-boating. Found by how a recording resembles itself one beat later. */

import FFT from "fft.js";
import { struckness } from "./gated";

export interface SubAudio {
  /** Beats a second. */
  hertz: number;
  /** 0 to 1: how alike one beat is to the next. */
  alike: number;
  /** Mean square of what beats. */
  power: number;
  /** Only its loudness beats: what sounds in it is higher. */
  swells?: boolean;
}

/** Slower than this nobody calls it motor-boating, faster it is a tone. */
const SLOWEST = 0.7;
const FASTEST = 22;
/** Rate to which the recording is brought down, and the part of it that is looked at. */
const LOW_RATE = 480;
const MOST_SECONDS = 30;
/** Content up to here carries the beats; the mains and its multiples are left out of it. */
const UP_TO = 170;
const MAINS_WIDTH = 0.8;
const LEAST_ALIKE = 0.45;

/** Swings of the loudness below this part of its mean are none. */
const LEAST_SWING = 0.6;

/** @param mains hertz. @returns undefined where nothing beats. */
export function subAudioOf(x: Float32Array, rate: number, mains: number): SubAudio | undefined {
  const low = broughtDown(x, rate);
  const [whole, slow] = [beatOf(low, mains), beatOf(low, mains, JITTERY_UP_TO)];
  // A beat whose pace wavers is alike to itself only in its slow part.
  const beat = whole && slow && slow.alike > whole.alike + 0.1 && slow.power > 0.3 * whole.power ? slow : whole;
  if (beat) return beat;
  const swell = swellOf(x, rate, mains);
  return swell && struckness(x, rate) < STRUCK ? swell : undefined;
}

/** Content of a beat whose pace wavers that is still alike from one to the next. */
const JITTERY_UP_TO = 14;
/** Loudness that rises so much faster than it falls is something struck, tap by tap. */
const STRUCK = 2.5;

/** The same of the loudness: bursts of something that has no low frequency of its own. */
function swellOf(x: Float32Array, rate: number, mains: number): SubAudio | undefined {
  // Over one whole period of the mains, so that its own pulses do not count as loud and soft.
  const by = Math.max(1, Math.round(rate / (4 * mains)));
  const quarter = new Float32Array(Math.min(Math.floor(x.length / by), Math.floor((MOST_SECONDS * rate) / by)));
  const samples = new Float32Array(Math.max(0, quarter.length - 3));
  let power = 0;
  for (let i = 0; i < quarter.length; i++) {
    let sum = 0;
    for (let j = 0; j < by; j++) sum += x[i * by + j]! ** 2;
    quarter[i] = sum / by;
  }
  for (let i = 0; i < samples.length; i++) {
    const sum = (quarter[i]! + quarter[i + 1]! + quarter[i + 2]! + quarter[i + 3]!) / 4;
    samples[i] = Math.sqrt(sum);
    power += sum / samples.length;
  }
  const mean = samples.reduce((a, b) => a + b, 0) / samples.length;
  const swing = Math.sqrt(Math.max(0, power - mean * mean)) / Math.max(mean, 1e-12);
  if (swing < LEAST_SWING) return undefined;
  const beat = beatOf({ samples, rate: rate / by }, mains);
  return beat && { ...beat, power, swells: true };
}

function beatOf(low: { samples: Float32Array; rate: number }, mains: number, upTo = UP_TO): SubAudio | undefined {
  const size = 2 ** Math.ceil(Math.log2(2 * low.samples.length));
  const fft = new FFT(size);
  const data = new Float64Array(size);
  const mean = low.samples.reduce((a, b) => a + b, 0) / low.samples.length;
  const n = low.samples.length;
  for (let i = 0; i < n; i++) data[i] = (low.samples[i]! - mean) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / n));
  const out = fft.createComplexArray();
  fft.realTransform(out, data);
  const step = low.rate / size;
  // The power, folded to both sides, transformed again: how alike the course is to itself, lag by lag.
  const folded = new Float64Array(size);
  let power = 0;
  for (let k = 1; k < size / 2 && k * step <= Math.min(upTo, 0.45 * low.rate); k++) {
    const hertz = k * step;
    const order = Math.round(hertz / mains);
    const ofMains = order > 0 && Math.abs(hertz - order * mains) < MAINS_WIDTH + (2 * low.rate) / n;
    if (hertz < 0.4 * SLOWEST || ofMains) continue;
    const p = (2 * (out[2 * k]! ** 2 + out[2 * k + 1]! ** 2)) / (size * n * 0.375);
    folded[k] = folded[size - k] = p / 2;
    power += p;
  }
  if (power <= 0) return undefined;
  fft.realTransform(out, folded);
  const longest = Math.min(1.02 / SLOWEST, 0.5 * (n / low.rate));
  const lags = Array.from({ length: Math.floor(longest * low.rate) }, (_, i) => (i + 1) / low.rate);
  // The window thins the overlap out: taken off again by its own likeness.
  const course = lags.map((_, i) => out[2 * (i + 1)]! / power / Math.max(0.2, hannLikeness((i + 1) / n)));
  const peaks: { lag: number; alike: number }[] = [];
  let lowest = 1;
  for (let i = 1; i + 1 < course.length; i++) {
    lowest = Math.min(lowest, course[i]!);
    if (course[i]! > course[i - 1]! && course[i]! >= course[i + 1]! && course[i]! - lowest > LEAST_ALIKE)
      peaks.push({ lag: lags[i]!, alike: Math.min(1, course[i]!) });
  }
  const best = Math.max(0, ...peaks.map((p) => p.alike));
  const first = peaks.find((p) => p.alike >= 0.8 * best);
  if (!first || first.alike < LEAST_ALIKE) return undefined;
  const hertz = 1 / first.lag;
  return hertz >= SLOWEST && hertz <= FASTEST ? { hertz, alike: first.alike, power } : undefined;
}

/** Averages of a few samples each, twice: what lies above goes, what lies below stays. */
function broughtDown(x: Float32Array, rate: number): { samples: Float32Array; rate: number } {
  const by = Math.max(1, Math.floor(rate / LOW_RATE));
  const most = Math.min(Math.floor(x.length / by), Math.floor((MOST_SECONDS * rate) / by));
  const out = new Float32Array(most);
  let before = 0;
  for (let i = 0; i < most; i++) {
    let sum = 0;
    for (let j = 0; j < by; j++) sum += x[i * by + j]!;
    out[i] = (sum / by + before) / 2;
    before = sum / by;
  }
  return { samples: out, rate: rate / by };
}

/** How alike a Hann window of length 1 is to itself `d` later. */
function hannLikeness(d: number): number {
  const a = 2 * Math.PI * d;
  return ((1 - d) * (2 + Math.cos(a)) + (1.5 / Math.PI) * Math.sin(a)) / 3;
}
