/** What every cause of a noise would make of every test: levels at the speaker solved in the circuit as the test leaves it. */

import type { Circuit } from "../circuit/circuit";
import { NoiseCircuits, type Left } from "./noise-circuits";
import { magnitude } from "../solver/small-signal";
import { allowSlips } from "../diagnosis/answer-slips";
import { EDGES, heard, rippleBucket, sideChances, SLIP, sweptChances, touchedChances } from "./answer-chances";
import type { Answer } from "../diagnosis/isolate";
import type { RailReading } from "./job-noise";
import type { Enters, NoiseCause } from "./cause";
import { noiseCauses } from "./causes";
import { chainOf, envelopesOf, withUnlikePairs, type Chain } from "./chain";
import { NOT_SURE, NOW_AND_THEN, RIPPLE_READ, SWEPT, TOUCHED, WORDS, type NoiseTest } from "./test";
import { noiseTests } from "./tests";
import * as texts from "../texts/noise";

export interface NoiseTableOptions {
  mains: number;
  progress?(part: number): void;
}

/** Of the ripple at the speaker the first two harmonics are nearly all. */
const RIPPLE_HARMONICS = 2;
const AUDIO_HERTZ = 1000;
const HIGH_HERTZ = 4000;
/** Volts at which a bench meter's AC range ends. */
const METER_FLOOR = 1e-3;
const SWEEP_AT = [0, 0.25, 0.5, 0.75, 1];

export class NoiseTable {
  readonly chain: Chain;
  readonly causes: NoiseCause[];
  readonly tests: NoiseTest[];
  /** Tests that this amp forbids, with the reason. */
  readonly refused: { what: string; why: string }[] = [];
  /** Volts rms of ripple that a sound amp has at each rail, by node. */
  readonly soundRipple = new Map<string, number>();
  readonly anyway = [NOT_SURE, NOW_AND_THEN];
  /** What could not be reckoned with, a sentence each: such a cause answers no test, so nothing counts for it or against it. */
  get doubts(): string[] {
    return [...this.circuits.unsolved];
  }
  private readonly circuits: NoiseCircuits;
  private readonly chances = new Map<string, number[][]>();
  private readonly outcomes = new Map<string, ReadonlyMap<string, number>>();

  /** @throws Error when the sound amp does not settle. */
  constructor(
    circuit: Circuit,
    private readonly options: NoiseTableOptions,
  ) {
    this.chain = chainOf(circuit);
    this.circuits = new NoiseCircuits(withUnlikePairs(circuit, this.chain), options.mains);
    const ripple = this.circuits.ripple([]);
    for (const r of [...this.chain.rails, ...this.chain.bias]) this.soundRipple.set(r.node, ripple.get(r.node) ?? 0);
    this.causes = noiseCauses(circuit, this.chain);
    this.tests = noiseTests(
      circuit,
      this.chain,
      this.causes,
      (out) => this.overRating(out),
      (what, why) => this.refused.push({ what, why }),
      (node) => this.unloadedVolts(node),
    );
    const louder = this.causes.map((c) => this.audible(c));
    this.causes.forEach((c, i) => (c.prior *= louder[i]!));
    this.tests.forEach((test, i) => {
      this.outcomes.set(test.id, new Map(test.outcomes.map((o, k) => [o, k])));
      this.chances.set(
        test.id,
        this.causes.map((cause) => allowSlips(this.chanceOf(test, cause), SLIP)),
      );
      options.progress?.((i + 1) / this.tests.length);
    });
  }

  chance(test: string, cause: number, outcome: string): number {
    if (outcome === NOT_SURE) return 1;
    if (outcome === NOW_AND_THEN) return this.causes[cause]!.fitful ? 0.25 : 0.05;
    const at = this.outcomes.get(test)!.get(outcome);
    return at === undefined ? 1 : this.chances.get(test)![cause]![at]!;
  }

  /** Ripple that was read, as answers to the tests of those rails; what is no rail is left out. */
  answersOf(rails: readonly RailReading[]): Answer[] {
    return rails.flatMap(({ node, volts, mains }) => {
      const sound = this.soundRipple.get(node);
      if (sound === undefined) return [];
      const ratio = (volts + METER_FLOOR) / (sound * ((mains ?? this.options.mains) / this.options.mains) + METER_FLOOR);
      return [{ test: `ac:${node}`, outcome: rippleBucket(ratio) }];
    });
  }

