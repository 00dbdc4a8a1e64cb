/** Jobs and their tapes, read. A stored line that does not pass the checks of today is read as such: see `unreadable.ts`. */

import type { JobEvent } from "@/core/tape/events/event";
import type { Sql } from "./database";
import { UserError } from "./errors";

export interface JobHead {
  id: number;
  uid: string;
  modelId: number | null;
}

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
  why: string | null;
}

/** A line as it is stored, with the reason why it cannot be understood, where it cannot. */
export type StoredEvent = JobEvent & { unreadable?: string };

const toStored = (r: Row): StoredEvent =>
  ({
    seq: r.seq,
    id: r.id,
    at: new Date(r.at).toISOString(),
    who: r.who,
    type: r.type,
    payload: r.payload,
    ...(r.supersedes === null ? {} : { supersedes: r.supersedes }),
    ...(r.reason === null ? {} : { reason: r.reason }),
    ...(r.why === null ? {} : { unreadable: r.why }),
  }) as StoredEvent;

/** What the readers of a tape get: a line that cannot be understood is of a type of its own, and neither corrects nor undoes another. */
function toEvent({ unreadable, ...e }: StoredEvent): JobEvent {
  if (unreadable === undefined) return e;
  const { seq, id, at, who } = e;
  return { seq, id, at, who, type: "unreadable", payload: { type: e.type, why: unreadable } };
}

/** The tape after line `after`, in order, as it is stored: for archives and checks. */
export async function readStored(sql: Sql, jobId: number, after = 0): Promise<StoredEvent[]> {
  const rows = await sql.query<Row>(
    `select e.seq, e.id, e.at, e.who, e.type, e.payload, e.supersedes, e.reason, u.why
     from events e left join unreadable_lines u on u.job_id = e.job_id and u.seq = e.seq
     where e.job_id = $1 and e.seq > $2 order by e.seq`,
    [jobId, after],
  );
  return rows.map(toStored);
}

/** The tape after line `after`, in order. */
export async function readTape(sql: Sql, jobId: number, after = 0): Promise<JobEvent[]> {
  return (await readStored(sql, jobId, after)).map(toEvent);
}
