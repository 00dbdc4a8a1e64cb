/** The day at the shop: one clock for all that is dated, whatever device or server writes it. */

import { addDays as daysLater, format, parseISO } from "date-fns";

/**
 * @param at a moment: ISO 8601, or milliseconds since 1970. @param timeZone of the shop, "Europe/Oslo"; "" for that of this machine.
 * @returns "2026-03-02"
 * @throws RangeError where there is no such time zone.
 * @example shopDay("2026-03-01T23:30:00Z", "Europe/Oslo") // "2026-03-02"
 */
export function shopDay(at: string | number, timeZone: string): string {
  // Swedish dates are written as ISO 8601 has them.
  return dayFormat(timeZone).format(new Date(at));
}

/** Making a format is slow; a shop has one zone. */
const formats = new Map<string, Intl.DateTimeFormat>();
function dayFormat(timeZone: string): Intl.DateTimeFormat {
  const known = formats.get(timeZone);
  if (known) return known;
  const made = new Intl.DateTimeFormat("sv-SE", {
    ...(timeZone ? { timeZone } : {}),
    year: "numeric",
    month: "2-digit",
    day: "2-digit",
  });
  formats.set(timeZone, made);
  return made;
}

/** So many days after a day. @example addDays("2026-02-27", 2) // "2026-03-01" */
export const addDays = (day: string, days: number): string => format(daysLater(parseISO(day), days), "yyyy-MM-dd");
