/** One amp, one hand, one meter and one mains on the bench, run along a clock: lines in, lines out. */

import { findElement } from "@/core/circuit/circuit";
import { readLine, writeLine } from "@/core/instrument/protocol";
import type { BenchAmp, Stands } from "./amp";
import { voltsAfter } from "./discharge";
import { SimulatedHand } from "./hand";
import { SimulatedMains } from "./mains";
import { SimulatedMeter } from "./meter";
import type { JobState } from "@/core/tape/fold";
import { LeakageTester } from "./leakage-tester";

/** How the job's tape says that the amp stands. */
export interface BenchState extends Omit<Stands, "mains"> {
  on: boolean;
  /** Seconds since the power went on, or off; Infinity when it never was on. */
  seconds: number;
  /** Through a series lamp, as the tape has it. */
  lamp: boolean;
  /** Capacitors on a supply, as the tape has it. */
  reforming?: JobState["reforms"][number];
}

export interface SessionOptions {
  seed: number;
  /** Mean volts of the wall. */
  wall: number;
}

const METER_EVERY = 250;
const MAINS_EVERY = 1000;
const TESTER_EVERY = 1000;
const MOST_BEHIND = 60_000;
/** Watts of the lamp that stands on this bench. */
const BENCH_LAMP = 100;
/** Seconds from cold to the first volts through warm tubes, and to the last. */
const FUSE_TIMES = 2;
const FUSE_MS = 1500;
const WARM_FROM = 6;
const WARM_TO = 18;

export class BenchSession {
  private readonly hand: SimulatedHand;
  private readonly meter: SimulatedMeter;
  private readonly mains: SimulatedMains;
  /** The generator at the input, and since when it plays so. */
  private tone = { volts: 0, hertz: 1000, since: 0 };
  /** What it played last, until it was silenced. */
  private played?: { volts: number; hertz: number; since: number; until: number };
  /** Controls of the amp that were turned here, by name. */
  private readonly turned = new Map<string, number>();
  private nextMeter = 0;
  private nextMains = 0;
  private nextTester = 0;
  private readonly tester: LeakageTester;
  private ampVolts: number;
  /** Since when the fuse carries more than it bears, and whether it has gone. */
  private overSince?: number;
  private blown = false;
  /** Volts at the amp when it was switched off: what its reservoirs were charged by. */
  private offFrom?: number;

  constructor(
    private amp: BenchAmp,
    private state: BenchState,
    private readonly options: SessionOptions,
  ) {
    this.hand = new SimulatedHand(options.seed);
    this.meter = new SimulatedMeter(options.seed + 1);
    this.mains = new SimulatedMains(options.wall, options.seed + 2);
    this.tester = new LeakageTester(options.seed + 3);
    this.ampVolts = options.wall;
    if (state.lamp) this.mains.lamp = BENCH_LAMP;
  }

  /** The tape has moved on: power, tubes, parts. */
  stands(state: BenchState, amp = this.amp): void {
    if (state.lamp !== this.state.lamp) this.mains.lamp = state.lamp ? BENCH_LAMP : 0;
    if (this.state.on && !state.on) this.offFrom = this.ampVolts;
    // Power goes on again only with a new fuse in.
    if (!this.state.on && state.on) this.blown = false;
    this.state = { ...state, noted: state.noted || this.state.noted };
    this.amp = amp;
  }

  /** A line from Scutum: what is wanted, what is to be set. What cannot be read is an Error with the reason. */
  tell(text: string, at: number): void {
    const read = readLine(text);
    if (!read.ok) throw new Error(`${read.why}; accepted: ${read.accepted}`);
    const { line } = read;
    if (line.tell === "want") {
      this.meter.choose(line.kind, line.range, at);
      this.hand.go(line.point, at);
      if (line.noted !== undefined) this.state = { ...this.state, noted: line.noted };
    } else if (line.tell === "set") {
      if (line.mains !== undefined) this.mains.set(line.mains);
      if (line.lamp !== undefined) this.mains.lamp = line.lamp;
      if (line.turn !== undefined && line.pos !== undefined) this.turned.set(line.turn, line.pos);
      if (line.tone !== undefined) {
        if (this.tone.volts > 0) this.played = { ...this.tone, until: at };
        this.tone = { volts: line.tone, hertz: line.hertz ?? 1000, since: at };
      }
    }
  }

