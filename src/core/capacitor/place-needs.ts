/** What the place of each capacitor asks of a new one, from the circuit and from what bears on it. */

import type { Circuit } from "../circuit/circuit";
import { isRectifier } from "../circuit/special-parts";
import type { KnownCapacitor } from "./known";
import type { CapacitorStress } from "./stress";
import type { CapacitorPlaceNeeds } from "./substitute-capacitor";

/** What the shop asks of new parts. */
export interface ShopAsks {
  /** Degrees Celsius inside a warm chassis, hours of use a year, years that a part should last. */
  inside: number;
  hoursYear: number;
  years: number;
}

export const USUAL_ASKS: ShopAsks = { inside: 55, hoursYear: 300, years: 20 };

/** The mains goes across it, and surges of the street: volts rms of the class that is asked for. */
const LINE_VOLTS = 250;

export function placeNeeds(
  circuit: Circuit,
  c: KnownCapacitor,
  stress: CapacitorStress | undefined,
  asks: ShopAsks = USUAL_ASKS,
): CapacitorPlaceNeeds {
  const rectifier = circuit.elements.find(
    (e) => isRectifier(e.type) && c.element?.nodes.some((n) => n !== "0" && e.nodes.slice(0, 2).includes(n)),
  );
  const limit = rectifier?.rectifierTube?.rectifier?.largestFirstCapacitor;
  return {
    name: c.name,
    role: c.role.role,
    farads: c.element?.value ?? c.farads ?? 0,
    worst: c.role.safety ? LINE_VOLTS : (stress?.worst ?? 0),
    ripple: stress?.ripple ?? 0,
    ...(limit ? { firstLimit: { farads: limit, tube: rectifier!.rectifierTube!.type } } : {}),
    ...(c.role.safety ? { safety: c.role.safety } : {}),
    ...asks,
    ...(c.section ? { caseLead: c.caseLead } : {}),
  };
}
