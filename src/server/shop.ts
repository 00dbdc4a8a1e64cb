/** One job with all that its screens and papers need, read in one go. */

import type { JobEvent } from "@/core/tape/events/event";
import { viewJob, type JobView } from "@/core/job/job-view";
import { composeReport, type Report } from "@/core/papers/report";
import type { Settings } from "@/core/shop/settings";
import type { Database, Sql } from "./database";
import { addModel, getModel, type AmpModel } from "./models";
import { getSettings } from "./settings";
import { solvedHere } from "./solved";
import { checkIncoming, type IncomingEvent } from "./incoming";
import { appendIn } from "./tape";
import { getJob, readTape, type JobHead } from "./tape-read";

export interface WholeJob {
  head: JobHead;
  events: JobEvent[];
  model?: AmpModel;
  settings: Settings;
}

export async function wholeJob(sql: Sql, id: number): Promise<WholeJob> {
  const head = await getJob(sql, id);
  const [events, settings, model] = [
    await readTape(sql, id),
    await getSettings(sql),
    head.modelId === null ? undefined : await getModel(sql, head.modelId),
  ];
  return { head, events, settings, model };
}

/** Pins another version of a model, or another model, to a job; the tape says so. */
export async function giveCircuit(database: Database, jobId: number, who: string, circuit: string | number): Promise<{ modelId: number }> {
  const given = await database.transaction(async (sql) => {
    await getJob(sql, jobId);
    const model = typeof circuit === "string" ? await addModel(sql, circuit) : await getModel(sql, circuit);
    const line: IncomingEvent = {
      type: "circuit-given",
      payload: { name: `${model.maker} ${model.name}, version ${model.version}`.trim() },
      who,
    };
    checkIncoming([line]);
    await sql.query("update jobs set model_id = $2 where id = $1", [jobId, model.id]);
    await appendIn(sql, jobId, [line], { server: true });
    return { modelId: model.id };
  });
  await database.announce(jobId);
  return given;
}

/** Without solving: rails that were never read are estimated from the chart. */
export function viewOf(job: WholeJob, now = Date.now()): JobView {
  return viewJob(job.events, job.model?.netlist, job.settings, now);
}

/** The owner's report, its verdicts against the solved circuit. */
export function reportOf(job: WholeJob): Report {
  return composeReport(job.head.id, viewJob(job.events, job.model?.netlist, job.settings, Date.now(), solvedHere), job.settings);
}
