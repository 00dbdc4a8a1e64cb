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

/** A line that a payload names, with the types that it may be of; any unless given. */
interface Named {
  field: string;
  line: number;
  types?: readonly EventType[];
}

function namedLines(e: JobEvent): Named[] {
  const one = (field: string, line: number | undefined, ...types: EventType[]): Named[] =>
    line === undefined ? [] : [{ field, line, types }];
  const many = (field: string, lines: readonly number[] | undefined, ...types: EventType[]): Named[] =>
    (lines ?? []).map((line) => ({ field, line, ...(types.length > 0 ? { types } : {}) }));
  if (is(e, "finding-closed")) return one("finding", e.payload.finding, "finding");
  if (is(e, "put-back")) return one("removed", e.payload.removed, "removed");
  if (is(e, "soak-ended")) return one("soak", e.payload.soak, "soak-begun");
  if (is(e, "reform-point") || is(e, "reform-turn")) return one("reform", e.payload.reform, "reform-begun");
  if (is(e, "bill-cancelled")) return one("bill", e.payload.bill, "bill");
  if (is(e, "planned-ended") || is(e, "timer") || is(e, "time") || is(e, "change")) return one("planned", e.payload.planned, "planned");
  if (is(e, "approval"))
    return [
      ...one("asks", e.payload.asks, "approval", "quote"),
      ...many("planned", e.payload.planned, "planned"),
      ...many("evidence", e.payload.evidence),
    ];
  if (is(e, "planned"))
    return [...many("needs", e.payload.needs, "planned"), ...many("source", e.payload.source === undefined ? [] : [e.payload.source])];
  if (is(e, "plan-order")) return many("order", e.payload.order, "planned");
  if (is(e, "cure-test")) return [...many("among", e.payload.among, "change"), ...many("out", e.payload.out, "change")];
  return [];
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
  for (const { field, line: number, types } of namedLines(e)) {
    const line = lineBefore(number);
    if (!line)
      errors.push({
        field,
        message: types ? texts.lineOfTypeWanted(number, types[0]!, undefined) : texts.lineNotOnTape(number, e.seq - 1),
      });
    else if (types && !types.some((t) => t === typeOf(line)))
      errors.push({ field, message: texts.lineOfTypeWanted(number, types[0]!, typeOf(line)) });
  }
  if (e.supersedes !== undefined) {
    const line = lineBefore(e.supersedes);
    if (!line) errors.push({ field: "supersedes", message: texts.lineNotOnTape(e.supersedes, e.seq - 1) });
    else if (e.type !== "undo" && e.type !== typeOf(line))
      errors.push({ field: "supersedes", message: texts.correctionOfSameType(e.supersedes, typeOf(line), e.type) });
  }
  return errors;
}
