/** What the times at which a fault showed itself say together, and where it was provoked most. */

import type { Occurrence, Provoked } from "../tape/events/noise-events";
import type { ProvokedResponse } from "../tape/events/words";

/** Minutes after power-on within which all of them lie count as one time: this part of the latest. */
const ONE_TIME = 0.35;
/** Showing within so many minutes is showing at once. */
const AT_ONCE = 5;

/** Minutes after power-on of the occurrences that say them; whether they lie together, so that it has to do with warmth. */
export function warmthOf(occurrences: readonly Occurrence[]): { minutes: number[]; low: number; high: number; together: boolean } {
  const minutes = occurrences.flatMap((o) => (o.warmMinutes === undefined ? [] : [o.warmMinutes]));
  const [low, high] = [Math.min(...minutes), Math.max(...minutes)];
  return { minutes, low, high, together: minutes.length > 1 && low > AT_ONCE && high - low < ONE_TIME * high };
}

const RANK: Record<ProvokedResponse, number> = { nothing: 0, "a little": 1, strong: 2, "starts it": 3, "stops it": 3 };

/** The place that answered most; undefined while none has answered. */
export function strongestOf<T extends Pick<Provoked, "response">>(provoked: readonly T[]): T | undefined {
  const answered = provoked.filter((p) => RANK[p.response] > 0);
  return answered.reduce<T | undefined>((best, p) => (!best || RANK[p.response] > RANK[best.response] ? p : best), undefined);
}

/** Hours that a failure is taken to have needed where warmth says nothing. */
const LEAST_HOURS = 0.5;

/** What a soak is begun with: how often it failed, within how many hours of running, and after how many minutes on where warmth has to do with it. */
export function soakFrom(occurrences: readonly Occurrence[]): { fault: string; failures: number; hours?: number; onsetMinutes?: number } {
  const { minutes, high, together } = warmthOf(occurrences);
  const ran = minutes.reduce((a, b) => a + b, 0) / 60;
  return {
    fault: occurrences.at(-1)?.what ?? "",
    failures: Math.max(1, occurrences.length),
    ...(minutes.length > 0 ? { hours: Math.max(LEAST_HOURS, Math.round(10 * ran) / 10) } : {}),
    ...(together ? { onsetMinutes: Math.round(high) } : {}),
  };
}
