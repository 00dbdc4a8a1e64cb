/** Coupling capacitors, and the grid leak behind each that turns its leakage into volts. */

import type { Circuit, Element } from "../circuit/circuit";

/** Film and paper between two signal nodes. */
export function couplings(circuit: Circuit): Element[] {
  return circuit.elements.filter((e) => e.letter === "C" && (e.value ?? 1) < 1e-6 && !e.nodes.includes("0"));
}

/** From this many ohms a resistor or control is a grid leak and no load. */
const LEAST_OHMS = 47e3;

/** Ohms from its far side, a grid or what leads to chassis, and the node; undefined where it feeds none. */
export function gridLeakOf(circuit: Circuit, capacitor: Element): { ohms: number; node: string } | undefined {
  for (const node of capacitor.nodes) {
    const leaks = circuit.elements.filter(
      (e) => (e.letter === "R" || e.type === "POT") && e.nodes.includes(node) && (e.value ?? 0) >= LEAST_OHMS,
    );
    const fed = circuit.elements.some((e) => e.tube && e.nodes.at(-2) === node) || leaks.some((r) => r.nodes.includes("0"));
    // The node that carries the volts has a load to a rail; the one that is fed has none.
    const driven = circuit.elements.some((e) => e.tube && (e.nodes[0] === node || e.nodes.at(-1) === node));
    if (fed && !driven && leaks.length > 0) return { ohms: 1 / leaks.reduce((s, r) => s + 1 / r.value!, 0), node };
  }
  return undefined;
}
