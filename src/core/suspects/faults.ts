/** The single faults that an amp of this circuit can have, each a change to its netlist with a severity where it has one. */

import { isRectifier } from "../circuit/special-parts";
import { envelopeOf, fileName, type Circuit, type Element } from "../circuit/circuit";
import { partFaults } from "./faults-of-parts";
import { socketFaults } from "./faults-of-sockets";
import { tubeFaults } from "./faults-of-tubes";
import { supplyFaults } from "./faults-of-the-supply";
import type { AddFault, Fault } from "./fault";
import { priorOf, type FaultKind } from "./priors";
import * as texts from "../texts/suspects";
import { surroundingsOf, type Surroundings } from "./surroundings";

/** Every single fault of the circuit. The order is that of the file, then what is about more than one part. */
export function faultsOf(circuit: Circuit, around: Surroundings = surroundingsOf(circuit)): Fault[] {
  const out: Fault[] = [];
  const add: AddFault = (e, { weight = 1, grid = [1], ...fault }) => out.push({ ...fault, grid, prior: weight * priorOf(fault.kind, e) });
  for (const e of circuit.elements) {
    if (e.tube) tubeFaults(circuit, e, around, add);
    else if (isRectifier(e.type)) supplyFaults(e, add);
    else partFaults(e, around, add);
  }
  socketFaults(circuit, add);
  for (const h of circuit.heaters) {
    const first = circuit.elements.find((e) => (e.tube ?? e.rectifierTube) && envelopeOf(e.name) === h.tubes[0]);
    if (h.string && first)
      add(first, {
        name: `${h.name} heater string open`,
        refs: h.tubes,
        kind: "heater open",
        changes: () => [`${fileName(first)}=heater-open`],
      });
  }
  for (const [can, parts] of cansOf(circuit))
    if (parts.length > 1)
      add(parts[0], {
        name: `${can} lug lifted`,
        refs: parts.map((p) => p.name),
        kind: "can lifted",
        changes: () => parts.map((p) => `${fileName(p)}=open`),
      });
  const BOARD = [100e6, 30e6, 10e6, 3e6, 1e6];
  for (const [a, b] of circuit.near)
    add(undefined, {
      name: `${a}~${b} board leak`,
      refs: [`${a}~${b}`],
      kind: "board leak",
      changes: (s) => [`${a}~${b}=${s}`],
      grid: BOARD,
      severityUnit: "Ω",
    });
  if (circuit.mains && circuit.elements.some((e) => isRectifier(e.type))) mainsFaults(add);
  return out;
}

/** The wall is not what was typed, the wrong tap is in use, or something in the path drops volts: all rails and heaters move together. */
function mainsFaults(add: AddFault): void {
  const fault = (name: string, refs: string[], kind: FaultKind, grid: number[]) =>
    add(undefined, { name, refs, kind, changes: (s) => [`mains=${s}`], grid, severityUnit: "of the mains" });
  fault(texts.mainsLower(), ["mains"], "mains", [0.93, 0.89, 0.85, 0.8, 0.7]);
  fault(texts.mainsHigher(), ["mains"], "mains", [1.07, 1.11, 1.15, 1.22]);
  fault(texts.mainsTransformerShorted(), ["mains transformer"], "shorted turns", [0.93, 0.85, 0.75, 0.6]);
}

function cansOf(circuit: Circuit): Map<string, Element[]> {
  const out = new Map<string, Element[]>();
  for (const e of circuit.elements)
    if (e.letter === "C" && e.notes.section) out.set(e.notes.section, [...(out.get(e.notes.section) ?? []), e]);
  return out;
}
