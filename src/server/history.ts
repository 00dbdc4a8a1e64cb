/** What the shop remembers of its other jobs: read from what each of them left beside its tape. */

import { complaintKinds } from "@/core/memory/complaint";
import type { JobDigest } from "@/core/memory/digest";
import { modelMemory, shopMemory, type ModelMemory } from "@/core/memory/shop-memory";
import { similarCases, type OldCase } from "@/core/memory/similar";
import type { ShopHistory } from "@/core/suspects/history";
import type { Sql } from "./database";
import type { AmpModel } from "./models";
import { UserError } from "./errors";

interface Remembered {
  job: number;
  amp: string;
  owner: string;
  maker: string | null;
  name: string | null;
  digest: JobDigest;
}

/** Every other job of the shop with what it left; a row that an older program wrote has nothing yet. */
async function otherJobs(sql: Sql, jobId: number): Promise<Remembered[]> {
  return sql.query<Remembered>(
    `select s.job_id as job, s.amp, s.owner, m.maker, m.name, s.digest
     from job_summaries s join jobs j on j.id = s.job_id left join amp_models m on m.id = j.model_id
     where s.job_id <> $1 and s.digest <> '{}'::jsonb order by s.job_id`,
    [jobId],
  );
}

/** What was seen in other amps of the model, in any version of its circuit, and of parts of a making in any amp. Undone lines do not count. */
export async function shopHistory(
  sql: Sql,
  jobId: number,
  model: Pick<AmpModel, "maker" | "name">,
  complaint: { words: string; when: readonly string[] } | undefined,
): Promise<ShopHistory> {
  const jobs = await otherJobs(sql, jobId);
  return shopMemory(
    jobs.map(({ job, maker, name, digest }) => ({ job, digest, sameModel: maker === model.maker && name === model.name })),
    complaintKinds(complaint?.words ?? "", complaint?.when),
  );
}

/** Old cases like a job, the likest first. @throws UserError 404 for a job that is not here. */
export async function similarJobs(sql: Sql, jobId: number): Promise<OldCase[]> {
  const [here] = await sql.query<{ digest: JobDigest; maker: string | null; name: string | null }>(
    `select s.digest, m.maker, m.name from job_summaries s join jobs j on j.id = s.job_id left join amp_models m on m.id = j.model_id
     where s.job_id = $1`,
    [jobId],
  );
  if (!here) throw new UserError(404, `There is no job ${jobId} here.`);
  const old = await otherJobs(sql, jobId);
  return similarCases(
    here.digest,
    old.map((o) => ({ ...o, sameModel: here.name !== null && o.maker === here.maker && o.name === here.name })),
  );
}

/** What the shop knows of a model, in any version of its circuit. */
export async function memoryOfModel(sql: Sql, model: Pick<AmpModel, "maker" | "name">): Promise<ModelMemory> {
  const jobs = await otherJobs(sql, 0);
  return modelMemory(
    jobs.map(({ job, maker, name, digest }) => ({ job, digest, sameModel: maker === model.maker && name === model.name })),
  );
}
