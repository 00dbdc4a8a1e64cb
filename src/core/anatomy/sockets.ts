/**
 * Tube sockets as the technician sees them, from below: which pin is where, what is on it, and which pin a test point is.
 * Pins count clockwise from the key or the gap, seen from below (IEC 60067, sheets of the octal, the nine-pin and the seven-pin miniature base).
 */

import { envelopeOf, type Circuit, type Element, type TestPoint } from "../circuit/circuit";
import { terminalWords } from "../circuit/part-place";
import { formatVolts } from "../quantity/format";
import { reservoirsOf } from "../supply/reservoirs";
import type { Base, TubeType } from "../tubes/library";
import { electrodeNode, roleOf, tubesAt, type Electrode } from "./points";

export interface SocketPin {
  pin: number;
  /** Degrees clockwise from the key or the middle of the gap, seen from below. */
  angle: number;
  /** What is on it; undefined where the circuit uses nothing of it. */
  electrode?: string;
  /** The half of a twin tube: "A". */
  half?: string;
  /** Node of the circuit that lies on it; undefined where the file has none, such as a heater's or a winding's end. */
  node?: string;
  /** What lies on it in words, where it is no node: "235 V ~". */
  carries?: string;
}

export interface Socket {
  name: string;
  type: string;
  base: Base;
  /** In the order of their numbers; every pin of the base. */
  pins: SocketPin[];
}

/** Angle of the first pin, and from pin to pin, in degrees; how many there are. */
const BASES: Record<Base, { first: number; step: number; pins: number }> = {
  noval: { first: 36, step: 36, pins: 9 },
  miniature: { first: 45, step: 45, pins: 7 },
  octal: { first: 22.5, step: 45, pins: 8 },
};

/** Where a pin is. @example angleOf("octal", 1) // 22.5 */
export function angleOf(base: Base, pin: number): number {
  const { first, step } = BASES[base];
  return first + (pin - 1) * step;
}

const halfOf = (e: Element): string | undefined => (envelopeOf(e.name) === e.name ? undefined : e.name.slice(-1));
const typeOf = (e: Element): TubeType | undefined => e.tube ?? e.rectifierTube;

/** Socket pins of an element by electrode: those of the second half for V1B. */
export function pinsOf(e: Element): Record<string, number> {
  const tables = typeOf(e)?.pins ?? [];
  return tables[Math.max(0, "ABCD".indexOf(halfOf(e) ?? "A"))] ?? {};
}

const pinsOfBase = (base: Base): SocketPin[] =>
  Array.from({ length: BASES[base].pins }, (_, i) => ({ pin: i + 1, angle: angleOf(base, i + 1) }));

/** A socket by its type alone, for a tube of which no circuit says more; undefined where the base is not known. */
export function socketOfType(name: string, type: TubeType): Socket | undefined {
  if (!type.base || type.pins.length === 0) return undefined;
  const pins = pinsOfBase(type.base);
  for (const pin of type.heaterPins?.ends ?? []) Object.assign(pins[pin - 1]!, { electrode: "heater" });
  if (type.heaterPins?.centre) Object.assign(pins[type.heaterPins.centre - 1]!, { electrode: "heater centre" });
  for (const [i, section] of type.pins.entries())
    for (const [electrode, pin] of Object.entries(section))
      Object.assign(pins[pin - 1]!, { electrode, ...(type.pins.length > 1 ? { half: "ABCD"[i] } : {}) });
  return { name, type: type.type, base: type.base, pins };
}

/** The socket of an envelope such as "V1"; undefined for a tube whose base is not known. */
export function socketOf(circuit: Circuit, name: string): Socket | undefined {
  const tubes = circuit.elements.filter((e) => typeOf(e) && envelopeOf(e.name) === name);
  const type = tubes[0] && typeOf(tubes[0]);
  if (!type?.base || type.pins.length === 0) return undefined;
  const pins = pinsOfBase(type.base);
  const put = (pin: number, what: Partial<SocketPin>) => Object.assign(pins[pin - 1]!, what);

  const { ends, centre } = type.heaterPins ?? {};
  for (const pin of ends ?? []) put(pin, { electrode: "heater" });
  if (centre) put(centre, { electrode: "heater centre" });
  for (const e of tubes)
    for (const [electrode, pin] of Object.entries(pinsOf(e))) {
      if (e.rectifierTube) {
        const volts = typeof e.params.vac === "number" ? `${formatVolts(e.params.vac)} ~` : undefined;
        if (electrode !== "cathode") put(pin, { electrode, carries: volts });
        else {
          // Where the cathode is an end of the heater, the other end has the rail's volts too: a slip there meets all of them.
          if (ends?.includes(pin)) for (const end of ends) put(end, { node: e.nodes[0] });
          put(pin, { electrode, node: e.nodes[0] });
        }
      } else put(pin, { electrode, half: halfOf(e), node: electrodeNode(e, electrode as Electrode) });
    }
  return { name, type: type.type, base: type.base, pins };
}

/** Which socket's pin a test point is: as the file says, else by the electrode that it is; undefined where it is no tube's. */
export function pinOfPoint(circuit: Circuit, point: TestPoint): { socket: string; pin: number } | undefined {
  const [, socket, pin] = /^(V\d+)\s+pin\s+(\d+)/i.exec(point.pin ?? "") ?? [];
  if (socket) return { socket: socket.toUpperCase(), pin: Number(pin) };
  if (point.pin) return undefined;
  const electrode = roleOf(circuit, point) as Electrode;
  const there = tubesAt(circuit, point.node, electrode);
  const [named = ""] = point.name.toUpperCase().split(".");
  const tube = there.find((t) => t.name === named) ?? there[0];
  const found = tube && pinsOf(tube)[electrode];
  return found === undefined ? undefined : { socket: envelopeOf(tube!.name), pin: found };
}

/** Where the probe goes, as the bench says it: "V2 pin 8", "C1 +", else the parts that meet there. */
export function whereToProbe(circuit: Circuit, point: TestPoint): string {
  if (point.pin) return point.pin;
  const at = pinOfPoint(circuit, point);
  if (at) return `${at.socket} pin ${at.pin}`;
  for (const r of reservoirsOf(circuit)) {
    if (r.node === point.node) return `${r.parts[0]} +`;
    if (r.returnNode === point.node) return `${r.parts[0]} −`;
  }
  // The point's own name is no place: what else is on the node is.
  return terminalWords({ ...circuit, points: circuit.points.filter((p) => p !== point) }, point.node);
}
