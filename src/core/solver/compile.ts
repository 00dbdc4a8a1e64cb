/** Makes a circuit ready for solving: numbers its unknowns and gathers its parts. */

import type { Circuit, Element } from "../circuit/circuit";
import { addElement } from "./elements";
import { groundIslands } from "./islands";
import { NoMainsError, OPEN_SIEMENS, type Branch, type Network, type NetworkOptions } from "./network";

/**
 * Numbers the unknowns and gathers the parts.
 * @param added is told each element once it is in, and whether it has unknowns of its own or is tied to other elements.
 * @throws NoMainsError when a mains voltage is given and the circuit names none.
 */
export function compile(
  circuit: Circuit,
  options: NetworkOptions = {},
  added?: (element: Element, network: Network, fixed: boolean) => void,
): Network {
  const supply = options.supply ?? "averaged";
  if (options.mains !== undefined && !circuit.mains) throw new NoMainsError();
  const index = new Map<string, number>();
  const nodes: string[] = [];
  const network: Network = {
    circuit,
    nodes,
    index,
    size: 0,
    conductors: [],
    branches: [],
    sources: [],
    capacitors: [],
    inductances: [],
    devices: [],
    tubes: [],
    rectifiers: [],
    clock: { phase: 0, running: supply === "pulsed" },
    hertz: circuit.mains?.hertz ?? 50,
    mainsRatio: (options.mains !== undefined && circuit.mains ? options.mains / circuit.mains.volts : 1) * (circuit.mainsShare ?? 1),
    islands: [],
    supply,
  };
  const at = (node: string): number => {
    if (node === "0") return -1;
    let i = index.get(node);
    if (i === undefined) {
      i = nodes.length;
      nodes.push(node);
      index.set(node, i);
    }
    return i;
  };
  // Every node of the file gets its number first, in the file's order, so that a node without a live part is still shown.
  for (const e of circuit.elements) for (const n of e.nodes) at(n);
  const pending: Branch[] = [];
  const branch = (b: Omit<Branch, "index">): Branch => {
    const made = { ...b, index: -1 };
    pending.push(made);
    return made;
  };
  const windings = new Map<string, Branch>();
  const deferred: (() => void)[] = [];
  const assembly = { network, at, branch, windings, deferred };
  for (const e of circuit.elements) {
    const before = nodes.length + pending.length + deferred.length;
    addElement(e, assembly);
    added?.(e, network, nodes.length + pending.length + deferred.length > before);
  }
  pending.forEach((b, i) => (b.index = nodes.length + i));
  network.branches = pending;
  network.size = nodes.length + pending.length;
  for (const finish of deferred) finish();
  network.islands = groundIslands(network);
  for (const { node, to } of network.islands) network.conductors.push({ name: "", a: node, b: to, siemens: OPEN_SIEMENS });
  return network;
}
