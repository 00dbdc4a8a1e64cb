/** What is left of all faults once the evidence has been weighed. */

import type { Column } from "./columns";
import type { Fault } from "./fault";
import type { Explained } from "./likelihood";
import type { FaultTable, Hypothesis } from "./table";

/** One fault with its best severity and its weight. */
export interface Weighed {
  fault: Fault;
  /** Line of the table nearest to the fitted severity; −1 for a pair. */
  line: number;
  hypothesis: Hypothesis;
  log: number;
  /** Natural log of the likelihood alone, averaged over severities: the prior is not in it. */
  marginal?: number;
  weight: number;
  fitted: number;
  best: Explained;
  mean: Float64Array;
}

export interface Posterior {
  table: FaultTable;
  columns: Column[];
  weighed: Weighed[];
}
