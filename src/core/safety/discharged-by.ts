/** What takes the charge out of a reservoir: tubes that are still hot, or a tool that is clipped to another place of the amp. */

import type { Circuit } from "../circuit/circuit";
import { coldPaths, decayOf, type Reservoir } from "../supply/reservoirs";

/**
 * Seconds after the power went off in which hot tubes empty the rails that they feed on. By the three-halves law a rail falls as
 * V/(1 + t/2τ)² with τ = C·V/I, a quarter of a second to two seconds: 300 V are below 10 V after nine τ. A heater stays hot for about
 * as long.
 */
export const HOT_TUBES_SECONDS = 20;

/** For each reservoir whether a tube that is in draws its current from it. Without a circuit nobody can say that none does. */
export function feedsTubes(circuit: Circuit | undefined, reservoirs: readonly Reservoir[], without: readonly string[]): boolean[] {
  if (!circuit) return reservoirs.map(() => true);
  const group = groups(circuit);
  const out = new Set(without.map((t) => t.toUpperCase()));
  const fed = new Set(
    circuit.elements.flatMap((e) => {
      if (!e.tube || out.has(e.name.toUpperCase()) || out.has(e.name.toUpperCase().replace(/[A-D]$/, ""))) return [];
      // Plate and screen; the cathode and the grids take nothing out of a rail.
      const { nodes } = e;
      return [nodes[0]!, ...(nodes.length > 3 ? [nodes[1]!] : [])].map((n) => group(n));
    }),
  );
  return reservoirs.map((r) => fed.has(group(r.node)));
}

/** Nodes that direct current can pass between in the dead amp, chassis left out: the name of one of each group. */
function groups(circuit: Circuit): (node: string) => string {
  const parent = new Map<string, string>();
  const find = (node: string): string => {
    const up = parent.get(node);
    return up === undefined || up === node ? node : find(up);
  };
  for (const { a, b } of coldPaths(circuit)) if (a !== "0" && b !== "0") parent.set(find(a), find(b));
  return find;
}

/** Seconds within which a clip that stays on has discharged what counts as discharged by it, and a tool as it is usual. */
const CLIP_SECONDS = 60;
export const CLIP_OHMS = 2200;
const PART_LEFT = 0.1;

/** For each reservoir whether a tool that stays clipped to `clipped` discharges it too. */
export function dischargedFrom(circuit: Circuit | undefined, reservoirs: readonly Reservoir[], clipped: number): boolean[] {
  const at = reservoirs[clipped];
  if (!at) return reservoirs.map(() => false);
  if (!circuit) return reservoirs.map((_, i) => i === clipped);
  const tool = { name: "R#tool", letter: "R", nodes: [at.node, "0"], value: CLIP_OHMS, params: {}, notes: {}, line: 0 } as const;
  const with_ = { ...circuit, elements: [...circuit.elements, { ...tool, nodes: [...tool.nodes] }] };
  const left = decayOf(
    with_,
    [...reservoirs],
    reservoirs.map(() => 1),
  ).voltsAt(CLIP_SECONDS);
  return reservoirs.map((_, i) => i === clipped || Math.abs(left[i]!) < PART_LEFT);
}
