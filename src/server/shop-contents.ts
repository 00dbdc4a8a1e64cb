/** What a database holds, in a few figures: a backup is held against what it was made of. */

import type { ShopContents, Sql } from "./database";

export async function shopContents(sql: Sql): Promise<ShopContents> {
  const [row] = await sql.query<ShopContents>(
    `select (select count(*)::int from jobs) as jobs, (select count(*)::int from events) as lines,
       (select count(*)::int from attachments) as attachments, (select coalesce(sum(length(bytes)), 0)::float8 from attachments) as bytes,
       (select md5(coalesce(string_agg(id::text || md5(payload::text), '' order by job_id, seq), '')) from events) as fingerprint`,
  );
  return row!;
}
