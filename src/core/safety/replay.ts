/**
 * Replays a tape line by line to what it says of power, reservoirs and the proof that the amp is dead. It believes what was measured, when
 * it was measured, and the worst of what is left possible.
 */

import { WARM_SECONDS } from "../anatomy/warm-up";
import type { Reservoir } from "../supply/reservoirs";
import { CLOCKS_WITHIN } from "../tape/arrived-late";
import { is, type JobEvent } from "../tape/events/event";
import type { EnergyContext } from "./energy-context";
import { larger } from "./replay-state";
import { ReplayProof } from "./replay-proof";
import type { Replayed } from "./replayed";
import { placeOf, reservoirOf } from "./reservoirs-of-job";
import { isOfEnergy, signOf, type Sign } from "./signs";
import * as texts from "../texts/safety";

/** @param lines all of the tape, in its order. @param stands whether a line counts: not struck out, and not come too late. */
export function replay(
  lines: readonly JobEvent[],
  stands: (e: JobEvent) => boolean,
  reservoirs: Reservoir[],
  context: EnergyContext,
): Replayed {
  const r = new Replay(lines, reservoirs, context);
  for (const e of lines) {
    if (stands(e)) r.take(e);
    else r.takenBack(e);
  }
  return r.s;
}

class Replay extends ReplayProof {
  take(e: JobEvent): void {
    const { s } = this;
    const t = Date.parse(e.at);
    if (is(e, "unreadable")) this.unreadable(e);
    else if (is(e, "power")) this.power(e, t);
    else if (is(e, "still-live")) this.seenLive(e, t);
    else if (is(e, "meter-check")) this.meter(e, t);
    else if (is(e, "tool-check")) this.tool(e, t);
    else if (is(e, "clip")) this.clip(e, t);
    else if (is(e, "discharge-reading")) this.read(e.payload.reservoir, e.payload.volts, e, t, true);
    else if (is(e, "reservoir-unread")) this.unreachable(e.payload.reservoir, e.payload.reason);
    else if (is(e, "reform-begun")) this.formingBegins(e, t);
    else if (is(e, "reform-turn")) this.formingTurns(e, t);
    else if (is(e, "reform-point")) this.formingPoint(e, t);
    else if (is(e, "returned")) {
      this.nothingKnown();
      Object.assign(s, { here: false, since: e.at, why: undefined });
      s.supplies.clear();
    } else if (is(e, "brought-in")) {
      // What was proven elsewhere is proven of an amp that has travelled.
      this.nothingKnown();
      s.supplies.clear();
      s.why = texts.cameFromElsewhere(e.seq);
    } else if (is(e, "taken-in")) {
      this.nothingKnown();
      Object.assign(s, { here: true, why: texts.takenInAgain(e.seq) });
    } else if (is(e, "circuit-given")) {
      if (s.first.some(Boolean)) s.why = texts.otherCircuit(e.seq);
      this.clearProof();
    } else {
      const sign = signOf(e, this.context.safeVolts);
      if (sign) this.sign(e, sign, t);
    }
  }

  /** A line that was struck out or corrected. What it may have meant for the proof stays: it is shown again or not at all. */
  takenBack(e: JobEvent): void {
    const { s } = this;
    const t = Date.parse(e.at);
    if (is(e, "power") && e.payload.state === "on") {
      if (s.power !== "on") this.doubtPower(texts.powerOnTakenBack(e.seq), t);
      return;
    }
    if (is(e, "discharge-reading")) {
      const i = this.indexOf(e.payload.reservoir);
      if (Math.abs(e.payload.volts) <= this.context.safeVolts || s.power === "on") return;
      if (i >= 0) this.forget(i);
      else this.clearProof();
      return;
    }
    if (is(e, "reform-begun") || is(e, "reform-turn")) {
      if (s.power !== "on" && s.first.some(Boolean)) this.clearProof();
      return;
    }
    const sign = is(e, "still-live") ? { says: texts.wasStillOn() } : signOf(e, this.context.safeVolts);
    if (sign && s.power !== "on" && t > s.offAt && s.first.some(Boolean)) {
      s.why = texts.isSignOfCharge(e.seq, sign.says);
      this.clearProof();
    }
  }

