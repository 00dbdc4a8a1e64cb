/**
 * The amp's energy state, from its tape: unknown, live, stored, proven dead.
 * A pure function of the effective events and the time; nothing here is remembered elsewhere.
 */

import { toolProved } from "./discharge-tool";
import { WARM_SECONDS } from "../anatomy/warm-up";
import { decayOf, type Reservoir } from "../supply/reservoirs";
import { storedEnergy } from "../supply/stored-energy";
import { CLOCKS_WITHIN } from "../tape/arrived-late";
import { is, type JobEvent } from "../tape/events/event";
import type { EventType } from "../tape/events/registry";
import type { EnergyContext } from "./energy-context";
import { conflictOf, fresh, proofOf, SECOND_READING_AFTER, type Proof, type Replayed } from "./proof";
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
  | { kind: "proven-dead"; at: string; until: string; proof: Proof };

/** How far a meter may be off on the known source and still count as proved. */
const METER_TOLERANCE = 0.05;

/** Types of lines that the state is made of. */
const OF_ENERGY = new Set<string>([
  "power",
  "meter-check",
  "discharge-reading",
  "tool-check",
  "reservoir-unread",
  "reservoir",
  "reform-begun",
  "reform-turn",
] satisfies EventType[]);

/** All reservoirs of a job: the circuit's, then those that were named by hand. */
export function jobReservoirs(events: JobEvent[], fromCircuit: Reservoir[]): Reservoir[] {
  const named = new Map<string, Reservoir>();
  const found = events.flatMap((e) =>
    is(e, "reservoir")
      ? [e.payload]
      : is(e, "reform-begun")
        ? // A capacitor on a bench supply holds a charge wherever it lies.
          e.payload.parts.filter((p) => !reservoirOf(fromCircuit, p.part)).map((p) => ({ name: p.part, farads: p.farads, volts: p.rated }))
        : [],
  );
  for (const { name, farads, volts } of found) {
    if (fromCircuit.some((r) => r.name.toLowerCase() === name.toLowerCase())) continue;
    named.set(name.toLowerCase(), {
      name,
      parts: [name],
      node: `hand:${name.toLowerCase()}`,
      returnNode: "0",
      farads,
      ratedVolts: volts || undefined,
      label: texts.namedHand(),
    });
  }
  return [...fromCircuit, ...named.values()];
}

/** The reservoir that a capacitor belongs to: others may lie across the same two nodes. */
const reservoirOf = (reservoirs: readonly Reservoir[], part: string): Reservoir | undefined =>
  reservoirs.find((r) => [r.name, ...r.parts].some((p) => p.toLowerCase() === part.toLowerCase()));

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
  return events.slice(changed + 1).every((e) => !OF_ENERGY.has(e.type) || e.type === "reservoir" || these(e));
}

