/** A job as the board has it. */

import { say } from "@/core/language/language";
import type { BoardJob } from "@/core/job/summary";

export interface BoardCard extends BoardJob {
  /** Set for an amp that was left live or charged. */
  charge?: {
    kind: "live" | "stored";
    /** Capacitors that a reforming supply is on. */
    reforming?: string;
    since: string;
    /** Estimated volts of what is still stored. */
    volts?: number;
    /** What is still to be done before it is proven dead. */
    missing?: string;
  };
}

/** Whom or what a job waits for. */
export const WAITING: Record<Exclude<BoardCard["waitingOn"], "done">, string> = {
  you: "you",
  owner: "owner's approval",
  part: "a part",
  soak: "soak test",
  collection: "collection",
};

/** Below this a reservoir's estimate is nothing worth a figure: what counts is that nobody has measured it. */
const NO_CHARGE = 0.5;

/** What an amp that was left live or charged holds, and what to do. */
export function chargeWords(charge: NonNullable<BoardCard["charge"]>, volts: (v: number) => string): string {
  if (charge.reforming) return say`a reforming supply is on ${charge.reforming}. Switch it off, or go on`;
  if (charge.kind === "live") return say`power was put on and not logged off. Switch it off, or go on working on it`;
  const missing = charge.missing ?? "";
  if ((charge.volts ?? 0) < NO_CHARGE) return say`discharged by estimate, but not proven. Still to do: ${missing}`;
  return say`about ${volts(charge.volts!)} by estimate. Still to do: ${missing}`;
}
