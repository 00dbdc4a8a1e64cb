/** The mains side of an amp in figures: what a capacitor to chassis leaks, what a tap and a frequency do, which fuse and transformer fit. */

import { fixed } from "../language/language";
import * as texts from "../texts/bring-up";

/** Fuses that are sold, amperes. Source: IEC 60127-2 and the preferred numbers that it uses. */
export const FUSES = [0.1, 0.125, 0.16, 0.2, 0.25, 0.315, 0.4, 0.5, 0.63, 0.8, 1, 1.25, 1.6, 2, 2.5, 3.15, 4, 5, 6.3, 8, 10] as const;

/** Amperes that a capacitor from line to chassis passes to whoever touches it: 2πfCV. */
export function chassisAmps(farads: number, volts: number, hertz: number): number {
  return 2 * Math.PI * hertz * farads * volts;
}

/** Largest capacitor that stays within `amps`. */
export function largestToChassis(amps: number, volts: number, hertz: number): number {
  return amps / (2 * Math.PI * hertz * volts);
}

export interface FrameVerdict {
  verdict: "in" | "watch" | "out";
  why: string;
}

/** Iron of mains transformers is used nearly to its limit: this much more flux saturates it. */
const FLUX_WATCH = 1.06;
const FLUX_OUT = 1.12;

/**
 * A transformer made for `rated` volts and hertz on another line: flux goes with volts over hertz.
 * @returns flux relative to what it was made for, and what heaters and rails do.
 */
export function onLine(
  rated: { volts: number; hertz: number },
  line: { volts: number; hertz: number },
): FrameVerdict & { flux: number; rails: number } {
  const rails = line.volts / rated.volts;
  const flux = rails * (rated.hertz / line.hertz);
  const percent = (x: number) => `${x > 1 ? "+" : "−"}${Math.abs(Math.round((x - 1) * 100))} %`;
  const parts = [
    Math.abs(rails - 1) > 0.03 ? texts.railsHeaters(percent(rails)) : "",
    Math.abs(flux - rails) > 0.01 ? texts.fluxFrequency(percent(flux)) : "",
  ].filter(Boolean);
  const why = parts.join(", ");
  if (flux > FLUX_OUT || rails > 1.1)
    return {
      flux,
      rails,
      verdict: "out",
      why: texts.transformerSaturatesHeatersBurn(why),
    };
  if (flux > FLUX_WATCH || rails > 1.05 || rails < 0.93) return { flux, rails, verdict: "watch", why };
  return { flux, rails, verdict: "in", why };
}

/** Of the taps that a primary has, the one that fits the wall: the nearest that is not exceeded by more than 3 %, else the highest. */
export function tapFor(taps: readonly number[], wallVolts: number): number | undefined {
  const fits = taps.filter((t) => wallVolts <= 1.03 * t).sort((a, b) => a - b);
  return fits[0] ?? (taps.length > 0 ? Math.max(...taps) : undefined);
}

/** A slow fuse is worth about 1.6 times the working current: it bears the surge, and still goes. Usual practice. */
const FUSE_TIMES = 1.6;

/** The slow fuse that fits a working current; undefined above those that are sold. */
export function fuseFor(amps: number): number | undefined {
  return FUSES.find((f) => f >= FUSE_TIMES * amps * (1 - 1e-9));
}

/** A fuse that is in, against the working current. */
export function judgeFuse(fitted: number, amps: number): FrameVerdict {
  const fits = fuseFor(amps);
  if (fitted < 1.1 * amps) return { verdict: "out", why: texts.belowWorkingCurrentWill(fixed(amps, 2)) };
  if (fits !== undefined && fitted > 2.5 * fits) return { verdict: "out", why: texts.protectsNothingSlowWould(fits) };
  if (fits !== undefined && fitted > 1.3 * fits) return { verdict: "watch", why: texts.largeSlowFitsWorking(fits, fixed(amps, 2)) };
  return { verdict: "in", why: "" };
}

/** Volt-amperes of a step-down or isolation transformer for a set: a third in hand for the pulses that rectifiers draw. */
export function transformerFor(voltAmperes: number): number {
  return Math.ceil((voltAmperes * 1.33) / 5) * 5;
}