  private sign(e: JobEvent, sign: Sign, t: number): void {
    const { s } = this;
    s.lastSign = Math.max(s.lastSign, t);
    if (s.power === "on") {
      if (sign.shows === "power") this.poweredAt(t);
      else this.liveVolts(e, t);
      return;
    }
    // Of the time before it was switched off, stored late.
    if (t <= s.offAt) return;
    if (sign.shows === "power") return this.doubtPower(texts.isSignOfPower(e.seq, sign.says), t);
    const i = placeOf(this.reservoirs, sign.place, this.context.circuit);
    const proven = s.meterAfter !== undefined;
    if (i < 0 && !this.mayStillBeCharged()) return this.doubtPower(texts.isSignOfPower(e.seq, sign.says), t);
    if (i < 0) this.clearProof();
    else if (is(e, "capacitor-test")) this.charged(i, sign.volts, t);
    else this.read(this.reservoirs[i]!.name, sign.volts, e, t, false);
    if (proven) s.why ??= texts.isSignOfCharge(e.seq, sign.says);
  }

  /** Another reservoir has not been read low yet: what is charged may hang on it. */
  private mayStillBeCharged(): boolean {
    return this.reservoirs.some((_, i) => !this.s.first[i] && this.s.volts[i] !== undefined);
  }

  /** What a rail has while it is on: from there it falls. */
  private liveVolts(e: JobEvent, t: number): void {
    if (!is(e, "reading") || e.payload.kind !== "dcv") return;
    const i = placeOf(this.reservoirs, e.payload.point, this.context.circuit);
    // One of an earlier time on, stored late, says nothing of what the reservoirs hold after this one.
    if (i >= 0 && t >= Date.parse(this.s.since) - CLOCKS_WITHIN) this.s.lastLive[i] = e.payload.value;
  }

  private unreadable(e: JobEvent<"unreadable">): void {
    const { s } = this;
    // Nobody knows what it said: whatever was proven before it is proven no longer.
    if (!isOfEnergy(e.payload.type)) return;
    this.clearProof();
    if (e.payload.type === "power" && s.power !== "on")
      Object.assign(s, { power: "unknown", plugOut: false, offAt: NaN, why: texts.cannotBeReadLine(e.seq) });
  }

  private power(e: JobEvent<"power">, t: number): void {
    const { s, reservoirs } = this;
    const none = () => reservoirs.map(() => undefined);
    if (e.payload.state === "on") {
      if (s.power !== "on") Object.assign(s, { lastLive: none(), since: e.at });
      // Nobody switches an amp on with a part lifted for reforming, or with the clip on.
      s.supplies.clear();
      s.lifted.clear();
      s.clips.clear();
      this.clearProof();
      Object.assign(s, {
        power: "on",
        plugOut: false,
        offAt: NaN,
        here: true,
        measured: none(),
        shown: reservoirs.map(() => false),
        held: none(),
        without: e.payload.without ?? [],
        clipOffAt: undefined,
        hotAt: undefined,
        why: undefined,
      });
      this.poweredAt(t);
      return;
    }
    // An off from before the amp was last seen to be on says nothing of now.
    if (t < s.lastPower - CLOCKS_WITHIN) return;
    const plugOut = e.payload.plug === "out";
    if (s.power === "on") this.switchedOff(e, t);
    else if (s.power === "unknown") s.since = e.at;
    // Plugged in again: one switch away from live, so what was proven no longer holds.
    if (!plugOut && s.plugOut) this.clearProof();
    if (plugOut && !s.plugOut) s.offAt = t;
    if (!plugOut) s.offAt = NaN;
    Object.assign(s, { power: "off", plugOut });
  }

