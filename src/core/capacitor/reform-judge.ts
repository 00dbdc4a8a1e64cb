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
}

export interface ReformVerdict {
  kind: "keep" | "go on" | "raise" | "stop";
  why: string;
  fit?: DecayFit;
  /** Amperes allowed at this step. */
  limit: number;
  /** Seconds from the last reading until the limit is reached, with the interval that holds it in 95 of 100 cases. */
  left?: { seconds: number; within: Interval };
}

/** A charging current is over after so many time constants of the series resistor. */
const CHARGED = 6;
/** Of the supply, across a capacitor that lets everything through. */
const PUNCTURED = 0.2;
/** Percent that a meter of the bench is off by, and the digit where nobody has said it. */
const METER = 0.01;
const USUAL_DIGIT = 1e-6;
/** Above its least by so many parts, over so many seconds: it rises. */
const RISES = 1.15;
const RISES_FOR = 60;
/** Watts inside that warm a can by hand. */
const HOT = 1.1;
/** At the target's volts, within the meter. */
const REACHED = 0.97;
/** The last reading within so much of the limit counts only by its fit. */
const CLEAR = 0.9;

/** Readings as points of a fit: what the capacitor still charges with is left out. */
export function fittedPoints({ points, began, ohms, farads }: Pick<ReformAsk, "points" | "began" | "ohms" | "farads">): DecayPoint[] {
  return points
    .filter((p) => p.seconds - began >= CHARGED * ohms * farads)
    .map((p) => ({ t: p.seconds, value: p.amps, sigma: Math.hypot(METER * p.amps, (p.digit ?? USUAL_DIGIT) / Math.sqrt(12)) }));
}

export function judgeReform(ask: ReformAsk): ReformVerdict {
  const { points, began, ohms, farads, supply, target, dwellSeconds } = ask;
  const allowed = ask.limit * Math.min(1, supply / target);
  const last = points.at(-1);
  if (!last) return { kind: "go on", why: texts.readFirst(), limit: allowed };
  const at = last.seconds - began;
  const charged = at >= CHARGED * ohms * farads;
  const shown = formatQuantity(last.amps, "A", 3);
  const bound = formatQuantity(allowed, "A", 3);
  if (charged && supply >= 10 && last.volts < PUNCTURED * supply)
    return { kind: "stop", why: texts.punctured(Math.round(last.volts), supply), limit: allowed };
  const clean = fittedPoints(ask);
  const least = clean.length > 0 ? clean.reduce((a, b) => (b.value < a.value ? b : a)) : undefined;
  const digit = last.digit ?? USUAL_DIGIT;
  if (least && last.seconds - least.t >= RISES_FOR && last.amps > RISES * least.value + 2 * digit && rising(clean, least))
    return { kind: "stop", why: texts.leakageRises(formatQuantity(least.value, "A", 3), shown), limit: allowed };
  // The step's own heat: no resistor of the plan lets more in than it was chosen for, unless another was fitted.
  const most = (HOT * target ** 2) / (4 * ohms);
  if (charged && last.volts * last.amps > Math.max(most, 0.3))
    return { kind: "stop", why: texts.heatsInside(formatQuantity(last.volts * last.amps, "W", 2)), limit: allowed };
  const fit = fitDecay(clean);
  const time = fit && timeToLimit(clean, fit, allowed);
  const left = time && {
    seconds: Math.max(0, time.seconds - last.seconds),
    within: [Math.max(0, time.within[0] - last.seconds), Math.max(0, time.within[1] - last.seconds)] as const,
  };
  const more = { fit, limit: allowed, ...(left ? { left } : {}) };
  const under = charged && last.amps <= allowed;
  if (under && at < dwellSeconds) return { kind: "go on", why: texts.underDwell(shown, bound, formatDuration(dwellSeconds - at)), ...more };
  if (under && supply < target) return { kind: "raise", why: texts.underRaise(shown, bound), ...more };
  if (under && last.volts >= REACHED * target && (last.amps <= CLEAR * allowed || !fit || fit.within.final[0] <= allowed))
    return { kind: "keep", why: texts.underKeep(shown, bound), ...more };
  if (under)
    return { kind: "go on", why: texts.volsNotThere(Math.round(last.volts), target, Math.round(target + last.amps * ohms)), ...more };
  if (fit && at >= dwellSeconds && fit.within.final[0] > allowed)
    return {
      kind: "stop",
      why: texts.endsAbove(formatQuantity(fit.final, "A", 2), formatQuantity(fit.within.final[0], "A", 2), bound),
      ...more,
    };
  if (left)
    return {
      kind: "go on",
      why: texts.reachesIn(formatDuration(left.seconds), formatDuration(left.within[0]), formatDuration(left.within[1])),
      ...more,
    };
  return {
    kind: "go on",
    why: clean.length < LEAST_POINTS ? texts.fewReadings(clean.length, LEAST_POINTS) : texts.cannotTellYet(bound),
    ...more,
  };
}

/** Not one odd reading: the last three stand above the least by more than they scatter. */
function rising(points: readonly DecayPoint[], least: DecayPoint): boolean {
  const after = points.filter((p) => p.t > least.t).slice(-3);
  return after.length === 3 && after.every((p) => p.value > least.value + 3 * p.sigma) && after[2]!.value >= after[0]!.value;
}
