/** Readings as CSV in and out. RFC 4180; a cell that a spreadsheet would run as a formula is disarmed. */

import Papa from "papaparse";
import type { Circuit } from "@/core/circuit/circuit";
import { findElement } from "@/core/circuit/circuit";
import { foldJob } from "@/core/tape/fold";
import type { JobEvent } from "@/core/tape/events/event";
import { CSV_COLUMNS, readingToRow, rowsToReadings } from "@/core/job/readings-csv";
import { UserError } from "./errors";
import type { IncomingEvent } from "./incoming";

/** A number may start with a minus; a text that starts like a formula gets an apostrophe before it. */
export const disarmed = (row: Record<string, string>): Record<string, string> =>
  Object.fromEntries(Object.entries(row).map(([k, v]) => [k, /^[=+\-@\t\r]/.test(v) && !/^-?[\d.]+(e[+-]?\d+)?$/i.test(v) ? `'${v}` : v]));

export function readingsToCsv(events: JobEvent[]): string {
  const rows = foldJob(events).readings.map(readingToRow);
  return Papa.unparse({ fields: [...CSV_COLUMNS], data: rows.map(disarmed) }, { newline: "\r\n" }) + "\r\n";
}

/** @throws UserError 422 with every bad line; nothing is taken from a file that has one. */
export function csvToEvents(text: string, circuit: Circuit | undefined, who: string): IncomingEvent[] {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, "").trim(), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (h) => h.trim().toLowerCase(),
    transform: (v) => v.replace(/^'(?=[=+\-@])/, ""),
  });
  const header = parsed.meta.fields ?? [];
  const broken = parsed.errors
    .filter((e) => e.type === "Quotes" || e.code === "TooManyFields")
    .map((e) => ({ line: (e.row ?? 0) + 2, message: e.message }));
  const known =
    circuit &&
    ((name: string) =>
      circuit.points.find((p) => p.name.toLowerCase() === name.toLowerCase())?.name ??
      findElement(circuit, name)?.name ??
      (/^[\w.]+:[\w.]+$/.test(name) ? name : undefined));
  const { readings, problems } = rowsToReadings(header, parsed.data, known || undefined);
  const details = [...broken, ...problems].sort((a, b) => a.line - b.line);
  if (details.length > 0)
    throw new UserError(
      422,
      `${details.length === 1 ? "One line" : `${details.length} lines`} of the CSV cannot be read; nothing was taken from it. Line ${details[0]!.line}: ${details[0]!.message}`,
      details,
    );
  if (readings.length === 0) throw new UserError(422, "The CSV holds no readings below its header.");
  return readings.map(({ at, ...payload }) => ({ type: "reading", payload, who, ...(at ? { at } : {}) }));
}
