/** What the energy state is worked out from, besides the tape. */

import type { Circuit } from "../circuit/circuit";
import type { Reservoir } from "../supply/reservoirs";

export interface EnergyContext {
  circuit?: Circuit;
  reservoirs: Reservoir[];
  /** Volts at or below which a reservoir counts as discharged. */
  safeVolts: number;
  /** Hours after which a proof no longer holds. */
  proofHours: number;
  /** Minutes for which a meter counts as proved, and the name of the shop's own source; "" for none. */
  meterMinutes: number;
  meterSource: string;
  /** Reservoirs of the circuit as it stood when a line had been stored; left out where the circuit never changes. */
  reservoirsAt?(line: number): Reservoir[];
  /** Volts that a reservoir had while live, when nobody read it: from the chart or the model. */
  expectedVolts(reservoir: Reservoir): number | undefined;
  /** Volts that it rises to while nothing draws from it: tubes out, or not warm yet. */
  unloadedVolts?(reservoir: Reservoir): number | undefined;
}
