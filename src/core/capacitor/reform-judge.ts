/** What the leakage of a capacitor on its supply says so far: keep it, go on, raise the supply, stop and replace. */

import { formatDuration, formatQuantity } from "../quantity/format";
import { fitDecay, LEAST_POINTS, timeToLimit, type DecayFit, type DecayPoint, type Interval } from "../numeric/decay-fit";
import * as texts from "../texts/capacitor";

export interface ReformReading {
  /** Seconds under voltage, pauses left out. */
  seconds: number;
  supply: number;
  volts: number;
  amps: number;
  /** Last digit of the meter's range, amperes. */
  digit?: number;
}

export interface ReformAsk {
  /** Of the step that is on, oldest first. */
  points: readonly ReformReading[];
  /** Seconds under voltage at which the step began. */
  began: number;
  farads: number;
  ohms: number;
  supply: number;
  target: number;
  /** Amperes allowed at the target. */
  limit: number;
  dwellSeconds: number;
  /** The most volts that it held at earlier steps. */
  heldBefore?: number;
}

export interface ReformVerdict {
  kind: "keep" | "go on" | "raise" | "stop";
  why: string;
  /** Of the leakage as it would be with the whole supply across it, amperes. */
  fit?: DecayFit;
  /** Amperes that the meter may show at this step, its series resistor reckoned with. */
  limit: number;
  /** Seconds from the last reading until the limit is reached, with the interval that holds it in 95 of 100 cases. */
  left?: { seconds: number; within: Interval };
}

/** A charging current is over after so many time constants of the series resistor. */
const CHARGED = 6;
/** Parts of the supply: what a sound one had before a puncture, and what is left then; from where on its leakage can be told. */
const HELD = 0.5;
const PUNCTURED = 0.2;
const TOLD = 0.4;
/** Of the supply, in the second half of a step: less is no coming up, after so many times the dwell. */
const COMES_UP = 0.02;
const NO_MORE = 3;
/** Percent that a meter of the bench is off by, and the digit where nobody has said it. */
const METER = 0.01;
const USUAL_DIGIT = 1e-6;
/** Above its least by so many parts, over so many seconds: it rises. */
const RISES = 1.15;
const RISES_FOR = 60;
/** Parts of the target: what is left is in the series resistor, which takes an eighth at the limit itself. */
const REACHED = 0.85;
const FAR_OFF = 10;
/** The last reading within so much of the limit counts only by its fit. */
const CLEAR = 0.9;

/**
 * Leakage as it would be with the whole supply across the capacitor, I·S/V: in the series resistor a bad one loses volts, and less leaks.
 * What the meter shows of it again is `metered`.
 */
const whole = (p: Pick<ReformReading, "amps" | "supply" | "volts">): number => (p.amps * p.supply) / p.volts;

/** What the meter shows of a leakage `amps` at the whole supply: I = A/(1 + A·R/S). */
export const metered = (amps: number, ohms: number, supply: number): number => amps / (1 + (amps * ohms) / supply);

/** Readings as points of a fit: what the capacitor still charges with, and what the resistor alone limits, is left out. */
export function fittedPoints({ points, began, ohms, farads }: Pick<ReformAsk, "points" | "began" | "ohms" | "farads">): DecayPoint[] {
  return points
    .filter((p) => p.seconds - began >= CHARGED * ohms * farads && p.volts >= TOLD * p.supply)
    .map((p) => ({
      t: p.seconds,
      value: whole(p),
      // d(I·S/(S − I·R))/dI = (S/V)².
      sigma: (p.supply / p.volts) ** 2 * Math.hypot(METER * p.amps, (p.digit ?? USUAL_DIGIT) / Math.sqrt(12)),
    }));
}

