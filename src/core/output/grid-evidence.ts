/** Grid volts read at rest, under drive and after it: blocking, a coupling capacitor that leaks, both, or neither. */

import * as texts from "../texts/output";

/** Volts to chassis at one grid. */
export interface GridVolts {
  tube: string;
  rest: number;
  driven: number;
  after: number;
  /** What the circuit expects at rest. */
  expected: number;
  /** Seconds between the end of the drive and the last reading, where it was timed. */
  seconds?: number;
}

export type GridVerdict = "blocking" | "leaky capacitor" | "both" | "neither" | "cannot tell";

export interface GridJudgement {
  verdict: GridVerdict;
  why: string;
  next: string;
  /** Seconds of the time constant that the timed readings mean: v(t) = rest + shift·e^(−t/τ). */
  constant?: number;
}

/** Volts that a grid may stray from what is expected, a part of it and a floor, before it means something. */
const STRAY_PART = 0.08;
const STRAY_VOLTS = 0.7;
/** A shift under drive from this many volts on is blocking; and from this part of the resting bias. */
const SHIFT_VOLTS = 1.5;
const SHIFT_PART = 0.05;

/**
 * A leaking capacitor makes the grid more positive than expected with and without drive. Blocking leaves rest as it should be and makes
 * the grid more negative under drive; it creeps back afterwards.
 */
export function judgeGrid({ tube, rest, driven, after, expected, seconds }: GridVolts): GridJudgement {
  const band = Math.max(STRAY_VOLTS, STRAY_PART * Math.abs(expected));
  const limit = Math.max(SHIFT_VOLTS, SHIFT_PART * Math.abs(rest));
  const leaks = rest - expected > band;
  const shift = driven - rest;
  const shifts = shift < -limit;
  if (rest - expected < -band) return { verdict: "cannot tell", why: texts.gridColderThanExpected(tube), next: texts.checkBiasSupply() };
  if (shift > limit) return { verdict: "cannot tell", why: texts.gridRisesUnderDrive(tube), next: texts.checkGas(tube) };
  const left = after - rest;
  const constant = seconds !== undefined && seconds > 0 && left < 0 && left > shift ? seconds / Math.log(shift / left) : undefined;
  const timed = constant === undefined ? {} : { constant };
  if (leaks && shifts) return { verdict: "both", why: texts.leakAndBlocking(tube), next: texts.capacitorFirst(), ...timed };
  if (leaks) return { verdict: "leaky capacitor", why: texts.leakOnly(tube), next: texts.liftLeg() };
  if (shifts) return { verdict: "blocking", why: texts.blockingOnly(tube), next: texts.chooseRemedy(), ...timed };
  return { verdict: "neither", why: texts.gridStays(tube), next: texts.lookEarlier() };
}
