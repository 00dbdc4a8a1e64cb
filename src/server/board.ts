/** The bench board: jobs by what they wait for, and a search over everything. Reads the summary rows only. */

import type { BoardJob } from "@/core/job/summary";
import { byUrgency } from "@/core/job/urgency";
import { stockPartWords } from "@/core/quantity/stock-words";
import { badNames } from "./bad-names";
import type { Sql } from "./database";
import { stockParts } from "./stock-parts";
import { stockTubes } from "./stock-tubes";

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

/** Something of the shop that a search met beside the jobs. */
export interface FoundElsewhere {
  kind: "part in stock" | "tube in stock" | "circuit" | "bad name";
  says: string;
  /** Where it is looked at. */
  href?: string;
}

/** Parts and tubes in stock, circuits of the library and bad names in which every word is found. */
export async function searchElsewhere(sql: Sql, text: string, most = 20): Promise<FoundElsewhere[]> {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean).slice(0, 8);
  if (words.length === 0) return [];
  const [models, parts, tubes, names] = [
    await sql.query<{ id: number; maker: string; name: string }>(
      "select max(id) as id, maker, name from amp_models group by maker, name order by maker, name",
    ),
    await stockParts(sql),
    await stockTubes(sql),
    await badNames(sql),
  ];
  const all: FoundElsewhere[] = [
    ...parts.map((p): FoundElsewhere => ({ kind: "part in stock", says: stockPartWords(p) })),
    ...tubes.map((t): FoundElsewhere => ({
      kind: "tube in stock",
      says: [`number ${t.number}`, t.type, t.note, t.moves.at(-1)?.place].filter(Boolean).join(", "),
    })),
    ...models.map((m): FoundElsewhere => ({ kind: "circuit", says: `${m.maker} ${m.name}`, href: `/library/${m.id}` })),
    ...names.map((n): FoundElsewhere => ({
      kind: "bad name",
      says: [n.words || n.letter, n.does, ...n.evidence.map((e) => e.text)].join(", "),
    })),
  ];
  return all.filter((f) => words.every((w) => f.says.toLowerCase().includes(w))).slice(0, most);
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
