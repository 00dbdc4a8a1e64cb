/** Builds a tape line by line for tests: seconds since its start, then the event. */

import type { EventDraft, JobEvent } from "./events/event";

export const START = Date.parse("2026-03-02T09:00:00.000Z");

export function tape(...lines: [seconds: number, draft: EventDraft][]): JobEvent[] {
  return lines.map(
    ([seconds, draft], i) =>
      ({
        seq: i + 1,
        id: `00000000-0000-4000-8000-${String(i + 1).padStart(12, "0")}`,
        at: new Date(START + seconds * 1000).toISOString(),
        who: "J.M.",
        ...draft,
      }) as JobEvent,
  );
}

export const at = (seconds: number) => START + seconds * 1000;
