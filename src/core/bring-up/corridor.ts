/** What a stage should show, as the solver found it, and what a reading of the mains side says against it. */

import { fixed } from "../language/language";
import type { Glow } from "../tape/events/words";
import * as texts from "../texts/bring-up";

/** At one turn of the dial. */
export interface StageStep {
  /** Volts at the amp. */
  mains: number;
  amps: number;
  /** Corridor of a sound amp: tubes and transformers of the same make differ by this much. */
  low: number;
  high: number;
  /** Mains current at which an output tube stands at its rating; left out where none can get there. */
  over?: number;
  /** Volts by the name of what is watched. */
  volts: Record<string, number>;
}

/** Behind a series lamp, at the wall's full volts. */
export interface LampState {
  watts: number;
  ampVolts: number;
  amps: number;
  /** Part of its rated watts that it burns. */
  glow: number;
}

export interface StagePrediction {
  stage: string;
  steps: StageStep[];
  lamp?: LampState;
  /** False when a step did not settle and is left out. */
  converged: boolean;
}

/** Below this part of its power a lamp is dark to the eye, above the other it is bright. Scutum's own figures. */
export const DARK = 0.05;
export const BRIGHT = 0.5;

export function glowOf(part: number): Glow {
  return part < DARK ? "dark" : part > BRIGHT ? "bright" : "glowing";
}

/** The corridor at any volts: straight between the steps, from nothing at zero. */
export function corridorAt(
  steps: readonly StageStep[],
  volts: number,
): { amps: number; low: number; high: number; over: number } | undefined {
  if (steps.length === 0) return undefined;
  const from = [{ mains: 0, amps: 0, low: 0, high: 0, over: undefined }, ...steps];
  const k = from.findIndex((s) => s.mains >= volts);
  const [a, b] = k < 0 ? [from.at(-2)!, from.at(-1)!] : k === 0 ? [from[0]!, from[1]!] : [from[k - 1]!, from[k]!];
  const part = b.mains === a.mains ? 0 : (volts - a.mains) / (b.mains - a.mains);
  const at = (x: number, y: number) => Math.max(0, x + part * (y - x));
  // Between two steps the lower of their limits holds.
  const over = Math.min(a.over ?? Infinity, b.over ?? Infinity);
  return { amps: at(a.amps, b.amps), low: at(a.low, b.low), high: at(a.high, b.high), over };
}

export interface CurrentVerdict {
  verdict: "in" | "watch" | "out";
  says: string;
  /** True where the dial goes back and the plug comes out. */
  stop: boolean;
}

/** A stray milliampere of a meter is nothing. */
const LEAST_AMPS = 0.01;

/** A current at volts, read while the stage's tubes are as they should be. */
export function judgeCurrent(steps: readonly StageStep[], volts: number, amps: number): CurrentVerdict | undefined {
  const at = corridorAt(steps, volts);
  if (!at) return undefined;
  const figure = (x: number) => `${fixed(x, x < 0.1 ? 3 : 2)} A`;
  if (amps > at.high + LEAST_AMPS) {
    const far = amps > 1.6 * at.high + LEAST_AMPS;
    const over = amps >= at.over;
    if (over && !far) return { verdict: "out", stop: true, says: texts.stopTubeAboveRating(figure(amps), figure(at.over)) };
    return {
      verdict: far ? "out" : "watch",
      stop: far,
      says: far ? texts.stopWhereSoundAmp(figure(amps), figure(at.high)) : texts.aboveCorridorWaitFeel(figure(at.low), figure(at.high)),
    };
  }
  if (amps < at.low - LEAST_AMPS)
    return {
      verdict: "watch",
      stop: false,
      says: texts.belowCorridorHeaterHigh(figure(at.low), figure(at.high)),
    };
  return { verdict: "in", stop: false, says: "" };
}

/** A lamp seen against the one expected of a sound amp in this stage. */
export function judgeGlow(seen: Glow, lamp: LampState): CurrentVerdict {
  const expected = glowOf(lamp.glow);
  if (seen === expected) return { verdict: "in", stop: false, says: "" };
  const rank = { dark: 0, glowing: 1, bright: 2 };
  if (rank[seen] > rank[expected])
    return {
      verdict: seen === "bright" ? "out" : "watch",
      stop: seen === "bright",
      says: seen === "bright" ? texts.stopSoundAmpLeaves(expected) : texts.brighterThanSoundAmp(expected),
    };
  return {
    verdict: "watch",
    stop: false,
    says: texts.darkerThanExpectedSomething(expected),
  };
}

export interface LampAdvice {
  watts: number;
  /** What a sound amp with all tubes in gets behind it, part of the wall's volts, and how the lamp burns then. */
  share: number;
  glow: number;
}

/** Lamps that are sold. */
export const LAMPS = [25, 40, 60, 75, 100, 150, 200, 300] as const;
/** A sound amp should get at least this part of the wall's volts, or its rectifier and bias never get going. */
const ENOUGH_SHARE = 0.7;
/** A lamp this many times the fitting one lets a short burn for long. */
const TOO_LARGE = 3;

/** The smallest lamp behind which a sound amp works; the largest there is when none does. */
export function lampFor(advice: readonly LampAdvice[]): LampAdvice | undefined {
  return advice.find((l) => l.share >= ENOUGH_SHARE) ?? advice.at(-1);
}

/** What is wrong with a lamp for this amp; an empty text when nothing is. */
export function lampDoubt(watts: number, advice: readonly LampAdvice[]): string {
  const fits = lampFor(advice);
  if (!fits) return "";
  const nearest = advice.reduce((a, b) => (Math.abs(b.watts - watts) < Math.abs(a.watts - watts) ? b : a));
  if (watts < fits.watts && nearest.share < ENOUGH_SHARE)
    return texts.lampTooSmallSound(watts, Math.round(nearest.share * 100), fits.watts);
  if (watts > TOO_LARGE * fits.watts) return texts.lampTooLargeLets(watts, fits.watts);
  return "";
}
