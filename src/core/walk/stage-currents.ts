/** The current of a stage read twice: by the drop across its plate resistor, and by its cathode resistor. */

import type { Circuit, Element } from "../circuit/circuit";
import { electrodeNode, ohmsToGround, resistorsAt, tubesAt } from "../anatomy/points";

export interface StageCurrents {
  /** Tubes whose currents flow through the cathode resistor together. */
  tubes: string[];
  /** Amperes by each way. */
  byPlate: number;
  byCathode: number;
  plateResistors: string[];
  cathodeResistors: string[];
  /** Points that were read for it. */
  points: { plates: string[]; supply: string; cathode: string };
  /** One sigma of their difference by the parts' tolerances and the meter, amperes. */
  sigma: number;
}

const METER = 0.01;
const USUAL_TOLERANCE = 0.1;
/** Sigmas from which the two do not go together. */
const APART = 2.5;

export const disagree = (c: StageCurrents) => Math.abs(c.byPlate - c.byCathode) > APART * c.sigma;

/**
 * @param read volts of a point by name, where it was read.
 * @returns undefined where one of the two cannot be had: no resistor, no reading, a cathode on ground.
 */
export function stageCurrents(circuit: Circuit, tube: Element, read: (point: string) => number | undefined): StageCurrents | undefined {
  const cathode = electrodeNode(tube, "cathode")!;
  const kOhms = cathode === "0" ? NaN : ohmsToGround(circuit, cathode);
  const at = (node: string) => circuit.points.find((p) => p.node === node && read(p.name) !== undefined);
  const k = at(cathode);
  if (!k || !Number.isFinite(kOhms) || kOhms <= 0) return undefined;
  const tubes = tubesAt(circuit, cathode, "cathode");
  // A screen's current is not in the plate's: only triodes are read twice.
  if (tubes.some((t) => t.tube!.kind !== "triode")) return undefined;
  const plates = tubes.map((t) => plateOf(circuit, t, at, read));
  if (plates.some((p) => p === undefined)) return undefined;
  const known = plates as NonNullable<(typeof plates)[number]>[];
  const kVolts = read(k.name)!;
  const kResistors = resistorsAt(circuit, cathode).filter((r) => !known.some((p) => p.resistor === r));
  const byCathode = kVolts / kOhms;
  const tolerance = (r: Element | undefined) => (r?.notes.tol ?? USUAL_TOLERANCE) / Math.sqrt(3);
  const square = known.reduce(
    (sum, p) => sum + (p.amps * tolerance(p.resistor)) ** 2 + ((METER * Math.hypot(p.volts, p.supplyVolts)) / p.resistor.value!) ** 2,
    (byCathode * Math.hypot(tolerance(kResistors[0]), METER)) ** 2,
  );
  return {
    tubes: tubes.map((t) => t.name),
    byPlate: known.reduce((sum, p) => sum + p.amps, 0),
    byCathode,
    plateResistors: known.map((p) => p.resistor.name),
    cathodeResistors: kResistors.map((r) => r.name),
    points: { plates: known.map((p) => p.point), supply: known[0]!.supply, cathode: k.name },
    sigma: Math.sqrt(square),
  };
}

/** The plate's resistor to a node that was read, and the current by its drop. */
function plateOf(
  circuit: Circuit,
  tube: Element,
  at: (node: string) => Circuit["points"][number] | undefined,
  read: (point: string) => number | undefined,
) {
  const node = electrodeNode(tube, "plate")!;
  const plate = at(node);
  if (!plate) return undefined;
  for (const resistor of resistorsAt(circuit, node)) {
    const supply = at(resistor.nodes.find((n) => n !== node) ?? "");
    if (!supply) continue;
    const [volts, supplyVolts] = [read(plate.name)!, read(supply.name)!];
    if (supplyVolts <= volts) continue;
    return { resistor, point: plate.name, supply: supply.name, volts, supplyVolts, amps: (supplyVolts - volts) / resistor.value! };
  }
  return undefined;
}
