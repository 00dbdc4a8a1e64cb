/** What is done with a part, as the lines that it leaves on the tape: one builder for each act, whichever screen it is done on. */

import type { EventDraft } from "../tape/events/event";
import type { Change } from "../tape/events/work-events";
import type { Line } from "../tape/fold";
import { said } from "../tape/said";

/** A part is replaced, repaired, or altered to see what it does. */
export const partChanged = (change: Change): EventDraft<"change"> => ({ type: "change", payload: said(change) });

export interface Trial {
  position: string;
  /** In words: what goes in. */
  newPart: string;
  /** What it does to the circuit, in the engine's words. */
  set: readonly string[];
  reason?: string;
  /** What is expected of it, and how it was before. */
  hypothesis?: string;
  before?: string;
}

/** A part is tried: it is in the circuit in use until it is kept or put back. */
export function partTried({ position, newPart, set, ...told }: Trial): EventDraft<"change"> {
  return partChanged({ position, kind: "experiment", newPart, reversible: true, outcome: "open", set: [...set], ...told });
}

/** A change is kept, or put back. @param after how it was with it, where somebody said. */
export function changeEnded(
  change: Line<Change>,
  outcome: "kept" | "reverted",
  { after, reason = outcome }: { after?: string; reason?: string } = {},
): EventDraft<"change"> {
  const { seq, at: _at, who: _who, ...payload } = change;
  return { type: "change", supersedes: seq, reason, payload: { ...payload, outcome, ...(after ? { after } : {}) } };
}

/** A change that was put back goes in again. */
export const fittedAgain = (change: { seq: number }, reason = "fitted again"): EventDraft<"undo"> => ({
  type: "undo",
  supersedes: change.seq,
  reason,
  payload: {},
});
