/** Cathode resistors as current shunts: current, plate watts and their part of the rating, from readings. */

import type { Circuit, Element } from "../circuit/circuit";
import { screenShare, type RatingSystem, type TubeType } from "../tubes/library";
import { ohmsToGround, tubesAt } from "./points";

export interface Idle {
  tube: string;
  type: string;
  /** Amperes through this tube's cathode, shared evenly where tubes share a resistor. */
  cathodeAmps: number;
  ohms: number;
  sharedBy: number;
  plateAmps: number;
  plateWatts?: number;
  /** plateWatts / rating. */
  ofRating?: number;
  ratedWatts?: number;
  system?: RatingSystem;
}

/**
 * Idle of each tube whose cathode is on `node`, from the cathode's volts; plate watts where the plate's volts are known.
 * Screen current is taken off by the type's typical share: Ia = Ik·(1 − Ig2/(Ia+Ig2)), from the published data sheet.
 */
export function idleFrom(circuit: Circuit, node: string, cathodeVolts: number, plateVolts: (tube: Element) => number | undefined): Idle[] {
  const ohms = ohmsToGround(circuit, node);
  if (!Number.isFinite(ohms) || ohms <= 0) return [];
  const tubes = tubesAt(circuit, node, "cathode");
  return tubes.map((tube) => {
    const type = tube.tube!;
    const cathodeAmps = cathodeVolts / ohms / tubes.length;
    const plateAmps = cathodeAmps * (1 - screenShare(type));
    const plate = plateVolts(tube);
    const plateWatts = plate === undefined ? undefined : plateAmps * (plate - cathodeVolts);
    const ratedWatts = type.ratings?.plateWatts;
    return {
      tube: tube.name,
      type: type.type,
      cathodeAmps,
      ohms,
      sharedBy: tubes.length,
      plateAmps,
      plateWatts,
      ratedWatts,
      system: type.ratings?.system,
      ofRating: plateWatts !== undefined && ratedWatts ? plateWatts / ratedWatts : undefined,
    };
  });
}

/** The tubes that can wear out an output stage: pentodes with more than 4 W of plate rating. */
export function isOutputTube(tube: Element): boolean {
  return tube.tube !== undefined && isOutputType(tube.tube);
}

export function isOutputType(type: TubeType): boolean {
  return type.kind === "pentode" && (type.ratings?.plateWatts ?? 0) >= 4;
}
