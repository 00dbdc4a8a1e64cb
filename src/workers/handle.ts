/** A worker that starts with the first question and ends when what is under way is given up. */

import { wrap, type Remote } from "comlink";

export interface WorkerHandle<Api> {
  ask<T>(question: (to: Remote<Api>) => Promise<T>): Promise<T>;
  /** Ends the worker; every promise that waits is rejected with the reason. The next question starts it anew. */
  giveUp(reason: Error): void;
}

/** @param make the worker, made where its address is written so that the bundler finds it. @param name what could not be started, for its message. */
export function workerHandle<Api>(make: () => Worker, name: string): WorkerHandle<Api> {
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
    }
    return api;
  };
  return {
    giveUp,
    ask: (question) =>
      new Promise((resolve, reject) => {
        pending.add(reject);
        question(start())
          .then(resolve, reject)
          .finally(() => pending.delete(reject));
      }),
  };
}
