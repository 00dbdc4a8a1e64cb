"use client";
/** The drawing of a circuit file, asked for when the file changes; its key is the file. */

import type { Drawing } from "@/core/drawing/geometry";
import type { DrawingPort } from "@/core/ports/drawing-port";
import { useAnswer, type Asked } from "../job/use-answer";

export const useDrawing = (port: DrawingPort | undefined, netlist: string | undefined): Asked<Drawing> =>
  useAnswer(port && netlist, () => port!.draw(netlist!));
