/** Capacitors and substitutes off the main thread: a thin shell over core. */

import { expose } from "comlink";
import { bornBy } from "@/core/capacitor/born";
import { figuresBeside } from "@/core/capacitor/figures-beside";
import { capacitorStresses } from "@/core/capacitor/stress";
import { siliconFor } from "@/core/capacitor/substitute-rectifier";
import { alter } from "@/core/circuit/alter";
import { setLanguage } from "@/core/language/language";
import type { CapacitorPort } from "@/core/ports/capacitor-port";
import { circuitOf } from "./circuit-of";
import { releasing } from "./releasing";

/** A method of the port as it runs here: the answer itself, no promise of it. */
type Here<T> = T extends (...args: infer A) => Promise<infer R> ? (...args: A) => R : never;

const api: { speak: typeof setLanguage } & { [K in Exclude<keyof CapacitorPort, "cancel">]: Here<CapacitorPort[K]> } = {
  speak: setLanguage,
  stresses: (netlist, mains, set = []) => [...capacitorStresses(alter(circuitOf(netlist), set), mains).values()],
  born: (netlist, mains) => bornBy(circuitOf(netlist), mains),
  beside: (netlist, set, mains) => figuresBeside(circuitOf(netlist), set, mains),
  silicon: (netlist, part, mains, offer) => siliconFor(circuitOf(netlist), part, mains, offer),
};

export type CapacitorApi = typeof api;

expose(releasing(api));
