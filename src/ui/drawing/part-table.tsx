"use client";
/** The drawing as a table: every part with where it sits, every point with its volts. For screen readers, and to sort through. */

import { useState } from "react";
import { fileName, type Circuit } from "@/core/circuit/circuit";
import { partWords, placeOf } from "@/core/circuit/part-place";
import type { Solution } from "@/core/expectation/solution";
import type { InHand } from "../job/job-context";
import { WideTable } from "../forms/wide-table";
import { workOf } from "@/core/job/known-of";
import type { Layer } from "./layer";
import { layerWords } from "./layer-words";

interface PartTableProps {
  circuit: Circuit;
  layer: Layer;
  solution?: Solution;
  inHand?: InHand;
  pick(at: InHand): void;
}

export function PartTable(props: PartTableProps) {
  // Made when it is asked for: it is as long as the circuit.
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="soft min-h-9 cursor-pointer text-sm">The same as a table: {props.circuit.elements.length} parts</summary>
      {open && <Table {...props} />}
    </details>
  );
}

/** The table alone: it also stands in for a drawing that could not be made. */
export function Table({ circuit, layer, solution, inHand, pick }: PartTableProps) {
  const chosen = (at: InHand) => JSON.stringify(at) === JSON.stringify(inHand);
  return (
    <div className="grid gap-4 xl:grid-cols-2">
      <WideTable label="Parts of the circuit" className="table table-sm">
        <thead>
          <tr>
            <th>Part</th>
            <th>Where</th>
            <th>At work</th>
          </tr>
        </thead>
        <tbody>
          {circuit.elements.map((e) => (
            <tr key={fileName(e)} className={chosen({ part: fileName(e) }) ? "bg-base-200" : ""}>
              <td>
                <button className="text-left underline decoration-dotted underline-offset-4" onClick={() => pick({ part: fileName(e) })}>
                  {partWords(e)}
                </button>{" "}
                {layer.parts[fileName(e)]?.text}
              </td>
              <td>{placeOf(circuit, e)}</td>
              <td className="tabular-nums">
                {solution &&
                  workOf(e, solution)
                    .map((f) => `${f.name} ${f.value}`)
                    .join("; ")}
              </td>
            </tr>
          ))}
        </tbody>
      </WideTable>
      <WideTable label="Points of the circuit" className="table table-sm">
        <thead>
          <tr>
            <th>Point</th>
            <th>Volts</th>
          </tr>
        </thead>
        <tbody>
          {circuit.points.map((p) => (
            <tr key={p.name} className={chosen({ node: p.node }) ? "bg-base-200" : ""}>
              <td>
                <button className="text-left underline decoration-dotted underline-offset-4" onClick={() => pick({ node: p.node })}>
                  {p.name}
                </button>{" "}
                <span className="soft">{p.label}</span>
              </td>
              <td className="tabular-nums">{layer.nodes[p.node] ? layerWords(layer.nodes[p.node]!) : ""}</td>
            </tr>
          ))}
        </tbody>
      </WideTable>
    </div>
  );
}
