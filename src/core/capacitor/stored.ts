/** What an amp's reservoirs hold at the worst, how long that takes to go, and what comes back: before and after a kit. */

import type { Circuit } from "../circuit/circuit";
import { decayOf, reservoirsOf } from "../supply/reservoirs";
import { storedEnergy } from "../supply/stored-energy";
import type { CapacitorStress } from "./stress";

export interface Stored {
  /** Joules with nothing drawing, mains up. */
  joules: number;
  /** Volts that a reservoir may come back to a while after it was bled to nothing. */
  rebound: number;
  /** Seconds until all are at the safe voltage by themselves. */
  seconds: number;
}

/** Parts of the volts that come back by the dielectric after a discharge: what makers' application notes give for each kind. */
const REBOUND: [RegExp, number][] = [
  [/polypropylene|polystyrene/i, 0.001],
  [/polyester|film/i, 0.005],
  [/paper|oil/i, 0.05],
  [/./, 0.1],
];

/** What an amp's reservoirs hold and how they come down. @param volts what each stands at. */
export function storedIn(circuit: Circuit, stresses: ReadonlyMap<string, CapacitorStress>, safe: number): Stored {
  const reservoirs = reservoirsOf(circuit);
  const start = reservoirs.map((r) => Math.max(0, ...r.parts.map((p) => stresses.get(p)?.highUnloaded ?? 0)));
  const decay = decayOf(circuit, reservoirs, start);
  return {
    joules: reservoirs.reduce((s, r, i) => s + storedEnergy(r.farads, start[i]!), 0),
    rebound: Math.max(
      0,
      ...reservoirs.map(
        (r, i) => start[i]! * REBOUND.find(([is]) => is.test(circuit.elements.find((e) => e.name === r.name)?.notes.kind ?? ""))![1],
      ),
    ),
    seconds: decay.secondsTo(safe),
  };
}
