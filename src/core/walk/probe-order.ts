/** The order in which the points are probed with one hand: bias first, then by least movement, with rising risk. */

import type { Circuit, TestPoint } from "../circuit/circuit";
import { envelopeOf } from "../circuit/circuit";
import { roleOf } from "../anatomy/points";
import { pinOfPoint } from "../anatomy/sockets";

export type ProbeOrder = "movement" | "chain";
/** The walk may also go where the suspects ask for it. */
export type ProbingOrder = ProbeOrder | "suspects";

/** Where a point is on the chassis: a socket or a part, and its place along the row. */
export interface ProbePlace {
  /** "V2", "C1", or the node where the file says nothing of its pin. */
  place: string;
  pin?: number;
  /** Along the chassis: sockets by their number, the supply beyond the last. */
  along: number;
}

/** Hand movement between neighbouring sockets is 1; from pin to pin of one socket a fraction of it. */
const PIN_STEP = 0.1;
const NEXT_PLACE = 0.5;

export function placeOf(circuit: Circuit, point: TestPoint): ProbePlace {
  const at = pinOfPoint(circuit, point);
  if (at) return { place: at.socket, pin: at.pin, along: Number(at.socket.slice(1)) };
  const sockets = circuit.elements.flatMap((e) => /^V(\d+)/.exec(envelopeOf(e.name))?.[1] ?? []).map(Number);
  return { place: point.pin?.split(" ")[0] ?? point.node, along: Math.max(0, ...sockets) + 1 };
}

/** Effort of moving the probe from one point to another, in steps from socket to socket. */
export function movement(a: ProbePlace, b: ProbePlace): number {
  if (a.place === b.place) return PIN_STEP * Math.abs((a.pin ?? 0) - (b.pin ?? 0));
  return NEXT_PLACE + Math.abs(a.along - b.along);
}

/**
 * The points in the order of probing. "chain" is the order of the work: from the rectifier down the supply and back stage by
 * stage. "movement" sweeps the sockets once from the first stage to the supply, so that the hand moves least and the volts rise:
 * within a socket the low electrodes come before the plate, of the rails the highest comes last. Bias is read before anything else
 * in both: without it the output tubes do not live long enough to be measured.
 * @param volts what is expected at a point, where it is known.
 */
export function probeOrder(circuit: Circuit, order: ProbeOrder, volts: (point: TestPoint) => number | undefined): TestPoint[] {
  const bias = (p: TestPoint) => roleOf(circuit, p) === "bias";
  const byWork = [...circuit.points].sort((a, b) => Number(bias(b)) - Number(bias(a)) || a.order - b.order);
  if (order === "chain") return byWork;
  const size = new Map(byWork.map((p) => [p.name, Math.abs(volts(p) ?? p.chart ?? 0)]));
  const places = new Map(byWork.map((p) => [p.name, placeOf(circuit, p)]));
  return byWork.sort(
    (a, b) =>
      Number(bias(b)) - Number(bias(a)) ||
      places.get(a.name)!.along - places.get(b.name)!.along ||
      size.get(a.name)! - size.get(b.name)! ||
      (places.get(a.name)!.pin ?? 0) - (places.get(b.name)!.pin ?? 0),
  );
}