export function judgeReform(ask: ReformAsk): ReformVerdict {
  const { points, began, ohms, farads, supply, target, dwellSeconds } = ask;
  const allowed = ask.limit * Math.min(1, supply / target);
  const limit = metered(allowed, ohms, supply);
  const last = points.at(-1);
  if (!last) return { kind: "go on", why: texts.readFirst(), limit };
  const at = last.seconds - began;
  const charged = at >= CHARGED * ohms * farads;
  const shown = formatQuantity(last.amps, "A", 3);
  const bound = formatQuantity(limit, "A", 3);
  const volts = (v: number) => Math.round(v);
  const held = Math.max(ask.heldBefore ?? 0, ...points.map((p) => p.volts));
  if (charged && supply >= 10 && last.volts < PUNCTURED * supply && held > HELD * supply)
    return { kind: "stop", why: texts.punctured(volts(last.volts), volts(held), supply), limit };
  const clean = fittedPoints(ask);
  if (clean.length === 0 && charged) {
    // It takes all that the resistor lets through: so long as its volts come up it reforms.
    const middle = points.findLast((p) => p.seconds - began <= at / 2);
    const rose = middle ? last.volts - middle.volts : Infinity;
    if (at >= NO_MORE * dwellSeconds && rose < COMES_UP * supply)
      return { kind: "stop", why: texts.takesAll(volts(last.volts), supply), limit };
    return { kind: "go on", why: texts.comesUp(volts(last.volts), supply), limit };
  }
  const least = clean.length > 0 ? clean.reduce((a, b) => (b.value < a.value ? b : a)) : undefined;
  const now = clean.at(-1);
  if (least && now && last.seconds - least.t >= RISES_FOR && now.value > RISES * least.value + 2 * now.sigma && rising(clean, least))
    return { kind: "stop", why: texts.leakageRises(formatQuantity(metered(least.value, ohms, supply), "A", 3), shown), limit };
  const fit = fitDecay(clean);
  const time = fit && timeToLimit(clean, fit, allowed);
  const left = time && {
    seconds: Math.max(0, time.seconds - last.seconds),
    within: [Math.max(0, time.within[0] - last.seconds), Math.max(0, time.within[1] - last.seconds)] as const,
  };
  const more = { limit, ...(fit ? { fit } : {}), ...(left ? { left } : {}) };
  const under = charged && last.amps <= limit;
  if (under && at < dwellSeconds) return { kind: "go on", why: texts.underDwell(shown, bound, formatDuration(dwellSeconds - at)), ...more };
  if (under && supply < target) return { kind: "raise", why: texts.underRaise(shown, bound), ...more };
  if (under && last.volts >= REACHED * target && (last.amps <= CLEAR * limit || !fit || fit.within.final[0] <= allowed))
    return { kind: "keep", why: texts.underKeep(shown, bound), ...more };
  if (under) return { kind: "go on", why: texts.voltsNotThere(volts(last.volts), target), ...more };
  if (fit && at >= dwellSeconds && fit.within.final[0] > allowed && levelled(clean, began, allowed))
    return {
      kind: "stop",
      why: texts.endsAbove(
        formatQuantity(metered(fit.final, ohms, supply), "A", 2),
        formatQuantity(metered(fit.within.final[0], ohms, supply), "A", 2),
        bound,
      ),
      ...more,
    };
  if (left)
    return {
      kind: "go on",
      why: texts.reachesIn(
        formatDuration(left.seconds),
        formatDuration(left.within[0]),
        Number.isFinite(left.within[1]) ? formatDuration(left.within[1]) : texts.neverPerhaps(),
      ),
      ...more,
    };
  return {
    kind: "go on",
    why: clean.length < LEAST_POINTS ? texts.fewReadings(clean.length, LEAST_POINTS) : texts.cannotTellYet(bound),
    ...more,
  };
}

/**
 * It has levelled off above a limit: at the pace of the second half of the step it would need ten times as long as it has had. The fit alone
 * does not decide: no real oxide follows one exponential, and its interval holds only for one that does.
 */
function levelled(points: readonly DecayPoint[], began: number, limit: number): boolean {
  const last = points.at(-1)!;
  const at = last.t - began;
  const middle = points.findLast((p) => p.t - began <= at / 2) ?? points[0]!;
  const pace = (middle.value - last.value) / (last.t - middle.t);
  return pace <= 0 || (last.value - limit) / pace > FAR_OFF * at;
}

/** Not one odd reading: the last three stand above the least by more than they scatter. */
function rising(points: readonly DecayPoint[], least: DecayPoint): boolean {
  const after = points.filter((p) => p.t > least.t).slice(-3);
  return after.length === 3 && after.every((p) => p.value > least.value + 3 * p.sigma) && after[2]!.value >= after[0]!.value;
}
