/** A reading for the tape out of what the meter held. */

import type { Conditions, Reading } from "../tape/events/measuring-events";
import type { ReadingKind } from "../tape/events/words";
import { formatVolts } from "../quantity/format";
import type { HoldState } from "./hold";
import * as texts from "../texts/instrument";

/** More digits than these are a meter's noise and nothing that a tube amplifier has. */
const MOST_DIGITS = 4;

/** Digits that the display had for such a value: 238.1 on a tenth is four. At least two, so that a zero keeps its unit's sense. */
export function digitsOf(value: number, digit: number): number {
  const size = Math.abs(value) / digit;
  return Math.min(MOST_DIGITS, Math.max(2, size < 1 ? 1 : Math.floor(Math.log10(size) + 1e-9) + 1));
}

/**
 * A reading as it goes on the tape: to the display's last digit, a swing as its mean with its ends in the note.
 * Undefined while the display has no number.
 */
export function readingOf(hold: HoldState, point: string, conditions: Conditions, kind: ReadingKind = "dcv"): Reading | undefined {
  const last = hold.samples.at(-1);
  const value = hold.value ?? last?.value;
  if (!last || value === undefined || hold.phase === "over" || hold.phase === "silent") return undefined;
  const shown = Number((Math.round(value / last.digit) * last.digit).toPrecision(12)) + 0;
  return {
    point,
    kind,
    value: shown,
    digits: digitsOf(shown, last.digit),
    conditions,
    ...(hold.phase === "swinging" ? { note: texts.swingsFromMeanTaken(formatVolts(hold.low!), formatVolts(hold.high!)) } : {}),
    ...(["moving", "open", "lift", "steadying"].includes(hold.phase) ? { note: texts.takenKeyBeforeStood() } : {}),
  };
}
