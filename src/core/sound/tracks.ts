/**
 * Tones followed through a recording, frame by frame: one that wanders, grows, or is there for half a second is a tone all the same,
 * though the average over the whole hides it. Peaks of short frames are joined to the nearest of the frame before.
 * Source: R. J. McAulay and T. F. Quatieri, "Speech analysis/synthesis based on a sinusoidal representation", IEEE Trans. ASSP-34, 1986.
 */

import { extent, mean, median } from "d3-array";
import FFT from "fft.js";
import { decibelsFull } from "./spectrum";

export interface ToneTrack {
  /** Middle of the frequencies it went through. */
  hertz: number;
  /** Lowest and highest of them. */
  from: number;
  to: number;
  /** Seconds from its first frame to its last, and where the first begins. */
  seconds: number;
  start: number;
  /** Mean level while it is there, relative to a sine of full scale; and relative to all that is heard with it, decibels. */
  db: number;
  share: number;
  /** Decibels that it gains a second. */
  grows: number;
}

const FRAME_SECONDS = 0.17;
const LEAST_HERTZ = 230;
const MOST_HERTZ = 12_000;
/** Decibels above the middle of its surroundings, and part of its frame's loudness, that a peak must have. */
const STANDS_OUT = 18;
const LEAST_SHARE = -16;
const LEAST_DB = -78;
/** How far a tone may move from one frame to the next. */
const STEP_HERTZ = 9;
const STEP_PART = 0.012;
const MOST_PEAKS = 6;
const MOST_SECONDS = 60;

interface Peak {
  hertz: number;
  power: number;
  share: number;
}

/** Tracks of three frames or more, the loudest first. */
export function tracksOf(x: Float32Array, rate: number): ToneTrack[] {
  const size = 2 ** Math.round(Math.log2(FRAME_SECONDS * rate));
  const hop = size / 2;
  const frames = Math.floor((Math.min(x.length, MOST_SECONDS * rate) - size) / hop) + 1;
  if (frames < 3) return [];
  const fft = new FFT(size);
  const window = Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size));
  const data = new Float64Array(size);
  const out = fft.createComplexArray();
  const power = new Float64Array(size / 2);
  const open: { peaks: Peak[]; first: number; last: number }[] = [];
  for (let f = 0; f < frames; f++) {
    for (let i = 0; i < size; i++) data[i] = x[f * hop + i]! * window[i]!;
    fft.realTransform(out, data);
    for (let k = 0; k < size / 2; k++) power[k] = (2 * (out[2 * k]! ** 2 + out[2 * k + 1]! ** 2)) / (size * size * 0.375);
    for (const peak of peaksOf(power, rate / size)) {
      const reach = Math.max(STEP_HERTZ, STEP_PART * peak.hertz);
      const near = open
        .filter((t) => t.last === f - 1 && Math.abs(t.peaks.at(-1)!.hertz - peak.hertz) < reach)
        .sort((a, b) => Math.abs(a.peaks.at(-1)!.hertz - peak.hertz) - Math.abs(b.peaks.at(-1)!.hertz - peak.hertz))[0];
      if (near) {
        near.peaks.push(peak);
        near.last = f;
      } else open.push({ peaks: [peak], first: f, last: f });
    }
  }
  return open
    .filter((t) => t.peaks.length >= 3)
    .map(({ peaks, first, last }): ToneTrack => {
      const [lowest, highest] = extent(peaks, (p) => p.hertz);
      const seconds = ((last - first) * hop + size) / rate;
      const third = Math.max(1, Math.floor(peaks.length / 3));
      const level = (list: Peak[]) => decibelsFull(mean(list, (p) => p.power)!);
      return {
        hertz: median(peaks, (p) => p.hertz)!,
        from: lowest!,
        to: highest!,
        seconds,
        start: (first * hop) / rate,
        db: level(peaks),
        share: 10 * Math.log10(mean(peaks, (p) => p.share)! + 1e-12),
        grows: (level(peaks.slice(-third)) - level(peaks.slice(0, third))) / Math.max(0.1, (seconds * 2) / 3),
      };
    })
    .sort((a, b) => b.db - a.db);
}

/** The strongest peaks of one frame that stand out of what lies around them. */
function peaksOf(power: Float64Array, step: number): Peak[] {
  let total = 0;
  for (let k = Math.ceil(25 / step); k < power.length; k++) total += power[k]!;
  const found: Peak[] = [];
  const to = Math.min(power.length - 12, Math.floor(MOST_HERTZ / step));
  for (let k = Math.ceil(LEAST_HERTZ / step); k < to; k++) {
    const p = power[k]!;
    if (p < power[k - 1]! || p < power[k + 1]!) continue;
    const line = p + power[k - 1]! + power[k + 1]! + power[k - 2]! + power[k + 2]!;
    const share = line / (total + 1e-20);
    if (10 * Math.log10(share + 1e-12) < LEAST_SHARE || decibelsFull(line) < LEAST_DB) continue;
    const around: number[] = [];
    for (let d = 4; d <= 10; d++) around.push(power[k - d] ?? 0, power[k + d] ?? 0);
    if (10 * Math.log10(p / (median(around)! + 1e-20)) < STANDS_OUT) continue;
    const [a, b, c] = [power[k - 1]!, p, power[k + 1]!].map((v) => Math.log(v + 1e-20)) as [number, number, number];
    found.push({ hertz: (k + (a - c) / (2 * (a - 2 * b + c))) * step, power: line, share });
  }
  return found.sort((x, y) => y.power - x.power).slice(0, MOST_PEAKS);
}
