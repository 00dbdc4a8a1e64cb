/** What has to be in order before a supply or a tester goes to a capacitor. */

import type { CaseLead } from "../tape/events/words";
import * as texts from "../texts/capacitor";

export interface ReformSetting {
  /** The capacitor is still wired in its amp. */
  inAmp: boolean;
  lineConnected: boolean;
  caseLead: CaseLead;
  /** The can is fixed to the chassis. */
  canOnChassis: boolean;
  /** The tester or supply has its plus at its own chassis or earth, the test voltage on the negative lead. */
  voltsOnNegative: boolean;
  /** The supply has no connection to earth or to the wall. */
  isolatedSupply: boolean;
  /** Its amp's wall plug is out. */
  plugOut: boolean;
}

export interface Obstacle {
  id: string;
  says: string;
  /** Nobody may go past it; the others want a reason. */
  never: boolean;
}

/** What is in the way; empty where nothing is. */
export function reformObstacles(s: ReformSetting): Obstacle[] {
  const out: Obstacle[] = [];
  const add = (id: string, says: string, never = false) => out.push({ id, says, never });
  if (!s.plugOut) add("plug", texts.plugFirst(), true);
  if (s.caseLead === "unknown") add("case", texts.caseUnknown());
  // The case, and with it the chassis and every screw of it, would stand at the test volts.
  if (s.inAmp && s.canOnChassis && s.voltsOnNegative && s.caseLead !== "insulated")
    add("negative", texts.chassisAtTestVolts(), !s.isolatedSupply);
  if (s.inAmp && s.lineConnected && !s.isolatedSupply) add("line", texts.lineNeedsIsolation(), true);
  if (!s.isolatedSupply && s.inAmp && s.canOnChassis && !out.some((o) => o.id === "negative" || o.id === "line"))
    add("earth", texts.supplyOnEarth());
  if (s.inAmp) add("lift", texts.bleedersCarry());
  return out;
}
