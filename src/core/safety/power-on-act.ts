/** The act of putting an amp on: the lines that it leaves on the tape, whoever does it and wherever. */

import type { EventDraft } from "../tape/events/event";
import type { Power } from "../tape/events/power-events";
import type { Intended, PowerGate } from "./power-gates";

export interface PowerOnAct extends Intended {
  /** Gates that are not met, and why it goes on all the same. */
  unmet: readonly PowerGate[];
  reason: string;
  /** Statements of the live check that were confirmed; none where it is asked after the power is on. */
  confirmed?: readonly string[];
}

/** Gates passed, the power, the live check: one line each, in this order. */
export function powerOnLines({ through, without, isolated, unmet, reason, confirmed }: PowerOnAct): EventDraft[] {
  const payload: Power = {
    state: "on",
    plug: "in",
    ...(through ? { through } : {}),
    ...(isolated ? { isolated: true } : {}),
    ...(without.length > 0 ? { without: [...without] } : {}),
  };
  return [
    ...(unmet.length > 0 ? [gatePassed(unmet, reason)] : []),
    { type: "power", payload },
    ...(confirmed ? [{ type: "live-check" as const, payload: { confirmed: [...confirmed] } }] : []),
  ];
}

/** The line that passes gates of a power-on: their names, then the reason. */
export const gatePassed = (gates: readonly PowerGate[], reason: string): EventDraft => ({
  type: "gate-passed",
  payload: { station: "bring-up", reason: `${gates.map((g) => g.id).join(", ")}: ${reason.trim()}`, understood: true },
});
