/**
 * The automatic hold: takes a reading by itself once the display stands still inside the meter's own noise for a while.
 * A probe that is open, wanders or has not been lifted since the last reading is not taken. Pure: a state and a sample give
 * the next state, times come with the samples.
 */

export interface Sample {
  /** Milliseconds by the instrument's clock. */
  at: number;
  /** Base units; undefined for an overload or a blank display. */
  value?: number;
  over?: boolean;
  /** The last digit of the display. */
  digit: number;
}

export interface HoldOptions {
  /** Milliseconds that the display has to stand still. */
  dwell: number;
  /** Samples that the dwell has to hold at least. */
  least: number;
  /** Half-width of still: so many last digits, and this part of the value. */
  digits: number;
  part: number;
  /** What should be here, where it is known: a zero where volts belong is a probe that touches nothing, until a key says otherwise. */
  expected?: number;
}

export const HOLD: HoldOptions = { dwell: 1200, least: 4, digits: 4, part: 0.002 };

export type HoldPhase =
  /** No sample yet. */
  | "silent"
  /** Still on the reading before: the probe has to leave it. */
  | "lift"
  /** Wanders about zero: the tip touches nothing. */
  | "open"
  | "over"
  | "moving"
  /** Inside the band, the dwell runs. */
  | "steadying"
  | "held"
  /** Goes up and down between two values and does not settle: a tremolo, or a supply that breathes. */
  | "swinging"
  /** Steady at nothing where something belongs: taken only by the key. */
  | "doubtful-zero";

export interface HoldState {
  options: HoldOptions;
  phase: HoldPhase;
  /** The samples of the last seconds, oldest first. */
  samples: Sample[];
  /** Mean of the still samples, or of a swing. */
  value?: number;
  /** Ends of a swing. */
  low?: number;
  high?: number;
  /** Part of the dwell that has passed, 0 to 1. */
  part: number;
  /** The display that must be left before the next hold counts. */
  leave?: { value: number; band: number };
}

/** Samples older than this say nothing any more. */
const KEPT_MS = 6000;
/** A change of so many bands, and of this part, from one sample to the next is a probe that was lifted; less is a rail that creeps. */
const LEFT_BANDS = 3;
const LEFT_PART = 0.05;
/** Between two samples of a hand-held meter. */
const USUAL_GAP_MS = 400;
/** After a longer gap any change that is not small counts: a probe that was moved meanwhile must not wait to be moved again. */
const MOST_MISSED = 4;
/** From this long on, what goes up and down is a swing and not a probe that is being placed. */
const SWING_MS = 4500;
const SWING_CROSSINGS = 3;
/** Stray volts that an open lead of ten megohms picks up. */
const STRAY_VOLTS = 0.5;
/** Zero counts as doubtful where at least this many bands belong. */
const DOUBT_BANDS = 10;
/** Less than this part of what belongs there is nothing. */
const NOTHING_PART = 0.02;

/** @param leave the reading before, when the probe may still lie on it. */
export function startHold(options: Partial<HoldOptions> = {}, leave?: { value: number; digit: number }): HoldState {
  const all = { ...HOLD, ...options };
  return {
    options: all,
    phase: "silent",
    samples: [],
    part: 0,
    ...(leave
      ? {
          leave: {
            value: leave.value,
            band: Math.max(LEFT_BANDS * bandOf(all, leave.value, leave.digit), LEFT_PART * Math.abs(leave.value)),
          },
        }
      : {}),
  };
}

/** Half-width of "still": the meter's noise floor by its resolution, and a part of the value. */
export function bandOf(options: HoldOptions, value: number, digit: number): number {
  return Math.max(options.digits * digit, options.part * Math.abs(value));
}

