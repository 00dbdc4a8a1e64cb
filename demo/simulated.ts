/** A demo job's amp, for the readings that were logged on its past days: the simulated bench without its instruments' noise. */

import { readFileSync } from "node:fs";
import { BenchAmp, type BenchFault } from "@/bench/amp";

export interface BenchConditions {
  mains?: number;
  without?: string[];
}

export class SimulatedAmp {
  private readonly amp: BenchAmp;

  /** @param seed makes this amp's own parts. @param faults changes as the engine's `--set` takes them. */
  constructor(
    private readonly model: string,
    readonly seed: number,
    faults: string[] = [],
  ) {
    this.amp = new BenchAmp(
      readFileSync(`demo/amps/${model}.cir`, "utf8"),
      seed,
      faults.map((set) => ({ set })),
    );
  }

  /** The same amp with other faults. */
  with(...faults: string[]): SimulatedAmp {
    return new SimulatedAmp(this.model, this.seed, faults);
  }

  get faults(): readonly BenchFault[] {
    return this.amp.faults;
  }

  /** Volts at a point as a three-and-a-half-digit meter shows them. */
  volts(point: string, conditions: BenchConditions = {}): number {
    const node = this.amp.nodeOf(point);
    if (node === undefined) throw new Error(`${point} cannot be read`);
    const mains = conditions.mains ?? this.amp.circuit.mains!.volts;
    return shown(this.amp.volts(node, { mains, without: conditions.without ?? [], set: [], warmMinutes: 10, noted: "" }));
  }
}

function shown(volts: number): number {
  const size = Math.abs(volts);
  const decimals = size >= 200 ? 0 : size >= 20 ? 1 : size >= 2 ? 2 : 3;
  return Number(volts.toFixed(decimals)) + 0;
}
