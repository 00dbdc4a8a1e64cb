"use client";
/** The drawing of a model, with what it computes at every point beside its chart; downloads of it. */

import { useMemo, useState, type ReactNode } from "react";
import { Download } from "lucide-react";
import type { Circuit } from "@/core/circuit/circuit";
import type { Solution } from "@/core/expectation/solution";
import type { DrawingPort } from "@/core/ports/drawing-port";
import type { School } from "@/core/drawing/strokes";
import type { Drawing } from "@/core/drawing/geometry";
import { lineworkOf } from "@/core/drawing/linework";
import { svgOf } from "@/core/drawing/svg";
import { DrawingSheet } from "../drawing/drawing-sheet";
import { Drawn } from "../drawing/drawn";
import { modelLayer } from "../drawing/layers";
import { useDrawing } from "../drawing/use-drawing";
import type { InHand } from "../job/job-context";

interface ModelDrawingProps {
  circuit: Circuit;
  /** The text that the circuit was read from, once typing has paused. */
  netlist: string | undefined;
  solution?: Solution;
  school: School;
  drawings: DrawingPort;
  /** Beside the downloads. */
  more?: ReactNode;
  /** What is in hand, where the page holds it; else it is kept here. */
  inHand?: InHand;
  setInHand?(at: InHand | undefined): void;
  picked?(at: InHand): void;
  found?(at: InHand): void;
  /** What can be done with it, under what is known of it. */
  action?: ReactNode;
  /** Lies on the drawing, in its own units. */
  over?(drawing: Drawing): ReactNode;
  /** Whether what is known of the thing in hand stands beside the drawing. */
  known?: boolean;
}

export function ModelDrawing({
  circuit,
  netlist,
  solution,
  school,
  drawings,
  more,
  picked,
  found,
  action,
  over,
  known,
  ...held
}: ModelDrawingProps) {
  const [own, setOwn] = useState<InHand>();
  const [inHand, setInHand] = held.setInHand ? [held.inHand, held.setInHand] : [own, setOwn];
  const drawn = useDrawing(drawings, netlist);
  const layer = useMemo(() => modelLayer(circuit, solution), [circuit, solution]);
  const download = (drawing: Drawing) => {
    const notes = Object.fromEntries(
      Object.entries(layer.nodes).map(([node, n]) => [node, [n.read, n.expected].filter((line) => line !== undefined)]),
    );
    const url = URL.createObjectURL(
      new Blob([svgOf(lineworkOf(drawing, circuit, school, notes), circuit.title)], { type: "image/svg+xml" }),
    );
    const link = document.createElement("a");
    link.href = url;
    link.download = `${circuit.title.replace(/[^\p{L}\p{N}]+/gu, "-").toLowerCase() || "circuit"}.svg`;
    link.click();
    URL.revokeObjectURL(url);
  };
  return (
    <Drawn
      drawing={drawn.answer}
      failed={drawn.failed}
      circuit={circuit}
      layer={layer}
      solution={solution}
      inHand={inHand}
      setInHand={setInHand}
    >
      {(drawing, large, setLarge) => (
        <DrawingSheet
          drawing={drawing}
          circuit={circuit}
          school={school}
          layer={layer}
          solution={solution}
          inHand={inHand}
          setInHand={setInHand}
          large={large}
          setLarge={setLarge}
          picked={picked}
          found={found}
          action={inHand && action}
          over={over?.(drawing)}
          known={known}
          tools={
            <>
              {more}
              <button className="btn btn-outline" onClick={() => download(drawing)}>
                <Download aria-hidden className="size-5" /> SVG
              </button>
            </>
          }
        />
      )}
    </Drawn>
  );
}
