/** The port of the output stage over a web worker of its own. The worker starts with the first question; giving up ends it. */

import type { OutputPort } from "@/core/ports/output-port";
import { SolverCancelled } from "@/core/ports/solver-port";
import { workerHandle } from "./handle";
import type { OutputApi } from "./output.worker";

export function workerOutput(): OutputPort {
  const { ask, giveUp } = workerHandle<OutputApi>(
    () => new Worker(new URL("./output.worker.ts", import.meta.url)),
    "the computation of the output stage",
  );
  return {
    bias: (netlist, a) => ask((to) => to.bias(netlist, a)),
    aim: (netlist, a) => ask((to) => to.aim(netlist, a)),
    balance: (netlist, a) => ask((to) => to.balance(netlist, a)),
    unequal: (netlist, a, progress) => ask((to, told) => to.unequal(netlist, a, told), progress),
    cathodeResistor: (netlist, a, progress) => ask((to, told) => to.cathodeResistor(netlist, a, told), progress),
    screenResistor: (netlist, a, progress) => ask((to, told) => to.screenResistor(netlist, a, told), progress),
    frames: (netlist, a, progress) => ask((to, told) => to.frames(netlist, a, told), progress),
    clip: (netlist, a, progress) => ask((to, told) => to.clip(netlist, a, told), progress),
    blocking: (netlist, a, progress) => ask((to, told) => to.blocking(netlist, a, told), progress),
    drive: (netlist, a, progress) => ask((to, told) => to.drive(netlist, a, told), progress),
    remedies: (netlist, a, progress) => ask((to, told) => to.remedies(netlist, a, told), progress),
    signal: (netlist, tone, where) => ask((to) => to.signal(netlist, tone, where)),
    dropper: (netlist, point, window, mains) => ask((to) => to.dropper(netlist, point, window, mains)),
    choke: (netlist, point, parts) => ask((to) => to.choke(netlist, point, parts)),
    cancel: () => giveUp(new SolverCancelled()),
  };
}
