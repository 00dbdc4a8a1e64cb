/** The port of recordings over a web worker of its own: a recording does not wait for a solve. */

import type { SoundsPort } from "@/core/ports/sounds-port";
import { SolverCancelled } from "@/core/ports/solver-port";
import { workerHandle } from "./handle";
import type { SoundsApi } from "./sounds.worker";

export function workerSounds(): SoundsPort {
  const { ask, giveUp } = workerHandle<SoundsApi>(() => new Worker(new URL("./sounds.worker.ts", import.meta.url)), "the analysis");
  return {
    analyse: (file, mains, progress) => ask((to, told) => to.analyse(file, mains, told), progress),
    cancel: () => giveUp(new SolverCancelled()),
  };
}
