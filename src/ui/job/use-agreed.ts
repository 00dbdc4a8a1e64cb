"use client";
/** Holds lines that go beyond what was agreed with the owner, until somebody says why or asks. */

import { questionAsked } from "@/core/repair/owner-acts";
import { useCallback, useMemo, useRef, useState, useEffect } from "react";
import type { EventDraft } from "@/core/tape/events/event";
import type { JobState } from "@/core/tape/fold";
import { refusedAsBeyond } from "@/core/repair/covered";
import type { Tape } from "./use-tape";

/** Lines that wait for a word on why they go beyond what was agreed. */
export interface Held {
  drafts: EventDraft[];
  /** What goes beyond, and why, a sentence each. */
  says: string[];
  /** Logs them all, those that go beyond with the reason. */
  release(reason: string): void;
  /** Asks the owner instead: each becomes a task and a question. */
  ask(): void;
  drop(): void;
}

type ChangeDraft = EventDraft<"change">;
const isChange = (d: EventDraft): d is ChangeDraft => d.type === "change";

export function useAgreed(state: JobState, tell: Tape["say"]): { say: Tape["say"]; held?: Held } {
  const [drafts, setDrafts] = useState<EventDraft[]>([]);
  const now = useRef(state);
  useEffect(() => void (now.current = state), [state]);

  const say = useCallback<Tape["say"]>(
    (...said) => {
      if (said.some((d) => isChange(d) && refusedAsBeyond(now.current, d.payload))) setDrafts(said);
      else tell(...said);
    },
    [tell],
  );

  const held = useMemo((): Held | undefined => {
    if (drafts.length === 0) return undefined;
    const beyond = drafts.filter(isChange).filter((d) => refusedAsBeyond(state, d.payload));
    return {
      drafts,
      says: beyond.map((d) => refusedAsBeyond(state, d.payload)!),
      release(reason) {
        tell(...drafts.map((d) => (isChange(d) && beyond.includes(d) ? { ...d, payload: { ...d.payload, unagreed: reason } } : d)));
        setDrafts([]);
      },
      ask() {
        tell(
          ...beyond.flatMap(({ payload: c }): EventDraft[] => [
            {
              type: "planned",
              payload: {
                position: c.position,
                what: c.newPart,
                phase: "power off",
                from: "technician",
                reversible: c.reversible,
                ...(c.reason ? { reason: c.reason } : {}),
              },
            },
            questionAsked({ what: `${c.position}: ${c.newPart}`, consequence: c.reason }),
          ]),
        );
        setDrafts([]);
      },
      drop: () => setDrafts([]),
    };
  }, [drafts, state, tell]);
  return { say, ...(held ? { held } : {}) };
}
