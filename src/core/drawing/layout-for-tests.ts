/** The layout package in this process, for tests. */

import ELK from "elkjs/lib/elk.bundled.js";
import type { LayoutEngine } from "./place";

const elk = new ELK();

export const layoutHere: LayoutEngine = (graph) => elk.layout(graph as never) as never;
