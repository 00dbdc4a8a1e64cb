/** The amp on the demo bench: a model's circuit with parts of its own spread and its true fault, read by a 10 MΩ meter. */

import { readFileSync } from "node:fs";
import { alter, without } from "@/core/circuit/alter";
import { readCircuit } from "@/core/circuit/read";
import { normalDraws } from "@/core/numeric/random";
import { compile } from "@/core/solver/compile";
import { readings, solveOperatingPoint } from "@/core/solver/operating-point";
import { knobsOf } from "@/core/solver/tolerance";

export interface BenchConditions {
  mains?: number;
  without?: string[];
}

/** A healthy amp's parts lie well within their tolerance. */
const SPREAD = 0.5;

export class SimulatedAmp {
  private readonly text: string;

  /** @param seed makes this amp's own parts. @param faults changes as the engine's `--set` takes them. */
  constructor(
    model: string,
    private readonly seed: number,
    private readonly faults: string[] = [],
  ) {
    this.text = readFileSync(`demo/amps/${model}.cir`, "utf8");
  }

  with(...faults: string[]): SimulatedAmp {
    return Object.assign(Object.create(SimulatedAmp.prototype) as SimulatedAmp, this, { faults });
  }

  /** Volts at a point as a three-and-a-half-digit meter shows them. */
  volts(point: string, conditions: BenchConditions = {}): number {
    const whole = readCircuit(this.text).circuit;
    const circuit = without(alter(whole, this.faults), conditions.without ?? []);
    const network = compile(circuit, { mains: conditions.mains });
    // Drawn for the whole amp, by name: a fault or a tube taken out does not change the other parts.
    const normal = normalDraws(this.seed);
    const drawn = new Map(knobsOf(compile(whole)).map((k) => [`${k.kind} ${k.name}`, normal()]));
    for (const knob of knobsOf(network))
      if (knob.kind !== "mains") knob.turn(1 + SPREAD * knob.sigma * (drawn.get(`${knob.kind} ${knob.name}`) ?? 0));
    const op = solveOperatingPoint(network);
    const at = circuit.points.filter((p) => p.name === point);
    if (at.length === 0 || !op.converged) throw new Error(`${point} cannot be read`);
    return shown(readings(op, at).get(point)!);
  }
}

function shown(volts: number): number {
  const size = Math.abs(volts);
  const decimals = size >= 200 ? 0 : size >= 20 ? 1 : size >= 2 ? 2 : 3;
  return Number(volts.toFixed(decimals)) + 0;
}
