/** One summary row a job, for the board and the search: made from the tape, never the other way round. */

import type { JobEvent } from "@/core/tape/events/event";
import { energyOf, viewJob } from "@/core/job/job-view";
import { digestOf } from "@/core/memory/digest";
import { readOnce } from "@/core/circuit/read-once";
import { summarise, SUMMARY_VERSION } from "@/core/job/summary";
import type { Database, Sql } from "./database";
import { getSettings } from "./settings";
import { readTape } from "./tape-read";
import { markUnreadable, type UnreadableLine } from "./unreadable";

/** Writes a job's one summary row from its tape. */
export async function writeSummary(sql: Sql, jobId: number, tape: JobEvent[]): Promise<void> {
  const last = Date.parse(tape.at(-1)?.at ?? "") || 0;
  const settings = await getSettings(sql);
  const model = await modelOfJob(sql, jobId);
  const view = viewJob(tape, model, settings, last);
  const s = summarise(view, energyOf(view, last).kind, settings);
  const digest = digestOf(view, model === undefined ? undefined : readOnce(model));
  await sql.query(
    `insert into job_summaries (job_id, owner, amp, serial, complaint, waiting_on, waiting_what, waiting_until, energy, due_date, open_findings, readings, opened_at, last_at, search, waiting_since, next_step, next_station, replaced, made_by, technician, digest)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19::jsonb, $20, $21, $22::jsonb)
     on conflict (job_id) do update set owner = excluded.owner, amp = excluded.amp, serial = excluded.serial, complaint = excluded.complaint, waiting_on = excluded.waiting_on,
       waiting_what = excluded.waiting_what, waiting_until = excluded.waiting_until, energy = excluded.energy, due_date = excluded.due_date, open_findings = excluded.open_findings,
       readings = excluded.readings, opened_at = excluded.opened_at, last_at = excluded.last_at, search = excluded.search,
       waiting_since = excluded.waiting_since, next_step = excluded.next_step, next_station = excluded.next_station, replaced = excluded.replaced, made_by = excluded.made_by,
       technician = excluded.technician, digest = excluded.digest`,
    [
      jobId,
      s.owner,
      s.amp,
      s.serial,
      s.complaint,
      s.waitingOn,
      s.waitingWhat,
      s.waitingUntil,
      s.energy,
      s.dueDate,
      s.openFindings,
      s.readings,
      s.openedAt,
      s.lastAt,
      s.search,
      s.waitingSince,
      s.nextStep,
      s.nextStation,
      JSON.stringify(s.replaced),
      SUMMARY_VERSION,
      s.technician,
      JSON.stringify(digest),
    ],
  );
}

async function modelOfJob(sql: Sql, jobId: number): Promise<string | undefined> {
  const [model] = await sql.query<{ netlist: string }>(
    "select m.netlist from jobs j join amp_models m on m.id = j.model_id where j.id = $1",
    [jobId],
  );
  return model?.netlist;
}

/** What was made anew: how many jobs, and which of their lines cannot be understood. */
export interface MadeAnew {
  jobs: number;
  unreadable: UnreadableLine[];
}

async function makeAnew(sql: Sql, jobs: { id: number }[]): Promise<MadeAnew> {
  const unreadable: UnreadableLine[] = [];
  for (const { id } of jobs) {
    unreadable.push(...(await markUnreadable(sql, id)));
    await writeSummary(sql, id, await readTape(sql, id));
  }
  return { jobs: jobs.length, unreadable };
}

/** Checks every tape and writes every summary row anew. */
export async function rebuildSummaries(database: Database): Promise<MadeAnew> {
  return database.transaction(async (sql) => {
    const jobs = await sql.query<{ id: number }>("select id from jobs order by id");
    await sql.query("delete from job_summaries");
    return makeAnew(sql, jobs);
  });
}

/** Checks the tapes, and makes anew the rows, of the jobs that another version of the program wrote. */
export async function refreshSummaries(database: Database): Promise<MadeAnew> {
  return database.transaction(async (sql) => {
    const jobs = await sql.query<{ id: number }>("select job_id as id from job_summaries where made_by <> $1 order by job_id", [
      SUMMARY_VERSION,
    ]);
    return makeAnew(sql, jobs);
  });
}
