/** A waveform as an oscilloscope stores it: text with columns of time and volts; read, cut to whole periods, and laid over a computed one. */

import * as texts from "../texts/output";
import { resample } from "./tone";
import { waveFigures, type WaveFigures } from "./wave-figures";

export type ScopeRead = { ok: true; wave: ScopeWave } | { ok: false; why: string; accepted: string };

export interface ScopeWave {
  hertz: number;
  /** Whole periods in the file. */
  periods: number;
  /** Rows with figures, and rows that had none. */
  rows: number;
  skipped: number;
  /** Volts that were taken off: the wave's mean. */
  offset: number;
  /** One period, the mean of all of them, from where the fundamental rises through zero. */
  wave: number[];
  figures: WaveFigures;
}

/** Rows that are kept: of a longer file every so many are averaged. */
const MOST_ROWS = 200_000;
const SAMPLES = 200;

/**
 * Reads columns of time and volts, separated by comma, semicolon, tab or spaces; headers and lines of text are passed over. Of one
 * column the spacing is unknown: then its period is taken as that of `hertz`.
 * @param column which column of volts, 1 for the first after time.
 */
export function readScope(text: string, { column = 1, hertz }: { column?: number; hertz?: number } = {}): ScopeRead {
  const accepted = texts.scopeAccepted();
  const t: number[] = [];
  const v: number[] = [];
  let [rows, skipped] = [0, 0];
  // Two million rows are read line by line, without a list of their texts.
  const decimalComma = /^\s*-?\d+,\d+(?:e[-+]?\d+)?\s*[;\t]/im.test(text.slice(0, 4000));
  const separator = decimalComma ? /[;\t]\s*/ : /[,;\t]\s*|\s+/;
  for (let at = 0; at < text.length;) {
    let end = text.indexOf("\n", at);
    if (end < 0) end = text.length;
    const line = text.slice(at, end).trim();
    at = end + 1;
    if (line === "") continue;
    const cells = line.split(separator).filter((c) => c !== "");
    const number = (cell: string | undefined) => (cell === undefined ? NaN : Number(decimalComma ? cell.replace(",", ".") : cell));
    const single = cells.length === 1;
    const [time, volts] = single ? [rows, number(cells[0])] : [number(cells[0]), number(cells[column])];
    if (!Number.isFinite(time) || !Number.isFinite(volts)) {
      skipped++;
      continue;
    }
    rows++;
    t.push(time);
    v.push(volts);
  }
  if (rows < 64) return { ok: false, why: texts.scopeTooFew(rows, skipped), accepted };
  const rising = t.every((x, i) => i === 0 || x > t[i - 1]!);
  if (!rising) return { ok: false, why: texts.scopeTimeBack(), accepted };
  const thin = thinned(t, v);
  const period = periodOf(thin.t, thin.v);
  if (period === undefined) return { ok: false, why: texts.scopeNoPeriod(), accepted };
  const length = thin.t.at(-1)! - thin.t[0]!;
  const periods = Math.floor(length / period + 0.02);
  if (periods < 1) return { ok: false, why: texts.scopeNoPeriod(), accepted };
  const usable = Math.min(periods, 200);
  const all = resample(thin.t, thin.v, thin.t[0]!, usable * period, usable * SAMPLES);
  const whole = waveFigures(all, usable);
  const offset = all.reduce((a, b) => a + b, 0) / all.length;
  // Averaged over the periods, begun where the fundamental rises through zero.
  const shift = Math.round((-whole.phase / (2 * Math.PI)) * SAMPLES);
  const wave = Array.from({ length: SAMPLES }, (_, i) => {
    let sum = 0;
    for (let p = 0; p < usable; p++) sum += all[(((p * SAMPLES + i + shift) % all.length) + all.length) % all.length]!;
    return sum / usable - offset;
  });
  const single = !/[,;\t]/.test(text.slice(0, 2000)) && t[1] === 1 && t[0] === 0;
  return {
    ok: true,
    wave: { hertz: single ? (hertz ?? NaN) : 1 / period, periods, rows, skipped, offset, wave, figures: waveFigures(wave) },
  };
}

function thinned(t: readonly number[], v: readonly number[]): { t: number[]; v: number[] } {
  const every = Math.ceil(t.length / MOST_ROWS);
  if (every === 1) return { t: [...t], v: [...v] };
  const out = { t: [] as number[], v: [] as number[] };
  for (let i = 0; i + every <= t.length; i += every) {
    let [st, sv] = [0, 0];
    for (let k = 0; k < every; k++) {
      st += t[i + k]!;
      sv += v[i + k]!;
    }
    out.t.push(st / every);
    out.v.push(sv / every);
  }
  return out;
}

/**
 * The time between crossings of the mean in one direction, on average; of rising and falling ones those of which there are more: a file of
 * two periods that begins at its trigger has one rise inside it and two falls.
 */
function periodOf(t: readonly number[], v: readonly number[]): number | undefined {
  const mean = v.reduce((a, b) => a + b, 0) / v.length;
  const low = v.reduce((a, b) => Math.min(a, b), Infinity) - mean;
  const high = v.reduce((a, b) => Math.max(a, b), -Infinity) - mean;
  if (!(high - low > 0)) return undefined;
  const rises = risesOf(t, (i) => v[i]! - mean, low, high);
  const falls = risesOf(t, (i) => mean - v[i]!, -high, -low);
  const crossings = falls.length > rises.length ? falls : rises;
  if (crossings.length >= 2) return (crossings.at(-1)! - crossings[0]!) / (crossings.length - 1);
  // One period has one crossing or two at its ends: then the file is taken for just that, if it ends where it began.
  const size = high - low;
  return Math.abs(v.at(-1)! - v[0]!) < 0.1 * size ? (t.at(-1)! - t[0]!) * (v.length / (v.length - 1)) : undefined;
}

/** Times at which `at` rises through zero: a crossing counts between three tenths of the lower peak and three tenths of the upper. */
function risesOf(t: readonly number[], at: (i: number) => number, low: number, high: number): number[] {
  const rises: number[] = [];
  let armed = false;
  let crossed: number | undefined;
  for (let i = 1; i < t.length; i++) {
    const [a, b] = [at(i - 1), at(i)];
    if (b < 0.3 * low) {
      armed = true;
      crossed = undefined;
    }
    if (armed && a <= 0 && b > 0) crossed ??= t[i - 1]! + ((t[i]! - t[i - 1]!) * -a) / (b - a);
    if (armed && b > 0.3 * high && crossed !== undefined) {
      rises.push(crossed);
      armed = false;
    }
  }
  return rises;
}

/** A computed period turned so that its fundamental rises through zero at its beginning, as a read one does. */
export function aligned(wave: readonly number[]): number[] {
  const { phase } = waveFigures(wave);
  const n = wave.length;
  const shift = Math.round((-phase / (2 * Math.PI)) * n);
  const mean = wave.reduce((a, b) => a + b, 0) / n;
  return Array.from({ length: n }, (_, i) => wave[(((i + shift) % n) + n) % n]! - mean);
}
