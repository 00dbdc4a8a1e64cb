/** What every cause of a noise would make of every test: levels at the speaker solved in the circuit as the test leaves it. */

import { alter, without } from "../circuit/alter";
import type { Circuit, Element } from "../circuit/circuit";
import { compile } from "../solver/compile";
import { operatingPoint, type OperatingPoint } from "../solver/operating-point";
import { pulsesOf, rippleAmp, rippleOf, type Pulses } from "../solver/ripple";
import { magnitude, SmallSignal, type Phasor } from "../solver/small-signal";
import { EDGES, heard, rippleBucket, rises, smooth, sweptChances } from "./answer-chances";
import type { Answer } from "../suspects/isolate";
import type { RailReading } from "./job-noise";
import type { Enters, NoiseCause } from "./cause";
import { noiseCauses } from "./causes";
import { chainOf, envelopesOf, type Chain } from "./chain";
import { noiseTests, NOT_SURE, NOW_AND_THEN, RIPPLE_READ, SWEPT, TOUCHED, WORDS, type NoiseTest } from "./tests";

export interface NoiseTableOptions {
  mains: number;
  /** Which speaker it is heard in, of a set with several channels. */
  speaker?: string;
  progress?(part: number): void;
}

/** The two halves of an output stage are never quite alike: without it no ripple would ever be heard. */
const UNBALANCED = 0.94;
const AUDIO_HERTZ = 1000;
const HIGH_HERTZ = 4000;
/** Volts at which a bench meter's AC range ends. */
const METER_FLOOR = 1e-3;
const SWEEP_AT = [0, 0.25, 0.5, 0.75, 1];

interface Solved {
  op: OperatingPoint;
  pulses: Pulses[];
}

export class NoiseTable {
  readonly chain: Chain;
  readonly causes: NoiseCause[];
  readonly tests: NoiseTest[];
  /** Tests that this amp forbids, with the reason. */
  readonly refused: { what: string; why: string }[] = [];
  /** Volts rms of ripple that a sound amp has at each rail, by node. */
  readonly soundRipple = new Map<string, number>();
  readonly anyway = [NOT_SURE, NOW_AND_THEN];
  private readonly circuit: Circuit;
  private readonly chances = new Map<string, number[][]>();
  private readonly outcomes = new Map<string, ReadonlyMap<string, number>>();
  private readonly solved = new Map<string, Solved>();
  private readonly transfers = new Map<string, Phasor[] | undefined>();
  private start?: Float64Array;

