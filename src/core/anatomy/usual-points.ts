/**
 * The usual test points of a circuit whose file has none: rails from the rectifier down, then the output tubes, then tube by tube towards the
 * input. Where the probe goes is not said here: it comes from the basing (`whereToProbe`).
 */

import type { Circuit, Element, TestPoint } from "../circuit/circuit";
import { addPoints } from "../circuit/edit-line";
import * as texts from "../texts/usual-points";
import { isOutputTube } from "./cathode-current";
import { electrodeNode, electrodePoint, tubesOf, type Electrode } from "./points";
import { railsOf, type Rail } from "./rails";

export type UsualPoint = Pick<TestPoint, "name" | "node" | "order" | "label" | "caution">;

/** The points in the order of the walk; one a node. Empty where there is nothing to probe. */
export function usualPoints(circuit: Circuit): UsualPoint[] {
  const taken = new Set(["0"]);
  const names = new Set(circuit.elements.map((e) => e.name.toLowerCase()));
  const out: UsualPoint[] = [];
  const add = (wanted: string, node: string | undefined, label: string, caution?: string) => {
    if (node === undefined || taken.has(node)) return;
    taken.add(node);
    let name = wanted;
    for (let i = 2; names.has(name.toLowerCase()); i++) name = `${wanted}.${i}`;
    names.add(name.toLowerCase());
    out.push({ name, node, order: 10 * (out.length + 1), label, ...(caution ? { caution } : {}) });
  };

  const rails = [...railsOf(circuit).values()];
  for (const rail of rails.filter((r) => r.kind === "bias" && isFirst(circuit, r))) add("BIAS", rail.node, texts.bias(), texts.biasFirst());
  let count = 0;
  for (const rail of rails.filter((r) => r.kind === "rail"))
    add(`B${++count}`, rail.node, count === 1 ? texts.reservoir() : texts.supply(count), count === 1 ? texts.highest() : undefined);

  const tubes = tubesOf(circuit);
  const output = tubes.filter(isOutputTube);
  const at = (tube: Element, electrode: Electrode, caution?: string) =>
    add(electrodePoint(tube, electrode), electrodeNode(tube, electrode), texts.electrode(tube.name, electrode), caution);
  for (const electrode of ["grid", "cathode", "plate", "screen"] as const)
    for (const tube of output) at(tube, electrode, electrode === "plate" ? texts.swings() : undefined);
  const others = tubes.filter((t) => !isOutputTube(t)).sort((a, b) => b.name.localeCompare(a.name, "en", { numeric: true }));
  for (const tube of byEnvelope(others)) for (const electrode of ["plate", "screen", "cathode"] as const) at(tube, electrode);
  return out;
}

/** The bias where it is made, not behind its adjusters. */
function isFirst(circuit: Circuit, rail: Rail): boolean {
  return circuit.elements.some(
    (e) => (e.rectifierTube !== undefined || e.type?.startsWith("RECT_") || e.letter === "V") && e.nodes.includes(rail.node),
  );
}

/** From the output towards the input by the number of the tube, its halves in their own order. */
function byEnvelope(tubes: readonly Element[]): Element[] {
  const number = (e: Element) => Number(/\d+/.exec(e.name)?.[0] ?? 0);
  return [...tubes].sort((a, b) => number(b) - number(a) || a.name.localeCompare(b.name));
}

/** A circuit file with the usual points written into it, where it has none; else as it is. */
export function withUsualPoints(netlist: string, circuit: Circuit): string {
  return circuit.points.length > 0 ? netlist : addPoints(netlist, usualPoints(circuit));
}
