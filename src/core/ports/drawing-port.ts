/** What screens ask of the drawing, wherever it is laid out. */

import type { Drawing } from "../drawing/geometry";

export interface DrawingPort {
  /** The circuit file as a drawing; the same file is laid out once. Rejects with an Error whose message can be shown. */
  draw(netlist: string): Promise<Drawing>;
}