  /** @throws Error when the sound amp does not settle. */
  constructor(
    circuit: Circuit,
    private readonly options: NoiseTableOptions,
  ) {
    this.chain = chainOf(circuit);
    if (options.speaker) this.chain.speaker = options.speaker;
    const pair = this.chain.stages.filter((s) => s.output && s.tube);
    this.circuit = pair.length > 1 ? alter(circuit, [`${pair[0]!.tube!.name}=weak:${UNBALANCED}`]) : circuit;
    const sound = this.at([], {});
    if (!sound.op.converged) throw new Error(`the amp does not settle at ${sound.op.unsettled.join(", ")}`);
    this.start = sound.op.x;
    const ripple = rippleOf(sound.op);
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
        this.causes.map((cause) => smooth(this.chanceOf(test, cause))),
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

  private at(changes: readonly string[], what: NonNullable<NoiseTest["circuit"]>): Solved {
    const key = JSON.stringify([changes, what]);
    let found = this.solved.get(key);
    if (!found) {
      const circuit = this.altered(changes, what);
      if (key === JSON.stringify([changes, {}])) found = this.afresh(circuit);
      else if (!what.without) found = this.alongside(this.at(changes, {}), circuit);
      // What a capacitor does to the direct voltages is as good as the same with the tube in or out.
      else if (changes.length > 0 && changes.every((c) => /^C\d+=(?!short|leak)/.test(c)))
        found = this.alongside(this.at([], what), circuit, this.at(changes, {}).pulses);
      else found = this.afresh(circuit);
      this.solved.set(key, found);
    }
    return found;
  }

  private afresh(circuit: Circuit): Solved {
    const op = operatingPoint(circuit, { mains: this.options.mains }, this.start);
    return { op, pulses: op.converged ? pulsesOf(op) : [] };
  }

  /** A control turned or a capacitor held somewhere leaves the direct voltages as they are: only the signal sees it. */
  private alongside(before: Solved, circuit: Circuit, pulses = before.pulses): Solved {
    const network = compile(circuit, { mains: this.options.mains });
    if (!before.op.converged || network.size !== before.op.network.size) return this.afresh(circuit);
    network.rectifiers.forEach((r, i) => (r.correction.shift = before.op.network.rectifiers[i]!.correction.shift));
    // Numbers of nodes are those of this network.
    const own = pulses.map((p) => ({ ...p, into: network.rectifiers[p.rectifier]!.a, from: network.rectifiers[p.rectifier]!.b }));
    return { op: { ...before.op, network }, pulses: own };
  }

  private altered(changes: readonly string[], what: NonNullable<NoiseTest["circuit"]>): Circuit {
    let circuit = without(alter(this.circuit, [...changes, ...(what.set ?? [])]), what.without ?? []);
    if (what.capacitor) {
      const { node, farads } = what.capacitor;
      const held: Element = { name: "C#held", letter: "C", nodes: [node, "0"], value: farads, params: {}, notes: {}, line: 0 };
      circuit = { ...circuit, elements: [...circuit.elements, held] };
    }
    return circuit;
  }

  /** Volts at the speaker for an ampere into each place; undefined where the amp does not settle. */
  private transfer(
    changes: readonly string[],
    what: NonNullable<NoiseTest["circuit"]>,
    hertz: number,
    ripple: boolean,
  ): Phasor[] | undefined {
    const key = JSON.stringify([changes, what, hertz, ripple]);
    if (!this.transfers.has(key)) this.transfers.set(key, this.solve(changes, what, hertz, ripple));
    return this.transfers.get(key);
  }

  private solve(changes: readonly string[], what: NonNullable<NoiseTest["circuit"]>, hertz: number, ripple: boolean): Phasor[] | undefined {
    const { op, pulses } = this.at(changes, what);
    if (!op.converged || !this.chain.speaker) return undefined;
    const out = op.network.index.get(this.chain.speaker);
    if (out === undefined) return undefined;
    try {
      return (ripple ? rippleAmp(op, pulses) : new SmallSignal(op)).toOutput(out, hertz);
    } catch {
      return undefined;
    }
  }

  /** What a cause makes at the speaker while the circuit stands so; undefined where it cannot be worked out. */
  private level(cause: NoiseCause, what: NonNullable<NoiseTest["circuit"]>): number | undefined {
    if (typeof cause.enters === "string") return this.rippleLevel(cause, what);
    const { op } = this.at(cause.changes, what);
    let sum = 0;
    for (const e of cause.enters) {
      const shown = this.transfer(cause.changes, what, this.hertz(e.at), false);
      if (!shown) return undefined;
      const at = (n: string) => (n === "0" ? 0 : (op.network.index.get(n) ?? -1));
      const k = at(e.into);
      if (k < 0) continue;
      sum += ((e.weight ?? 1) * magnitude(shown[k]!)) ** 2;
    }
    return Math.sqrt(sum);
  }

  private rippleLevel(cause: NoiseCause, what: NonNullable<NoiseTest["circuit"]>): number | undefined {
    const { pulses, op } = this.at(cause.changes, what);
    if (!op.converged) return undefined;
    const wanted = pulses.filter((p) => (cause.enters === "bias ripple") === p.into < 0);
    let sum = 0;
    for (const p of wanted)
      for (let h = 0; h < 2; h++) {
        const shown = this.transfer(cause.changes, what, (h + 1) * p.hertz, true);
        if (!shown) return undefined;
        const z = (k: number) => (k < 0 ? { re: 0, im: 0 } : shown[k]!);
        const [a, b, i] = [z(p.into), z(p.from), p.harmonics[h]!];
        sum += (Math.hypot(a.re - b.re, a.im - b.im) * Math.hypot(i.re, i.im)) ** 2;
      }
    return Math.sqrt(sum);
  }

  private hertz(at: Enters["at"]): number {
    const mains = this.circuit.mains?.hertz ?? 50;
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
    const { op } = this.at([], { without: envelopesOf(this.chain) });
    return op.converged ? op.x[op.network.index.get(node) ?? -1] : undefined;
  }

  private overRating(out: readonly string[]): string | undefined {
    const { op } = this.at([], { without: [...out] });
    if (!op.converged) return undefined;
    for (const rail of this.chain.rails)
      for (const name of rail.capacitors) {
        const rated = this.circuit.elements.find((e) => e.name === name)?.notes.volts;
        const volts = op.x[op.network.index.get(rail.node) ?? -1] ?? 0;
        if (rated && volts > rated) return `${rail.name} would rise to ${Math.round(volts)} V, over the ${rated} V of ${name}`;
      }
    return undefined;
  }

  private chanceOf(test: NoiseTest, cause: NoiseCause): number[] {
    if (test.id === "sound") return WORDS.map((w) => cause.sounds[w] ?? 0.015);
    if (test.id.startsWith("ac:")) return this.readRipple(test, cause);
    if (test.id.startsWith("touch:")) return this.touched(test, cause);
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
    const { op } = this.at(changes, {});
    const here = changes.length === 0 || !op.converged ? sound : (this.rippleAt(changes).get(node) ?? sound);
    const ratio = (here + METER_FLOOR) / (sound + METER_FLOOR);
    const at = RIPPLE_READ.indexOf(rippleBucket(ratio));
    const edge = Math.min(...EDGES.map((e) => Math.abs(Math.log(ratio / e))));
    // Near the edge of a word either may be read.
    const own = 0.6 + 0.34 * (1 - Math.exp(-edge / 0.25));
    return RIPPLE_READ.map((_, i) => (i === at ? own : (1 - own) / 3));
  }

  private readonly ripples = new Map<string, Map<string, number>>();
  private rippleAt(changes: readonly string[]): Map<string, number> {
    const key = changes.join(" ");
    let found = this.ripples.get(key);
    if (!found) this.ripples.set(key, (found = rippleOf(this.at(changes, {}).op)));
    return found;
  }

  private touched(test: NoiseTest, cause: NoiseCause): number[] {
    const gain = (changes: readonly string[]) => {
      const { op } = this.at(changes, {});
      const k = op.network.index.get(test.node!);
      const shown = this.transfer(changes, {}, this.hertz("mains"), false);
      return shown && k !== undefined ? magnitude(shown[k]!) : undefined;
    };
    const [sound, here] = [gain([]), gain(cause.silent ? cause.changes : [])];
    if (sound === undefined || here === undefined) return TOUCHED.map(() => 1 / 3);
    const db = 20 * Math.log10(here / Math.max(sound, 1e-30) + 1e-9);
    const [loud, nothing] = [rises((db + 12) / 3), rises((-db - 32) / 3)];
    return [loud, Math.max(0, 1 - loud - nothing), nothing];
  }
}
