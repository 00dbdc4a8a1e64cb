/** What is wrong at a socket though every part is sound: heaters open, another type, tubes in each other's sockets, wires swapped. */

import { aType } from "../language/language";
import { envelopeOf, fileName, type Circuit, type Element } from "../circuit/circuit";
import { TUBE_TYPES, type TubeType } from "../tubes/library";
import type { AddFault } from "./fault";

export function socketFaults(circuit: Circuit, add: AddFault): void {
  const envelopes = envelopesOf(circuit);
  for (const [envelope, halves] of envelopes) {
    if (halves.length > 1)
      add(halves[0], {
        name: `${envelope} heater open`,
        refs: [envelope],
        kind: "heater open",
        changes: () => halves.map((h) => `${fileName(h)}=dead`),
      });
    const others = relativesOf(halves[0]!.tube!);
    for (const other of others)
      add(halves[0], {
        name: `${envelope} is ${aType(other.type)}, not ${aType(halves[0]!.tube!.type)}`,
        refs: [envelope],
        kind: "wrong tube",
        weight: 1 / others.length,
        changes: () => halves.map((h) => `${fileName(h)}=type:${other.type}`),
      });
    for (const half of halves) swappedWires(half, add);
  }
  const list = [...envelopes];
  list.forEach(([a, one], i) =>
    list.slice(i + 1).forEach(([b, other]) => {
      const [first, second] = [one[0]!.tube!, other[0]!.tube!];
      if (first.type === second.type || !sameBase(first, second) || one.length !== other.length) return;
      add(one[0], {
        name: `${a} and ${b} in each other's sockets`,
        refs: [a, b],
        kind: "tubes swapped",
        changes: () => [...one.map((h) => `${fileName(h)}=type:${second.type}`), ...other.map((h) => `${fileName(h)}=type:${first.type}`)],
      });
    }),
  );
}

/** Two wires in each other's place, by the electrodes that they belong to. */
function swappedWires(e: Element, add: AddFault): void {
  const pins: [string, string][] = [
    ["p", "plate"],
    ...(e.nodes.length > 3 ? ([["s", "screen"]] as [string, string][]) : []),
    ["g", "grid"],
    ["k", "cathode"],
  ];
  const pairs = pins.flatMap((a, i) => pins.slice(i + 1).map((b) => [a, b] as const));
  const node = (pin: string) => e.nodes[pins.findIndex(([p]) => p === pin)]!;
  for (const [[a, first], [b, second]] of pairs)
    if (node(a) !== node(b))
      add(e, {
        name: `${e.name} ${first} and ${second} wires swapped`,
        refs: [e.name],
        kind: "miswired socket",
        weight: 1 / pairs.length,
        changes: () => [`${fileName(e)}=swap:${a}${b}`],
      });
}

const sameBase = (a: TubeType, b: TubeType) => a.kind === b.kind && JSON.stringify(a.pins) === JSON.stringify(b.pins);

/** Types of the library that fit the socket. */
function relativesOf(type: TubeType): TubeType[] {
  return TUBE_TYPES.filter((t) => t.type !== type.type && t.model && sameBase(t, type));
}

function envelopesOf(circuit: Circuit): Map<string, Element[]> {
  const out = new Map<string, Element[]>();
  for (const e of circuit.elements) if (e.tube) out.set(envelopeOf(e.name), [...(out.get(envelopeOf(e.name)) ?? []), e]);
  return out;
}
