"use client";
/** The drawing of a circuit file, asked for when the file changes. */

import { useAnswer, type Asked } from "../frame/use-answer";
import type { DrawingPort } from "@/core/ports/drawing-port";
import type { Drawing } from "@/core/drawing/geometry";

export function useDrawing(port: DrawingPort | undefined, netlist: string | undefined): Asked<Drawing> & { netlist?: string } {
  const asked = useAnswer(port && netlist, async () => ({ drawing: await port!.draw(netlist!), netlist: netlist! }));
  // The last one stays until the next is there; it says which file it is of.
  return { failed: asked.failed, progress: asked.progress, answer: asked.answer?.drawing, netlist: asked.answer?.netlist };
}
