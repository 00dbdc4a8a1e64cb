/** Reports as blocks and as PDF, made in a process of their own that is started at the first one and kept. */

import { fork, type ChildProcess } from "node:child_process";
import { join } from "node:path";
import type { Block } from "@/core/papers/block";
import type { Language } from "@/core/language/language";
import { writePaperName, type PaperName } from "@/core/papers/paper-name";
import { UserError } from "../errors";
import type { Settings } from "@/core/shop/settings";
import type { WholeJob } from "../shop";
import type { PaperAnswer, PaperTask } from "./paper-task";
import type { PaperSize } from "./sheet";

/** The longest tape takes a few seconds; what takes this long has gone wrong. */
const GIVE_UP_MS = 60_000;

interface Waiting {
  resolve(result: unknown): void;
  reject(error: Error): void;
}

class PaperProcess {
  private child?: ChildProcess;
  private readonly waiting = new Map<number, Waiting>();
  private count = 0;

  private started(): ChildProcess {
    if (this.child) return this.child;
    const program = join(/* turbopackIgnore: true */ process.cwd(), "src/server/paper/paper-process.ts");
    const child = fork(program, { execArgv: ["--import", "tsx"], serialization: "advanced" });
    child.on("message", (answer: PaperAnswer) => {
      const waiting = this.waiting.get(answer.id);
      this.waiting.delete(answer.id);
      if ("error" in answer) waiting?.reject(new Error(answer.error));
      else waiting?.resolve(answer.result);
    });
    child.on("exit", () => this.ended(child));
    child.on("error", () => this.ended(child));
    // It ends with this process; nothing has to wait for it.
    child.unref();
    child.channel?.unref();
    return (this.child = child);
  }

  private ended(child: ChildProcess): void {
    if (this.child !== child) return;
    this.child = undefined;
    for (const w of this.waiting.values()) w.reject(new UserError(503, "The report could not be made: its process has ended. Try again."));
    this.waiting.clear();
  }

  ask(task: PaperTask): Promise<unknown> {
    const id = ++this.count;
    return new Promise((resolve, reject) => {
      const late = setTimeout(() => this.child?.kill("SIGKILL"), GIVE_UP_MS);
      const over =
        <T>(then: (value: T) => void) =>
        (value: T) => {
          clearTimeout(late);
          then(value);
        };
      this.waiting.set(id, { resolve: over(resolve), reject: over(reject) });
      this.started().send({ id, task });
    });
  }
}

/** Next bundles pages and route handlers apart; one process makes the paper of both. */
const shared = globalThis as typeof globalThis & { scutumPaper?: PaperProcess };
const paper = (): PaperProcess => (shared.scutumPaper ??= new PaperProcess());

/** A paper of a job as blocks to paint. @throws UserError 404 for a quote, a question or a bill that the job does not have. */
export async function blocksApart(job: WholeJob, name: PaperName): Promise<Block[]> {
  const blocks = (await paper().ask({ what: "blocks", job, name })) as Block[] | undefined;
  if (!blocks) throw new UserError(404, `Job ${job.head.id} has no ${writePaperName(name)}.`);
  return blocks;
}

/** The bench sheet of a circuit file as PDF. Rejects with what the file cannot do: be read, be solved, be drawn. */
export const benchSheetApart = (settings: Settings, netlist: string, mains: number | undefined, size: PaperSize): Promise<Uint8Array> =>
  paper().ask({ what: "bench-sheet", settings, netlist, mains, size }) as Promise<Uint8Array>;

/** The owner's report as PDF. @param photos bytes by hash, ready to print. */
export const pdfApart = (language: Language, blocks: Block[], size: PaperSize, photos: [string, Uint8Array][]): Promise<Uint8Array> =>
  paper().ask({ what: "pdf", language, blocks, size, photos }) as Promise<Uint8Array>;
