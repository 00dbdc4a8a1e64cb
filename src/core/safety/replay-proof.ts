/** The steps of the proof as a tape has them: the meter, the tool, the clip, volts read across a reservoir. */

import type { JobEvent } from "../tape/events/event";
import { toolProved } from "./discharge-tool";
import { feedsTubes, HOT_TUBES_SECONDS } from "./discharged-by";
import { allRead, conflictOf, onceBecause, secondFrom } from "./proof";
import { larger, ReplayState } from "./replay-state";

/** How far a meter may be off on the known source and still count as proved. */
const METER_TOLERANCE = 0.05;
/** Volts of a source that proves a meter, where it is not the shop's own by name. */
const LEAST_SOURCE_VOLTS = 9;

export class ReplayProof extends ReplayState {
  /** Time enough for hot tubes to have emptied it. */
  protected emptiedByTubes(i: number, t: number): boolean {
    const { s, context, reservoirs } = this;
    if (s.hotAt === undefined || t - s.hotAt < HOT_TUBES_SECONDS * 1000) return false;
    return feedsTubes(context.circuit, reservoirs, s.without)[i]!;
  }

  /** Volts read across a reservoir with the power off. @param step it was read as a step of the proof. */
  protected read(name: string, volts: number, e: JobEvent, t: number, step: boolean): void {
    const { s, context } = this;
    const { safeVolts } = context;
    const i = this.indexOf(name);
    if (Math.abs(volts) > safeVolts) s.lastSign = Math.max(s.lastSign, t);
    if (i < 0 || s.power === "on" || t < s.offAt) return;
    const at = this.estimated(t);
    // Held against what was read here, or what it must still hold by what is known of it.
    const own = s.measured[i];
    const left = s.volts[i] === undefined ? undefined : Math.abs(at[i]!);
    const estimate = own === undefined ? left : Math.min(left ?? Infinity, Math.abs(own));
    const discharged = s.toolBefore !== undefined || s.clips.size > 0 || s.clipOffAt !== undefined || this.emptiedByTubes(i, t);
    const before = s.second[i] ?? s.first[i];
    const conflict = conflictOf(volts, estimate, before?.volts, discharged, safeVolts);
    const low = Math.abs(volts) <= safeVolts;
    // A low reading that cannot be true yet is not believed; where the meter has shown the charge, at the second look.
    const doubted = low && conflict !== undefined && !(s.shown[i] && s.conflict[i] !== undefined);
    if (!doubted) s.measured[i] = volts;
    // What was read stands as read: only the reservoirs that nobody has measured yet are carried by the estimate,
    // so that a guess about one never raises another that was measured.
    s.volts = s.volts.map((v, k) => s.measured[k] ?? (v === undefined ? undefined : at[k]));
    if (doubted) s.volts[i] = at[i];
    s.basis[i] = "read";
    s.from = t;
    s.unread[i] = undefined;
    if (!low) {
      s.shown[i] = true;
      s.held[i] = larger(s.held[i], volts);
      s.rebounded[i] = before && { from: before.volts, to: volts };
      s.conflict[i] = conflict;
      this.forget(i);
      // More than can come back by itself: something feeds it, and the plug has to be looked at again.
      if (before && conflict) Object.assign(s, { plugOut: false, offAt: NaN });
      // Another that was read low before this one may hang on it: it is read once more.
      this.readAgain();
    } else if (doubted) s.conflict[i] = conflict;
    else {
      s.conflict[i] = undefined;
      if (step) this.count(i, { volts, at: e.at, meter: "" }, t);
    }
  }

  /** A charge was seen: the last reading of every reservoir has to come after it. */
  protected readAgain(): void {
    const { s, context } = this;
    s.first = s.first.map((first, k) => (first && onceBecause(s, k, context.safeVolts) ? undefined : first));
    s.second = this.reservoirs.map(() => undefined);
    s.meterAfter = s.toolAfter = undefined;
  }

  /** Counts a low reading for the proof, where meter, plug and time allow it. */
  protected count(i: number, reading: { volts: number; at: string; meter: string }, t: number): void {
    const { s, context } = this;
    const proved = s.meter && t >= s.meter.time && t - s.meter.time <= context.meterMinutes * 60_000 ? s.meter : undefined;
    if (!proved || s.power !== "off" || !s.plugOut || !(t >= s.offAt && t >= s.lastSign) || s.supplies.size > 0) return;
    const counted = { ...reading, meter: proved.name };
    const complete = s.meterAfter !== undefined && allRead(s, context.safeVolts);
    // One more low reading takes nothing from a proof that holds; after its hours everything begins anew.
    if (complete && t - Date.parse(s.meterAfter!) <= context.proofHours * 3600e3) return;
    if (complete) this.clearProof();
    // A first reading of so long ago that no meter check reaches around both is none.
    const first = s.first[i];
    if (first && t - Date.parse(first.at) > context.meterMinutes * 60_000) this.forget(i);
    if (!s.first[i]) s.first[i] = counted;
    else if (t >= secondFrom(s, i) && s.clips.size === 0) {
      s.second[i] = counted;
      s.rebounded[i] = undefined;
    } else return;
    s.meterAfter = s.toolAfter = undefined;
  }

  protected meter(e: JobEvent<"meter-check">, t: number): void {
    const { s, context } = this;
    const { expected, read, source, meter = "" } = e.payload;
    if (Math.abs(read - expected) > Math.abs(expected) * METER_TOLERANCE) {
      // A meter that is wrong on a known source was wrong on the reservoirs too.
      if (s.power !== "on") this.clearProof();
      s.meter = undefined;
      return;
    }
    const own = context.meterSource !== "" && source.trim().toLowerCase() === context.meterSource.trim().toLowerCase();
    if (Math.abs(expected) < LEAST_SOURCE_VOLTS && !own) return;
    const name = meter.trim().toLowerCase();
    s.meter = { time: t, at: e.at, name };
    const counted = [...s.first, ...s.second].flatMap((c) => c ?? []);
    const last = Math.max(...counted.map((c) => Date.parse(c.at)));
    const early = Math.min(...counted.map((c) => Date.parse(c.at)));
    if (s.power === "off" && allRead(s, context.safeVolts) && counted.every((c) => c.meter === name) && t >= last)
      s.meterAfter = t - early <= context.meterMinutes * 60_000 ? e.at : undefined;
  }

  protected tool(e: JobEvent<"tool-check">, t: number): void {
    const { s } = this;
    if (s.power === "on" || t < s.offAt) return;
    const proved = toolProved(e.payload.marked, e.payload.read);
    if (allRead(s, this.context.safeVolts)) s.toolAfter = proved ? e.at : undefined;
    else s.toolBefore = proved ? (s.toolBefore ?? e.at) : undefined;
  }

  protected clip(e: JobEvent<"clip">, t: number): void {
    const { s } = this;
    if (s.power === "on" || t < s.offAt) return;
    const i = this.indexOf(e.payload.reservoir);
    if (i < 0) return;
    this.coveredBy = undefined;
    const { name } = this.reservoirs[i]!;
    if (e.payload.state === "on") s.clips.set(name, t);
    else if (s.clips.delete(name)) {
      s.clipOffAt = t;
      // What was read while it was on says nothing of a rebound after it.
      s.second = this.reservoirs.map(() => undefined);
      s.meterAfter = s.toolAfter = undefined;
    }
  }
}
