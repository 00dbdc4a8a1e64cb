/** The drawing measured: its layout in this process, and how good each amp's is to read. One JSON line per row. Run by npm run bench. */

import { readdirSync, readFileSync } from "node:fs";
import ELK from "elkjs/lib/elk.bundled.js";
import { readCircuit } from "@/core/circuit/read";
import { measure } from "@/core/drawing/check-drawing";
import { drawCircuit } from "@/core/drawing/draw-circuit";
import type { LayoutEngine } from "@/core/drawing/place";

const RUNS = 5;
const elk = new ELK();
const layout: LayoutEngine = (graph) => elk.layout(graph as never) as never;

async function measured(): Promise<void> {
  for (const file of readdirSync("demo/amps").filter((name) => name.endsWith(".cir"))) {
    const { circuit } = readCircuit(readFileSync(`demo/amps/${file}`, "utf8"));
    const times: number[] = [];
    let drawing = await drawCircuit(circuit, layout);
    for (let k = 0; k < RUNS; k++) {
      const start = performance.now();
      drawing = await drawCircuit(circuit, layout);
      times.push(performance.now() - start);
    }
    const median = times.sort((a, b) => a - b)[Math.floor(RUNS / 2)]!;
    const { crossings, bends } = measure(drawing);
    const name = `${circuit.facts.model}, ${circuit.elements.length} parts`;
    console.log(
      JSON.stringify([name, `${Math.round(median)} ms`, crossings, bends, `${Math.round(drawing.width)} × ${Math.round(drawing.height)}`]),
    );
  }
}

measured().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
