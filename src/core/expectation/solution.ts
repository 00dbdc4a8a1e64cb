/** One nominal solve of a circuit as plain data, apart from its making so that a screen can have the type alone. */

import type { TubePointOfWork } from "../solver/operating-point";
import type { Stress } from "../solver/stress";

/** One nominal solve, for a model's own page and for comparing. */
export interface Solution {
  converged: boolean;
  iterations: number;
  ms: number;
  unsettled: string[];
  /** As a 10 MΩ meter reads them, by point name. */
  points: Record<string, number>;
  nodes: Record<string, number>;
  tubes: Record<string, TubePointOfWork>;
  stresses: Stress[];
  /** Voltage gain of each stage from its in to its out at 1 kHz, with the tone at the amp's input. */
  gains: Record<string, number>;
  undetermined: string[];
}

/** What a 10 MΩ meter shows at a node that has a test point; of another node the volts without a meter. Chassis is zero. */
export function shownAt(
  solution: Pick<Solution, "points" | "nodes">,
  points: readonly { name: string; node: string }[],
  node: string,
): number | undefined {
  if (node === "0") return 0;
  const point = points.find((p) => p.node === node);
  return (point && solution.points[point.name]) ?? solution.nodes[node];
}
