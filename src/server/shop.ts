/** One job with all that its screens and papers need, read in one go. */

import { readCircuit } from "@/core/circuit/read";
import type { Circuit } from "@/core/circuit/circuit";
import type { JobEvent } from "@/core/job/events/event";
import { viewJob, type JobView } from "@/core/job/job-view";
import { composeReport, type Report } from "@/core/job/report";
import type { Settings } from "@/core/job/settings";
import type { Sql } from "./db";
import { getModel, type AmpModel } from "./models";
import { getSettings } from "./settings";
import { getJob, readTape, type JobHead } from "./tape";

export interface WholeJob {
  head: JobHead;
  events: JobEvent[];
  model?: AmpModel;
  settings: Settings;
}

export async function wholeJob(sql: Sql, id: number): Promise<WholeJob> {
  const head = await getJob(sql, id);
  const [events, settings, model] = [await readTape(sql, id), await getSettings(sql), head.modelId === null ? undefined : await getModel(sql, head.modelId)];
  return { head, events, settings, model };
}

export function circuitOf(job: Pick<WholeJob, "model">): Circuit | undefined {
  return job.model && readCircuit(job.model.netlist).circuit;
}

export function viewOf(job: WholeJob, now = Date.now()): JobView {
  return viewJob(job.events, circuitOf(job), job.settings, now);
}

export function reportOf(job: WholeJob): Report {
  return composeReport(job.head.id, viewOf(job), job.settings);
}
