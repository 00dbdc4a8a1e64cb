"use client";
/** A drawing when it is there; until then a word, and where it cannot be made the list of what is in the circuit, with the reason. */

import type { ReactNode } from "react";
import type { Circuit } from "@/core/circuit/circuit";
import type { Drawing } from "@/core/drawing/geometry";
import type { Solution } from "@/core/expectation/solution";
import type { InHand } from "../job/job-context";
import { Large } from "./large";
import type { Layer } from "./layer";
import { Table } from "./part-table";

interface DrawnProps {
  drawing?: Drawing;
  /** Why there is none. */
  failed: string;
  circuit: Circuit;
  layer: Layer;
  solution?: Solution;
  inHand?: InHand;
  setInHand(at: InHand | undefined): void;
  children(drawing: Drawing, large: boolean, setLarge: (large: boolean) => void): ReactNode;
}

export function Drawn({ drawing, failed, circuit, layer, solution, inHand, setInHand, children }: DrawnProps) {
  if (failed)
    return (
      <>
        <p role="status" className="mb-2">
          ▲ The circuit could not be drawn: {failed}. Here is what is in it.
        </p>
        <Table circuit={circuit} layer={layer} solution={solution} inHand={inHand} pick={setInHand} />
      </>
    );
  if (!drawing)
    return (
      <p role="status" className="soft grid h-[30rem] place-items-center">
        Drawing the circuit…
      </p>
    );
  return <Large>{(large, setLarge) => children(drawing, large, setLarge)}</Large>;
}
