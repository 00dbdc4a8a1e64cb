/** How the mains voltage of readings is known, and what that leaves open. */

import type { JobState } from "../tape/fold";

/** Measured at the amp while the readings were taken; typed in once; never looked at, the nominal figure. */
export type MainsKnown = "measured" | "entered" | "assumed";

/**
 * One sigma of the mains in hundredths of it (the knob's own unit), the winding's volts that nobody measured included with one and a
 * half; and how much likelier than usual it is that it is plain wrong.
 */
export const MAINS_DOUBT: Record<MainsKnown, { sigma: number; prior: number }> = {
  measured: { sigma: 1.6, prior: 0.05 },
  entered: { sigma: 2.8, prior: 1 },
  assumed: { sigma: 4, prior: 1.5 },
};

/** So long before the power-on a figure of the mains is still of the same sitting, milliseconds. */
const SAME_SITTING = 30 * 60_000;

/**
 * Logged while the amp is on, or just before it was put on, is measured there; logged earlier is what was typed once; never logged is
 * taken to be nominal.
 */
export function mainsKnown({ mainsSeq, mainsAt, power }: Pick<JobState, "mainsSeq" | "mainsAt" | "power">): MainsKnown {
  if (mainsSeq === undefined) return "assumed";
  if (power?.state !== "on") return "entered";
  const before = mainsAt === undefined ? Infinity : Date.parse(power.at) - Date.parse(mainsAt);
  return mainsSeq > power.seq || before <= SAME_SITTING ? "measured" : "entered";
}
