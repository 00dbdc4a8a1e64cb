/** Gates that were passed with a reason, and whether they still hold: until something changes that they rest on. */

import { isOfEnergy, signOf } from "./signs";
import type { EnergyState } from "./energy";
import type { JobEvent } from "../tape/events/event";
import { is } from "../tape/events/event";
import type { JobState } from "../tape/fold";
import type { StationId } from "../tape/stations";

/** A gate of a power-on, by the name under which it is passed on the tape. */
export type PowerGateId = "isolation" | "rails" | "bias" | "fuse" | "straight" | "danger" | "series";

type Passes = Pick<JobState, "effective" | "gatesPassed">;

/** The gates of a power-on that were passed since the power was last switched. */
export function passedForPower(state: Passes): Set<PowerGateId> {
  const switched = state.effective.findLast((e) => e.type === "power")?.seq ?? 0;
  const ids = state.gatesPassed
    .filter((g) => g.seq > switched && g.station === "bring-up")
    // "danger, straight: it ran yesterday": the names stand before the reason.
    .flatMap((g) =>
      g.reason
        .split(":")[0]!
        .split(",")
        .map((id) => id.trim()),
    );
  return new Set(ids as PowerGateId[]);
}

/** What may have charged the amp, or put another one on the bench. To read and to prove changes nothing. */
const changesEnergy = (e: JobEvent): boolean =>
  is(e, "power") || is(e, "still-live") || is(e, "reform-begun") || is(e, "reform-turn") || is(e, "returned") || is(e, "taken-in")
    ? true
    : is(e, "unreadable")
      ? isOfEnergy(e.payload.type)
      : signOf(e, Infinity)?.shows === "power" || is(e, "capacitor-test");

/** Whether hands may go in at a station: proven dead, or passed with a reason since the energy of the amp could last have changed. */
export function gateOpen(state: Passes, energy: EnergyState["kind"], station: StationId): boolean {
  if (energy === "proven-dead") return true;
  if (energy === "live" || energy === "not-here") return false;
  const passed = state.gatesPassed.findLast((g) => g.station === station);
  if (!passed) return false;
  return passed.seq > (state.effective.findLast(changesEnergy)?.seq ?? 0);
}
