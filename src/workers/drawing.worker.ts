/** Layouts off the main thread: a thin shell over core and the layout package. */

import { expose } from "comlink";
import ElkApi from "elkjs/lib/elk-api.js";
import { setLanguage } from "@/core/language/language";
import { readCircuit } from "@/core/circuit/read";
import { drawCircuit } from "@/core/drawing/draw-circuit";
import { faultsOf } from "@/core/drawing/check-drawing";
import type { Drawing } from "@/core/drawing/geometry";
import type { LayoutEngine } from "@/core/drawing/place";
import { releasing } from "./releasing";

/**
 * The layout package in this same worker. In a worker without a document it takes all messages for its own and offers no way to be called;
 * with one it lets itself be called, and never looks at it.
 */
async function layoutEngine(): Promise<LayoutEngine> {
  const scope = globalThis as { document?: unknown };
  scope.document ??= {};
  const { Worker: InThisThread } = await import("elkjs/lib/elk-worker.min.js");
  delete scope.document;
  const elk = new ElkApi({ workerFactory: (url) => new InThisThread(url) });
  return (graph) => elk.layout(graph as never) as never;
}

// Loaded while the first file is still on its way.
const engine = layoutEngine();

const api = {
  speak: setLanguage,
  /** The drawing, and the milliseconds that it took once the layout package was there. */
  async draw(netlist: string): Promise<{ drawing: Drawing; ms: number }> {
    const { circuit, errors } = readCircuit(netlist);
    if (errors.length > 0) throw new Error(`line ${errors[0]!.line} of the circuit file cannot be read: found ${errors[0]!.found}`);
    const layout = await engine;
    const begun = performance.now();
    const drawing = await drawCircuit(circuit, layout);
    // A drawing that does not say what the file says is not shown.
    const faults = faultsOf(circuit, drawing);
    if (faults.length > 0) throw new Error(`the drawing is not what the circuit file says (${faults[0]})`);
    return { drawing, ms: performance.now() - begun };
  },
};

export type DrawingApi = typeof api;

expose(releasing(api));
