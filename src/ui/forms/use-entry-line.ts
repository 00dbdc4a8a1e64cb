"use client";
/** Lines of the entry line, typed into another field: a reading of another point, a note, an off. */

import { usePathname } from "next/navigation";
import { parseEntry } from "@/core/entry/entry";
import { findStation } from "@/core/tape/stations";
import { useJobIfAny } from "../job/job-context";
import type { NotTaken } from "./not-taken";

export interface EntryLineHere {
  /** Whether what was typed begins with a word, as a line does, and not with a value. "OL" is a value. */
  isLine(text: string): boolean;
  take(text: string): NotTaken | undefined;
}

/** A name, a verb or a pin, a blank and more; or one of the verbs that stand alone. Another word alone is a value that cannot be read. */
const LINE = /^(\p{L}[\p{L}\d.+:]*\s+\S|(on|off|undo)$)/iu;

export function useEntryLine(): EntryLineHere {
  const job = useJobIfAny();
  const station = findStation(usePathname()?.split("/")[3] ?? "")?.id ?? "walk";
  return {
    isLine: (text) => job !== undefined && LINE.test(text),
    take(text) {
      const { entryContext, refusal, say } = job!;
      const entry = parseEntry(text, entryContext(station));
      if (!entry.ok) return { refused: `${entry.why}. Accepted: ${entry.accepted}` };
      const why = refusal(...entry.drafts);
      if (why !== undefined) return { refused: why };
      say(...entry.drafts);
      return undefined;
    },
  };
}
