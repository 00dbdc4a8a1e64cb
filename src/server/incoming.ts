/** Events as a client sends them, and what is asked of them before anything touches the tape. */

import { isPrintable } from "@/core/checks/accepted";
import type { EventDraft } from "@/core/tape/events/event";
import { show, type FieldError } from "@/core/checks/class-errors";
import { payloadErrors } from "@/core/tape/events/validate";
import { MOST_LINES } from "@/core/tape/events/words";
import { UserError } from "./errors";

/** An event as a client sends it: with the id and the time that it was given at the bench. */
export type IncomingEvent = EventDraft & { id?: string; at?: string; who: string };

/** The most events in one request. */
export const MOST_AT_ONCE = 2000;
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;
/** A clock may run ahead of the server's by this much; beyond it the time is not believed. */
const CLOCK_AHEAD_MS = 5 * 60_000;

const ISO_TIME = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d{1,9})?)?(Z|[+-]\d{2}:\d{2})$/;

/** All but the payload: id, time, initials, what it supersedes and why. */
export function envelopeErrors(e: IncomingEvent, now = Date.now()): FieldError[] {
  const errors: FieldError[] = [];
  const wanted = (field: string, message: string) => errors.push({ field, message: `${field}: ${message}` });
  if (e.id !== undefined && !(typeof e.id === "string" && UUID.test(e.id))) wanted("id", "a UUID in lower case is wanted");
  if (typeof e.who !== "string" || !/^[\p{L}.\- ]{1,12}$/u.test(e.who))
    wanted("who", `initials of 1 to 12 letters are wanted; read ${show(e.who)}`);
  if (e.at !== undefined && !isPast(e.at, now))
    wanted("at", `a time that has come, as 2026-01-31T14:30:00Z, is wanted; read ${show(e.at)}`);
  if (e.supersedes !== undefined && !(Number.isInteger(e.supersedes) && e.supersedes > 0 && e.supersedes <= MOST_LINES))
    wanted("supersedes", "the number of a line is wanted");
  if (e.reason !== undefined && !(typeof e.reason === "string" && e.reason.length <= 1000 && isPrintable(e.reason)))
    wanted("reason", "up to 1000 characters, without control characters");
  if (e.type === "undo" && e.supersedes === undefined) wanted("supersedes", "an undo names the line that it strikes");
  return errors;
}

function isPast(at: unknown, now: number): boolean {
  if (typeof at !== "string" || !ISO_TIME.test(at)) return false;
  const time = Date.parse(at);
  return time > 0 && time < now + CLOCK_AHEAD_MS;
}

/** Checks what a client sent before anything touches the tape. @throws UserError 400, 413, or 422 with one sentence a field. */
export function checkIncoming(events: IncomingEvent[], now = Date.now()): void {
  if (!Array.isArray(events) || events.length === 0) throw new UserError(400, "Nothing to log: a list of events is wanted.");
  if (events.length > MOST_AT_ONCE) throw new UserError(413, `${events.length} events at once; up to ${MOST_AT_ONCE} are taken.`);
  const details: { field?: string; message: string }[] = [];
  for (const [i, e] of events.entries()) {
    const where = events.length > 1 ? `event ${i + 1}, ` : "";
    if (typeof e !== "object" || e === null || Array.isArray(e)) details.push({ message: `${where}an object is wanted; read ${show(e)}` });
    else
      for (const { field, message } of [...payloadErrors(e.type, e.payload), ...envelopeErrors(e, now)])
        details.push({ field, message: where + message });
    // The first few are enough to mend by.
    if (details.length >= 20) break;
  }
  if (details.length > 0) throw new UserError(422, details[0]!.message, details);
}