  soundOhms(): undefined {
    return undefined;
  }

  /** What a cause makes at the speaker that has most of it while the circuit stands so; undefined where it cannot be worked out. */
  private level(cause: NoiseCause, what: Left): number | undefined {
    const all = this.chain.speakers.map((s) => this.levelAt(s.node, cause, what));
    return all.length === 0 || all.some((l) => l === undefined) ? undefined : Math.max(...(all as number[]));
  }

  private levelAt(speaker: string, cause: NoiseCause, what: Left): number | undefined {
    if (typeof cause.enters === "string") return this.rippleLevel(speaker, cause, what);
    const { op } = this.circuits.at(cause.changes, what);
    let sum = 0;
    for (const e of cause.enters) {
      const shown = this.circuits.transfer(speaker, cause.changes, what, this.hertz(e.at), false);
      if (!shown) return undefined;
      // A place that went with a tube that is out, or is ground, lets nothing in.
      const k = op.network.index.get(e.into);
      if (k !== undefined) sum += ((e.weight ?? 1) * magnitude(shown[k]!)) ** 2;
    }
    return Math.sqrt(sum);
  }

  private rippleLevel(speaker: string, cause: NoiseCause, what: Left): number | undefined {
    const { pulses, op } = this.circuits.at(cause.changes, what);
    if (!op.converged) return undefined;
    const ofBias = cause.enters === "bias ripple";
    let sum = 0;
    for (const p of pulses.filter((x) => x.into < 0 === ofBias))
      for (let h = 0; h < RIPPLE_HARMONICS; h++) {
        const shown = this.circuits.transfer(speaker, cause.changes, what, (h + 1) * p.hertz, true);
        if (!shown) return undefined;
        const z = (k: number) => (k < 0 ? { re: 0, im: 0 } : shown[k]!);
        const [a, b, i] = [z(p.into), z(p.from), p.harmonics[h]!];
        sum += (Math.hypot(a.re - b.re, a.im - b.im) * Math.hypot(i.re, i.im)) ** 2;
      }
    return Math.sqrt(sum);
  }

  private hertz(at: Enters["at"]): number {
    const mains = this.circuits.circuit.mains?.hertz ?? 50;
    return at === "mains" ? mains : at === "double" ? 2 * mains : at === "audio" ? AUDIO_HERTZ : HIGH_HERTZ;
  }

  /** What a change that ripple is blamed on adds to what a sound amp hums anyway: one that is not heard is an unlikely cause. */
  private audible(cause: NoiseCause): number {
    if (typeof cause.enters !== "string") return 1;
    const [here, sound] = [this.level(cause, {}), this.level({ ...cause, changes: [] }, {})];
    if (here === undefined || sound === undefined || sound <= 0) return 1;
    return Math.min(1, Math.max(0.05, (here / sound - 1) / 2));
  }

  /** Volts of a rail with every tube out; undefined where a series string goes cold with the first of them. */
  private unloadedVolts(node: string): number | undefined {
    if (this.chain.string) return undefined;
    const { op } = this.circuits.at([], { without: envelopesOf(this.chain) });
    return op.converged ? op.x[op.network.index.get(node) ?? -1] : undefined;
  }

  private overRating(out: readonly string[]): string | undefined {
    const { op } = this.circuits.at([], { without: [...out] });
    if (!op.converged) return undefined;
    for (const rail of this.chain.rails)
      for (const name of rail.capacitors) {
        const rated = this.circuits.circuit.elements.find((e) => e.name === name)?.notes.volts;
        const volts = op.x[op.network.index.get(rail.node) ?? -1] ?? 0;
        if (rated && volts > rated) return texts.wouldRiseOver(rail.name, Math.round(volts), rated, name);
      }
    return undefined;
  }

