/** Faults of a tube itself: emission, gas, leaks and shorts between its electrodes, pins that make no contact. */

import { envelopeOf, fileName, type Circuit, type Element } from "../circuit/circuit";
import type { AddFault } from "./fault";
import type { FaultKind } from "./priors";
import { isOutputTube } from "../anatomy/cathode-current";
import { spaced, type Surroundings } from "./surroundings";

/** From where it is no longer the spread of sound tubes. */
const WEAK = [0.6, 0.45, 0.3, 0.15];
const GAS = [0.3e-6, 1e-6, 3e-6, 10e-6];

export function tubeFaults(circuit: Circuit, e: Element, around: Surroundings, add: AddFault): void {
  const id = fileName(e);
  const refs = [e.name];
  const only = (name: string, kind: FaultKind, change: string) =>
    add(e, { name: `${e.name} ${name}`, refs, kind, changes: () => [`${id}=${change}`] });
  add(e, {
    name: `${e.name} weak`,
    refs,
    kind: "tube weak",
    changes: (s) => [`${id}=weak:${s}`],
    grid: WEAK,
    severityUnit: "of emission",
    // What wears a cathode out is current: a small tube outlasts several output tubes.
    weight: isOutputTube(e) ? 1 : 0.4,
  });
  only("dead", "tube dead", "dead");
  add(e, { name: `${e.name} gassy`, refs, kind: "tube gassy", changes: (s) => [`${id}=gassy:${s}`], grid: GAS, severityUnit: "A" });
  const node = (pin: string) => e.nodes[["p", ...(e.nodes.length > 3 ? ["s"] : []), "g", "k"].indexOf(pin)]!;
  const heater = heaterNode(circuit, e);
  if (heater !== node("k")) {
    const ohms = around.ohms(node("k"), heater);
    const grid = [...new Set([1e6, ...spaced(0.03 * ohms, Math.max(30 * ohms, 1e4), 4)])].sort((a, b) => b - a);
    add(e, {
      name: `${e.name} heater–cathode leak`,
      refs,
      kind: "heater-cathode leak",
      changes: (s) => [`${id}=hk:${s}`],
      grid,
      severityUnit: "Ω",
    });
  }
  const between = (pins: "gk" | "gs" | "sk", words: string) => {
    const [a, b] = [...pins].map(node) as [string, string];
    if (a === b) return;
    const ohms = around.ohms(a, b);
    const weakest = Math.min(100e6, ohms * (pins === "gs" ? 100 : 10));
    add(e, {
      name: `${e.name} ${words} leak or short`,
      refs,
      kind: "tube shorted",
      changes: (s) => [`${id}=short:${pins}:${s}`],
      grid: [...spaced(0.1 * ohms, weakest, 6), 1],
      severityUnit: "Ω",
    });
  };
  between("gk", "grid–cathode");
  if (e.tube!.kind === "pentode") {
    between("gs", "grid–screen");
    between("sk", "screen–cathode");
  }
  const pins: [string, string][] = [
    ["p", "plate"],
    ...(e.tube!.kind === "pentode" ? ([["s", "screen"]] as [string, string][]) : []),
    ["g", "grid"],
    ["k", "cathode"],
  ];
  for (const [pin, word] of pins)
    add(e, { name: `${e.name} ${word} pin open`, refs, kind: "pin open", changes: () => [`${id}.${pin}=open`] });
}

/** Where the heater of a tube stands: ground, or the node that its winding is referred to. */
function heaterNode(circuit: Circuit, e: Element): string {
  const winding = circuit.heaters.find((h) => h.tubes.includes(envelopeOf(e.name)));
  const reference = winding?.reference;
  return reference && circuit.elements.some((x) => x.nodes.includes(reference)) ? reference : "0";
}
