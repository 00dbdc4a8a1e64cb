/** The bench board: jobs by what they wait for, and a search over everything. Reads the summary rows only. */

import type { BoardJob } from "@/core/job/summary";
import { byUrgency } from "@/core/job/urgency";
import type { Sql } from "./database";

const COLUMNS = `job_id as id, owner, amp, serial, complaint, waiting_on as "waitingOn", waiting_what as "waitingWhat", waiting_until as "waitingUntil", energy, due_date as "dueDate",
  open_findings as "openFindings", readings, opened_at as "openedAt", last_at as "lastAt", waiting_since as "waitingSince", next_step as "nextStep", next_station as "nextStation", technician`;

/** Jobs that are open, the most urgent first; with the number of those that are done. */
export async function board(sql: Sql, most = 300): Promise<{ jobs: BoardJob[]; open: number; done: number }> {
  const jobs = await sql.query<BoardJob>(
    `select ${COLUMNS} from job_summaries where waiting_on <> 'done'
     order by (energy = 'live') desc, (energy = 'stored') desc, coalesce(nullif(due_date, ''), '9999'), last_at desc limit $1`,
    [most],
  );
  const [count] = await sql.query<{ open: number; done: number }>(
    "select count(*) filter (where waiting_on <> 'done')::int as open, count(*) filter (where waiting_on = 'done')::int as done from job_summaries",
  );
  return { jobs: jobs.sort(byUrgency), ...count! };
}

/** Every word must be somewhere in the job: owner, amp, serial, complaint, parts, findings, notes, or its number. */
export async function search(sql: Sql, text: string, most = 100): Promise<BoardJob[]> {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean).slice(0, 8);
  if (words.length === 0) return [];
  const tests = words.map((_, i) => `(strpos(search, $${i + 1}) > 0 or job_id::text = $${i + 1})`).join(" and ");
  const rows = await sql.query<BoardJob & { search: string }>(
    `select ${COLUMNS}, search from job_summaries where ${tests} order by last_at desc limit ${Math.floor(most)}`,
    words,
  );
  return rows.map(({ search: text, ...job }) => {
    const shown = [job.owner, job.amp, job.serial, job.complaint].join("\n").toLowerCase();
    const hidden = words.find((w) => !shown.includes(w));
    return {
      ...job,
      ...(hidden
        ? {
            found: text
              .split("\n")
              .find((line) => line.includes(hidden))
              ?.slice(0, 160),
          }
        : {}),
    };
  });
}

export async function ownerNames(sql: Sql): Promise<string[]> {
  return (await sql.query<{ name: string }>("select name from owners order by name")).map((r) => r.name);
}
