/** How each kind of line is put into words. */

import type { JobEvent } from "./events/event";
import type { EventType, Payloads } from "./events/registry";

/** @param before the line that a line refers to, where that is known. */
export type Telling<T extends EventType> = (payload: Payloads[T], event: JobEvent, before?: JobEvent) => string;

/** A row for every kind: one that is new does not compile before it has words. */
export type Tellings = { [T in EventType]: Telling<T> };
