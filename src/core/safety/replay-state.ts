/** What a replay knows, and what each kind of line does to it alike: nothing proven, nothing known, a reservoir charged, the estimate at a time. */

import { decayOf, type Reservoir } from "../supply/reservoirs";
import type { JobEvent } from "../tape/events/event";
import { dischargedFrom } from "./discharged-by";
import type { EnergyContext } from "./energy-context";
import type { Replayed } from "./replayed";
import { apart, reservoirOf } from "./reservoirs-of-job";

/** The larger of two by size; the one that is known. */
export const larger = (a: number | undefined, b: number | undefined): number | undefined =>
  Math.abs(a ?? 0) >= Math.abs(b ?? 0) ? (a ?? b) : b;

export class ReplayState {
  readonly s: Replayed;
  protected coveredBy?: { clip: string; reservoirs: boolean[] };

  constructor(
    protected readonly lines: readonly JobEvent[],
    protected readonly reservoirs: Reservoir[],
    protected readonly context: EnergyContext,
  ) {
    const none = () => reservoirs.map(() => undefined);
    this.s = {
      power: "unknown",
      since: "",
      without: [],
      plugOut: false,
      offAt: NaN,
      lastPower: -Infinity,
      lastSign: -Infinity,
      here: true,
      volts: none(),
      basis: none(),
      from: 0,
      held: none(),
      lastLive: none(),
      measured: none(),
      shown: reservoirs.map(() => false),
      first: none(),
      second: none(),
      rebounded: none(),
      conflict: none(),
      unread: none(),
      clips: new Map(),
      covered: (i) => this.covered(i),
      supplies: new Map(),
      lifted: new Set(),
    };
  }

  protected indexOf(name: string): number {
    const own = reservoirOf(this.reservoirs, name);
    return own ? this.reservoirs.indexOf(own) : -1;
  }

  protected covered(i: number): boolean {
    const [clip] = this.s.clips.keys();
    if (clip === undefined) return false;
    if (this.coveredBy?.clip !== clip)
      this.coveredBy = {
        clip,
        reservoirs: dischargedFrom(this.context.circuit, apart(this.reservoirs, this.s.lifted), this.indexOf(clip)),
      };
    return this.coveredBy.reservoirs[i]!;
  }

  protected clearProof(): void {
    const none = () => this.reservoirs.map(() => undefined);
    Object.assign(this.s, {
      first: none(),
      second: none(),
      rebounded: none(),
      conflict: none(),
      unread: none(),
      meterAfter: undefined,
      toolBefore: undefined,
      toolAfter: undefined,
    });
  }

  protected forget(i: number): void {
    this.s.first[i] = this.s.second[i] = undefined;
    this.s.meterAfter = undefined;
  }

  protected nothingKnown(): void {
    const none = () => this.reservoirs.map(() => undefined);
    this.clearProof();
    Object.assign(this.s, { power: "unknown", plugOut: false, offAt: NaN, volts: none(), held: none(), basis: none(), measured: none() });
    this.s.clips.clear();
  }

  /** A reservoir was charged from outside the amp. */
  protected charged(i: number, volts: number, t: number): void {
    const { s } = this;
    this.carry(t);
    s.volts[i] = larger(s.volts[i], volts);
    s.held[i] = larger(s.held[i], volts);
    s.measured[i] = undefined;
    s.basis[i] = "read";
    if (s.power === "unknown" && s.since === "") s.since = new Date(t).toISOString();
    this.forget(i);
  }

  /** Brings the estimate of every reservoir to this time. */
  protected carry(t: number): void {
    const { s } = this;
    const at = this.estimated(t);
    s.volts = s.volts.map((v, k) => s.measured[k] ?? (v === undefined ? undefined : at[k]));
    s.from = t;
  }

  protected estimated(t: number): number[] {
    const { s, reservoirs, context } = this;
    const decay = decayOf(
      context.circuit,
      apart(reservoirs, s.lifted),
      s.volts.map((v) => v ?? 0),
    );
    return decay.voltsAt(Math.max(0, (t - s.from) / 1000));
  }

  protected poweredAt(t: number): void {
    this.s.lastPower = Math.max(this.s.lastPower, t);
    this.s.lastSign = Math.max(this.s.lastSign, t);
  }

  /** Something says that it may be on: nothing is proven, and off and the plug have to be said anew. */
  protected doubtPower(why: string, t: number): void {
    const { s } = this;
    this.clearProof();
    s.measured = this.reservoirs.map(() => undefined);
    s.shown = this.reservoirs.map(() => false);
    this.poweredAt(t);
    Object.assign(s, { power: "unknown", plugOut: false, offAt: NaN, why });
  }

  protected unreachable(name: string, reason: string): void {
    const i = this.indexOf(name);
    if (i < 0 || this.s.power === "on") return;
    this.s.first[i] = this.s.second[i] = undefined;
    this.s.unread[i] = reason;
  }
}
