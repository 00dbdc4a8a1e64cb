"use client";
/** Logs a measurement that a form has: what was typed, or what the meter holds, as a typed event and never as a sentence to be read again. */

import { measurementDraft, type Measured } from "@/core/entry/measurement-lines";
import { readingOf } from "@/core/instrument/held-reading";
import type { HoldState } from "@/core/instrument/hold";
import type { ReadingKind } from "@/core/tape/events/words";
import { readingProblem } from "@/core/tape/reading-limits";
import type { StationId } from "@/core/tape/stations";
import type { NotTaken } from "./not-taken";
import { useJob } from "../job/job-context";

export interface TakeReading {
  typed(measured: Measured): NotTaken | undefined;
  /** What the meter holds still at the point; refused while nothing is held (undefined). */
  held(hold: HoldState | undefined, point: string, kind: ReadingKind): NotTaken | undefined;
}

export function useTakeReading(station: StationId): TakeReading {
  const { say, entryContext, conditions } = useJob();
  return {
    typed(measured) {
      const entry = measurementDraft(measured, entryContext(station));
      if (!entry.ok) return { refused: `${entry.why}. Accepted: ${entry.accepted}` };
      say(...entry.drafts);
      return undefined;
    },
    held(hold, point, kind) {
      const reading = hold && readingOf(hold, point, conditions, kind);
      if (!reading) return { refused: "The meter does not show a steady value: wait, or type the reading" };
      const problem = readingProblem(reading.kind, reading.value);
      if (problem) return { refused: problem };
      say({ type: "reading", payload: reading });
      return undefined;
    },
  };
}
