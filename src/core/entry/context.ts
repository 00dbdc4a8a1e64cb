/** What the entry line knows while it reads, and what its readers give. */

import type { Circuit } from "../circuit/circuit";
import type { Unit } from "../quantity/unit";
import type { Reservoir } from "../supply/reservoirs";
import type { EnergyState } from "../safety/energy";
import type { Conditions } from "../tape/events/measuring-events";
import type { EventDraft } from "../tape/events/event";
import type { ReadingKind } from "../tape/events/words";
import type { JobState } from "../tape/fold";
import type { StationId } from "../tape/stations";

export interface EntryContext {
  circuit?: Circuit;
  reservoirs: Reservoir[];
  energy: EnergyState["kind"];
  state: JobState;
  conditions: Conditions;
  station: StationId;
  decimal: "." | ",";
  /** This year, in which a part is new; by the clock unless given. */
  year?: number;
  /** Volts of the wall, for what an unloaded rail can reach; the circuit's own unless given. */
  wall?: number;
}

export type Entry = { ok: true; echo: string; drafts: EventDraft[] } | { ok: false; read: string; why: string; accepted: string };

export const yes = (echo: string, ...drafts: EventDraft[]): Entry => ({ ok: true, echo, drafts });

export const no = (read: string, why: string, accepted: string): Entry => ({ ok: false, read, why, accepted });

/** The unit that a bare value of that kind has. */
export const KIND_UNIT: Record<ReadingKind, Unit> = { dcv: "V", acv: "V", ma: "A", ohm: "Ω", leak: "V", gm: "%" };
