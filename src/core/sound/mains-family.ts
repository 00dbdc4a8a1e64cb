/** The mains frequency and its multiples in a spectrum: where exactly they lie and how strong each is. */

import { decibelsFull, floorAround, lineAt, type Spectrum } from "./spectrum";

export interface MainsLine {
  /** 1 for the mains frequency itself. */
  order: number;
  hertz: number;
  /** Mean square. */
  power: number;
  /** Decibels above what lies around it. */
  above: number;
}

export interface MainsFamily {
  /** The mains frequency that fits the lines best, hertz. */
  hertz: number;
  lines: MainsLine[];
  /** Sum of decibels above the floor: how sure it is that there is a family at all. */
  score: number;
}

/** Multiples that are looked at. */
export const ORDERS = 40;
/** How far the mains may be off its nominal frequency: a ship's inverter or a generator wanders more than a grid. */
const OFF = 0.02;
const FINE = 0.02;
/** A line counts from so many decibels above its surroundings. */
export const STANDS_OUT = 9;
const MOST_COUNTED = 25;
/** Bins by which a line may be off the multiple that another line makes of itself. */
const AGREES = 0.4;

/** @param nominal hertz of the mains where it is known; both families are tried where not. */
export function mainsFamily(spectrum: Spectrum, nominal?: number): MainsFamily {
  const tried = nominal === undefined ? [50, 60] : [nominal];
  return tried.map((f) => familyNear(spectrum, f)).reduce((a, b) => (b.score > a.score ? b : a));
}

function familyNear(spectrum: Spectrum, nominal: number): MainsFamily {
  const { steady, step } = spectrum;
  const most = Math.min(ORDERS, Math.floor((0.47 * steady.length * step) / nominal / 0.5));
  const orders = Array.from({ length: Math.max(1, most) }, (_, i) => i + 1).filter((k) => (k * nominal) / step < steady.length - 8);
  const floors = orders.map((k) => Math.max(floorAround(steady, Math.round((k * nominal) / step), step), 1e-20));
  const logAt = (hertz: number) => {
    const at = hertz / step;
    const below = Math.floor(at);
    const log = (k: number) => Math.log(Math.max(steady[k] ?? 0, 1e-20));
    return log(below) + (at - below) * (log(below + 1) - log(below));
  };
  let best = { hertz: nominal, score: -1 };
  for (let f = nominal * (1 - OFF); f <= nominal * (1 + OFF); f += FINE) {
    let score = 0;
    orders.forEach((k, i) => {
      const above = (10 / Math.LN10) * (logAt(k * f) - Math.log(floors[i]!));
      // High orders fix the frequency best, but only where they are heard at all.
      score += Math.min(MOST_COUNTED, Math.max(0, above - STANDS_OUT));
    });
    // Of two that fit as well the one nearer to nominal.
    score -= (0.5 * Math.abs(f / nominal - 1)) / OFF;
    if (score > best.score) best = { hertz: f, score };
  }
  const linesAt = (f: number) =>
    orders.map((order): MainsLine => {
      const { power, floor, hertz } = lineAt(spectrum, steady, order * f);
      return { order, hertz, power, above: 10 * Math.log10((power + 1e-20) / (5 * floor + 1e-20)) };
    });
  // The lines themselves say it finer than the search: hertz = order × f by least squares, strong lines only.
  const found = linesAt(best.hertz);
  const strongest = Math.max(...found.map((l) => l.power));
  const strong = found.filter(
    (l) => l.above > 2 * STANDS_OUT && l.power > 1e-3 * strongest && Math.abs(l.hertz - l.order * best.hertz) < 1.5 * step,
  );
  // A strong tone beside a multiple must not draw the others to it: those that agree on one frequency count.
  const agreeing = strong
    .map((one) =>
      strong.filter((l) => Math.abs(l.hertz - (l.order * one.hertz) / one.order) < AGREES * step * Math.max(1, l.order / one.order)),
    )
    .reduce((a, b) => (b.length > a.length ? b : a), strong.slice(0, 1));
  const weight = agreeing.reduce((sum, l) => sum + l.order * l.order, 0);
  const hertz = weight > 0 ? agreeing.reduce((sum, l) => sum + l.order * l.hertz, 0) / weight : best.hertz;
  return { hertz, score: best.score, lines: linesAt(hertz) };
}

/** Whether the line of that order is there at all. */
export const isHeard = (family: MainsFamily, order: number) => (family.lines[order - 1]?.above ?? -Infinity) >= STANDS_OUT;

/** Whether the lines are those of the mains: one of the first two is there, or several together. A single high one fits any mains. */
export function isFamily(family: MainsFamily): boolean {
  return isHeard(family, 1) || isHeard(family, 2) || family.lines.filter((l) => l.order <= 16 && isHeard(family, l.order)).length >= 4;
}

/** Mean square of the lines that are heard among the orders that `wanted` picks. */
export function combPower(family: MainsFamily, wanted: (order: number) => boolean): number {
  return family.lines.reduce((sum, l) => sum + (wanted(l.order) && l.above >= STANDS_OUT ? l.power : 0), 0);
}

/** Decibels relative to full scale of one line; −120 when it is not heard. */
export function lineDecibels(family: MainsFamily, order: number): number {
  return isHeard(family, order) ? decibelsFull(family.lines[order - 1]!.power) : -120;
}