/** The state at `now` (milliseconds since 1970). `events` are the effective ones, in the order of the tape. */
export function energyAt(events: JobEvent[], now: number, context: EnergyContext): EnergyState {
  const reservoirs = jobReservoirs(events, context.reservoirs);
  const s = replay(events, reservoirs, context);
  if (s.power === "on") return { kind: "live", since: s.since };
  if (s.reforming) {
    const { volts, parts, since } = s.reforming;
    const joules = parts.reduce((sum, p) => sum + storedEnergy(p.farads, Math.min(volts, p.target)), 0);
    return { kind: "live", since, reforming: { parts: parts.map((p) => p.part), volts, joules } };
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

  if (proof.missing.length === 0) {
    const at = [s.meterAfter!, s.toolAfter ?? "", ...s.second.flatMap((r) => r?.at ?? [])].sort().at(-1)!;
    const until = new Date(Date.parse(at) + context.proofHours * 3600e3).toISOString();
    if (now < Date.parse(until)) return { kind: "proven-dead", at, until, proof };
    return { kind: "unknown", why: texts.proofOlderThan(context.proofHours), proof: fresh(reservoirs, s.plugOut) };
  }
  if (s.power === "off" && known) {
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
    why: s.power === "off" ? texts.whatReservoirsHoldNot() : texts.nobodyHasSaidWhether(),
    proof,
  };
}

/** What was lifted off its amp for reforming is bled by nothing of it: a place of its own in what is reckoned. */
export const apart = (reservoirs: readonly Reservoir[], lifted: { has(name: string): boolean }): Reservoir[] =>
  reservoirs.map((r) => (lifted.has(r.name) ? { ...r, node: `lifted:${r.name}`, returnNode: "0" } : r));

const larger = (a: number | undefined, b: number | undefined) => (Math.abs(a ?? 0) >= Math.abs(b ?? 0) ? (a ?? b) : b);

function replay(events: JobEvent[], reservoirs: Reservoir[], context: EnergyContext): Replayed {
  const none = () => reservoirs.map(() => undefined);
  const s: Replayed = {
    power: "unknown",
    since: "",
    tubesIn: true,
    plugOut: false,
    volts: none(),
    basis: none(),
    from: 0,
    lastLive: none(),
    measured: none(),
    first: none(),
    second: none(),
    rebounded: none(),
    conflict: none(),
    unread: none(),
    lifted: new Set(),
  };
  const clearProof = () =>
    Object.assign(s, {
      first: none(),
      second: none(),
      rebounded: none(),
      conflict: none(),
      unread: none(),
      meterBefore: undefined,
      meterAfter: undefined,
      toolBefore: undefined,
      toolAfter: undefined,
    });
  const allRead = () => s.second.length > 0 && s.second.every((r, i) => r !== undefined || s.unread[i] !== undefined);
  const indexOf = (name: string) => reservoirs.findIndex((r) => r.name.toLowerCase() === name.toLowerCase());

  for (const e of events) {
    const t = Date.parse(e.at);
    if (is(e, "unreadable")) {
      // Nobody knows what it said: whatever was proven before it is proven no longer.
      if (!OF_ENERGY.has(e.payload.type)) continue;
      clearProof();
      if (e.payload.type === "power" && s.power !== "on") Object.assign(s, { power: "unknown", plugOut: false });
    } else if (is(e, "reform-begun")) {
      clearProof();
      s.measured = none();
      for (const p of e.payload.parts) {
        const own = reservoirOf(reservoirs, p.part);
        if (own && e.payload.lifted) s.lifted.add(own.name);
      }
      s.reforming = { line: e.seq, since: e.at, parts: e.payload.parts, volts: e.payload.steps[0]!, on: t };
      if (s.power === "unknown") Object.assign(s, { power: "off", plugOut: true, since: e.at, from: t });
    } else if (is(e, "reform-turn")) {
      const begun = events.find((x): x is JobEvent<"reform-begun"> => x.seq === e.payload.reform && is(x, "reform-begun"));
      // What is said of one part alone leaves the supply as it is.
      if (!begun || (e.payload.what === "ended" && e.payload.part !== undefined)) continue;
      if (e.payload.what === "step" || e.payload.what === "resumed") {
        if (!s.reforming) clearProof();
        s.measured = none();
        s.reforming = { line: begun.seq, since: s.reforming?.since ?? e.at, parts: begun.payload.parts, volts: e.payload.supply, on: t };
      } else if (s.reforming?.line === begun.seq && t >= s.reforming.on - CLOCKS_WITHIN) {
        // An earlier "off" that is stored late says nothing of a supply that was put on since.
        // Off the supply each stands where the supply stood; the drop in its resistor is not counted on.
        const { volts } = s.reforming;
        for (const p of begun.payload.parts) {
          const own = reservoirOf(reservoirs, p.part);
          const i = own ? reservoirs.indexOf(own) : -1;
          if (i < 0) continue;
          s.volts[i] = Math.max(Math.abs(s.volts[i] ?? 0), Math.min(volts, p.target));
          s.basis[i] = "read";
        }
        s.from = t;
        s.since = e.at;
        s.reforming = undefined;
      }
    } else if (is(e, "power")) {
      const plugOut = e.payload.state === "off" && (e.payload.plug ?? "out") === "out";
      if (e.payload.state === "on") {
        if (s.power !== "on") s.lastLive = none();
        s.measured = none();
        if (s.power !== "on") s.since = e.at;
        // Nobody switches an amp on with a part lifted for reforming.
        s.reforming = undefined;
        s.lifted.clear();
        Object.assign(s, { power: "on", plugOut: false, tubesIn: !e.payload.without?.length });
        clearProof();
      } else {
        if (s.power === "on") {
          const loaded = s.tubesIn && t - Date.parse(s.since) >= WARM_SECONDS * 1000;
          // The estimate errs high: without its load a rail stands at the winding's peak.
          const expected = (r: Reservoir) => larger(context.expectedVolts(r), loaded ? undefined : context.unloadedVolts?.(r));
          s.volts = reservoirs.map((r, i) => s.lastLive[i] ?? expected(r) ?? r.ratedVolts);
          s.basis = reservoirs.map((r, i) =>
            s.lastLive[i] !== undefined ? "read" : expected(r) !== undefined ? "expected" : r.node.startsWith("hand:") ? "named" : "rating",
          );
          Object.assign(s, { from: t, since: e.at });
        } else if (s.power === "unknown") s.since = e.at;
        // Plugged in again: one switch away from live, so what was proven no longer holds.
        if (!plugOut && s.plugOut) clearProof();
        s.power = "off";
        s.plugOut = plugOut;
      }
    } else if (is(e, "reading") && s.power === "on" && e.payload.kind === "dcv") {
      const node = context.circuit?.points.find((p) => p.name.toLowerCase() === e.payload.point.toLowerCase())?.node;
      const i = reservoirs.findIndex((r) => r.node === node && r.returnNode === "0");
      // One of an earlier time on, stored late, says nothing of what the reservoirs hold after this one.
      if (i >= 0 && t >= Date.parse(s.since) - CLOCKS_WITHIN) s.lastLive[i] = e.payload.value;
    } else if (is(e, "meter-check") && s.power !== "on") {
      const { expected, read } = e.payload;
      if (Math.abs(read - expected) > Math.abs(expected) * METER_TOLERANCE) {
        // A meter that is wrong on a known source was wrong on the reservoirs too.
        clearProof();
      } else if (allRead()) s.meterAfter = e.at;
      else s.meterBefore ??= e.at;
    } else if (is(e, "discharge-reading") && s.power !== "on") {
      const i = indexOf(e.payload.reservoir);
      if (i < 0) continue;
      const volts = e.payload.volts;
      const decay = decayOf(
        context.circuit,
        apart(reservoirs, s.lifted),
        s.volts.map((v) => v ?? 0),
      );
      const at = decay.voltsAt(Math.max(0, (t - s.from) / 1000));
      // Held against what was read here, not against what another may have handed on.
      const own = s.measured[i];
      const estimate = own === undefined ? undefined : Math.min(Math.abs(at[i]!), Math.abs(own));
      const conflict = conflictOf(volts, estimate, s.first[i]?.volts, s.toolBefore !== undefined, context.safeVolts);
      // What was read stands as read: only the reservoirs that nobody has measured yet are carried by the estimate,
      // so that a guess about one never raises another that was measured. A low reading that cannot be true yet is not believed.
      const doubted = conflict !== undefined && Math.abs(volts) <= context.safeVolts && s.conflict[i] === undefined;
      if (!doubted) s.measured[i] = volts;
      s.volts = s.volts.map((v, k) => s.measured[k] ?? (v === undefined ? undefined : at[k]));
      if (doubted) s.volts[i] = at[i];
      s.basis[i] = "read";
      s.from = t;
      s.unread[i] = undefined;
      const reading = { volts, at: e.at };
      if (Math.abs(volts) > context.safeVolts) {
        const before = s.second[i] ?? s.first[i];
        s.rebounded[i] = before && { from: before.volts, to: volts };
        s.conflict[i] = conflict;
        s.first[i] = s.second[i] = undefined;
        s.meterAfter = undefined;
      } else if (doubted) s.conflict[i] = conflict;
      else {
        s.conflict[i] = undefined;
        if (!s.meterBefore) continue;
        if (!s.first[i]) s.first[i] = reading;
        else if (t - Date.parse(s.first[i]!.at) >= SECOND_READING_AFTER * 1000) {
          s.second[i] = reading;
          s.rebounded[i] = undefined;
          s.meterAfter = s.toolAfter = undefined;
        }
      }
    } else if (is(e, "tool-check") && s.power !== "on") {
      const proved = toolProved(e.payload.marked, e.payload.read);
      if (allRead()) s.toolAfter = proved ? e.at : undefined;
      else s.toolBefore = proved ? (s.toolBefore ?? e.at) : undefined;
    } else if (is(e, "reservoir-unread") && s.power !== "on") {
      const i = indexOf(e.payload.reservoir);
      if (i >= 0) {
        s.unread[i] = e.payload.reason;
        s.first[i] = s.second[i] = undefined;
      }
    }
  }
  return s;
}
