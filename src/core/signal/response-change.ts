/** What a changed part does, from the response before and with it; and what a response warns of. */

import { fixed } from "../language/language";
import type { LoopFeedback, Response } from "./response";
import * as texts from "../texts/signal";

export interface ResponseChange {
  /** Decibels of hum and of the resistors' noise at the speaker. */
  hum: number;
  hiss: number;
  /** In words, for the trial's line. */
  predicts: string;
}

/** Decibels of margin below which a loop rings, and may sing with another load. */
export const LEAST_MARGIN = 6;
const LEAST = 1e-12;

export function changeOf(now: Response, then: Response): ResponseChange {
  const db = (a: number, b: number) => 20 * Math.log10((b + LEAST) / (a + LEAST));
  const [hum, hiss] = [db(now.humMillivolts, then.humMillivolts), db(now.noiseMicrovolts, then.noiseMicrovolts)];
  const feedback = then.feedback ? `${fixed(then.feedback.decibels, 1)} dB` : "none";
  return { hum, hiss, predicts: texts.feedbackHumDbHiss(feedback, signed(hum), signed(hiss)) };
}

export const signed = (x: number) => `${x > 0 ? "+" : ""}${fixed(x, 1)}`;

/** What is wrong with the loop; undefined where nothing is. */
export function loopWarning(feedback: LoopFeedback | undefined): string | undefined {
  if (!feedback) return undefined;
  if (feedback.positive) return texts.feedsBackPhaseOutput(feedback.resistor);
  if (feedback.gainMargin !== undefined && feedback.gainMargin < LEAST_MARGIN)
    return texts.nearSingingDbMargin(fixed(feedback.gainMargin, 1), LEAST_MARGIN);
  return undefined;
}
