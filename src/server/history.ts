/** What this shop has replaced in other amps of a model. */

import type { ShopHistory } from "@/core/suspects/history";
import type { Sql } from "./db";
import type { AmpModel } from "./models";

/** Replacements that stand, in other jobs whose amp is of this model, in any version of its circuit. */
export async function shopHistory(sql: Sql, jobId: number, model: Pick<AmpModel, "maker" | "name">): Promise<ShopHistory> {
  const [jobs] = await sql.query<{ count: number }>(
    "select count(*)::int as count from jobs j join amp_models m on m.id = j.model_id where m.maker = $2 and m.name = $3 and j.id <> $1",
    [jobId, model.maker, model.name],
  );
  const rows = await sql.query<{ position: string; count: number }>(
    `select upper(trim(e.payload ->> 'position')) as position, count(distinct e.job_id)::int as count
     from events e join jobs j on j.id = e.job_id join amp_models m on m.id = j.model_id
     where m.maker = $2 and m.name = $3 and e.job_id <> $1 and e.type = 'change' and e.payload ->> 'kind' <> 'experiment'
       and not exists (select 1 from events s where s.job_id = e.job_id and s.supersedes = e.seq)
     group by 1 order by 1`,
    [jobId, model.maker, model.name],
  );
  return { jobs: jobs!.count, replaced: Object.fromEntries(rows.map((r) => [r.position, r.count])) };
}
