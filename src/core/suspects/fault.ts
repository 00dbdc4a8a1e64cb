/** A single fault that an amp can have. */

import type { Element } from "../circuit/circuit";
import type { FaultKind } from "./priors";

export interface Fault {
  /** "C6 leaky": what it is called, and its key. */
  name: string;
  /** Parts that it is about; empty for "nothing wrong". */
  refs: string[];
  kind: FaultKind;
  /** Changes to the netlist, in the words of `--set`, at a severity of the grid. */
  changes(severity: number): string[];
  /** Severities at which it is solved, in order; between them predictions are interpolated on a log scale. */
  grid: number[];
  /** What the severity is, for showing: "ohms", "times", "part left", "amperes". */
  severityUnit?: "Ω" | "×" | "of emission" | "of its value" | "of the mains" | "A";
  /** Chance before any evidence, relative to the other faults. */
  prior: number;
  /** Watts that the leak or short may burn in the part for longer than a moment; beyond it this is no state to be measured. */
  mostWatts?: { nodes: [string, string]; watts: number };
}

export const NOTHING_WRONG = "nothing wrong";

/** Takes a fault in: `e` is the part that its prior is about. */
export type AddFault = (
  e: Element | undefined,
  fault: Pick<Fault, "name" | "refs" | "kind" | "changes"> &
    Partial<Pick<Fault, "grid" | "severityUnit" | "mostWatts">> & { weight?: number },
) => void;
