/** The output stage off the main thread: a thin shell over core. Its transients take seconds, and nothing else waits for them. */

import { expose } from "comlink";
import { setLanguage } from "@/core/language/language";
import {
  answerAim,
  answerBalance,
  answerBias,
  answerBlocking,
  answerClip,
  answerDrive,
  answerFrames,
  answerRemedies,
  answerUnequal,
  stageWith,
} from "@/core/output/answers";
import { chooseCathodeResistor } from "@/core/output/cathode-resistor";
import { chokeAgainstResistor, chooseDropper } from "@/core/output/droppers";
import { chooseScreenResistor } from "@/core/output/screen-resistor";
import { signalSteps } from "@/core/output/signal-walk";
import type { OutputPort } from "@/core/ports/output-port";
import { circuitOf } from "./circuit-of";
import { releasing } from "./releasing";

/** A method of the port as it runs here: the answer itself, no promise of it. */
type Here<T> = T extends (...args: infer A) => Promise<infer R> ? (...args: A) => R : never;

const api: { speak: typeof setLanguage } & { [K in Exclude<keyof OutputPort, "cancel">]: Here<OutputPort[K]> } = {
  speak: setLanguage,
  bias: (netlist, ask) => answerBias(circuitOf(netlist), ask),
  aim: (netlist, ask) => answerAim(circuitOf(netlist), ask),
  balance: (netlist, ask) => answerBalance(circuitOf(netlist), ask),
  unequal: (netlist, ask, progress) => answerUnequal(circuitOf(netlist), ask, progress),
  cathodeResistor(netlist, ask, progress) {
    const { circuit, stage } = stageWith(circuitOf(netlist), ask);
    return chooseCathodeResistor(circuit, stage, ask, progress);
  },
  screenResistor(netlist, ask, progress) {
    const { circuit, stage } = stageWith(circuitOf(netlist), ask);
    return chooseScreenResistor(circuit, stage, ask, progress);
  },
  frames: (netlist, ask, progress) => answerFrames(circuitOf(netlist), ask, progress),
  clip: (netlist, ask, progress) => answerClip(circuitOf(netlist), ask, progress),
  blocking: (netlist, ask, progress) => answerBlocking(circuitOf(netlist), ask, progress),
  drive: (netlist, ask, progress) => answerDrive(circuitOf(netlist), ask, progress),
  remedies: (netlist, ask, progress) => answerRemedies(circuitOf(netlist), ask, progress),
  signal: (netlist, tone, where) => signalSteps(circuitOf(netlist), tone, where),
  dropper: (netlist, point, window, mains) => chooseDropper(circuitOf(netlist), point, window, mains),
  choke: (netlist, point, parts) => chokeAgainstResistor(circuitOf(netlist), point, parts),
};

export type OutputApi = typeof api;

expose(releasing(api));
