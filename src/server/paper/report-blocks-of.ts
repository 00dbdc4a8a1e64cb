/** The owner's report as blocks, with the stages where the fault was. Made in the process of its own: it solves and draws. */

import { circuitInUse } from "@/core/job/circuit-in-use";
import type { Block } from "@/core/papers/block";
import { reportBlocks } from "@/core/papers/report-blocks";
import { reportStages } from "@/core/papers/report-stages";
import { foldJob } from "@/core/tape/fold";
import { reportOf, type WholeJob } from "../shop";
import { drawn } from "./drawn";

export async function reportBlocksOf(job: WholeJob): Promise<Block[]> {
  const report = reportOf(job);
  const circuit = job.model && circuitInUse(foldJob(job.events), job.model.netlist);
  if (!circuit || report.parts.length === 0) return reportBlocks(report);
  try {
    return reportBlocks(report, reportStages(report, circuit.circuit, await drawn(circuit.netlist), job.settings.symbols));
  } catch (error) {
    // The owner's report is whole without a drawing; who runs the server sees why there is none.
    console.error(`scutum: the report of job ${job.head.id} has no drawing: ${(error as Error).message}`);
    return reportBlocks(report);
  }
}
