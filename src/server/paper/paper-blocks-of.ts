/** Any paper of a job as blocks. Made in the process of its own. */

import { lineworkOf } from "@/core/drawing/linework";
import { viewJob } from "@/core/job/job-view";
import type { Block } from "@/core/papers/block";
import { billBlocks, creditBlocks } from "@/core/papers/bill-paper";
import { historyBlocks } from "@/core/papers/history-paper";
import type { PaperName } from "@/core/papers/paper-name";
import { paperOf } from "@/core/papers/paper-title";
import { questionBlocks } from "@/core/papers/question-paper";
import { quoteBlocks } from "@/core/papers/quote-paper";
import { owed, standingBills } from "@/core/money/bill";
import { questionsOf } from "@/core/repair/questions";
import type { WholeJob } from "../shop";
import { solvedHere } from "../solved";
import { drawn } from "./drawn";
import { reportBlocksOf } from "./report-blocks-of";

/** @returns undefined for a quote, a question, a bill or a credit note that the job does not have. */
export async function paperBlocksOf(job: WholeJob, name: PaperName): Promise<Block[] | undefined> {
  if (name.paper === "report") return reportBlocksOf(job);
  const line = "line" in name ? name.line : 0;
  const { settings } = job;
  const view = viewJob(job.events, job.model?.netlist, settings, Date.now(), solvedHere);
  const of = paperOf(job.head.id, view.state);
  if (name.paper === "history") {
    const inUse = view.inUse;
    try {
      const drawing = inUse && lineworkOf(await drawn(inUse.netlist), inUse.circuit, settings.symbols, {});
      return historyBlocks(job.head.id, view, settings, drawing);
    } catch (error) {
      // The history is whole without a drawing; who runs the server sees why there is none.
      console.error(`scutum: the history of job ${job.head.id} has no drawing: ${(error as Error).message}`);
      return historyBlocks(job.head.id, view, settings);
    }
  }
  if (name.paper === "bill") {
    const bill = view.state.bills.find((b) => b.seq === line);
    const last = standingBills(view.state).at(-1);
    return bill && billBlocks(of, bill, settings, bill === last ? owed(view.state) : undefined);
  }
  if (name.paper === "credit") {
    const bill = view.state.bills.find((b) => b.cancelled?.seq === line);
    return bill && creditBlocks(of, bill, settings);
  }
  const question = questionsOf(view.state).find((q) => q.line === line && q.kind === name.paper);
  if (!question) return undefined;
  return question.kind === "quote"
    ? quoteBlocks(of, question, settings)
    : question.asked && questionBlocks(of, question, view.state, settings, view.circuit?.mains?.hertz);
}
