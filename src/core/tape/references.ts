/** What a line refers to: other lines of its tape, and photos and recordings of the shop. */

import { is, type JobEvent } from "./events/event";
import type { EventType } from "./events/registry";
import type { FieldError } from "../checks/class-errors";
import * as texts from "../texts/tape";

export interface StoredReference {
  hash: string;
  kind: "photo" | "recording";
}

/** Photos and recordings that a line speaks of. */
export function storedReferences(e: JobEvent): StoredReference[] {
  if (is(e, "recording")) return [{ hash: e.payload.hash, kind: "recording" }];
  const photos = is(e, "photo")
    ? [e.payload.hash]
    : is(e, "removed") || is(e, "provoked")
      ? [e.payload.photo]
      : is(e, "finding")
        ? (e.payload.photos ?? [])
        : is(e, "change")
          ? [e.payload.photoBefore, e.payload.photoAfter]
          : [];
  return photos.flatMap((hash) => (hash === undefined ? [] : [{ hash, kind: "photo" as const }]));
}

/** The line that a payload names, with the type that it has to be of. */
function namedLine(e: JobEvent): { field: string; line: number; type: EventType; or?: EventType } | undefined {
  if (is(e, "finding-closed")) return { field: "finding", line: e.payload.finding, type: "finding" };
  if (is(e, "put-back")) return { field: "removed", line: e.payload.removed, type: "removed" };
  if (is(e, "soak-ended")) return { field: "soak", line: e.payload.soak, type: "soak-begun" };
  if (is(e, "reform-point") || is(e, "reform-turn")) return { field: "reform", line: e.payload.reform, type: "reform-begun" };
  if (is(e, "approval") && e.payload.asks !== undefined) return { field: "asks", line: e.payload.asks, type: "approval", or: "quote" };
  if (is(e, "bill-cancelled")) return { field: "bill", line: e.payload.bill, type: "bill" };
  if ((is(e, "planned-ended") || is(e, "timer") || is(e, "time") || is(e, "change")) && e.payload.planned !== undefined)
    return { field: "planned", line: e.payload.planned, type: "planned" };
  return undefined;
}

/** The type that a line was logged as, though it cannot be understood. */
const typeOf = (e: JobEvent): string => (is(e, "unreadable") ? e.payload.type : e.type);

/**
 * Checks that the lines which `e` names stand before it on its tape, and are what they are taken for.
 * @param tape its tape from line 1 on; what stands at or after `e` is not looked at.
 */
export function referenceErrors(e: JobEvent, tape: readonly JobEvent[]): FieldError[] {
  const errors: FieldError[] = [];
  const lineBefore = (line: number) => (line < e.seq ? tape[line - 1] : undefined);
  const named = namedLine(e);
  if (named) {
    const line = lineBefore(named.line);
    if (!line || (typeOf(line) !== named.type && typeOf(line) !== named.or))
      errors.push({ field: named.field, message: texts.lineOfTypeWanted(named.line, named.type, line && typeOf(line)) });
  }
  if (e.supersedes !== undefined) {
    const line = lineBefore(e.supersedes);
    if (!line) errors.push({ field: "supersedes", message: texts.lineNotOnTape(e.supersedes, e.seq - 1) });
    else if (e.type !== "undo" && e.type !== typeOf(line))
      errors.push({ field: "supersedes", message: texts.correctionOfSameType(e.supersedes, typeOf(line), e.type) });
  }
  return errors;
}
