/**
 * Lines that were made before the amp was last switched on and stored after it: by a tablet that had no server meanwhile. What they say of
 * power and of charge was true then, and says nothing of now.
 */

import { is, type JobEvent } from "./events/event";
import type { EventType } from "./events/registry";

/** Two devices' clocks may differ by as much and both be believed. Milliseconds. */
export const CLOCKS_WITHIN = 10_000;

/** Types of lines that say how the amp stands, or that somebody has checked it. A late power-on is not among them: it can only warn. */
const OF_NOW = new Set<EventType>([
  "power",
  "meter-check",
  "discharge-reading",
  "tool-check",
  "reservoir-unread",
  "live-check",
  "still-live",
]);

/**
 * @param effective the lines that stand, in the order of the tape. @returns the numbers of those that came too late to count.
 * @example off at 12:01, stored after a power-on of 12:05: its number is among them, and the amp stays live.
 */
export function arrivedLate(effective: readonly JobEvent[]): Set<number> {
  const late = new Set<number>();
  let lastOn = -Infinity;
  for (const e of effective) {
    const at = Date.parse(e.at);
    if (is(e, "power") && e.payload.state === "on") lastOn = Math.max(lastOn, at);
    else if (OF_NOW.has(e.type) && at < lastOn - CLOCKS_WITHIN) late.add(e.seq);
  }
  return late;
}
