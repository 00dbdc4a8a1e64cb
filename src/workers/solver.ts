/** The solver's port over a web worker. The worker starts with the first question; giving up ends it. */

import { proxy, wrap, type Remote } from "comlink";
import { SolverCancelled, type SolverPort } from "@/core/solver/port";
import { solveKey, type Solved } from "@/core/walk/modelled";
import type { SolverApi } from "./solver.worker";

/** Answers that are kept: a bench has a few amps and a few mains voltages open at once. */
const MOST_KEPT = 200;

export function workerSolver(): SolverPort {
  let worker: Worker | undefined;
  let api: Remote<SolverApi> | undefined;
  let pending = new Set<(reason: Error) => void>();
  const kept = new Map<string, Promise<Solved>>();

  const start = (): Remote<SolverApi> => {
    if (!api) {
      worker = new Worker(new URL("./solver.worker.ts", import.meta.url));
      worker.onerror = (event) => giveUp(new Error(event.message || "the solver could not be started"));
      api = wrap<SolverApi>(worker);
    }
    return api;
  };
  const giveUp = (reason: Error) => {
    worker?.terminate();
    worker = undefined;
    api = undefined;
    const waiting = pending;
    pending = new Set();
    for (const reject of waiting) reject(reason);
  };
  const ask = <T>(question: (to: Remote<SolverApi>) => Promise<T>): Promise<T> =>
    new Promise<T>((resolve, reject) => {
      pending.add(reject);
      question(start())
        .then(resolve, reject)
        .finally(() => pending.delete(reject));
    });

  return {
    expected(netlist, conditions, progress) {
      const key = `${solveKey(conditions)}\n${netlist}`;
      let answer = kept.get(key);
      if (!answer) {
        answer = ask((to) => to.expected(netlist, conditions, progress && proxy(progress)));
        // An answer that failed is asked for anew the next time.
        answer.catch(() => kept.delete(key));
        kept.set(key, answer);
        if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!);
      }
      return answer;
    },
    solve: (netlist, conditions) => ask((to) => to.solve(netlist, conditions)),
    suspects: (netlist, evidence, conditions, history, progress) =>
      ask((to) => to.suspects(netlist, evidence, conditions, history, progress && proxy(progress))),
    bringUp: (netlist, wall, lamp, options, progress) => ask((to) => to.bringUp(netlist, wall, lamp, options, progress && proxy(progress))),
    notLive: (netlist, wall) => ask((to) => to.notLive(netlist, wall)),
    cold: (netlist, progress) => ask((to) => to.cold(netlist, progress && proxy(progress))),
    isolate: (netlist, bench, answers, progress) => ask((to) => to.isolate(netlist, bench, answers, progress && proxy(progress))),
    fit: (data) => ask((to) => to.fit(data)),
    cancel: () => giveUp(new SolverCancelled()),
  };
}
