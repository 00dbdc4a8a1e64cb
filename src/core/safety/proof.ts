/** The proof that an amp is dead: what is still missing of it, and readings that cannot both be true. */

import { formatVolts } from "../quantity/format";
import type { Reservoir } from "../supply/reservoirs";
import { CLIP_OHMS } from "./discharged-by";
import { dischargeSequence } from "./discharge-sequence";
import { rebound } from "./discharge-tool";
import type { EnergyContext } from "./energy-context";
import type { Basis, Replayed } from "./replayed";
import { apart } from "./reservoirs-of-job";
import * as texts from "../texts/safety";

export interface ReservoirState {
  name: string;
  label: string;
  farads: number;
  /** Estimated volts now; undefined when nothing is known of it. */
  volts?: number;
  /** Where the estimate starts from. */
  basis?: Basis;
  first?: { volts: number; at: string };
  second?: { volts: number; at: string };
  /** Seconds until a second reading counts; 0 when it may be taken now. */
  secondIn?: number;
  /** Why the first reading stands alone; undefined where a second one is wanted. */
  onceBecause?: string;
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
  /** Reservoirs that the tool stays clipped to. */
  clips: string[];
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
  /** Where the discharge plan clips the tool first, and what that place holds. */
  | { do: "discharge"; reservoir: string; volts: number };

/** A second reading sooner than this says nothing about rebound. */
export const SECOND_READING_AFTER = 60;

/** Part of what a reservoir held that may be gone between two readings without anybody discharging it. */
const MAY_FALL = 0.5;

/**
 * What cannot be true of a reading beside what is known; undefined when nothing speaks against it.
 * @param estimate volts that should still be there. @param bled a tool was measured or clipped on, or hot tubes had the time to empty it.
 */
export function conflictOf(
  volts: number,
  estimate: number | undefined,
  first: number | undefined,
  bled: boolean,
  safeVolts: number,
): string | undefined {
  const size = Math.abs(volts);
  if (first !== undefined && size > safeVolts && size > Math.abs(first) + Math.max(rebound(estimate ?? 0), 5 * safeVolts))
    return texts.nowMoreThanDielectric(show(first), show(volts));
  if (estimate !== undefined && estimate > safeVolts && size <= safeVolts && size < MAY_FALL * estimate && !bled)
    return texts.whereShouldStillThere(show(volts), show(estimate));
  return undefined;
}

const show = (volts: number) => `${Number(volts.toPrecision(3))} V`;

/** Why one low reading of a reservoir is enough; undefined where it may come back above the safe volts. */
export function onceBecause(s: Replayed, i: number, safeVolts: number): string | undefined {
  if (s.covered(i)) return texts.clipIsOn();
  const held = s.held[i];
  if (held === undefined || rebound(held) > safeVolts) return undefined;
  return texts.onceIsEnough(formatVolts(Math.abs(held)), formatVolts(rebound(held)), formatVolts(safeVolts));
}

/** Milliseconds at which a second reading of a reservoir counts. */
export const secondFrom = (s: Replayed, i: number): number =>
  Math.max(Date.parse(s.first[i]!.at), s.clipOffAt ?? -Infinity) + SECOND_READING_AFTER * 1000;

/** Whether each reservoir has the readings that physics asks for, or cannot be reached. */
export const allRead = (s: Replayed, safeVolts: number): boolean =>
  s.first.length > 0 &&
  s.first.every((first, i) => s.unread[i] !== undefined || (first && (s.second[i] ?? onceBecause(s, i, safeVolts)) !== undefined));

/** What is still to be done, the next first. @param volts of each reservoir now. @param now milliseconds since 1970. */
export function proofOf(s: Replayed, reservoirs: Reservoir[], volts: number[], now: number, context: EnergyContext): Proof {
  const { safeVolts } = context;
  const states = reservoirs.map((r, i): ReservoirState => {
    const first = s.first[i];
    const once = first && onceBecause(s, i, safeVolts);
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
      ...(once && !s.second[i] ? { onceBecause: once } : {}),
      secondIn: first && !s.second[i] && !once ? Math.max(0, Math.ceil((secondFrom(s, i) - now) / 1000)) : undefined,
    };
  });
  const done = allRead(s, safeVolts);
  const meterFresh = s.meter !== undefined && now - s.meter.time <= context.meterMinutes * 60_000;
  const missing: ProofStep[] = [];
  if (!s.plugOut) missing.push({ do: "unplug" });
  if (reservoirs.length === 0) missing.push({ do: "name-reservoirs" });
  if (!done && !meterFresh) missing.push({ do: "meter", when: "before" });
  const charged = states.filter((r) => !r.first && !r.unread && r.basis === "read" && Math.abs(r.volts ?? 0) > safeVolts);
  if (charged.length > 0 && !s.toolBefore) missing.push({ do: "tool", when: "before" });
  const open = charged.filter((r) => !s.covered(states.indexOf(r)));
  if (open.length > 0) {
    const plan = dischargeSequence(
      context.circuit,
      apart(reservoirs, s.lifted),
      states.map((r) => (open.includes(r) ? r.volts! : 0)),
      CLIP_OHMS,
      safeVolts,
    );
    const place = open.find((r) => r.name === plan.clips[0]?.reservoir) ?? open[0]!;
    missing.push({ do: "discharge", reservoir: place.name, volts: place.volts! });
  }
  for (const r of states) if (!r.unread && !r.first) missing.push({ do: "read", reservoir: r.name, round: 1, wait: 0 });
  states.forEach((r, i) => {
    if (r.second || r.unread || r.onceBecause) return;
    // Before the first reading it is announced where what it held asks for a second.
    if (!r.first && onceBecause(s, i, safeVolts)) return;
    missing.push({ do: "read", reservoir: r.name, round: 2, wait: r.secondIn ?? SECOND_READING_AFTER });
  });
  if (s.toolBefore && !s.toolAfter) missing.push({ do: "tool", when: "after" });
  if (!s.meterAfter) missing.push({ do: "meter", when: "after" });
  // Last: the others are proven all the same.
  for (const r of states) if (r.unread) missing.push({ do: "reach", reservoir: r.name, reason: r.unread });
  const { toolBefore, toolAfter, plugOut, meterAfter } = s;
  const meterBefore = s.meter && (done || meterFresh) ? s.meter.at : undefined;
  return { meterBefore, meterAfter, toolBefore, toolAfter, clips: [...s.clips.keys()], reservoirs: states, plugOut, missing };
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
  return { clips: [], reservoirs: states, plugOut, missing };
}