/** The next state. A sample that is not later than the last is not counted. */
export function feedHold(state: HoldState, sample: Sample): HoldState {
  const last = state.samples.at(-1);
  if (last && sample.at <= last.at) return state;
  const { options } = state;
  const leave = state.leave && stillOn(state.leave, sample, last);
  // What was seen on the point before does not count for this one.
  const since = state.leave && !leave ? [] : state.samples;
  const samples = [...since.filter((s) => s.at > sample.at - KEPT_MS), sample];
  const next: HoldState = { options, phase: "moving", samples, part: 0, ...(leave ? { leave } : {}) };
  if (leave) return { ...next, phase: "lift", value: sample.value };
  if (sample.value === undefined) return { ...next, phase: sample.over ? "over" : "moving" };

  const still = stillTail(samples, options);
  const value = mean(still);
  const band = bandOf(options, value, sample.digit);
  const lasted = sample.at - still[0]!.at;
  const part = Math.min(1, lasted / options.dwell);
  if (lasted >= options.dwell && still.length >= options.least && !drifts(still, band)) {
    const { expected } = options;
    const nothing =
      expected !== undefined && Math.abs(expected) > DOUBT_BANDS * band && Math.abs(value) <= NOTHING_PART * Math.abs(expected);
    return { ...next, phase: nothing ? "doubtful-zero" : "held", value, part: 1 };
  }
  const swing = swingOf(samples, band);
  if (swing) return { ...next, phase: "swinging", ...swing };
  if (still.length >= 2 && !drifts(still, band)) return { ...next, phase: "steadying", value, part };
  const recent = samples.filter((s) => s.value !== undefined && s.at > sample.at - options.dwell);
  const open = recent.length >= 2 && recent.every((s) => Math.abs(s.value!) < STRAY_VOLTS);
  return { ...next, phase: open ? "open" : "moving", value: sample.value };
}

/**
 * The display that has to be left, as it stands with this sample; undefined when it was left. It is followed: a rail that creeps while the
 * tubes warm is still the same rail under the same probe, and only a jump, a blank or an overload says that the probe was lifted.
 */
function stillOn(leave: { value: number; band: number }, sample: Sample, last: Sample | undefined): HoldState["leave"] {
  if (sample.value === undefined) return undefined;
  // Where samples are missing it has crept on meanwhile.
  const missed = last ? Math.min(MOST_MISSED, Math.max(1, (sample.at - last.at) / USUAL_GAP_MS)) : 1;
  return Math.abs(sample.value - leave.value) <= leave.band * missed ? { ...leave, value: sample.value } : undefined;
}

/** The longest run of samples up to now that stays inside one band; a blank or an overload ends it. */
function stillTail(samples: Sample[], options: HoldOptions): Sample[] {
  const newest = samples.at(-1)!;
  let low = newest.value!;
  let high = low;
  let first = samples.length - 1;
  for (let i = samples.length - 2; i >= 0; i--) {
    const { value, digit } = samples[i]!;
    // Another last digit is another range: the display means something else.
    if (value === undefined || digit !== newest.digit) break;
    const [l, h] = [Math.min(low, value), Math.max(high, value)];
    if (h - l > 2 * bandOf(options, (h + l) / 2, digit)) break;
    [low, high] = [l, h];
    first = i;
  }
  return samples.slice(first);
}

/** Does the second half stand elsewhere than the first? A point that still charges creeps inside its band. */
function drifts(still: Sample[], band: number): boolean {
  const half = Math.floor(still.length / 2);
  return half > 0 && Math.abs(mean(still.slice(half)) - mean(still.slice(0, half))) > 0.6 * band;
}

function swingOf(samples: Sample[], band: number): { value: number; low: number; high: number } | undefined {
  const known = samples.filter((s) => s.value !== undefined);
  if (known.length < 8 || known.length < samples.length || samples.at(-1)!.at - samples[0]!.at < SWING_MS) return undefined;
  const value = mean(known);
  const values = known.map((s) => s.value!);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const crossings = values.slice(1).filter((v, i) => v > value !== values[i]! > value).length;
  const steady = Math.abs(value) > STRAY_VOLTS && high - low < Math.abs(value);
  return high - low > 2 * band && crossings >= SWING_CROSSINGS && steady ? { value, low, high } : undefined;
}

function mean(samples: Sample[]): number {
  return samples.reduce((sum, s) => sum + s.value!, 0) / samples.length;
}
