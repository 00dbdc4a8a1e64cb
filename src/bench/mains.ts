/** Variable mains with an ammeter, and a lamp that can be put in series. The wall wanders as walls do. */

import type { MainsLine } from "@/core/instrument/protocol";
import { normalDraws } from "@/core/numeric/random";
import type { BenchAmp, Stands } from "./amp";

/** The wall wanders about its mean by this part, slowly, and twitches by this much from one second to the next. */
const WANDER = 0.004;
const WANDER_SECONDS = 90;
const TWITCH = 0.0004;
/** Parts of a full turn of the dial a second: a hand turns it slowly. */
const DIAL_VOLTS_A_SECOND = 40;
const VOLTS_DIGIT = 0.1;
const AMPS_DIGIT = 0.001;

export class SimulatedMains {
  private dial: number;
  private wanted: number;
  /** Watts of the series lamp; 0 for none. */
  lamp = 0;
  private n = 0;
  private at = 0;
  private readonly noise: () => number;
  /** Where in its wandering the wall is at the start. */
  private readonly phase: number;
  private left?: { key: string; part: number; amps: number; glow: number };

  /** @param wall volts of the wall's mean, which is also what the dial can give at most, a tenth more. */
  constructor(
    private readonly wall: number,
    seed: number,
  ) {
    this.dial = this.wanted = wall;
    this.noise = normalDraws(seed);
    this.phase = this.noise();
  }

  /** Turns the dial to volts, no further than it goes; gives what it was set to. */
  set(volts: number): number {
    return (this.wanted = Math.max(0, Math.min(1.1 * this.wall, volts)));
  }

  /** Volts that come out of the variable transformer now. */
  volts(at: number): number {
    const seconds = this.at === 0 ? 0 : Math.max(0, at - this.at) / 1000;
    this.at = at;
    const step = DIAL_VOLTS_A_SECOND * seconds;
    this.dial += Math.max(-step, Math.min(step, this.wanted - this.dial));
    const wander = WANDER * Math.sin((2 * Math.PI * at) / (1000 * WANDER_SECONDS) + this.phase);
    return this.dial * (1 + wander + TWITCH * this.noise());
  }

  /** What is left for the amp behind the lamp, and what flows. `supply` is what `volts` gave. */
  atAmp(amp: BenchAmp, stands: Stands, supply: number, on: boolean): { volts: number; amps: number; glow: number } {
    if (!on || supply < 1) return { volts: supply, amps: 0, glow: 0 };
    const whole = { ...stands, mains: Math.max(1, Math.round(supply)) };
    const key = JSON.stringify([this.lamp, whole.mains, stands.without, stands.set, amp.showing(stands)]);
    // A lamp's share is a search over many solves: kept until something changes.
    if (this.left?.key !== key) this.left = { key, ...this.measure(amp, whole) };
    return { volts: supply * this.left.part, amps: this.left.amps * (supply / whole.mains), glow: this.left.glow };
  }

  line(volts: number, amps: number, glow: number, at: number): MainsLine {
    const shown = (x: number, digit: number) => Number((Math.round(x / digit) * digit).toPrecision(12));
    return {
      tell: "mains",
      n: this.n++,
      at,
      volts: shown(volts, VOLTS_DIGIT),
      amps: shown(amps, AMPS_DIGIT),
      ...(this.lamp > 0 ? { lamp: this.lamp, glow: shown(glow, 0.01) } : {}),
    };
  }

  private measure(amp: BenchAmp, stands: Stands): { part: number; amps: number; glow: number } {
    if (this.lamp === 0) return { part: 1, amps: amp.draw(stands).amps, glow: 0 };
    const { ampVolts, amps, glow } = amp.lampLeaves(stands, { watts: this.lamp, volts: this.wall });
    return { part: ampVolts / stands.mains, amps, glow };
  }
}
