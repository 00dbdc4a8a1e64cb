/** The amp as causes change it and tests leave it: each circuit solved once, each way to a speaker worked out once. */

import { alter, without } from "../circuit/alter";
import type { Circuit, Element } from "../circuit/circuit";
import { compile } from "../solver/compile";
import { operatingPoint, type OperatingPoint } from "../solver/operating-point";
import { pulsesOf, rippleAmp, rippleOf, type Pulses } from "../solver/ripple";
import { SmallSignal, type Phasor } from "../solver/small-signal";
import type { NoiseTest } from "./test";
import * as texts from "../texts/noise";

export interface Solved {
  op: OperatingPoint;
  pulses: Pulses[];
}

/** What a test does to the circuit. */
export type Left = NonNullable<NoiseTest["circuit"]>;

export class NoiseCircuits {
  private readonly solved = new Map<string, Solved>();
  private readonly transfers = new Map<string, Phasor[] | undefined>();
  private readonly ripples = new Map<string, Map<string, number>>();
  /** Circuits whose linear amp has no answer, with the reason. */
  readonly unsolved = new Set<string>();
  private readonly start: Float64Array;

  /** @throws Error when the sound amp does not settle. */
  constructor(
    readonly circuit: Circuit,
    private readonly mains: number,
  ) {
    const { op } = this.at([], {});
    if (!op.converged) throw new Error(texts.ampDoesNotSettle(op.unsettled.join(", ")));
    this.start = op.x;
  }

  at(changes: readonly string[], what: Left): Solved {
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
    const op = operatingPoint(circuit, { mains: this.mains }, this.start);
    return { op, pulses: op.converged ? pulsesOf(op) : [] };
  }

  /** A control turned or a capacitor held somewhere leaves the direct voltages as they are: only the signal sees it. */
  private alongside(before: Solved, circuit: Circuit, pulses = before.pulses): Solved {
    const network = compile(circuit, { mains: this.mains });
    if (!before.op.converged || network.size !== before.op.network.size) return this.afresh(circuit);
    network.rectifiers.forEach((r, i) => (r.correction.shift = before.op.network.rectifiers[i]!.correction.shift));
    // Numbers of nodes are those of this network.
    const own = pulses.map((p) => ({ ...p, into: network.rectifiers[p.rectifier]!.a, from: network.rectifiers[p.rectifier]!.b }));
    return { op: { ...before.op, network }, pulses: own };
  }

  private altered(changes: readonly string[], what: Left): Circuit {
    let circuit = without(alter(this.circuit, [...changes, ...(what.set ?? [])]), what.without ?? []);
    if (what.capacitor) {
      const { node, farads } = what.capacitor;
      const held: Element = { name: "C#held", letter: "C", nodes: [node, "0"], value: farads, params: {}, notes: {}, line: 0 };
      circuit = { ...circuit, elements: [...circuit.elements, held] };
    }
    return circuit;
  }

  /** Volts at a speaker for an ampere into each place; undefined where the amp does not settle. */
  transfer(speaker: string, changes: readonly string[], what: Left, hertz: number, ripple: boolean): Phasor[] | undefined {
    const key = JSON.stringify([speaker, changes, what, hertz, ripple]);
    if (!this.transfers.has(key)) this.transfers.set(key, this.solve(speaker, changes, what, hertz, ripple));
    return this.transfers.get(key);
  }

  private solve(speaker: string, changes: readonly string[], what: Left, hertz: number, ripple: boolean): Phasor[] | undefined {
    const { op, pulses } = this.at(changes, what);
    if (!op.converged) return undefined;
    const out = op.network.index.get(speaker);
    if (out === undefined) return undefined;
    try {
      return (ripple ? rippleAmp(op, pulses) : new SmallSignal(op)).toOutput(out, hertz);
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      // An amp whose linear part has no answer: what it would sound like is not known, and is said to be.
      this.unsolved.add(`${changes.join(", ") || texts.theAmpAsIt()}: ${error.message}`);
      return undefined;
    }
  }

  /** Volts rms of ripple at every node, with a cause in the amp. */
  ripple(changes: readonly string[]): Map<string, number> {
    const key = changes.join(" ");
    let found = this.ripples.get(key);
    if (!found) this.ripples.set(key, (found = rippleOf(this.at(changes, {}).op)));
    return found;
  }
}
