/** Jobs opened and their tapes appended to. The summary row is written in the same transaction. */

import { randomUUID } from "node:crypto";
import { is, type JobEvent } from "@/core/tape/events/event";
import { tapeLines } from "@/core/tape/fold";
import { referenceErrors, storedReferences } from "@/core/tape/references";
import { allowed } from "@/core/allowed/allowed";
import { jobNow } from "@/core/allowed/job-now";
import type { Role } from "@/core/shop/people";
import { missingOf } from "./attachments";
import type { Database, Sql } from "./database";
import { UserError } from "./errors";
import { checkIncoming, type IncomingEvent } from "./incoming";
import { getModel } from "./models";
import { ownerOf } from "./owners";
import { getSettings } from "./settings";
import { issue } from "./issue";
import { movePieces } from "./stock-parts";
import { writeSummary } from "./summaries";
import { readTape, type JobHead } from "./tape-read";

export interface NewJob {
  owner: string;
  contact?: string;
  /** Of an owner whose name is known with another contact: whether it is the same person; the same unless said. */
  sameOwner?: boolean;
  amp: string;
  serial?: string;
  modelId?: number;
  who: string;
  uid?: string;
  id?: number;
}

/** Opens a job with its first line. Owner and amp are found by name or made. */
export async function openJob(sql: Sql, job: NewJob): Promise<JobHead> {
  // Without an answer the same name is the same person: scripts and archives have nobody to ask.
  const ownerId = await ownerOf(sql, { name: job.owner, contact: job.contact ?? "", same: job.sameOwner ?? true });
  const serial = job.serial ?? "";
  const known = serial
    ? await sql.query<{ id: number }>("select id from amps where owner_id = $1 and label = $2 and serial = $3", [ownerId, job.amp, serial])
    : [];
  const [amp] =
    known.length > 0
      ? known
      : await sql.query<{ id: number }>("insert into amps (owner_id, label, serial) values ($1, $2, $3) returning id", [
          ownerId,
          job.amp,
          serial,
        ]);
  // Two benches that open jobs at once must not be given one number.
  await sql.query("lock table jobs in exclusive mode");
  const number = job.id ?? (await sql.query<{ next: number }>("select coalesce(max(id), 1000) + 1 as next from jobs"))[0]!.next;
  const [head] = await sql.query<{ id: number; uid: string }>(
    "insert into jobs (id, uid, owner_id, amp_id, model_id) values ($1, $2, $3, $4, $5) returning id, uid",
    [number, job.uid ?? randomUUID(), ownerId, amp!.id, job.modelId ?? null],
  );
  return { id: head!.id, uid: head!.uid, modelId: job.modelId ?? null };
}

/**
 * Appends events to a job's tape and gives them back with their places.
 * An event whose id is on this tape already is not logged twice: the line that stands is given back.
 * @param role of who sends them; where nobody signs in there is none.
 * @throws UserError 409 when an event supersedes a line that has already been superseded, or something on the tape stands against it;
 * 403 when it is not theirs to log; 422 when it can never be so.
 */
export async function append(database: Database, jobId: number, events: IncomingEvent[], role?: Role): Promise<JobEvent[]> {
  checkIncoming(events);
  const lines = await database.transaction((sql) => appendIn(sql, jobId, events, { role }));
  await database.announce(jobId);
  return lines;
}

/** Lines of before this shop kept its jobs here, asked like any other. What they give out keeps the day of its line. */
export async function appendPast(database: Database, jobId: number, events: IncomingEvent[]): Promise<JobEvent[]> {
  checkIncoming(events);
  return database.transaction((sql) => appendIn(sql, jobId, events, { past: true }));
}

/** `append` inside a transaction that is open already. The events must have been checked. */
export async function appendIn(
  sql: Sql,
  jobId: number,
  events: IncomingEvent[],
  by: { role?: Role; server?: boolean; past?: boolean } = {},
): Promise<JobEvent[]> {
  const [job] = await sql.query<{ id: number; model_id: number | null }>("select id, model_id from jobs where id = $1 for update", [jobId]);
  if (!job) throw new UserError(404, `There is no job ${jobId} here.`);
  const tape = await readTape(sql, jobId);
  const settings = await getSettings(sql);
  const model = job.model_id === null ? undefined : (await getModel(sql, job.model_id)).netlist;
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
    const [wrong] = referenceErrors(event, tape);
    if (wrong) throw new UserError(422, wrong.message, [wrong]);
    if (e.supersedes !== undefined) refuseStale(tape, e.supersedes);
    // What the server itself writes with a change of its own asks nobody.
    const at = Date.parse(event.at);
    const refused = by.server ? undefined : allowed(jobNow(tape, model, settings, at), event, { role: by.role, at });
    if (refused)
      throw new UserError(refused.status, refused.says, [{ ...(refused.field ? { field: refused.field } : {}), message: refused.says }]);
    if (!by.server) await issue(sql, jobId, event, tape, settings, by.past ? at : Date.now());
    tape.push(event);
    byId.set(id, event);
    fresh.push(event);
    out.push(event);
  }
  await refuseMissing(sql, fresh);
  await insert(sql, jobId, fresh);
  await movePartsOf(sql, jobId, fresh, tape);
  await writeSummary(sql, jobId, tape);
  return out;
}

/**
 * Pieces of the shop's stock that lines take out of their drawers, or put back when such a line is struck or corrected. With the line in one
 * transaction: what is refused takes nothing, and what is sent twice takes once.
 */
async function movePartsOf(sql: Sql, jobId: number, lines: readonly JobEvent[], tape: readonly JobEvent[]): Promise<void> {
  for (const e of lines) {
    const struck = e.supersedes === undefined ? undefined : tape[e.supersedes - 1];
    // An undo of an undo takes again what the line took that stands again.
    const taken = e.type === "undo" && struck?.type === "undo" ? piecesOf(tape[struck.supersedes! - 1]) : piecesOf(e);
    const back = piecesOf(struck);
    if (taken?.number === back?.number && taken?.pieces === back?.pieces) continue;
    if (back) await movePieces(sql, back.number, back.pieces, `job ${jobId}, line ${struck!.seq} taken back`, e.who);
    if (taken) await movePieces(sql, taken.number, -taken.pieces, `job ${jobId}, ${taken.position}`, e.who);
  }
}

/** What a line takes out of a drawer; undefined for none. */
function piecesOf(e: JobEvent | undefined): { number: number; pieces: number; position: string } | undefined {
  if (!e || !is(e, "change") || e.payload.stock === undefined) return undefined;
  const { stock: number, pieces = 1, position } = e.payload;
  return pieces > 0 ? { number, pieces, position } : undefined;
}

/** @throws UserError 422 when a line refers to a photo or recording that this shop does not have. */
export async function refuseMissing(sql: Sql, events: JobEvent[]): Promise<void> {
  const [missing] = await missingOf(sql, events.flatMap(storedReferences));
  if (missing) throw new UserError(422, missing.message, [{ field: missing.field, message: missing.message }]);
}

function refuseStale(tape: JobEvent[], seq: number): void {
  const line = tapeLines(tape)[seq - 1]!;
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
