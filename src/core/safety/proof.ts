/** The proof that an amp is dead: what is still missing of it, and readings that cannot both be true. */

import type { ReformedPart } from "../tape/events/capacitor-events";
import { rebound } from "./discharge-tool";
import type { Reservoir } from "../supply/reservoirs";
import type { EnergyContext } from "./energy-context";
import * as texts from "../texts/safety";

export interface ReservoirState {
  name: string;
  label: string;
  farads: number;
  /** Estimated volts now; undefined when nothing is known of it. */
  volts?: number;
  /** Where the estimate starts from. */
  basis?: "read" | "expected" | "rating" | "named";
  first?: { volts: number; at: string };
  second?: { volts: number; at: string };
  /** Seconds until a second reading counts; 0 when it may be taken now. */
  secondIn?: number;
  /** It came back above the safe voltage after a first reading below it. */
  rebounded?: { from: number; to: number };
  /** Two readings that cannot both be true, in words. */
  conflict?: string;
  /** Why its terminals cannot be reached. */
  unread?: string;
}

export interface Proof {
  meterBefore?: string;
  meterAfter?: string;
  /** The discharge tool was measured and is what it was made as. */
  toolBefore?: string;
  toolAfter?: string;
  reservoirs: ReservoirState[];
  plugOut: boolean;
  /** What is still to be done, the next first. Empty when proven. */
  missing: ProofStep[];
}

export type ProofStep =
  | { do: "unplug" }
  | { do: "name-reservoirs" }
  | { do: "meter"; when: "before" | "after" }
  | { do: "tool"; when: "before" | "after" }
  | { do: "read"; reservoir: string; round: 1 | 2; wait: number }
  | { do: "reach"; reservoir: string; reason: string }
  | { do: "discharge"; reservoir: string; volts: number };

/** A second reading sooner than this says nothing about rebound. */
export const SECOND_READING_AFTER = 60;
/** What a tape says of power and reservoirs, replayed to its end. */
export interface Replayed {
  power: "unknown" | "on" | "off";
  since: string;
  /** Every tube was in at the last power-on. */
  tubesIn: boolean;
  plugOut: boolean;
  /** Volts of each reservoir at `from`, milliseconds. */
  volts: (number | undefined)[];
  basis: ReservoirState["basis"][];
  from: number;
  lastLive: (number | undefined)[];
  /** Last discharge reading since the power went off. */
  measured: (number | undefined)[];
  first: ({ volts: number; at: string } | undefined)[];
  second: ({ volts: number; at: string } | undefined)[];
  rebounded: ({ from: number; to: number } | undefined)[];
  conflict: (string | undefined)[];
  unread: (string | undefined)[];
  meterBefore?: string;
  meterAfter?: string;
  toolBefore?: string;
  toolAfter?: string;
  /** Capacitors on a bench supply: the line that began it, since when, the volts of the supply. */
  reforming?: { line: number; since: string; parts: readonly ReformedPart[]; volts: number; on: number };
  /** Reservoirs that were lifted off the amp for it: nothing of the amp bleeds them. */
  lifted: Set<string>;
}

/** Part of what a reservoir held that may be gone between two readings without anybody bleeding it. */
const MAY_FALL = 0.5;

/** What cannot be true of a reading beside the one before it; undefined when nothing speaks against it. */
export function conflictOf(
  volts: number,
  estimate: number | undefined,
  first: number | undefined,
  toolProven: boolean,
  safeVolts: number,
): string | undefined {
  const size = Math.abs(volts);
  if (first !== undefined && size > safeVolts && size > Math.abs(first) + Math.max(rebound(estimate ?? 0), 5 * safeVolts))
    return texts.nowMoreThanDielectric(show(first), show(volts));
  if (estimate !== undefined && estimate > safeVolts && size <= safeVolts && size < MAY_FALL * estimate && !toolProven)
    return texts.whereShouldStillThere(show(volts), show(estimate));
  return undefined;
}

const show = (volts: number) => `${Number(volts.toPrecision(3))} V`;

/** What is still to be done, the next first. @param volts of each reservoir now. @param now milliseconds since 1970. */
export function proofOf(s: Replayed, reservoirs: Reservoir[], volts: number[], now: number, context: EnergyContext): Proof {
  const states = reservoirs.map((r, i): ReservoirState => {
    const first = s.first[i];
    return {
      name: r.name,
      label: r.label,
      farads: r.farads,
      volts: s.volts[i] === undefined ? undefined : volts[i],
      basis: s.basis[i],
      first,
      second: s.second[i],
      rebounded: s.rebounded[i],
      conflict: s.conflict[i],
      unread: s.unread[i],
      secondIn: first && !s.second[i] ? Math.max(0, Math.ceil(SECOND_READING_AFTER - (now - Date.parse(first.at)) / 1000)) : undefined,
    };
  });
  const missing: ProofStep[] = [];
  if (!s.plugOut) missing.push({ do: "unplug" });
  if (reservoirs.length === 0) missing.push({ do: "name-reservoirs" });
  if (!s.meterBefore) missing.push({ do: "meter", when: "before" });
  const bleeds = states.some((r) => !r.first && !r.unread && r.basis === "read" && Math.abs(r.volts ?? 0) > context.safeVolts);
  if (bleeds && !s.toolBefore) missing.push({ do: "tool", when: "before" });
  for (const r of states) {
    if (r.unread) continue;
    if (!r.first && r.basis === "read" && Math.abs(r.volts ?? 0) > context.safeVolts)
      missing.push({ do: "discharge", reservoir: r.name, volts: r.volts! });
    if (!r.first) missing.push({ do: "read", reservoir: r.name, round: 1, wait: 0 });
  }
  for (const r of states)
    if (!r.second && !r.unread) missing.push({ do: "read", reservoir: r.name, round: 2, wait: r.secondIn ?? SECOND_READING_AFTER });
  if (s.toolBefore && !s.toolAfter) missing.push({ do: "tool", when: "after" });
  if (!s.meterAfter) missing.push({ do: "meter", when: "after" });
  // Last: the others are proven all the same.
  for (const r of states) if (r.unread) missing.push({ do: "reach", reservoir: r.name, reason: r.unread });
  const { meterBefore, meterAfter, toolBefore, toolAfter, plugOut } = s;
  return { meterBefore, meterAfter, toolBefore, toolAfter, reservoirs: states, plugOut, missing };
}

/** A proof of which nothing is done yet. */
export function fresh(reservoirs: Reservoir[], plugOut: boolean): Proof {
  const states = reservoirs.map((r): ReservoirState => ({ name: r.name, label: r.label, farads: r.farads }));
  const missing: ProofStep[] = [
    ...(plugOut ? [] : [{ do: "unplug" } as const]),
    { do: "meter", when: "before" },
    ...reservoirs.map((r) => ({ do: "read", reservoir: r.name, round: 1, wait: 0 }) as const),
    ...reservoirs.map((r) => ({ do: "read", reservoir: r.name, round: 2, wait: SECOND_READING_AFTER }) as const),
    { do: "meter", when: "after" },
  ];
  return { reservoirs: states, plugOut, missing };
}
