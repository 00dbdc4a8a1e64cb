/** What this shop has replaced in other amps of a model. */

import type { ShopHistory } from "@/core/suspects/history";
import type { Sql } from "./database";
import type { AmpModel } from "./models";

/** Replacements that stand, in other jobs whose amp is of this model, in any version of its circuit. Which lines stand is in the summaries. */
export async function shopHistory(sql: Sql, jobId: number, model: Pick<AmpModel, "maker" | "name">): Promise<ShopHistory> {
  const others = await sql.query<{ replaced: string[] | null }>(
    `select s.replaced from jobs j join amp_models m on m.id = j.model_id left join job_summaries s on s.job_id = j.id
     where m.maker = $2 and m.name = $3 and j.id <> $1`,
    [jobId, model.maker, model.name],
  );
  const replaced: Record<string, number> = {};
  for (const position of others.flatMap((o) => o.replaced ?? [])) replaced[position] = (replaced[position] ?? 0) + 1;
  return { jobs: others.length, replaced: Object.fromEntries(Object.entries(replaced).sort(([a], [b]) => (a < b ? -1 : 1))) };
}
