/** The amp with its power off: what the reservoirs still hold, and what that puts on every other node. */

import { envelopeOf, type Circuit, type Element } from "@/core/circuit/circuit";
import { tubesOf } from "@/core/anatomy/points";
import { without } from "@/core/circuit/alter";
import { compile } from "@/core/solver/compile";
import { readings, solveOperatingPoint } from "@/core/solver/operating-point";
import { isRectifier } from "@/core/circuit/special-parts";
import { decayOf, reservoirsOf } from "@/core/supply/reservoirs";

/**
 * Volts at a node so many seconds after the power went off. The tubes go cold within seconds and are left out, the rectifiers
 * block: what is left is reservoirs and resistors.
 * @param live volts that a node had while the power was on.
 */
export function voltsAfter(circuit: Circuit, node: string, seconds: number, live: (node: string) => number, meterOhms = 10e6): number {
  const reservoirs = reservoirsOf(circuit);
  const start = reservoirs.map((r) => live(r.node) - (r.returnNode === "0" ? 0 : live(r.returnNode)));
  const held = decayOf(circuit, reservoirs, start).voltsAt(seconds);
  const own = reservoirs.findIndex((r) => r.node === node && r.returnNode === "0");
  if (own >= 0) return held[own]!;
  const cold = without({ ...circuit, elements: circuit.elements.filter((e) => !isRectifier(e.type)) }, [
    ...new Set(tubesOf(circuit).map((t) => envelopeOf(t.name))),
  ]);
  const sources = reservoirs.map((r, i): Element => ({
    name: `VHELD${i}`,
    letter: "V",
    nodes: [r.node, r.returnNode],
    value: held[i]!,
    params: {},
    notes: {},
    line: 0,
  }));
  const op = solveOperatingPoint(compile({ ...cold, elements: [...cold.elements, ...sources] }));
  if (!op.converged || !op.network.index.has(node)) return 0;
  return readings(op, [{ name: "here", node, order: 0, label: "", line: 0 }], meterOhms).get("here")!;
}
