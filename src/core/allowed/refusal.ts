/** What every rule is asked with, and what it answers. */

import type { Circuit } from "../circuit/circuit";
import type { EnergyState } from "../safety/energy";
import type { Role } from "../shop/people";
import type { Settings } from "../shop/settings";
import type { JobEvent } from "../tape/events/event";
import type { EventType, Payloads } from "../tape/events/registry";
import type { JobState } from "../tape/fold";

/** A job as it stands before the line. What is dear to work out is worked out when a rule asks for it. */
export interface JobNow {
  /** All lines, struck ones too, line 1 first. */
  readonly tape: readonly JobEvent[];
  readonly state: JobState;
  readonly circuit?: Circuit;
  readonly settings: Settings;
  /** How the energy stands at that time. */
  energy(): EnergyState["kind"];
}

/** Who writes, and when it happened at the bench: milliseconds since 1970. Without a role everybody may. */
export interface Writer {
  role?: Role;
  at: number;
}

export interface Refusal {
  /** 403: not theirs to log. 409: something on the tape stands against it. 422: it can never be so. */
  status: 403 | 409 | 422;
  /** What stands against it, and what would be accepted. */
  says: string;
  field?: string;
}

/** A line that is about to be logged. */
export interface Line<T extends EventType = EventType> {
  type: T;
  payload: Payloads[T];
  supersedes?: number;
  reason?: string;
}

export interface Rule<T extends EventType> {
  /** Why the line may not be logged now; undefined where it may. */
  may?(line: Line<T>, job: JobNow, who: Writer): Refusal | undefined;
  /** Why a line that stands may not be corrected or taken back by another; undefined where it may. Left out: anybody may. */
  takeBack?(stands: JobEvent<T>, job: JobNow, who: Writer, by: Line): Refusal | undefined;
}

/** Anybody may log it at any time and take it back. */
export const FREE = {};

export const conflict = (says: string, field?: string): Refusal => ({ status: 409, says, ...(field ? { field } : {}) });
export const impossible = (says: string, field?: string): Refusal => ({ status: 422, says, ...(field ? { field } : {}) });

/** A reason is words, not a full stop: three letters at least. */
export const isReason = (text: string | undefined): boolean => (text?.match(/\p{L}/gu)?.length ?? 0) >= 3;
