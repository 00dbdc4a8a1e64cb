/** An output tube above its rating: stop, whatever the volts of the dial. */

import { anatomyOf } from "../anatomy/kind-of-amp";
import { alter } from "../circuit/alter";
import { envelopeOf, type Circuit, type Element } from "../circuit/circuit";
import { formatQuantity } from "../quantity/format";
import { mainsDraw, type DrawOptions } from "../solver/mains-draw";
import { operatingPoint, tubesAtWork, type OperatingPoint } from "../solver/operating-point";
import * as texts from "../texts/bring-up";

/** A tube with fixed bias is given up to so much of its sheet's current, one on a cathode resistor down to so little of its ohms. */
const MOST_STRENGTH = 3;
const LEAST_OHMS = 0.02;
const HALVINGS = 7;

const outputTubes = (circuit: Circuit): Element[] => {
  const output = new Set(anatomyOf(circuit).output);
  return circuit.elements.filter((e) => e.tube?.ratings && output.has(envelopeOf(e.name)));
};

/** The resistor under a cathode. */
const cathodeResistor = (circuit: Circuit, cathode: string): Element | undefined =>
  cathode === "0" ? undefined : circuit.elements.find((e) => e.letter === "R" && e.nodes.includes(cathode) && e.nodes.includes("0"));

/** A circuit in which a tube loses its bias: nothing at 0, all of it at 1. */
function losing(circuit: Circuit, tube: Element, part: number): Circuit {
  const resistor = cathodeResistor(circuit, tube.nodes.at(-1)!);
  if (resistor) return alter(circuit, [`${resistor.name}=${resistor.value! * (1 - part * (1 - LEAST_OHMS))}`]);
  const own = tube.notes.strength ?? 1;
  return alter(circuit, [`${tube.name}=strength:${own + part * (MOST_STRENGTH - own)}`]);
}

/**
 * Amperes of the mains at which one output tube stands at its plate rating because its bias goes, the rest of the amp as it is: a bypass
 * shorted, a coupling capacitor that leaks, no bias supply all come to that. Infinity where none gets there, or where a sound one is beyond
 * it already.
 * @param mains volts at the amp.
 */
export function ampsAtRating(circuit: Circuit, mains: number, draw: DrawOptions): number {
  let least = Infinity;
  for (const tube of outputTubes(circuit)) {
    const rated = tube.tube!.ratings!.plateWatts;
    const at = (part: number): OperatingPoint | undefined => {
      const op = operatingPoint(losing(circuit, tube, part), { mains });
      return op.converged ? op : undefined;
    };
    const watts = (op: OperatingPoint | undefined) => (op ? (tubesAtWork(op).get(tube.name)?.plateWatts ?? 0) : 0);
    let [low, high] = [0, 1];
    if (watts(at(low)) >= rated || watts(at(high)) < rated) continue;
    for (let k = 0; k < HALVINGS; k++) {
      const middle = (low + high) / 2;
      if (watts(at(middle)) < rated) low = middle;
      else high = middle;
    }
    const op = at(high);
    if (op) least = Math.min(least, mainsDraw(op, draw).amps);
  }
  return least;
}

export interface OverRating {
  tube: string;
  watts: number;
  rated: number;
  says: string;
}

/**
 * A cathode that was read: its current by the resistor under it, and with the plate's volts the watts of each tube on it.
 * @param point node that was read. @param volts read there. @param plateVolts of a node, as it was read or is solved.
 * @returns undefined where no output tube has its cathode there, or all stand within their rating.
 */
export function overByCathode(
  circuit: Circuit,
  node: string,
  volts: number,
  plateVolts: (node: string) => number | undefined,
): OverRating | undefined {
  const tubes = outputTubes(circuit).filter((e) => e.nodes.at(-1) === node);
  const resistor = cathodeResistor(circuit, node);
  if (tubes.length === 0 || !resistor?.value || volts <= 0) return undefined;
  const amps = volts / resistor.value / tubes.length;
  for (const tube of tubes) {
    const plate = plateVolts(tube.nodes[0]!);
    const rated = tube.tube!.ratings!.plateWatts;
    if (plate === undefined) continue;
    // The screen's share of the cathode current is left in: it errs on the side of stopping.
    const watts = (plate - volts) * amps;
    if (watts > rated)
      return {
        tube: tube.name,
        watts,
        rated,
        says: texts.tubeAboveRating(tube.name, formatQuantity(watts, "W", 2), formatQuantity(rated, "W", 2)),
      };
  }
  return undefined;
}
