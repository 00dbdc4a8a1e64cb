/** Bills and payments of the whole shop as CSV for its bookkeeping. RFC 4180; a cell that a spreadsheet would run as a formula is disarmed. */

import Papa from "papaparse";
import { BOOK_COLUMNS, bookRows, type Booked } from "@/core/money/bookkeeping";
import { disarmed } from "./csv";
import type { Sql } from "./database";
import { getSettings } from "./settings";

/** Rows from one day to another, both counted, by day. @param from "2026-01-01"; undefined for the first. */
export async function bookkeepingCsv(sql: Sql, from: string | undefined, to: string | undefined): Promise<string> {
  const { money } = await getSettings(sql);
  const jobs = await sql.query<{ job: number; owner: string; booked: Booked | null }>(
    "select job_id as job, owner, digest -> 'booked' as booked from job_summaries order by job_id",
  );
  const rows = jobs
    .flatMap(({ job, owner, booked }) => (booked ? bookRows(job, owner, booked, money.places) : []))
    .filter((r) => (!from || r.date >= from) && (!to || r.date <= to))
    .sort((a, b) => a.date.localeCompare(b.date));
  return Papa.unparse({ fields: [...BOOK_COLUMNS], data: rows.map(disarmed) }, { newline: "\r\n" }) + "\r\n";
}
