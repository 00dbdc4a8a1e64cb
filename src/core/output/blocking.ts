/**
 * Blocking: an overdriven grid draws current and charges its coupling capacitor, the bias shifts, and creeps back when the tone stops.
 * Meanwhile the stage is cold or cut off. The transient is the truth; the closed form says where to look.
 */

import { ohmsToGround } from "../anatomy/points";
import type { Circuit } from "../circuit/circuit";
import { transient } from "../solver/transient";
import { leakOf, timeConstant } from "./grid-return";
import type { OutputStage } from "./output-stage";
import { burst, toneAmp, type ToneAmp } from "./tone";

/** Seconds of the tone, and of the watch after it. */
export const DRIVEN = 0.1;
const HERTZ = 400;
/** Times the drive at clip that a hard player gives. */
export const USUAL_DRIVE = 3;
const SAMPLES = 600;

export interface BlockingRun {
  /** Seconds from the start of the tone; every course below stands at these. */
  t: number[];
  /** Volts at the load. */
  out: number[];
  /** Grid-to-chassis volts of each output tube: the mean over a period while the tone plays, afterwards as they are. */
  grids: { tube: string; volts: number[]; rest: number; shifted: number }[];
  /** Seconds of tone. */
  driven: number;
  /** The furthest that a grid goes below its rest, by the drive or when it stops, volts. */
  shift: number;
  /** Seconds from the end of the tone until that grid is within 5 % of its shift, at least 50 mV, of rest; undefined where it was not by the end. */
  recovery?: number;
  /** Seconds for which the worst grid stands a quarter and 1 V more negative than at rest, the stage nearly cut off; 0 where it never is. */
  deaf: number;
  finished: boolean;
}

export interface BlockingQuestion {
  mains?: number;
  /** Volts peak at the input. */
  peak: number;
  /** Seconds watched after the tone; eight of the grids' longest time constants, 0.3 s to 3 s, unless given. */
  watch?: number;
  /** Relative error of a step: smaller for a finer transient. */
  tolerance?: number;
}

/** Drives the amp beyond clip, stops, and watches. @throws RangeError as `toneAmp` does. */
export function runBlocking(
  circuit: Circuit,
  stage: OutputStage,
  { mains, peak, watch, tolerance = 1e-3 }: BlockingQuestion,
  progress?: (part: number) => boolean | void,
): BlockingRun {
  const amp = toneAmp(circuit, stage, mains);
  const index = amp.op.network.index;
  const grids = [...new Map(stage.tubes.map((t) => [t.grid, t])).values()];
  const places = grids.map((g) => index.get(g.grid)!);
  const keep = [amp.speaker, ...places];
  // The grid current also charges what the grid leaks lead to: a bias supply takes far longer than the coupling capacitor to come back.
  const wait = watch ?? Math.min(3, Math.max(0.3, 8 * Math.max(...grids.map((g) => longestConstant(circuit, g.grid)))));
  const told = (from: number, part: number) => progress?.(from + 0.5 * part) !== false;
  const driven = transient(amp.op.network, {
    start: amp.op.x,
    stop: DRIVEN,
    drive: burst(amp.input, peak, HERTZ, DRIVEN),
    keep,
    mostStep: 1 / HERTZ / 40,
    tolerance,
    progress: (part) => told(0, part),
  });
  // Silence is watched with steps as long as the error lets them be.
  const silent = driven.finished
    ? transient(amp.op.network, {
        start: driven.end,
        stop: wait,
        keep,
        mostStep: wait / 200,
        tolerance,
        progress: (part) => told(0.5, part),
      })
    : undefined;
  const t = [...driven.t, ...(silent?.t.slice(1).map((x) => x + DRIVEN) ?? [])];
  const v = driven.v.map((course, i) => [...course, ...(silent?.v[i]!.slice(1) ?? [])]);
  return judge(
    t,
    v,
    grids.map((g) => g.name),
    amp,
    DRIVEN + wait,
    silent?.finished === true,
  );
}

