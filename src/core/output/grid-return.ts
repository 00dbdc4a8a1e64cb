/** The way back of a grid's charge: its coupling capacitor, its leak, its stopper. */

import { couplingCapacitorsTo, ohmsToGround } from "../anatomy/points";
import type { Circuit, Element } from "../circuit/circuit";

/** What charges at a grid and through what it discharges, where it is one capacitor and resistors. */
export interface TimeConstant {
  capacitor: string;
  farads: number;
  ohms: number;
  seconds: number;
}

/** Seconds of a grid's recovery: its coupling capacitor times the ohms from the grid to chassis and the driving plate's. Undefined without one. */
export function timeConstant(circuit: Circuit, grid: string): TimeConstant | undefined {
  const capacitor = couplingCapacitorsTo(circuit, grid)[0];
  if (!capacitor?.value) return undefined;
  const ohms = leakOhms(circuit, grid);
  return ohms === undefined ? undefined : { capacitor: capacitor.name, farads: capacitor.value, ohms, seconds: capacitor.value * ohms };
}

/** Ohms of the grid's leak: what holds it, to chassis or to a point that a capacitor or a supply holds still. */
export function leakOhms(circuit: Circuit, grid: string): number | undefined {
  const leak = leakOf(circuit, grid);
  if (leak?.value) return leak.value;
  const straight = ohmsToGround(circuit, grid);
  return Number.isFinite(straight) ? straight : undefined;
}

/** The grid's leak resistor: from the grid, or from behind its stopper, to where no coupling capacitor ends. */
export function leakOf(circuit: Circuit, grid: string): Element | undefined {
  const near = [grid];
  const couplings = couplingCapacitorsTo(circuit, grid);
  const coupled = couplings.flatMap((c) => c.nodes);
  const stopper = circuit.elements.find(
    (e) => e.letter === "R" && e.nodes.includes(grid) && e.nodes.some((n) => n !== grid && coupled.includes(n)),
  );
  if (stopper) near.push(stopper.nodes.find((n) => n !== grid)!);
  return circuit.elements
    .filter((e) => e !== stopper && e.letter === "R" && e.nodes.some((n) => near.includes(n)) && !e.nodes.every((n) => near.includes(n)))
    .sort((a, b) => b.value! - a.value!)[0];
}
