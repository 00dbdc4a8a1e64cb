/** The order of the board: what can hurt somebody, then what is promised first, then what has waited longest. */

import type { JobSummary } from "./summary";

/** What the order is made from. Dates as in the summary: "2026-03-02", empty where nothing was promised. */
export interface Urgent {
  energy: JobSummary["energy"];
  waitingOn: JobSummary["waitingOn"];
  dueDate: string;
  waitingSince: string;
  id: number;
}

const ENERGY: Record<Urgent["energy"], number> = { live: 0, stored: 1, unknown: 2, "proven-dead": 2, "not-here": 2 };
const DAY_MS = 86_400_000;

/** Whole days from `today` until a date; negative when it is past. Undefined without a date. @param today "2026-03-02" */
export function daysUntil(date: string, today: string): number | undefined {
  const ms = Date.parse(date) - Date.parse(today);
  return Number.isNaN(ms) ? undefined : Math.round(ms / DAY_MS);
}

/** Whole days since a moment; 0 for an unknown one. @param now milliseconds since 1970 */
export function daysSince(iso: string, now: number): number {
  const ms = now - Date.parse(iso);
  return Number.isNaN(ms) ? 0 : Math.max(0, Math.floor(ms / DAY_MS));
}

/** Sorts jobs for the board: left live, left charged; promised dates in order, undated last; then the longest waiting; then by number. */
export function byUrgency(a: Urgent, b: Urgent): number {
  return (
    ENERGY[a.energy] - ENERGY[b.energy] ||
    (a.dueDate || "9999").localeCompare(b.dueDate || "9999") ||
    Number(a.waitingOn !== "you") - Number(b.waitingOn !== "you") ||
    a.waitingSince.localeCompare(b.waitingSince) ||
    a.id - b.id
  );
}
