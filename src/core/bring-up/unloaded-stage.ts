/** Whether the rails stand unloaded with these tubes out, and how far the dial may be turned then. Volts. */

import { envelopeOf, type Circuit } from "../circuit/circuit";
import { unloadedRails, type UnloadedRail } from "../expectation/unloaded";
import { anatomyOf } from "../anatomy/kind-of-amp";

/** True when a rectifier works and no output tube draws from it. */
export function isUnloaded(circuit: Circuit, without: readonly string[]): boolean {
  const a = anatomyOf(circuit);
  const gone = new Set(without.map((t) => envelopeOf(t.toUpperCase())));
  return a.high.some((e) => !e.rectifierTube || !gone.has(envelopeOf(e.name))) && a.output.every((t) => gone.has(t));
}

/** Part of a capacitor's rating that an unloaded rail is turned up to at most. */
const MOST_OF_RATING = 0.95;

export interface RailLimit extends UnloadedRail {
  rated: number;
  /** Volts of the dial at which it has what its capacitor bears. */
  turnTo: number;
}

/** Rails near or above a rating with these tubes out at the wall's volts; none where something loads them. */
export function railLimits(circuit: Circuit, without: readonly string[], wall: number): RailLimit[] {
  if (!isUnloaded(circuit, without)) return [];
  return unloadedRails(circuit, wall).flatMap((r) =>
    r.rated !== undefined && (r.verdict === "out" || r.verdict === "watch")
      ? [{ ...r, rated: r.rated, turnTo: Math.floor((wall * MOST_OF_RATING * r.rated) / r.volts) }]
      : [],
  );
}