  private switchedOff(e: JobEvent<"power">, t: number): void {
    const { s, reservoirs, context } = this;
    const warm = t - Date.parse(s.since) >= WARM_SECONDS * 1000;
    const loaded = warm && s.without.length === 0;
    if (warm) s.hotAt = t;
    // The estimate errs high: without its load a rail stands at the winding's peak.
    const expected = (r: Reservoir) => larger(context.expectedVolts(r), loaded ? undefined : context.unloadedVolts?.(r));
    s.volts = reservoirs.map((r, i) => s.lastLive[i] ?? expected(r) ?? r.ratedVolts);
    s.basis = reservoirs.map((r, i) =>
      s.lastLive[i] !== undefined ? "read" : expected(r) !== undefined ? "expected" : r.node.startsWith("hand:") ? "named" : "rating",
    );
    s.held = s.volts.slice();
    Object.assign(s, { from: t, since: e.at });
  }

  private seenLive(e: JobEvent<"still-live">, t: number): void {
    const { s } = this;
    if (s.power === "on") this.poweredAt(t);
    else if (!(t <= s.offAt)) {
      this.doubtPower("", t);
      Object.assign(s, { power: "on", since: e.at, why: undefined, here: true, lastLive: this.reservoirs.map(() => undefined) });
    }
  }

  private formingBegins(e: JobEvent<"reform-begun">, t: number): void {
    const { s } = this;
    this.clearProof();
    s.measured = this.reservoirs.map(() => undefined);
    for (const p of e.payload.parts) {
      const own = reservoirOf(this.reservoirs, p.part);
      if (own && e.payload.lifted) s.lifted.add(own.name);
    }
    s.supplies.set(e.seq, { since: e.at, parts: e.payload.parts, volts: e.payload.steps[0]!, on: t });
    if (s.power === "unknown" && s.why === undefined) Object.assign(s, { power: "off", plugOut: true, offAt: t, since: e.at, from: t });
  }

  private formingTurns(e: JobEvent<"reform-turn">, t: number): void {
    const { s } = this;
    const { reform, what, supply, part } = e.payload;
    const begun = this.lines.find((x): x is JobEvent<"reform-begun"> => x.seq === reform && is(x, "reform-begun"));
    // What is said of one part alone leaves the supply as it is.
    if (!begun || (what === "ended" && part !== undefined)) return;
    const running = s.supplies.get(reform);
    if (what === "step" || what === "resumed" || supply > this.context.safeVolts) {
      // A supply that was said to be off, and is at some volts, is on.
      this.clearProof();
      s.measured = this.reservoirs.map(() => undefined);
      s.supplies.set(reform, { since: running?.since ?? e.at, parts: begun.payload.parts, volts: supply, on: t });
      return;
    }
    // An earlier "off" that is stored late says nothing of a supply that was put on since.
    if (!running || t < running.on - CLOCKS_WITHIN) return;
    // Off the supply each stands where the supply stood; the drop in its resistor is not counted on.
    this.clearProof();
    this.carry(t);
    for (const p of begun.payload.parts) {
      const i = this.indexOf(p.part);
      if (i < 0) continue;
      s.volts[i] = Math.max(Math.abs(s.volts[i] ?? 0), Math.min(running.volts, p.target));
      s.held[i] = larger(s.held[i], s.volts[i]);
      s.basis[i] = "read";
    }
    // What was read before it was off is of another time.
    if (s.plugOut) s.offAt = Math.max(s.offAt, t);
    s.since = e.at;
    s.supplies.delete(reform);
  }

  /** A point of the log of a forming whose supply is off: the capacitor still stood at these volts. */
  private formingPoint(e: JobEvent<"reform-point">, t: number): void {
    const { s } = this;
    if (s.supplies.has(e.payload.reform) || s.power === "on" || t <= s.offAt) return;
    const i = this.indexOf(e.payload.part);
    if (i >= 0 && Math.abs(e.payload.volts) > this.context.safeVolts) this.charged(i, e.payload.volts, t);
  }
}
