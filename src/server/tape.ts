/** Jobs and their tapes: opening, appending, reading. The summary row is written in the same transaction. */

import { randomUUID } from "node:crypto";
import type { EventDraft, JobEvent } from "@/core/tape/events/event";
import { payloadErrors } from "@/core/tape/events/validate";
import { tapeLines } from "@/core/tape/fold";
import { energyOf, viewJob } from "@/core/job/job-view";
import { summarise, SUMMARY_VERSION } from "@/core/job/summary";
import type { Database, Sql } from "./db";
import { UserError } from "./errors";
import { getSettings } from "./settings";

export interface JobHead {
  id: number;
  uid: string;
  modelId: number | null;
}

/** An event as a client sends it: with the id and the time that it was given at the bench. */
export type IncomingEvent = EventDraft & { id?: string; at?: string; who: string };

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;
/** A clock may run ahead of the server's by this much; beyond it the time is not believed. */
const CLOCK_AHEAD_MS = 5 * 60_000;

export async function getJob(sql: Sql, id: number): Promise<JobHead> {
  const [job] = await sql.query<{ id: number; uid: string; model_id: number | null }>("select id, uid, model_id from jobs where id = $1", [
    id,
  ]);
  if (!job) throw new UserError(404, `There is no job ${id} here.`);
  return { id: job.id, uid: job.uid, modelId: job.model_id };
}

interface Row {
  seq: number;
  id: string;
  at: Date;
  who: string;
  type: string;
  payload: unknown;
  supersedes: number | null;
  reason: string | null;
}

const toEvent = (r: Row): JobEvent =>
  ({
    seq: r.seq,
    id: r.id,
    at: new Date(r.at).toISOString(),
    who: r.who,
    type: r.type,
    payload: r.payload,
    ...(r.supersedes === null ? {} : { supersedes: r.supersedes }),
    ...(r.reason === null ? {} : { reason: r.reason }),
  }) as JobEvent;

const COLUMNS = "seq, id, at, who, type, payload, supersedes, reason";

/** The tape after line `after`, in order. */
export async function readTape(sql: Sql, jobId: number, after = 0): Promise<JobEvent[]> {
  return (await sql.query<Row>(`select ${COLUMNS} from events where job_id = $1 and seq > $2 order by seq`, [jobId, after])).map(toEvent);
}

export interface NewJob {
  owner: string;
  contact?: string;
  amp: string;
  serial?: string;
  modelId?: number;
  who: string;
  uid?: string;
  id?: number;
}

/** Opens a job with its first line. Owner and amp are found by name or made. */
export async function openJob(sql: Sql, job: NewJob): Promise<JobHead> {
  const [owner] = await sql.query<{ id: number }>(
    "insert into owners (name, contact) values ($1, $2) on conflict (name) do update set contact = case when excluded.contact <> '' then excluded.contact else owners.contact end returning id",
    [job.owner, job.contact ?? ""],
  );
  const serial = job.serial ?? "";
  const known = serial
    ? await sql.query<{ id: number }>("select id from amps where owner_id = $1 and label = $2 and serial = $3", [
        owner!.id,
        job.amp,
        serial,
      ])
    : [];
  const [amp] =
    known.length > 0
      ? known
      : await sql.query<{ id: number }>("insert into amps (owner_id, label, serial) values ($1, $2, $3) returning id", [
          owner!.id,
          job.amp,
          serial,
        ]);
  // Two benches that open jobs at once must not be given one number.
  await sql.query("lock table jobs in exclusive mode");
  const number = job.id ?? (await sql.query<{ next: number }>("select coalesce(max(id), 1000) + 1 as next from jobs"))[0]!.next;
  const [head] = await sql.query<{ id: number; uid: string }>(
    "insert into jobs (id, uid, owner_id, amp_id, model_id) values ($1, $2, $3, $4, $5) returning id, uid",
    [number, job.uid ?? randomUUID(), owner!.id, amp!.id, job.modelId ?? null],
  );
  return { id: head!.id, uid: head!.uid, modelId: job.modelId ?? null };
}

/** Checks what a client sent before anything touches the tape. */
export function checkIncoming(events: IncomingEvent[], now = Date.now()): void {
  if (!Array.isArray(events) || events.length === 0) throw new UserError(400, "Nothing to log: a list of events is wanted.");
  if (events.length > 2000) throw new UserError(413, `${events.length} events at once; up to 2000 are taken.`);
  const details: { field?: string; message: string }[] = [];
  events.forEach((e, i) => {
    const where = events.length > 1 ? `event ${i + 1}, ` : "";
    if (typeof e !== "object" || e === null) return void details.push({ message: `${where}an object is wanted` });
    for (const { field, message } of payloadErrors(e.type, e.payload)) details.push({ field, message: where + message });
    if (e.id !== undefined && !UUID.test(e.id)) details.push({ field: "id", message: `${where}id: a UUID in lower case is wanted` });
    if (typeof e.who !== "string" || !/^[\p{L}.\- ]{1,12}$/u.test(e.who))
      details.push({
        field: "who",
        message: `${where}who: initials of 1 to 12 letters are wanted; read ${JSON.stringify(e.who)?.slice(0, 40)}`,
      });
    if (e.at !== undefined && !(Date.parse(e.at) > 0 && Date.parse(e.at) < now + CLOCK_AHEAD_MS))
      details.push({ field: "at", message: `${where}at: a time that has come is wanted; read ${String(e.at).slice(0, 40)}` });
    if (e.supersedes !== undefined && !(Number.isInteger(e.supersedes) && e.supersedes > 0))
      details.push({ field: "supersedes", message: `${where}supersedes: the number of a line is wanted` });
    if (e.reason !== undefined && (typeof e.reason !== "string" || e.reason.length > 1000))
      details.push({ field: "reason", message: `${where}reason: up to 1000 characters` });
    if (e.type === "undo" && e.supersedes === undefined)
      details.push({ field: "supersedes", message: `${where}an undo names the line that it strikes` });
  });
  if (details.length > 0) throw new UserError(422, details[0]!.message, details);
}

