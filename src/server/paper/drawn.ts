/** Circuits drawn in the process that makes paper; the layout package is loaded at the first one. */

import { readOnce } from "@/core/circuit/read-once";
import { faultsOf } from "@/core/drawing/check-drawing";
import { drawCircuit } from "@/core/drawing/draw-circuit";
import type { Drawing } from "@/core/drawing/geometry";
import type { LayoutEngine } from "@/core/drawing/place";

const MOST_KEPT = 30;
const known = new Map<string, Promise<Drawing>>();
let engine: Promise<LayoutEngine> | undefined;

async function layoutEngine(): Promise<LayoutEngine> {
  const { default: Elk } = await import("elkjs/lib/elk.bundled.js");
  const elk = new Elk();
  return (graph) => elk.layout(graph as never) as never;
}

async function draw(netlist: string): Promise<Drawing> {
  const circuit = readOnce(netlist);
  engine ??= layoutEngine();
  const drawing = await drawCircuit(circuit, await engine);
  const faults = faultsOf(circuit, drawing);
  if (faults.length > 0) throw new Error(`the drawing is not what the circuit file says (${faults[0]})`);
  return drawing;
}

/** A circuit file as a drawing, laid out once. Rejects where the drawing would not be what the file says. */
export function drawn(netlist: string): Promise<Drawing> {
  let drawing = known.get(netlist);
  if (!drawing) {
    drawing = draw(netlist);
    drawing.catch(() => known.delete(netlist));
    known.set(netlist, drawing);
    if (known.size > MOST_KEPT) known.delete(known.keys().next().value!);
  }
  return drawing;
}
