/** What a tape says of power, reservoirs and the proof, replayed to its end. */

import type { ReformedPart } from "../tape/events/capacitor-events";

/** Where the estimate of a reservoir's volts starts from. */
export type Basis = "read" | "expected" | "rating" | "named";

/** A reading that counts, with the meter that it was made with. */
export interface Counted {
  volts: number;
  at: string;
  meter: string;
}

/** Capacitors on a bench supply. */
export interface Supply {
  since: string;
  parts: readonly ReformedPart[];
  volts: number;
  /** Milliseconds at which it was last said to be on. */
  on: number;
}

export interface Replayed {
  power: "unknown" | "on" | "off";
  since: string;
  /** Tubes that were out at the last power-on. */
  without: readonly string[];
  plugOut: boolean;
  /** Milliseconds from which readings can prove something: off was said, and the plug out; NaN before. */
  offAt: number;
  /** Milliseconds of the last sign that the amp was on, and of the last of power or charge: by a clock that is ahead it may be to come. */
  lastPower: number;
  lastSign: number;
  /** Milliseconds at which a warm amp was switched off: its tubes stay hot for a while. */
  hotAt?: number;
  /** Why nothing is known though something was proven. */
  why?: string;
  /** False after it went back to its owner. */
  here: boolean;
  /** Volts of each reservoir at `from`, milliseconds. */
  volts: (number | undefined)[];
  basis: (Basis | undefined)[];
  from: number;
  /** The most that each can have held since it was last live, as far as that is known. */
  held: (number | undefined)[];
  lastLive: (number | undefined)[];
  /** Last discharge reading since the power went off, and whether one of them showed a charge. */
  measured: (number | undefined)[];
  shown: boolean[];
  first: (Counted | undefined)[];
  second: (Counted | undefined)[];
  rebounded: ({ from: number; to: number } | undefined)[];
  conflict: (string | undefined)[];
  unread: (string | undefined)[];
  /** The last time that a meter was right on a source that proves one. */
  meter?: { time: number; at: string; name: string };
  meterAfter?: string;
  toolBefore?: string;
  toolAfter?: string;
  /** Reservoirs that the tool is clipped to, and when it last came off one. */
  clips: Map<string, number>;
  clipOffAt?: number;
  /** The clip that is on discharges this reservoir. */
  covered(reservoir: number): boolean;
  /** Bench supplies that are on, by the line that began each. */
  supplies: Map<number, Supply>;
  /** Reservoirs that were lifted off the amp for it: nothing of the amp discharges them. */
  lifted: Set<string>;
}
