/** How a set stands to the mains: through a transformer, or with one side of the line on its chassis. */

import type { Circuit } from "./circuit";

/** True where one side of the line is the chassis. */
export function isLineConnected(circuit: Circuit | undefined): boolean {
  return circuit?.facts["line-connected"] === "yes";
}

/** Volts of the wall for this set: the shop's usual ones, or its own where a line-connected set runs on a step-down transformer. */
export function wallVolts(circuit: Circuit | undefined, usual: number): number {
  return (isLineConnected(circuit) ? circuit?.mains?.volts : undefined) ?? usual;
}
