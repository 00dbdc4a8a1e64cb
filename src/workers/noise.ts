/** The noise port over a web worker of its own: a recording does not wait for a solve. */

import { proxy, wrap, type Remote } from "comlink";
import type { NoisePort } from "@/core/noise/sounds-port";
import { SolverCancelled } from "@/core/solver/port";
import type { NoiseApi } from "./noise.worker";

export function workerNoise(): NoisePort {
  let worker: Worker | undefined;
  let api: Remote<NoiseApi> | undefined;
  let pending = new Set<(reason: Error) => void>();

  const giveUp = (reason: Error) => {
    worker?.terminate();
    worker = api = undefined;
    const waiting = pending;
    pending = new Set();
    for (const reject of waiting) reject(reason);
  };
  const start = (): Remote<NoiseApi> => {
    if (!api) {
      worker = new Worker(new URL("./noise.worker.ts", import.meta.url));
      worker.onerror = (event) => giveUp(new Error(event.message || "the analysis could not be started"));
      api = wrap<NoiseApi>(worker);
    }
    return api;
  };
  const ask = <T>(question: (to: Remote<NoiseApi>) => Promise<T>): Promise<T> =>
    new Promise<T>((resolve, reject) => {
      pending.add(reject);
      question(start())
        .then(resolve, reject)
        .finally(() => pending.delete(reject));
    });

  return {
    analyse: (file, mains, progress) => ask((to) => to.analyse(file, mains, progress && proxy(progress))),
    enters: (netlist, mains, speaker, noise, read, progress) =>
      ask((to) => to.enters(netlist, mains, speaker, noise, read, progress && proxy(progress))),
    response: (netlist, mains, changes) => ask((to) => to.response(netlist, mains, changes)),
    grounds: (netlist, mains) => ask((to) => to.grounds(netlist, mains)),
    cancel: () => giveUp(new SolverCancelled()),
  };
}
