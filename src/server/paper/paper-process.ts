/** The program that makes reports, in a process of its own: solving a job's circuits and painting its paper stop nobody else's request. */

import "reflect-metadata";
import { setLanguage } from "@/core/language/language";
import { languageOf } from "@/core/shop/settings";
import { paperBlocksOf } from "./paper-blocks-of";
import type { PaperAnswer, PaperTask } from "./paper-task";
import { benchSheetOf } from "./bench-sheet-of";
import { reportPdf } from "./report-pdf";

async function done(task: PaperTask): Promise<unknown> {
  if (task.what === "bench-sheet") {
    setLanguage(languageOf(task.settings));
    return new Uint8Array(await benchSheetOf(task));
  }
  setLanguage(task.what === "pdf" ? task.language : languageOf(task.job.settings));
  if (task.what === "pdf") return new Uint8Array(await reportPdf(task.blocks, task.size, new Map(task.photos)));
  return paperBlocksOf(task.job, task.name);
}

process.on("message", ({ id, task }: { id: number; task: PaperTask }) => {
  done(task).then(
    (result) => process.send!({ id, result } satisfies PaperAnswer),
    (error: unknown) =>
      process.send!({ id, error: error instanceof Error ? (error.stack ?? error.message) : String(error) } satisfies PaperAnswer),
  );
});
process.on("disconnect", () => process.exit());