/** Seconds of the slowest way back of a grid: its coupling capacitor, or the capacitor that holds the end of its leak. */
function longestConstant(circuit: Circuit, grid: string): number {
  const own = timeConstant(circuit, grid)?.seconds ?? 0.02;
  const leak = leakOf(circuit, grid);
  const end = leak?.nodes.find(
    (n) => n !== grid && circuit.elements.some((e) => e.letter === "C" && e.nodes.includes(n) && e.nodes.includes("0")),
  );
  const held = circuit.elements.find(
    (e) => e.letter === "C" && e.nodes.includes("0") && end !== undefined && end !== "0" && e.nodes.includes(end),
  );
  const ohms = end === undefined || end === "0" ? 0 : ohmsToGround(circuit, end);
  return Math.max(own, held?.value && Number.isFinite(ohms) ? held.value * Math.min(ohms, 100e3) : 0);
}

function judge(t: number[], v: number[][], names: string[], amp: ToneAmp, stop: number, finished: boolean): BlockingRun {
  // Half of the samples for the tone, half for the silence, however long that is.
  const half = SAMPLES / 2;
  const times = Array.from({ length: SAMPLES }, (_, i) =>
    i < half ? (DRIVEN * i) / half : DRIVEN + ((stop - DRIVEN) * (i - half)) / (half - 1),
  );
  const period = 1 / HERTZ;
  const grids = names.map((tube, i) => {
    const course = v[i + 1]!;
    const volts = slidingMean(t, course, times, period);
    return { tube, volts, rest: course[0]!, shifted: meanOver(t, course, DRIVEN - 2 * period, DRIVEN) };
  });
  // The inverter before it blocks too: what it does when the tone stops may take a grid further down than the drive did.
  const lowest = (i: number) => {
    const { rest, shifted } = grids[i]!;
    return t.reduce((low, at, k) => (at > DRIVEN ? Math.min(low, v[i + 1]![k]! - rest) : low), shifted - rest);
  };
  const shifts = names.map((_, i) => lowest(i));
  const shift = Math.min(...shifts);
  const worst = grids[shifts.indexOf(shift)]!;
  const close = Math.max(0.05 * Math.abs(shift), 0.05);
  // From the moment that the tone stops: the grid itself, no mean over a period.
  const course = v[names.indexOf(worst.tube) + 1]!;
  let back: number | undefined;
  for (let k = t.length - 1; k >= 0 && t[k]! >= DRIVEN; k--) {
    if (Math.abs(course[k]! - worst.rest) > close) break;
    back = t[k]!;
  }
  const gone = (rest: number, now: number) => now < rest * 1.25 - 1;
  let deaf = 0;
  for (let k = 1; k < t.length; k++) if (t[k]! > DRIVEN && gone(worst.rest, course[k]!)) deaf += t[k]! - t[k - 1]!;
  return {
    t: times,
    out: times.map((at) => valueAt(t, v[0]!, at)),
    grids,
    driven: DRIVEN,
    shift,
    ...(back === undefined || !finished ? {} : { recovery: back - DRIVEN }),
    deaf,
    finished,
  };
}

function valueAt(t: readonly number[], v: readonly number[], at: number): number {
  let [low, high] = [0, t.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (t[middle]! <= at) low = middle;
    else high = middle;
  }
  const part = Math.min(1, Math.max(0, (at - t[low]!) / (t[high]! - t[low]! || 1)));
  return v[low]! + (v[high]! - v[low]!) * part;
}

/** Mean of a course over an interval, by trapezoids between its own steps. */
function meanOver(t: readonly number[], v: readonly number[], from: number, to: number): number {
  let sum = 0;
  let before = { t: from, v: valueAt(t, v, from) };
  for (let k = 0; k < t.length; k++) {
    if (t[k]! <= from) continue;
    if (t[k]! >= to) break;
    sum += ((v[k]! + before.v) / 2) * (t[k]! - before.t);
    before = { t: t[k]!, v: v[k]! };
  }
  sum += ((valueAt(t, v, to) + before.v) / 2) * (to - before.t);
  return sum / (to - from);
}

const slidingMean = (t: readonly number[], v: readonly number[], times: readonly number[], period: number) => {
  // The integral at every step, so that each mean costs two look-ups.
  const integral = [0];
  for (let k = 1; k < t.length; k++) integral.push(integral[k - 1]! + ((v[k]! + v[k - 1]!) / 2) * (t[k]! - t[k - 1]!));
  return times.map((at) => {
    // Under drive a whole period that lies in it; afterwards what is there.
    if (at >= DRIVEN) return valueAt(t, v, at);
    const from = Math.min(DRIVEN - period, Math.max(0, at - period / 2));
    return (valueAt(t, integral, from + period) - valueAt(t, integral, from)) / period;
  });
};
