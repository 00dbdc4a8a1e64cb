/** Readings as CSV, RFC 4180: header `point,kind,value,unit` and condition columns. Values in the unit named. */

import { parseQuantity } from "../quantity/parse";
import type { Unit } from "../quantity/unit";
import type { Conditions, Reading } from "../tape/events/measuring-events";
import { READING_KINDS, READING_UNIT, type ReadingKind } from "../tape/events/words";
import type { Line } from "../tape/fold";
import { readingProblem } from "../tape/reading-limits";
import * as texts from "../texts/job";

export const CSV_COLUMNS = [
  "point",
  "kind",
  "value",
  "unit",
  "mains",
  "without",
  "switches",
  "controls",
  "limiter",
  "warm",
  "note",
  "at",
] as const;

export function readingToRow(r: Line<Reading>): Record<(typeof CSV_COLUMNS)[number], string> {
  const c = r.conditions;
  return {
    point: r.point,
    kind: r.kind,
    value: String(r.value),
    unit: READING_UNIT[r.kind],
    mains: c.mains?.toString() ?? "",
    without: c.without?.join(" ") ?? "",
    switches: c.switches ?? "",
    controls: c.controls ?? "",
    limiter: c.limiter ?? "",
    warm: c.warmMinutes?.toString() ?? "",
    note: r.note ?? "",
    at: r.at,
  };
}

export interface CsvProblem {
  line: number;
  message: string;
}

const UNIT: Record<ReadingKind, Unit> = { dcv: "V", acv: "V", ma: "A", ohm: "Ω", leak: "V", gm: "%" };

/**
 * Checks parsed rows (first row after the header is line 2) and turns them into readings.
 * @param knownPoint its spelling in the circuit, or undefined; without a circuit every name is taken.
 */
export function rowsToReadings(
  header: string[],
  rows: Record<string, string>[],
  knownPoint: ((name: string) => string | undefined) | undefined,
): { readings: (Reading & { at?: string })[]; problems: CsvProblem[] } {
  const problems: CsvProblem[] = [];
  const missing = ["point", "kind", "value"].filter((c) => !header.includes(c));
  const extra = header.filter((c) => !(CSV_COLUMNS as readonly string[]).includes(c));
  if (missing.length > 0 || extra.length > 0) {
    const read = header.join(",").slice(0, 120);
    const message = texts.headerReadsAcceptedPoint(
      read,
      missing.length ? texts.missing(missing.join(", ")) : "",
      extra.length ? texts.notKnown(extra.join(", ")) : "",
      CSV_COLUMNS.join(","),
    );
    return { readings: [], problems: [{ line: 1, message }] };
  }
  const readings: (Reading & { at?: string })[] = [];
  rows.forEach((row, i) => {
    const line = i + 2;
    const fail = (message: string) => void problems.push({ line, message });
    const name = (row.point ?? "").trim();
    const point = knownPoint ? knownPoint(name) : name;
    if (!point) return fail(texts.readPointAcceptedPoint(name));
    const kind = (row.kind ?? "").trim().toLowerCase() as ReadingKind;
    if (!READING_KINDS.includes(kind)) return fail(texts.readKindAccepted(row.kind ?? "", READING_KINDS.join(", ")));
    const unit = (row.unit ?? "").trim() || READING_UNIT[kind];
    const parsed = parseQuantity(`${(row.value ?? "").trim()}${unit}`, { unit: UNIT[kind] });
    if (!parsed.ok) return fail(texts.readValueAccepted(row.value ?? "", unit, parsed.why, parsed.accepted));
    const value = kind === "ma" ? Number((parsed.quantity.value * 1000).toPrecision(12)) : parsed.quantity.value;
    const problem = readingProblem(kind, value);
    if (problem) return fail(problem);
    const conditions: Conditions = {};
    const mains = Number(row.mains);
    if (row.mains && !(mains >= 0 && mains <= 500)) return fail(texts.readMainsAccepted(row.mains));
    if (row.mains) conditions.mains = mains;
    const warm = Number(row.warm);
    if (row.warm && !(warm >= 0)) return fail(texts.readWarmAcceptedMinutes(row.warm));
    if (row.warm) conditions.warmMinutes = warm;
    const without = row.without
      ?.split(/[ ,]+/)
      .filter(Boolean)
      .map((t) => t.toUpperCase());
    if (without?.length) conditions.without = without;
    for (const key of ["switches", "controls", "limiter"] as const) if (row[key]) conditions[key] = row[key];
    if (row.at && Number.isNaN(Date.parse(row.at))) return fail(texts.readAcceptedTimeSuch(row.at));
    readings.push({
      point,
      kind,
      value,
      digits: parsed.quantity.digits,
      conditions,
      ...(row.note ? { note: row.note } : {}),
      ...(row.at ? { at: new Date(row.at).toISOString() } : {}),
    });
  });
  return { readings, problems };
}
