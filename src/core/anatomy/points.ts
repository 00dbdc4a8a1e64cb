/** What a test point is in the circuit: a rail, an electrode of a tube; and the parts around it by name. */

import type { Circuit, Element, TestPoint } from "../circuit/circuit";
import { isRectifier } from "../circuit/special-parts";
import { solve } from "../numeric/dense";
import { reservoirsOf } from "../supply/reservoirs";

export type Electrode = "plate" | "screen" | "grid" | "cathode";
export type Role = "rail" | "bias" | Electrode | "other";

/** The electrodes of a triode or a pentode in the order of its nodes; empty for what is not a tube. */
export function electrodesOf({ tube }: Element): Electrode[] {
  return tube?.kind === "triode" ? ["plate", "grid", "cathode"] : tube?.kind === "pentode" ? ["plate", "screen", "grid", "cathode"] : [];
}

/** Node of an electrode; undefined for a screen that a triode does not have, or for what is not a tube. */
export function electrodeNode(tube: Element, electrode: Electrode): string | undefined {
  const at = electrodesOf(tube).indexOf(electrode);
  return at < 0 ? undefined : tube.nodes[at];
}

/** A point's name for an electrode, as the files have it. @example electrodePoint(v2, "cathode") // "V2.k" */
export const electrodePoint = (tube: Element, electrode: Electrode): string =>
  `${tube.name}.${electrode === "cathode" ? "k" : electrode.charAt(0)}`;

export function tubesOf(circuit: Circuit): Element[] {
  return circuit.elements.filter((e) => e.letter === "X" && electrodeNode(e, "plate") !== undefined);
}

/** Tubes with that electrode on the node. */
export function tubesAt(circuit: Circuit, node: string, electrode: Electrode): Element[] {
  return tubesOf(circuit).filter((t) => electrodeNode(t, electrode) === node);
}

export function roleOf(circuit: Circuit, point: TestPoint): Role {
  const supply = new Set(
    reservoirsOf(circuit)
      .flatMap((r) => [r.node, r.returnNode])
      .filter((n) => n !== "0"),
  );
  if (supply.has(point.node)) return (point.chart ?? 0) < 0 ? "bias" : "rail";
  // The point's own name decides where one node is two electrodes (a direct-coupled pair).
  const named = /\.(p|k|g|s)$/i.exec(point.name)?.[1]?.toLowerCase();
  const order: Electrode[] = ["plate", "screen", "cathode", "grid"];
  const present = order.filter((e) => tubesAt(circuit, point.node, e).length > 0);
  const wanted = order.find((e) => (e === "cathode" ? "k" : e.charAt(0)) === named);
  if (wanted && present.includes(wanted)) return wanted;
  return present[0] ?? "other";
}

/** Ohms from a node to ground through resistors alone, supplies and plates left open; Infinity when there is no way. */
export function ohmsToGround(circuit: Circuit, node: string): number {
  const barred = new Set(
    reservoirsOf(circuit)
      .flatMap((r) => [r.node, r.returnNode])
      .filter((n) => n !== "0" && n !== node),
  );
  const branches = circuit.elements.filter((e) => e.letter === "R" && !e.nodes.some((n) => barred.has(n)));
  const index = new Map<string, number>([[node, 0]]);
  for (let grew = true; grew;) {
    grew = false;
    for (const { nodes } of branches) {
      const [a, b] = nodes as [string, string];
      for (const [from, to] of [
        [a, b],
        [b, a],
      ] as const) {
        if (from !== "0" && index.has(from) && to !== "0" && !index.has(to)) {
          index.set(to, index.size);
          grew = true;
        }
      }
    }
  }
  if (!branches.some((e) => e.nodes.includes("0") && e.nodes.some((n) => index.has(n)))) return Infinity;
  const n = index.size;
  const g = new Float64Array(n * n);
  for (const e of branches) {
    const [a, b] = e.nodes.map((x) => index.get(x) ?? -1) as [number, number];
    if (a < 0 && b < 0) continue;
    const siemens = 1 / e.value!;
    if (a >= 0) g[a * n + a]! += siemens;
    if (b >= 0) g[b * n + b]! += siemens;
    if (a >= 0 && b >= 0) {
      g[a * n + b]! -= siemens;
      g[b * n + a]! -= siemens;
    }
  }
  for (let i = 0; i < n; i++) g[i * n + i]! += 1e-15;
  return solve(
    g,
    Array.from({ length: n }, (_, i) => (i === 0 ? 1 : 0)),
  )[0]!;
}

/** The resistors that join two nodes or, with one node, that end on it. */
export function resistorsAt(circuit: Circuit, node: string, other?: string): Element[] {
  return circuit.elements.filter((e) => e.letter === "R" && e.nodes.includes(node) && (other === undefined || e.nodes.includes(other)));
}

/** Capacitors that bring a signal to this grid from a node with high voltage on it. */
export function couplingCapacitorsTo(circuit: Circuit, node: string): Element[] {
  const plates = new Set(tubesOf(circuit).flatMap((t) => [electrodeNode(t, "plate"), electrodeNode(t, "cathode")]));
  const near = new Set([node]);
  // A grid stopper or the wiper of a control may stand between the capacitor and the grid.
  for (const e of circuit.elements)
    if ((e.letter === "R" || e.type === "POT") && e.nodes.includes(node)) for (const n of e.nodes) if (n !== "0") near.add(n);
  return circuit.elements.filter(
    (e) => e.letter === "C" && e.nodes.some((n) => near.has(n)) && e.nodes.some((n) => !near.has(n) && plates.has(n)),
  );
}

export interface ChainStep {
  point: TestPoint;
  /** The parts between the step before and this one: the dropper. */
  droppers: Element[];
}

/** The high-tension chain from the rectifier down, through resistors, chokes and closed switches. */
export function supplyChain(circuit: Circuit): ChainStep[] {
  const rails = circuit.points.filter((p) => roleOf(circuit, p) === "rail");
  const start = circuit.elements
    .filter((e) => isRectifier(e.type))
    .map((e) => e.nodes[0])
    .find((n) => n !== "0" && rails.some((p) => p.node === n));
  const first = rails.find((p) => p.node === start) ?? [...rails].sort((a, b) => a.order - b.order)[0];
  if (!first) return [];
  const via = new Map<string, Element[]>([[first.node, []]]);
  const queue = [first.node];
  const out: ChainStep[] = [{ point: first, droppers: [] }];
  while (queue.length > 0) {
    const node = queue.shift()!;
    for (const e of circuit.elements) {
      if (!(e.letter === "R" || e.letter === "L" || e.type === "SW") || !e.nodes.includes(node)) continue;
      const to = e.nodes.find((n) => n !== node);
      if (to === undefined || to === "0" || via.has(to)) continue;
      const point = rails.find((p) => p.node === to);
      // Plate and screen resistors leave the chain; what leads on to another rail, or through a switch to one, stays in it.
      if (!point && !(e.type === "SW" || leadsToRail(circuit, to, node, rails))) continue;
      const droppers = [...(rails.some((p) => p.node === node) ? [] : via.get(node)!), e];
      via.set(to, droppers);
      if (point) out.push({ point, droppers });
      queue.push(to);
    }
  }
  return out;
}

function leadsToRail(circuit: Circuit, node: string, from: string, rails: TestPoint[]): boolean {
  return circuit.elements.some(
    (e) =>
      (e.letter === "R" || e.letter === "L") &&
      e.nodes.includes(node) &&
      e.nodes.some((n) => n !== node && n !== from && rails.some((p) => p.node === n)),
  );
}
