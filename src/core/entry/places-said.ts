/** Places as they are said at a bench, "V1 pin 6", "screen V4", "B+", read as the names that the amp's circuit has for them. */

import { electrodeNode, roleOf, supplyChain, type Electrode } from "../anatomy/points";
import { socketOf } from "../anatomy/sockets";
import { nameOfPlace, placeOf } from "../by-tube/places";
import type { TubeType } from "../tubes/library";
import { envelopeOf, type Circuit, type Element, type TestPoint } from "../circuit/circuit";
import * as texts from "../texts/entry";

const ELECTRODES: Record<string, Electrode> = {
  plate: "plate",
  anode: "plate",
  screen: "screen",
  g2: "screen",
  grid: "grid",
  g1: "grid",
  cathode: "cathode",
  kathode: "cathode",
};
const SUFFIX: Partial<Record<Electrode, string>> = { plate: "p", screen: "s", grid: "g", cathode: "k" };

/** The line with the circuit's name in place of what was said; or why the place is none that can be read. */
export type Said = { ok: true; line: string } | { ok: false; why: string; accepted: string };

const WORD = Object.keys(ELECTRODES).join("|");
const PIN = /^(?:(v\d+)[a-d]?\s+pin\s*(\d+)|pin\s*(\d+)\s+(?:of\s+)?(v\d+)[a-d]?)\b/i;
const ELECTRODE = new RegExp(`^(?:(v\\d+[a-d]?)\\s+(${WORD})|(${WORD})\\s+(?:of\\s+)?(v\\d+[a-d]?))\\b`, "i");
const RAIL = /^(?:b\+|ht\+?(?!\w)|h\.t\.)\s*(\d)?(?=\s|$)/i;

/** @param types of the tubes, where no circuit has them. @param kind of a reading that the words behind it name; "acv" on HT is a winding. Lines that say no such place come back as they are. */
export function placeSaid(line: string, circuit: Circuit | undefined, types: ReadonlyMap<string, TubeType> = new Map()): Said {
  const pin = PIN.exec(line);
  if (pin) return said(line, pin[0], pinNamed(circuit, (pin[1] ?? pin[4])!.toUpperCase(), Number(pin[2] ?? pin[3]), types));
  const electrode = ELECTRODE.exec(line);
  if (electrode) {
    const tube = (electrode[1] ?? electrode[4])!.toUpperCase();
    const which = ELECTRODES[(electrode[2] ?? electrode[3])!.toLowerCase()]!;
    return said(line, electrode[0], electrodeNamed(circuit, tube, which));
  }
  const rail = RAIL.exec(line);
  // HT with AC behind it is a winding of the transformer.
  if (rail && !/^\s*(ac|acv)\b/i.test(line.slice(rail[0].length))) return said(line, rail[0], railNamed(circuit, rail[1]));
  return { ok: true, line };
}

const said = (line: string, words: string, place: string | { why: string; accepted: string }): Said =>
  typeof place === "string" ? { ok: true, line: `${place}${line.slice(words.length)}` } : { ok: false, ...place };

/** The point on a node, the tube's own before another's. */
function pointOn(circuit: Circuit, node: string, tube: string): TestPoint | undefined {
  const there = circuit.points.filter((p) => p.node === node);
  const named = (p: TestPoint) => p.name.toUpperCase().split(".")[0]!;
  const own = (p: TestPoint) => envelopeOf(named(p)) === envelopeOf(tube) || (p.pin ?? "").toUpperCase().startsWith(`${envelopeOf(tube)} `);
  return there.find((p) => named(p) === tube) ?? there.find(own) ?? there[0];
}

function pinNamed(
  circuit: Circuit | undefined,
  tube: string,
  pin: number,
  types: ReadonlyMap<string, TubeType>,
): string | { why: string; accepted: string } {
  // Without a circuit a pin is what the type has there, once it is said what is in the socket.
  if (!circuit) return nameOfPlace(placeOf(`${tube}.${pin}`, types)) ?? `${tube}.${pin}`;
  const socket = socketOf(circuit, tube);
  const marked = circuit.points.find((p) => p.pin?.toUpperCase() === `${tube} PIN ${pin}`);
  if (marked) return marked.name;
  if (!socket)
    return {
      why: texts.noSocketKnown(tube),
      accepted: circuit.points
        .slice(0, 3)
        .map((p) => p.name)
        .join(", "),
    };
  const at = socket.pins.find((p) => p.pin === pin);
  const point = at?.node === undefined ? undefined : pointOn(circuit, at.node, tube);
  if (point) return point.name;
  const readable = socket.pins.flatMap((p) => (p.node !== undefined && pointOn(circuit, p.node, tube) ? [String(p.pin)] : []));
  return { why: texts.noPointOnPin(tube, pin, at?.electrode ?? ""), accepted: texts.pinsReadable(tube, readable.join(", ")) };
}

function electrodeNamed(circuit: Circuit | undefined, tube: string, which: Electrode): string | { why: string; accepted: string } {
  if (!circuit) return `${tube}.${SUFFIX[which] ?? which}`;
  const has = (e: Element) => (e.tube || e.rectifierTube) && (e.name === tube || envelopeOf(e.name) === tube);
  const found = circuit.elements.filter(has);
  const there = found.flatMap((e) => {
    const node = electrodeNode(e, which);
    const point = node === undefined ? undefined : pointOn(circuit, node, e.name);
    return point ? [{ half: e.name, point: point.name }] : [];
  });
  // The two halves of a twin tube are two places.
  if (new Set(there.map((t) => t.point)).size > 1)
    return { why: texts.severalOfTube(tube, which), accepted: there.map((t) => `${t.half} ${which}, ${t.point}`).join("; ") };
  if (there[0]) return there[0].point;
  return found.length === 0
    ? { why: texts.thereNoAmp(tube), accepted: texts.tubeSuch() }
    : {
        why: texts.noPointOnElectrode(tube, which),
        accepted: circuit.points
          .slice(0, 4)
          .map((p) => p.name)
          .join(", "),
      };
}

/** The rails in the order of the supply, the highest first: B+ is the first, B+2 the second. */
function railNamed(circuit: Circuit | undefined, number: string | undefined): string | { why: string; accepted: string } {
  const at = number === undefined ? 1 : Number(number);
  if (!circuit) return `B${at}`;
  const chain = supplyChain(circuit).map((s) => s.point);
  const rails = chain.length > 0 ? chain : circuit.points.filter((p) => roleOf(circuit, p) === "rail");
  return rails[at - 1]?.name ?? { why: texts.noSuchRail(at), accepted: rails.map((p) => p.name).join(", ") || "B1" };
}
