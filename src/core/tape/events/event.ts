/** A line of a job's tape. The tape is append-only: a correction or an undo is another line that supersedes. */

import type { EventType, Payloads } from "./registry";

export interface JobEvent<T extends EventType = EventType> {
  /** Position on the tape, from 1, without gaps. */
  seq: number;
  /** Made where the event was entered; a second delivery of the same id is recognised and not logged twice. */
  id: string;
  /** When it happened at the bench, ISO 8601 with milliseconds, UTC. */
  at: string;
  /** Initials. */
  who: string;
  type: T;
  payload: Payloads[T];
  /** The line that this one replaces or, for an undo, strikes out. */
  supersedes?: number;
  /** Why it supersedes. */
  reason?: string;
}

/** An event as it is entered, before the tape gives it its place. */
export type EventDraft<T extends EventType = EventType> = T extends EventType
  ? { type: T; payload: Payloads[T]; supersedes?: number; reason?: string }
  : never;

/** The event as one of a known type; undefined when it is another. */
export function is<T extends EventType>(event: JobEvent, type: T): event is JobEvent<T> {
  return event.type === type;
}
