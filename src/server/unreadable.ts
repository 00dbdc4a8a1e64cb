/** Stored lines that do not pass the checks of today: an older program took them. They stay on their tapes, are shown there, and count for nothing. */

import type { JobEvent } from "@/core/tape/events/event";
import { payloadErrors } from "@/core/tape/events/validate";
import { referenceErrors, storedReferences } from "@/core/tape/references";
import { missingOf } from "./attachments";
import type { Sql } from "./database";
import { readStored, type StoredEvent } from "./tape-read";

export interface UnreadableLine {
  jobId: number;
  seq: number;
  why: string;
}

/** Checks a job's tape as it is stored and writes down which of its lines cannot be understood. Gives them. */
export async function markUnreadable(sql: Sql, jobId: number): Promise<UnreadableLine[]> {
  const stored = await readStored(sql, jobId);
  // Only of lines that pass their own check is it known what they refer to.
  const sound = stored.map((e) => payloadErrors(e.type, e.payload)[0]);
  const missing = await missingOf(sql, stored.filter((_, i) => !sound[i]).flatMap(storedReferences));
  const found = stored.flatMap((e, i) => {
    const why = sound[i] ?? referenceErrors(e, stored)[0] ?? missing.find((m) => refersTo(e, m.hash));
    return why ? [{ jobId, seq: e.seq, why: `${why.field}: ${why.message}`.slice(0, 500) }] : [];
  });
  await sql.query("delete from unreadable_lines where job_id = $1", [jobId]);
  await writeUnreadable(sql, found);
  return found;
}

const refersTo = (e: JobEvent, hash: string) => storedReferences(e).some((r) => r.hash === hash);

export async function writeUnreadable(sql: Sql, lines: UnreadableLine[]): Promise<void> {
  if (lines.length === 0) return;
  await sql.query(
    `insert into unreadable_lines (job_id, seq, why)
     select "jobId", seq, why from jsonb_to_recordset($1::jsonb) as l ("jobId" integer, seq integer, why text)`,
    [JSON.stringify(lines)],
  );
}

/** The lines of a tape with what cannot be understood in it, as an archive holds them. */
export const unreadableOf = (jobId: number, stored: StoredEvent[]): UnreadableLine[] =>
  stored.flatMap((e) => (e.unreadable === undefined ? [] : [{ jobId, seq: e.seq, why: e.unreadable }]));