  private chanceOf(test: NoiseTest, cause: NoiseCause): number[] {
    if (test.id === "sound") return WORDS.map((w) => cause.sounds[w] ?? 0.015);
    if (test.id.startsWith("ac:")) return this.readRipple(test, cause);
    if (test.id.startsWith("touch:")) return this.touched(test, cause);
    if (test.id === "side") return this.side(test, cause);
    if (cause.silent) return test.outcomes.map((o) => (o === "no change" ? 0.97 : 0.01));
    if (test.circuit?.sweep) return this.swept(test.circuit.sweep, cause);
    const told = cause.reacts[test.id];
    if (told !== undefined) return heard(told);
    if (!test.circuit) return heard(0);
    const [before, after] = [this.level(cause, {}), this.level(cause, test.circuit)];
    if (before === undefined || after === undefined || before <= 0) return [0.25, 0.25, 0.25, 0.25];
    return heard(20 * Math.log10(after / before));
  }

  private swept(control: string, cause: NoiseCause): number[] {
    const levels = SWEEP_AT.map((p) => this.level(cause, { set: [`${control}=${p}`] }));
    if (levels.some((l) => l === undefined)) return SWEPT.map(() => 0.25);
    return sweptChances(levels as number[]);
  }

  private readRipple(test: NoiseTest, cause: NoiseCause): number[] {
    const all = [cause.changes, ...(cause.severities ?? [])].map((changes) => this.rippleChance(test.node!, changes));
    return RIPPLE_READ.map((_, i) => all.reduce((sum, c) => sum + c[i]! / all.length, 0));
  }

  private rippleChance(node: string, changes: readonly string[]): number[] {
    const sound = this.soundRipple.get(node)!;
    const { op } = this.circuits.at(changes, {});
    const here = changes.length === 0 || !op.converged ? sound : (this.circuits.ripple(changes).get(node) ?? sound);
    const ratio = (here + METER_FLOOR) / (sound + METER_FLOOR);
    const at = RIPPLE_READ.indexOf(rippleBucket(ratio));
    const edge = Math.min(...EDGES.map((e) => Math.abs(Math.log(ratio / e))));
    // Near the edge of a word either may be read.
    const own = 0.6 + 0.34 * (1 - Math.exp(-edge / 0.25));
    return RIPPLE_READ.map((_, i) => (i === at ? own : (1 - own) / 3));
  }

  private touched(test: NoiseTest, cause: NoiseCause): number[] {
    const [sound, here] = [this.gainFrom(test.node!, []), this.gainFrom(test.node!, cause.silent ? cause.changes : [])];
    return sound === undefined || here === undefined ? TOUCHED.map(() => 1 / 3) : touchedChances(here, sound);
  }

  /** Volts for an ampere into a node, at one speaker or at the one that has most. */
  private gainFrom(node: string, changes: readonly string[], speaker?: string): number | undefined {
    const k = this.circuits.at(changes, {}).op.network.index.get(node);
    const at = speaker ? [speaker] : this.chain.speakers.map((s) => s.node);
    const all = at.map((s) => this.circuits.transfer(s, changes, {}, this.hertz("mains"), false));
    if (k === undefined || all.length === 0 || all.some((z) => !z)) return undefined;
    return Math.max(...all.map((z) => magnitude(z![k]!)));
  }

  /** In which channel it is heard; of a signal that is lost, which channel has lost it. */
  private side(test: NoiseTest, cause: NoiseCause): number[] {
    const { speakers } = this.chain;
    const levels = speakers.map(({ node }) => {
      if (!cause.silent) return this.levelAt(node, cause, {});
      const lost = this.chain.stages.map((s) => {
        const grid = s.grid ?? s.in;
        const [sound, here] = [this.gainFrom(grid, [], node), this.gainFrom(grid, cause.changes, node)];
        // A grid of another channel is not heard here at all.
        const heardHere = sound !== undefined && sound > 0.1 * (this.gainFrom(grid, []) ?? Infinity);
        return heardHere && here !== undefined ? sound / Math.max(here, 1e-9 * sound) : 1;
      });
      return Math.max(...lost);
    });
    return levels.some((l) => l === undefined) ? test.outcomes.map(() => 1 / test.outcomes.length) : sideChances(levels as number[]);
  }
}
