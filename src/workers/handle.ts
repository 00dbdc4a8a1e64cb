/** A worker that starts with the first question and ends when what is under way is given up. */

import { proxy, wrap, type Remote } from "comlink";
import { language, type Language } from "@/core/language/language";
import { workBegins } from "./at-work";

export interface WorkerHandle<Api> {
  /**
   * @param question is given the worker, and the way to tell progress where somebody listens.
   * @param progress parts from 0 to 1; never called once the promise has settled. Progress has a channel of its own, and what was told
   * before the answer may arrive after it.
   */
  ask<T>(question: (to: Remote<Api>, told?: (part: number) => void) => Promise<T>, progress?: (part: number) => void): Promise<T>;
  /** Ends the worker; every promise that waits is rejected with the reason. The next question starts it anew. */
  giveUp(reason: Error): void;
}

/** What every worker of ours can be told. */
export interface Speaking {
  speak(language: Language): void;
}

/** @param make the worker, made where its address is written so that the bundler finds it. @param name what could not be started, for its message. */
export function workerHandle<Api extends Speaking>(make: () => Worker, name: string): WorkerHandle<Api> {
  let worker: Worker | undefined;
  let api: Remote<Api> | undefined;
  let pending = new Set<(reason: Error) => void>();
  const giveUp = (reason: Error) => {
    worker?.terminate();
    worker = api = undefined;
    const waiting = pending;
    pending = new Set();
    for (const reject of waiting) reject(reason);
  };
  const start = (): Remote<Api> => {
    if (!api) {
      worker = make();
      worker.onerror = (event) => giveUp(new Error(event.message || `${name} could not be started`));
      api = wrap<Api>(worker);
      // Its messages are shown as they come: it speaks as the page does.
      void (api as unknown as Remote<Speaking>).speak(language());
    }
    return api;
  };
  return {
    giveUp,
    ask: (question, progress) =>
      new Promise((resolve, reject) => {
        let open = true;
        const workEnds = workBegins();
        const ended = (settle: () => void) => {
          open = false;
          workEnds();
          pending.delete(giveUpThis);
          settle();
        };
        const giveUpThis = (reason: Error) => ended(() => reject(reason));
        pending.add(giveUpThis);
        question(start(), progress && proxy((part: number) => open && progress(part))).then(
          (answer) => ended(() => resolve(answer)),
          giveUpThis,
        );
      }),
  };
}