  /**
   * The lines that the instruments send up to `at` milliseconds; called again and again with a clock that goes on.
   * @param now the same by the clock of the tape, where this bench's runs faster.
   */
  until(at: number, now = at): string[] {
    const out: string[] = [];
    // At the start, and after a machine that slept: what was not shown is not shown later.
    if (at - Math.min(this.nextMeter, this.nextMains) > MOST_BEHIND) this.nextMeter = this.nextMains = at;
    while (Math.min(this.nextMeter, this.nextMains) <= at) {
      if (this.nextMains <= this.nextMeter) {
        const now = this.nextMains;
        this.nextMains += MAINS_EVERY;
        const supply = this.mains.volts(now);
        const shown = this.mains.atAmp(this.amp, this.standsAt(supply), supply, this.state.on && !this.blown);
        this.watchFuse(shown.amps, now);
        const { volts, amps, glow } = this.blown ? { volts: 0, amps: 0, glow: 0 } : shown;
        this.ampVolts = volts;
        out.push(writeLine({ ...this.mains.line(volts, amps, glow, now), ...(this.blown ? { fuse: "blown" as const } : {}) }));
      } else {
        const now = this.nextMeter;
        this.nextMeter += METER_EVERY;
        out.push(writeLine(this.meter.show(this.atProbes(now), now)));
      }
    }
    const { reforming } = this.state;
    if (reforming && at >= this.nextTester) {
      this.nextTester = at + TESTER_EVERY;
      out.push(...this.tester.lines(reforming, (part) => this.amp.formsLike(part), at, now).map(writeLine));
    }
    return out;
  }

  /** A slow fuse goes when it carries twice its rating for a while. */
  private watchFuse(amps: number, at: number): void {
    const { fuse } = this.amp;
    if (fuse === undefined || amps < FUSE_TIMES * fuse) this.overSince = undefined;
    else this.overSince ??= at;
    if (this.overSince !== undefined && at - this.overSince >= FUSE_MS) this.blown = true;
  }

  private standsAt(mains: number): Stands {
    // What a hand has turned since stands behind what the tape knows.
    const turned = [...this.turned].flatMap(([control, pos]) =>
      findElement(this.amp.circuit, control)?.type === "POT" ? [`${control}=${pos}`] : [],
    );
    return { ...this.state, set: [...this.state.set, ...turned], mains };
  }

  /** Volts that an overdriven grid is off its rest by, now or since the tone stopped. */
  private offByDrive(node: string, at: number): number {
    const stands = this.standsAt(this.ampVolts);
    const seconds = (from: number, to: number) => Math.max(0, to - from) / 1000;
    if (this.tone.volts > 0) return this.amp.gridShift(node, stands, this.tone, seconds(this.tone.since, at));
    const { played } = this;
    return played ? this.amp.gridShift(node, stands, played, seconds(played.since, played.until), seconds(played.until, at)) : 0;
  }

  /** What is between the probes; undefined when the tip touches nothing. */
  private atProbes(at: number): number | undefined {
    const point = this.hand.touches(at);
    if (point === undefined) return undefined;
    switch (this.meter.function) {
      case "dcv":
        return this.directVolts(point, at);
      case "acv": {
        const winding = this.amp.windingVolts(point, this.standsAt(this.ampVolts));
        if (winding !== undefined) return this.state.on && !this.blown ? winding : 0;
        const node = this.amp.nodeOf(point);
        if (node === undefined || !this.state.on) return node === undefined ? undefined : 0;
        const stands = this.standsAt(this.ampVolts);
        return Math.hypot(this.amp.ripple(node, stands), this.amp.level(node, stands, this.tone));
      }
      case "ohm": {
        // On an amp with volts in it an ohmmeter shows nonsense; this one shows an overload.
        if (this.state.on) return Infinity;
        const winding = this.amp.windingOhms(point, this.state);
        if (winding !== undefined) return winding;
        const nodes = this.amp.nodesOf(point);
        return nodes ? (this.amp.ohms(...nodes, this.state) ?? Infinity) : undefined;
      }
      case "ma":
        return this.state.on ? this.amp.milliamps(point, this.standsAt(this.ampVolts)) : 0;
      case "leak":
        return this.state.on ? this.amp.leakage(point, this.standsAt(this.ampVolts)) : 0;
      case "gm":
        return this.amp.percentOfNew(point, this.state);
    }
  }

  private directVolts(point: string, at: number): number | undefined {
    const node = this.amp.nodeOf(point);
    if (node === undefined) return undefined;
    const { state } = this;
    if (state.on && this.blown) return 0;
    if (state.on) {
      const hot = this.amp.volts(node, this.standsAt(this.ampVolts));
      if (state.seconds >= WARM_TO) return hot + this.offByDrive(node, at);
      // Cold tubes draw nothing yet: the supply stands where it stands without them, then comes down as they warm.
      const tubes = this.amp.circuit.elements.filter((e) => e.tube).map((e) => e.name);
      const cold = this.amp.volts(node, { ...this.standsAt(this.ampVolts), without: tubes });
      const part = Math.max(0, (state.seconds - WARM_FROM) / (WARM_TO - WARM_FROM));
      return cold + part * (hot - cold);
    }
    if (!Number.isFinite(state.seconds)) return 0;
    const volts = this.offFrom ?? this.options.wall;
    return voltsAfter(this.amp.altered(state), node, state.seconds, (n) => this.amp.volts(n, this.standsAt(volts)));
  }
}
