/**
 * A bench meter: ranges, counts, accuracy, noise, settling, and a choice of range of its own that takes time and can mislead.
 * It shows what is at its probes; where they are is the hand's business.
 */

import type { MeterLine } from "@/core/instrument/protocol";
import type { ReadingKind } from "@/core/tape/events/words";
import { normalDraws, uniformDraws } from "@/core/numeric/random";

/** Full scales of each function, base units; milliamperes for ma. */
const RANGES: Partial<Record<ReadingKind, number[]>> = {
  dcv: [0.2, 2, 20, 200, 1000],
  acv: [0.2, 2, 20, 200, 750],
  ma: [2, 20, 200, 2000],
  ohm: [200, 2e3, 20e3, 200e3, 2e6, 20e6],
  // The volts of a lifted leg; the tube tester's dial.
  leak: [0.2, 2, 20, 200, 1000],
  gm: [200],
};
/** Counts of the display. */
const COUNTS = 20_000;
/** Gain error of this meter is drawn within these parts of the reading; offset and noise in last digits. */
const ACCURACY: Partial<Record<ReadingKind, number>> = { dcv: 0.0015, acv: 0.008, ma: 0.004, ohm: 0.004 };
const NOISE_DIGITS = 0.7;
/** Input filter, seconds; resistances and alternating volts settle slower. */
const SETTLING: Partial<Record<ReadingKind, number>> = { dcv: 0.12, acv: 0.35, ma: 0.12, ohm: 0.25 };
/** Seconds for which the display is blank while the meter steps one range. */
const RANGE_STEP = 0.25;
/** It steps down when the reading would fill less than this part of the range below. */
const STEP_DOWN = 0.9;
/** Stray volts that an open lead of 10 MΩ picks up: size, and how long they keep their mind. */
const STRAY_VOLTS = 0.03;
const STRAY_KEPT = 0.6;

export class SimulatedMeter {
  private kind: ReadingKind = "dcv";
  private range = 1000;
  private auto = true;
  private n = 0;
  /** What the filter holds, and the time of it. */
  private filtered = 0;
  private at = 0;
  private blankUntil = 0;
  private stray = 0;
  private readonly gain: Partial<Record<ReadingKind, number>>;
  private readonly noise: () => number;

  constructor(seed: number) {
    const draw = uniformDraws(seed);
    this.gain = Object.fromEntries(Object.entries(ACCURACY).map(([kind, part]) => [kind, 1 + (2 * draw() - 1) * part]));
    this.noise = normalDraws(seed + 1);
  }

  /** Turns the dial: a function, and a manual range at least as large as asked for, or the meter's own choice. */
  choose(kind: ReadingKind, range: number | undefined, at: number): void {
    const ranges = RANGES[kind];
    if (!ranges) return;
    const wanted = range === undefined ? undefined : (ranges.find((r) => r >= range) ?? ranges.at(-1)!);
    if (kind !== this.kind) {
      this.kind = kind;
      this.filtered = 0;
      this.range = wanted ?? ranges.at(-1)!;
      this.blankUntil = at + 1000 * RANGE_STEP;
    } else if (wanted !== undefined && wanted !== this.range) {
      this.range = wanted;
      this.blankUntil = at + 1000 * RANGE_STEP;
    }
    this.auto = range === undefined;
  }

  get function(): ReadingKind {
    return this.kind;
  }

  /**
   * What the display shows at `at` milliseconds.
   * @param input what is between the probes, in the function's unit: undefined for open leads, Infinity for an open circuit in ohms.
   */
  show(input: number | undefined, at: number): MeterLine {
    const seconds = this.at === 0 ? 1 : Math.max(0, at - this.at) / 1000;
    this.at = at;
    this.stray = STRAY_KEPT * this.stray + STRAY_VOLTS * this.noise();
    const open = this.kind === "ohm" ? Infinity : this.kind === "ma" ? 0 : this.kind === "acv" ? Math.abs(this.stray) * 4 : this.stray;
    const target = (input ?? open) * (this.gain[this.kind] ?? 1);
    const tau = SETTLING[this.kind] ?? 0.15;
    if (!Number.isFinite(target) || !Number.isFinite(this.filtered)) this.filtered = target;
    else this.filtered += (target - this.filtered) * (1 - Math.exp(-seconds / tau));

    if (this.auto && at >= this.blankUntil) this.stepRange(at);
    const digit = this.range / COUNTS;
    const line: MeterLine = { tell: "meter", n: this.n++, at, kind: this.kind, digit: tidy(digit), range: this.range, auto: this.auto };
    if (at < this.blankUntil) return line;
    if (Math.abs(this.filtered) > this.range) return { ...line, over: true };
    const digits = Math.round(this.filtered / digit + NOISE_DIGITS * this.noise());
    return { ...line, value: tidy(digits * digit) + 0 };
  }

  private stepRange(at: number): void {
    const ranges = RANGES[this.kind]!;
    const i = ranges.indexOf(this.range);
    const size = Math.abs(this.filtered);
    const to = size > this.range ? i + 1 : i > 0 && size < STEP_DOWN * ranges[i - 1]! ? i - 1 : i;
    if (to === i || to < 0 || to >= ranges.length) return;
    this.range = ranges[to]!;
    this.blankUntil = at + 1000 * RANGE_STEP;
  }
}

const tidy = (x: number) => Number(x.toPrecision(12));