/**
 * Appends events to a job's tape and gives them back with their places.
 * An event whose id is on this tape already is not logged twice: the line that stands is given back.
 * @throws UserError 409 when an event supersedes a line that has already been superseded.
 */
export async function append(database: Database, jobId: number, events: IncomingEvent[]): Promise<JobEvent[]> {
  checkIncoming(events);
  return database.transaction((sql) => appendIn(sql, jobId, events));
}

/** `append` inside a transaction that is open already. The events must have been checked. */
export async function appendIn(sql: Sql, jobId: number, events: IncomingEvent[]): Promise<JobEvent[]> {
  const [job] = await sql.query<{ id: number }>("select id from jobs where id = $1 for update", [jobId]);
  if (!job) throw new UserError(404, `There is no job ${jobId} here.`);
  const tape = await readTape(sql, jobId);
  const byId = new Map(tape.map((e) => [e.id, e]));
  const out: JobEvent[] = [];
  const fresh: JobEvent[] = [];
  for (const e of events) {
    const id = e.id ?? randomUUID();
    const known = byId.get(id);
    if (known) {
      out.push(known);
      continue;
    }
    if (e.supersedes !== undefined) refuseStale(tape, e.supersedes);
    const event = {
      seq: tape.length + 1,
      id,
      at: new Date(e.at ?? Date.now()).toISOString(),
      who: e.who,
      type: e.type,
      payload: e.payload,
      ...(e.supersedes === undefined ? {} : { supersedes: e.supersedes }),
      ...(e.reason === undefined ? {} : { reason: e.reason }),
    } as JobEvent;
    tape.push(event);
    byId.set(id, event);
    fresh.push(event);
    out.push(event);
  }
  await insert(sql, jobId, fresh);
  await writeSummary(sql, jobId, tape);
  return out;
}

function refuseStale(tape: JobEvent[], seq: number): void {
  const line = tapeLines(tape).find((l) => l.event.seq === seq);
  if (!line) throw new UserError(422, `Line ${seq} is not on this tape; it has ${tape.length} lines.`);
  if (!line.effective) {
    const by = tape.find((e) => e.seq === line.supersededBy)!;
    throw new UserError(
      409,
      `Line ${seq} was already replaced by line ${by.seq} (${by.who}, ${by.at.slice(11, 16)} UTC). Look at that one first; what you typed is kept.`,
    );
  }
}

/** Writes lines that have their places, in one statement. */
export async function insert(sql: Sql, jobId: number, events: JobEvent[]): Promise<void> {
  if (events.length === 0) return;
  await sql.query(
    `insert into events (job_id, seq, id, at, who, type, payload, supersedes, reason)
     select $1, seq, id, at, who, type, payload, supersedes, reason
     from jsonb_to_recordset($2::jsonb) as e (seq integer, id uuid, at timestamptz, who text, type text, payload jsonb, supersedes integer, reason text)`,
    [jobId, JSON.stringify(events)],
  );
}

/** Writes a job's one summary row from its tape. */
export async function writeSummary(sql: Sql, jobId: number, tape: JobEvent[]): Promise<void> {
  const last = Date.parse(tape.at(-1)?.at ?? "") || 0;
  const settings = await getSettings(sql);
  const view = viewJob(tape, await modelOfJob(sql, jobId), settings, last);
  const s = summarise(view, energyOf(view, last).kind, settings);
  await sql.query(
    `insert into job_summaries (job_id, owner, amp, serial, complaint, waiting_on, waiting_what, waiting_until, energy, due_date, open_findings, readings, opened_at, last_at, search, waiting_since, next_step, next_station, replaced, made_by)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19::jsonb, $20)
     on conflict (job_id) do update set owner = excluded.owner, amp = excluded.amp, serial = excluded.serial, complaint = excluded.complaint, waiting_on = excluded.waiting_on,
       waiting_what = excluded.waiting_what, waiting_until = excluded.waiting_until, energy = excluded.energy, due_date = excluded.due_date, open_findings = excluded.open_findings,
       readings = excluded.readings, opened_at = excluded.opened_at, last_at = excluded.last_at, search = excluded.search,
       waiting_since = excluded.waiting_since, next_step = excluded.next_step, next_station = excluded.next_station, replaced = excluded.replaced, made_by = excluded.made_by`,
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

/** Writes every summary row anew from the tapes. Gives the number of jobs. */
export async function rebuildSummaries(database: Database): Promise<number> {
  return database.transaction(async (sql) => {
    const jobs = await sql.query<{ id: number }>("select id from jobs order by id");
    await sql.query("delete from job_summaries");
    for (const { id } of jobs) await writeSummary(sql, id, await readTape(sql, id));
    return jobs.length;
  });
}

/** Makes anew the rows that another version of the program wrote. Gives their number. */
export async function refreshSummaries(database: Database): Promise<number> {
  return database.transaction(async (sql) => {
    const jobs = await sql.query<{ id: number }>("select job_id as id from job_summaries where made_by <> $1 order by job_id", [
      SUMMARY_VERSION,
    ]);
    for (const { id } of jobs) await writeSummary(sql, id, await readTape(sql, id));
    return jobs.length;
  });
}
