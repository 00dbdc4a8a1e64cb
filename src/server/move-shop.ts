/** A whole shop from one database to another: from a data folder to a PostgreSQL server, or back. Checked job by job before it counts. */

import { exportJob } from "./archive";
import type { Database, Sql, ShopContents } from "./database";
import { UserError } from "./errors";
import { shopContents } from "./shop-contents";

/** In the order in which they refer to each other. Who is signed in is not taken along: everybody signs in anew. */
export const TABLES: readonly string[] = [
  ...["owners", "amp_models", "amps", "jobs", "bill_numbers", "events", "unreadable_lines", "job_summaries", "attachments", "point_places"],
  ...["stock_tubes", "stock_tube_tests", "stock_tube_moves"],
  ...["stock_parts", "stock_part_pieces", "stock_part_minimums", "bad_names", "bad_name_evidence"],
  ...["settings", "bench_amps", "people", "bench_tokens", "door", "done_once"],
];
/** Those whose numbers are given by the database. */
const NUMBERED = [
  "owners",
  "amp_models",
  "amps",
  "people",
  "bench_tokens",
  "point_places",
  "stock_tubes",
  "stock_tube_tests",
  "stock_tube_moves",
  "stock_parts",
  "stock_part_pieces",
  "stock_part_minimums",
  "bad_names",
  "bad_name_evidence",
] as const;
const AT_ONCE = 200;

interface Column {
  name: string;
  type: string;
}

async function columnsOf(sql: Sql, table: string): Promise<Column[]> {
  return sql.query<Column>(
    `select column_name as name, data_type as type from information_schema.columns
     where table_schema = 'public' and table_name = $1 order by ordinal_position`,
    [table],
  );
}

/** A value as it is handed to the other database: JSON as its text, times to the microsecond as text, the rest as it is. */
const read = ({ name, type }: Column) => (type === "jsonb" || type.startsWith("timestamp") ? `${name}::text as ${name}` : name);

async function copyTable(from: Sql, to: Sql, table: string): Promise<void> {
  const columns = await columnsOf(from, table);
  const key = table === "events" || table === "unreadable_lines" ? "job_id, seq" : columns[0]!.name;
  const names = columns.map((c) => c.name).join(", ");
  for (let offset = 0; ; offset += AT_ONCE) {
    const rows = await from.query<Record<string, unknown>>(
      `select ${columns.map(read).join(", ")} from ${table} order by ${key} limit ${AT_ONCE} offset ${offset}`,
    );
    for (const row of rows) {
      const places = columns.map(
        (c, i) => `$${i + 1}${c.type === "jsonb" ? "::jsonb" : c.type.startsWith("timestamp") ? "::timestamptz" : ""}`,
      );
      await to.query(
        `insert into ${table} (${names}) overriding system value values (${places.join(", ")})`,
        columns.map((c) => row[c.name]),
      );
    }
    if (rows.length < AT_ONCE) return;
  }
}

/**
 * Copies everything from one shop into an empty one, all or nothing, and compares: the figures of both, and the archive of every job, byte for byte.
 * @param report is told of each job that was compared.
 * @throws UserError 409 when the other one is not empty, 500 when something is not what it was.
 */
export async function moveShop(from: Database, to: Database, report: (job: number) => void = () => {}): Promise<ShopContents> {
  const there = await shopContents(to);
  if (there.jobs + there.lines + there.attachments > 0)
    throw new UserError(409, `The shop to move into is not empty: it has ${there.jobs} jobs. Nothing was changed.`);
  return to.transaction(async (sql) => {
    await sql.query("delete from settings");
    await sql.query("delete from door");
    // A server that was started once has the examples in it.
    await sql.query("delete from amp_models where example");
    await sql.query("delete from done_once");
    for (const table of TABLES) await copyTable(from, sql, table);
    for (const table of NUMBERED)
      await sql.query(`select setval(pg_get_serial_sequence('${table}', 'id'), coalesce((select max(id) from ${table}), 0) + 1, false)`);
    const [before, after] = [await shopContents(from), await shopContents(sql)];
    if (JSON.stringify(before) !== JSON.stringify(after))
      throw new UserError(
        500,
        `What arrived is not what left: ${JSON.stringify(after)} instead of ${JSON.stringify(before)}. Nothing was changed.`,
      );
    for (const { id } of await from.query<{ id: number }>("select id from jobs order by id")) {
      const same = Buffer.compare(Buffer.from(await exportJob(from, id)), Buffer.from(await exportJob(sql, id))) === 0;
      if (!same) throw new UserError(500, `The archive of job ${id} is not the same in both. Nothing was changed.`);
      report(id);
    }
    return after;
  });
}
