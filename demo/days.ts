/** Writes a job's tape the way a bench day goes: a day, an hour, then minutes from line to line. */

import { isLineConnected, wallVolts } from "@/core/circuit/mains-connection";
import { readOnce } from "@/core/circuit/read-once";
import { passedForPower } from "@/core/safety/gates-passed";
import { unmetGates } from "@/core/safety/power-gates";
import type { EventDraft, JobEvent } from "@/core/tape/events/event";
import { foldJob, type JobState } from "@/core/tape/fold";
import type { IncomingEvent } from "@/server/incoming";
import type { SimulatedAmp } from "./simulated";

export class Days {
  readonly events: IncomingEvent[] = [];
  private at = 0;

  /** @param now the time of making the shop; days are counted back from it. */
  constructor(
    private readonly now: Date,
    private readonly netlist?: string,
    private who = "J.M.",
  ) {}

  /** The job as its lines have it by now. */
  private get state(): JobState {
    return foldJob(this.events.map((e, i) => ({ ...e, seq: i + 1, id: String(i) }) as JobEvent));
  }

  /** Turns to a day that many days ago, at that hour (local time of the machine). */
  day(daysAgo: number, clock: string): this {
    const date = new Date(this.now);
    date.setDate(date.getDate() - daysAgo);
    const [h = 0, m = 0] = clock.split(":").map(Number);
    date.setHours(h, m, 0, 0);
    // A morning that has not come yet cannot have been logged: today's work ended a while ago at the latest.
    this.at = Math.min(date.getTime(), this.now.getTime() - 100 * 60_000);
    return this;
  }

  by(who: string): this {
    this.who = who;
    return this;
  }

  /** A date as the owner is promised it: that many days from now; before now when negative. */
  promised(daysAhead: number): string {
    const date = new Date(this.now);
    date.setDate(date.getDate() + daysAhead);
    return date.toISOString().slice(0, 10);
  }

  /** Logs lines, each `minutes` after the one before. */
  log(minutes: number, ...drafts: EventDraft[]): this {
    for (const draft of drafts) {
      this.at = Math.min(this.at + minutes * 60_000, this.now.getTime() - 1000);
      this.events.push({ ...draft, who: this.who, at: new Date(this.at).toISOString() } as IncomingEvent);
    }
    return this;
  }

  /** Number of the last line, for what refers to it. */
  get last(): number {
    return this.events.length;
  }

  note(minutes: number, text: string): this {
    return this.log(minutes, { type: "note", payload: { text } });
  }

  /** Power on, past the gates that are not met, with the reason. */
  on(minutes: number, through: "straight" | "lamp" | "variable" | "lamp and variable" = "variable", without: string[] = []): this {
    const { state } = this;
    const circuit = this.netlist === undefined ? undefined : readOnce(this.netlist);
    const passed = passedForPower(state);
    const isolated = isLineConnected(circuit);
    const unmet = unmetGates(circuit, state, { through, without, isolated }, wallVolts(circuit, 230)).filter((g) => !passed.has(g.id));
    if (unmet.length > 0)
      this.log(0.1, {
        type: "gate-passed",
        payload: {
          station: "bring-up",
          reason: `${unmet.map((g) => g.id).join(", ")}: brought up slowly, one eye on the ammeter`,
          understood: true,
        },
      });
    return this.log(minutes, {
      type: "power",
      payload: { state: "on", plug: "in", through, ...(isolated ? { isolated } : {}), ...(without.length > 0 ? { without } : {}) },
    }).log(0.2, {
      type: "live-check",
      payload: {
        confirmed: ["Bench and floor do not conduct", "Rings, watch and chain are off", "One hand only", "Leads rated", "Load connected"],
      },
    });
  }

  off(minutes: number): this {
    return this.log(minutes, { type: "power", payload: { state: "off", plug: "out" } });
  }

  mains(volts: number): this {
    return this.log(0.3, { type: "mains", payload: { volts } });
  }

  read(
    point: string,
    value: number,
    conditions: { mains?: number; warmMinutes?: number; switches?: string; controls?: string; without?: string[] } = {},
  ): this {
    const digits = String(value).replace(/[-.]/g, "").replace(/^0+/, "").length || 1;
    return this.log(0.6, { type: "reading", payload: { point, kind: "dcv", value, digits, conditions } });
  }

  /** Reads points of a simulated amp, one after the other. */
  walk(
    amp: SimulatedAmp,
    points: string[],
    conditions: { mains?: number; warmMinutes?: number; switches?: string; controls?: string; without?: string[] } = {},
  ): this {
    for (const point of points) this.read(point, amp.volts(point, conditions), conditions);
    return this;
  }

  ohms(point: string, value: number, digits = 3): this {
    return this.log(0.7, { type: "reading", payload: { point, kind: "ohm", value, digits, conditions: {} } });
  }

  /** A whole proof: the plug out, meter, tool, each reservoir twice a minute apart, tool, meter. */
  prove(minutes: number, reservoirs: [string, number, number][]): this {
    if (this.state.power?.state !== "off") this.off(0.2);
    const tool: EventDraft = { type: "tool-check", payload: { marked: 2200, read: 2190 } };
    this.log(minutes, { type: "meter-check", payload: { source: "9 V battery", expected: 9.1, read: 9.08 } });
    this.log(0.2, tool);
    for (const [reservoir, volts] of reservoirs) this.log(0.3, { type: "discharge-reading", payload: { reservoir, volts } });
    this.log(
      0.9,
      ...reservoirs.slice(0, 1).map(([reservoir, , volts]): EventDraft => ({ type: "discharge-reading", payload: { reservoir, volts } })),
    );
    for (const [reservoir, , volts] of reservoirs.slice(1)) this.log(0.3, { type: "discharge-reading", payload: { reservoir, volts } });
    this.log(0.2, tool);
    return this.log(0.4, { type: "meter-check", payload: { source: "9 V battery", expected: 9.1, read: 9.08 } });
  }
}
