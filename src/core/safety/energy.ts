/**
 * The amp's energy state, from its tape: unknown, live, stored, proven dead, or not here.
 * A pure function of the tape and the time; nothing here is remembered elsewhere.
 */

import { decayOf, type Reservoir } from "../supply/reservoirs";
import { storedEnergy } from "../supply/stored-energy";
import { is, type JobEvent } from "../tape/events/event";
import type { TapeLine } from "../tape/fold";
import type { EnergyContext } from "./energy-context";
import { fresh, proofOf, type Proof } from "./proof";
import { replay } from "./replay";
import { apart, jobReservoirs } from "./reservoirs-of-job";
import { isOfEnergy } from "./signs";
import * as texts from "../texts/safety";

export type EnergyState =
  | { kind: "unknown"; why: string; proof: Proof }
  | {
      kind: "live";
      since: string;
      /** Capacitors that a bench supply is on, the plug of the amp out. */
      reforming?: { parts: string[]; volts: number; joules: number };
    }
  | {
      kind: "stored";
      since: string;
      volts: number;
      joules: number;
      secondsToSafe: number;
      plug: "in" | "out";
      proof: Proof;
      /** Reservoirs whose leads were lifted for reforming: nothing of the amp discharges them. */
      lifted?: string[];
    }
  | { kind: "proven-dead"; at: string; until: string; proof: Proof }
  /** It went back to its owner. */
  | { kind: "not-here"; since: string };

/** All lines of a tape, and those of them that stand. */
interface Tape {
  lines: readonly TapeLine[];
  effective: readonly JobEvent[];
}

/** What a screen shows that was away while the amp was live: nobody knows, and the proof starts anew. */
export function unwatched(since: string, events: JobEvent[], context: EnergyContext): EnergyState {
  return {
    kind: "unknown",
    why: texts.wasLiveSinceNobody(since),
    proof: fresh(jobReservoirs(events, context.reservoirs), false),
  };
}

/** What a screen shows that cannot ask the server what others have logged since. */
export function unasked(events: JobEvent[], context: EnergyContext): EnergyState {
  return { kind: "unknown", why: texts.othersMayHaveSwitched(), proof: fresh(jobReservoirs(events, context.reservoirs), false) };
}

/** Whether every measurement since the power last changed is one of `these`. */
export function provenBy(events: JobEvent[], these: (e: JobEvent) => boolean): boolean {
  const changed = events.findLastIndex((e) => e.type === "power");
  // To name a reservoir is not to measure it.
  return events.slice(changed + 1).every((e) => !isOfEnergy(e.type) || e.type === "reservoir" || these(e));
}

/** The job's reservoirs, those too that the circuit had at any line since the amp was last on. */
export function reservoirsToProve({ lines, effective }: Tape, context: EnergyContext): Reservoir[] {
  const { reservoirsAt, reservoirs, safeVolts } = context;
  const earlier = reservoirsAt ? linesOfTheCircuit(lines).flatMap((line) => reservoirsAt(line)) : [];
  return jobReservoirs(effective, reservoirs, earlier, safeVolts);
}

/** The last power-on, or the start, and each line since that may have changed the circuit. */
function linesOfTheCircuit(lines: readonly TapeLine[]): number[] {
  const on = lines.findLast(({ event: e }) => is(e, "power") && e.payload.state === "on")?.event.seq ?? 0;
  const changes = lines.filter(({ event: e }) => e.seq > on && (e.type === "change" || e.supersedes !== undefined));
  return changes.length === 0 ? [] : [on, ...changes.map(({ event }) => event.seq)];
}

/** The state at `now` (milliseconds since 1970). @param state the tape's lines, and which of them stand. */
export function energyAt(state: Tape, now: number, context: EnergyContext): EnergyState {
  const { lines, effective } = state;
  const reservoirs = reservoirsToProve(state, context);
  const counts = new Set(effective);
  const s = replay(
    lines.map((l) => l.event),
    (e) => counts.has(e),
    reservoirs,
    context,
  );
  if (!s.here) return { kind: "not-here", since: s.since };
  if (s.power === "on") return { kind: "live", since: s.since };
  if (s.supplies.size > 0) {
    const supplies = [...s.supplies.values()];
    const parts = supplies.flatMap((x) => x.parts.map((p) => ({ ...p, volts: x.volts })));
    return {
      kind: "live",
      since: supplies.map((x) => x.since).sort()[0]!,
      reforming: {
        parts: parts.map((p) => p.part),
        volts: Math.max(...supplies.map((x) => x.volts)),
        joules: parts.reduce((sum, p) => sum + storedEnergy(p.farads, Math.min(p.volts, p.target)), 0),
      },
    };
  }

  const known = s.volts.some((v) => v !== undefined);
  const decay = decayOf(
    context.circuit,
    apart(reservoirs, s.lifted),
    s.volts.map((v) => v ?? 0),
  );
  const elapsed = Math.max(0, (now - s.from) / 1000);
  const volts = decay.voltsAt(elapsed);
  const proof = proofOf(s, reservoirs, volts, now, context);

  if (s.power === "off" && proof.missing.length === 0) {
    const at = [s.meterAfter!, s.toolAfter ?? "", ...[...s.first, ...s.second].flatMap((r) => r?.at ?? [])].sort().at(-1)!;
    const until = new Date(Date.parse(at) + context.proofHours * 3600e3).toISOString();
    if (now < Date.parse(until)) return { kind: "proven-dead", at, until, proof };
    return { kind: "unknown", why: texts.proofOlderThan(context.proofHours), proof: fresh(reservoirs, s.plugOut) };
  }
  if (s.power === "off" && known && s.why === undefined) {
    const left = decay.secondsTo(context.safeVolts) - elapsed;
    return {
      kind: "stored",
      since: s.since,
      volts: Math.max(...volts.map(Math.abs)),
      joules: decay.joulesAt(elapsed),
      secondsToSafe: Math.max(0, left),
      plug: s.plugOut ? "out" : "in",
      proof,
      ...(s.lifted.size > 0 ? { lifted: [...s.lifted] } : {}),
    };
  }
  return {
    kind: "unknown",
    why: s.why || (s.power === "off" ? texts.whatReservoirsHoldNot() : texts.nobodyHasSaidWhether()),
    proof,
  };
}
