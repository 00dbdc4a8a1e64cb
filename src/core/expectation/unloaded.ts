/** How high a rail can rise when nothing draws current from it: the peak of the winding, at today's mains. */

import { isDoubler, isRectifier } from "../circuit/special-parts";
import type { Circuit } from "../circuit/circuit";
import { solve } from "../numeric/dense";
import { coldPaths, reservoirsOf } from "../supply/reservoirs";
import type { Verdict } from "./expectation";
import * as texts from "../texts/expectation";

export interface UnloadedRail {
  capacitor: string;
  label: string;
  volts: number;
  rated?: number;
  verdict: Verdict;
  why: string;
}

/** A leak far below any bleeder, so that a node that nothing ties down has a voltage. */
const LEAK = 1e-12;

/**
 * Vp = √2·vac·(mains today / mains of the circuit), twice that for a doubler, at the rectifier; from there along the resistors, chokes and
 * windings with the tubes out, so that of two capacitors in series each has its share. Solid-state drops are left out: the figure errs on
 * the high side.
 */
export function unloadedRails(circuit: Circuit, mainsVolts: number): UnloadedRail[] {
  const reservoirs = reservoirsOf(circuit);
  const ratio = circuit.mains ? mainsVolts / circuit.mains.volts : 1;
  const out = new Map<string, UnloadedRail>();
  for (const rectifier of circuit.elements.filter((e) => isRectifier(e.type))) {
    const vac = rectifier.params.vac;
    if (typeof vac !== "number") continue;
    const peak = Math.SQRT2 * vac * ratio * (isDoubler(rectifier.type) ? 2 : 1);
    const at = unloadedVolts(circuit, rectifier.nodes as [string, string], peak);
    for (const r of reservoirs) {
      if (!at.has(r.node) && !at.has(r.returnNode)) continue;
      const volts = Math.abs((at.get(r.node) ?? 0) - (at.get(r.returnNode) ?? 0));
      const rated = r.ratedVolts;
      const verdict: Verdict = rated === undefined ? "none" : volts > rated ? "out" : volts > rated * 0.95 ? "watch" : "in";
      const why = verdict === "out" ? texts.unloadedRailExceedsRating(r.name) : verdict === "watch" ? texts.withinRating() : "";
      out.set(r.name, { capacitor: r.name, label: r.label, volts, rated, verdict, why });
    }
  }
  return [...out.values()];
}

/** Volts of every node that the rectifier reaches, its DC+ end at `volts` above its DC− end, one of them being chassis or taken as such. */
function unloadedVolts(circuit: Circuit, [plus, minus]: [string, string], volts: number): Map<string, number> {
  const [start, level] = plus === "0" ? [minus, -volts] : [plus, volts];
  const paths = coldPaths(circuit);
  const reached = new Set([start]);
  const queue = [start];
  while (queue.length > 0) {
    const node = queue.shift()!;
    for (const { a, b } of paths) {
      const next = a === node ? b : b === node ? a : undefined;
      if (next === undefined || next === "0" || reached.has(next)) continue;
      reached.add(next);
      queue.push(next);
    }
  }
  const free = [...reached].filter((n) => n !== start);
  const index = new Map(free.map((n, i) => [n, i]));
  const n = free.length;
  const g = new Float64Array(n * n);
  const b = new Float64Array(n);
  for (let i = 0; i < n; i++) g[i * n + i] = LEAK;
  for (const path of paths) {
    const siemens = 1 / path.ohms;
    for (const [here, there] of [
      [path.a, path.b],
      [path.b, path.a],
    ] as const) {
      const i = index.get(here);
      if (i === undefined) continue;
      g[i * n + i]! += siemens;
      const j = index.get(there);
      if (j !== undefined) g[i * n + j]! -= siemens;
      else if (there === start) b[i]! += siemens * level;
    }
  }
  const x = n > 0 ? solve(g, b) : [];
  return new Map([[start, level], ...free.map((node, i) => [node, x[i]!] as const)]);
}
