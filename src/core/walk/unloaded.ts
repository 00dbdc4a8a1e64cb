/** How high a rail can rise when nothing draws current from it: the peak of the winding, at today's mains. */

import { isRectifier } from "../circuit/blocks";
import type { Circuit, Element } from "../circuit/circuit";
import { reservoirsOf } from "../supply/reservoirs";
import type { Verdict } from "./expectation";

export interface UnloadedRail {
  capacitor: string;
  label: string;
  volts: number;
  rated?: number;
  verdict: Verdict;
  why: string;
}

/**
 * Vp = √2·vac·(mains today / mains of the circuit), twice that for a doubler; bleeders and droppers carry next to nothing,
 * so every capacitor that a rectifier can reach through resistors rises to it. Solid-state drops are left out: the figure
 * errs on the high side.
 */
export function unloadedRails(circuit: Circuit, mainsVolts: number): UnloadedRail[] {
  const reservoirs = reservoirsOf(circuit);
  const ratio = circuit.mains ? mainsVolts / circuit.mains.volts : 1;
  const out = new Map<string, UnloadedRail>();
  for (const rectifier of circuit.elements.filter((e) => isRectifier(e.type))) {
    const vac = rectifier.params.vac;
    if (typeof vac !== "number") continue;
    const volts = Math.SQRT2 * vac * ratio * (rectifier.type === "DOUBLER" ? 2 : 1);
    const ends = rectifier.nodes.filter((n) => n !== "0");
    const reached = reach(circuit, ends);
    for (const r of reservoirs) {
      if (!reached.has(r.node) && !reached.has(r.returnNode)) continue;
      const rated = r.ratedVolts;
      const verdict: Verdict = rated === undefined ? "none" : volts > rated ? "out" : volts > rated * 0.95 ? "watch" : "in";
      const why =
        verdict === "out"
          ? `unloaded rail exceeds the rating of ${r.name}: bring it up with a load, or fit a higher rating`
          : verdict === "watch"
            ? "within 5 % of its rating"
            : "";
      out.set(r.name, { capacitor: r.name, label: r.label, volts, rated, verdict, why });
    }
  }
  return [...out.values()];
}

/** Nodes that direct current reaches from the start through resistors, chokes, pots and closed switches. */
function reach(circuit: Circuit, start: string[]): Set<string> {
  const passes = (e: Element) => e.letter === "R" || e.letter === "L" || e.type === "POT" || (e.type === "SW" && e.params.state !== "open");
  const seen = new Set(start);
  const queue = [...start];
  while (queue.length > 0) {
    const node = queue.shift()!;
    for (const e of circuit.elements) {
      if (!passes(e) || !e.nodes.includes(node)) continue;
      for (const n of e.nodes)
        if (n !== "0" && !seen.has(n)) {
          seen.add(n);
          queue.push(n);
        }
    }
  }
  return seen;
}
