/** What lies on the drawing: volts at nodes, what is said of parts, the point that is next. One thing at a time, chosen by the station. */

import type { Verdict } from "@/core/expectation/expectation";

export interface NodeNote {
  /** What should be there, or what a suspect makes of it. */
  expected?: string;
  /** What was read. */
  read?: string;
  verdict?: Verdict;
}

export interface PartNote {
  /** Short: "62 %", "new". */
  text: string;
  /** strong: the one that the station is about; changed: another part than the model's; out: not in the amp. */
  look: "strong" | "plain" | "changed" | "out";
}

export interface Layer {
  /** What the two lines at a node are, for the line under the drawing. */
  says: string;
  nodes: Record<string, NodeNote>;
  /** By the name in the circuit file: "XV1A". */
  parts: Record<string, PartNote>;
  /** The parts that the station is about, where it is not all of them: what is too small to be read begins there. */
  about?: string[];
  /** Parts whose value nobody has seen: written fainter. */
  assumed?: ReadonlySet<string>;
  /** The node that is to be measured now. */
  next?: string;
}
