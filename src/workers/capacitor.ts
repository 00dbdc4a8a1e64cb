/** The port of the capacitors over a web worker of its own. The worker starts with the first question; giving up ends it. */

import type { CapacitorPort } from "@/core/ports/capacitor-port";
import { SolverCancelled } from "@/core/ports/solver-port";
import { workerHandle } from "./handle";
import type { CapacitorApi } from "./capacitor.worker";

export function workerCapacitors(): CapacitorPort {
  const { ask, giveUp } = workerHandle<CapacitorApi>(
    () => new Worker(new URL("./capacitor.worker.ts", import.meta.url)),
    "the computation of the capacitors",
  );
  return {
    stresses: (netlist, mains, set) => ask((to) => to.stresses(netlist, mains, set)),
    born: (netlist, mains) => ask((to) => to.born(netlist, mains)),
    beside: (netlist, set, mains) => ask((to) => to.beside(netlist, set, mains)),
    silicon: (netlist, part, mains, offer) => ask((to) => to.silicon(netlist, part, mains, offer)),
    cancel: () => giveUp(new SolverCancelled()),
  };
}
