/** The solver's port over a web worker. The worker starts with the first question; giving up ends it. */

import { SolverCancelled, type SolverPort } from "@/core/ports/solver-port";
import { solveKey, type Solved } from "@/core/expectation/modelled";
import { workerHandle } from "./handle";
import type { SolverApi } from "./solver.worker";

/** Answers that are kept: a bench has a few amps and a few mains voltages open at once. */
const MOST_KEPT = 200;

export function workerSolver(): SolverPort {
  const { ask, giveUp } = workerHandle<SolverApi>(() => new Worker(new URL("./solver.worker.ts", import.meta.url)), "the solver");
  const kept = new Map<string, Promise<Solved>>();

  return {
    expected(netlist, conditions, progress) {
      const key = `${solveKey(conditions)}\n${netlist}`;
      let answer = kept.get(key);
      if (!answer) {
        answer = ask((to, told) => to.expected(netlist, conditions, told), progress);
        // An answer that failed is asked for anew the next time.
        answer.catch(() => kept.delete(key));
        kept.set(key, answer);
        if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!);
      }
      return answer;
    },
    settle: (netlist, given, measured, progress) => ask((to, told) => to.settle(netlist, given, measured, told), progress),
    solve: (netlist, conditions) => ask((to) => to.solve(netlist, conditions)),
    suspects: (netlist, evidence, conditions, history, mains, progress) =>
      ask((to, told) => to.suspects(netlist, evidence, conditions, history, mains, told), progress),
    bringUp: (netlist, wall, lamp, options, progress) => ask((to, told) => to.bringUp(netlist, wall, lamp, options, told), progress),
    notLive: (netlist, wall) => ask((to) => to.notLive(netlist, wall)),
    cold: (netlist, progress) => ask((to, told) => to.cold(netlist, told), progress),
    isolate: (netlist, bench, answers, progress) => ask((to, told) => to.isolate(netlist, bench, answers, told), progress),
    enters: (netlist, mains, noise, read, progress) => ask((to, told) => to.enters(netlist, mains, noise, read, told), progress),
    response: (netlist, mains, changes) => ask((to) => to.response(netlist, mains, changes)),
    grounds: (netlist, mains) => ask((to) => to.grounds(netlist, mains)),
    fit: (data) => ask((to) => to.fit(data)),
    cancel: () => giveUp(new SolverCancelled()),
  };
}
