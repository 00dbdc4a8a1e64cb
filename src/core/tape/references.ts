/** What a line refers to: other lines of its tape, and photos and recordings of the shop. */

import { is, type JobEvent } from "./events/event";
import type { EventType, Payloads } from "./events/registry";
import type { FieldError } from "../checks/class-errors";
import * as texts from "../texts/tape";

export interface StoredReference {
  hash: string;
  kind: "photo" | "recording";
}

/** A line that a payload names, with the types that it may be of; any unless given. */
interface NamedLine {
  field: string;
  line: number;
  types?: readonly EventType[];
}

type Reference = StoredReference | NamedLine;

const photo = (hash: string): StoredReference => ({ hash, kind: "photo" });
const maybe = (hash: string | undefined) => (hash === undefined ? [] : [photo(hash)]);
const one = (field: string, line: number | undefined, ...types: EventType[]): NamedLine[] =>
  line === undefined ? [] : [{ field, line, types }];
const many = (field: string, lines: readonly number[] | undefined, ...types: EventType[]): NamedLine[] =>
  (lines ?? []).map((line) => ({ field, line, ...(types.length > 0 ? { types } : {}) }));
const none = (): Reference[] => [];

/** What each kind of line rests on. One that is new does not compile before it has a row. */
const RESTS_ON: { [T in EventType]: (payload: Payloads[T]) => Reference[] } = {
  finding: (p) => (p.photos ?? []).map(photo),
  photo: (p) => [photo(p.hash)],
  removed: (p) => maybe(p.photo),
  provoked: (p) => maybe(p.photo),
  recording: (p) => [{ hash: p.hash, kind: "recording" }],
  "finding-closed": (p) => one("finding", p.finding, "finding"),
  "put-back": (p) => one("removed", p.removed, "removed"),
  "soak-ended": (p) => one("soak", p.soak, "soak-begun"),
  "reform-point": (p) => one("reform", p.reform, "reform-begun"),
  "reform-turn": (p) => one("reform", p.reform, "reform-begun"),
  "bill-cancelled": (p) => one("bill", p.bill, "bill"),
  "planned-ended": (p) => one("planned", p.planned, "planned"),
  timer: (p) => one("planned", p.planned, "planned"),
  time: (p) => one("planned", p.planned, "planned"),
  change: (p) => [...one("planned", p.planned, "planned"), ...maybe(p.photoBefore), ...maybe(p.photoAfter)],
  approval: (p) => [...one("asks", p.asks, "approval", "quote"), ...many("planned", p.planned, "planned"), ...many("evidence", p.evidence)],
  planned: (p) => [...many("needs", p.needs, "planned"), ...many("source", p.source === undefined ? [] : [p.source])],
  "plan-order": (p) => many("order", p.order, "planned"),
  "cure-test": (p) => [...many("among", p.among, "change"), ...many("out", p.out, "change")],

  "job-opened": none,
  complaint: none,
  brief: none,
  claim: none,
  accessory: none,
  reproduction: none,
  identity: none,
  "date-code": none,
  mains: none,
  power: none,
  "live-check": none,
  "meter-check": none,
  reservoir: none,
  "discharge-reading": none,
  clip: none,
  "taken-in": none,
  "circuit-given": none,
  "brought-in": none,
  "books-taken": none,
  "gate-passed": none,
  reading: none,
  point: none,
  note: none,
  observation: none,
  "control-check": none,
  "tool-check": none,
  "reservoir-unread": none,
  "still-live": none,
  inspection: none,
  "pot-sweep": none,
  "tube-test": none,
  temperature: none,
  stage: none,
  "mains-current": none,
  "isolation-step": none,
  "noise-test": none,
  conditions: none,
  "conditions-run": none,
  "ground-map": none,
  occurrence: none,
  "soak-begun": none,
  bias: none,
  "bias-figures": none,
  adjusted: none,
  waveform: none,
  "grid-read": none,
  blocking: none,
  "tube-seen": none,
  "tube-fitted": none,
  "signal-figure": none,
  capacitor: none,
  "capacitor-test": none,
  "board-test": none,
  "board-cleaned": none,
  "reform-begun": none,
  "safety-test": none,
  waiting: none,
  "handed-on": none,
  quote: none,
  "bill-line": none,
  bill: none,
  payment: none,
  advice: none,
  returned: none,
  undo: none,
  unreadable: none,
};

const restsOn = (e: JobEvent): Reference[] => (RESTS_ON[e.type] as (payload: Payloads[EventType]) => Reference[])(e.payload);

/** Photos and recordings that a line speaks of. */
export const storedReferences = (e: JobEvent): StoredReference[] => restsOn(e).filter((r): r is StoredReference => "hash" in r);

const namedLines = (e: JobEvent): NamedLine[] => restsOn(e).filter((r): r is NamedLine => "line" in r);

/** The line that a line speaks of first, for its words: the question that is answered, the finding that is closed. */
export const lineSpokenOf = (e: JobEvent): number | undefined => (e.type === "undo" ? e.supersedes : namedLines(e)[0]?.line);

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
