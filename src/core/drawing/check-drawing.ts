/** What is wrong with a drawing: wires that are not what the circuit says, things that lie on each other, parts missing or drawn twice. */

import type { Circuit, HeaterWinding } from "../circuit/circuit";
import { heatersOn } from "./draw-heaters";
import { boxOf, overlap, type Box, type Drawing, type Wire } from "./geometry";
import { onWire, samePoint } from "./nets";
import { idOf } from "./part-labels";
import { readBack, sorted } from "./read-back";

/** The nets of the circuit's file, and of its heaters, in the form of `readBack`. */
export function netsOf(circuit: Circuit): string[][] {
  const nets = new Map<string, string[]>();
  for (const e of circuit.elements)
    e.nodes.forEach((node, terminal) => nets.set(node, [...(nets.get(node) ?? []), `${idOf(e)}:${terminal}`]));
  return sorted([...nets.values(), ...circuit.heaters.flatMap(heaterNets)]);
}

/** A winding's two ends with those of its heaters; in a string the ends that meet. */
function heaterNets(winding: HeaterWinding): string[][] {
  const chain = [winding.name, ...heatersOn(winding)];
  if (chain.length === 1) return [[`${winding.name}:0`], [`${winding.name}:1`]];
  if (!winding.string) return [0, 1].map((end) => chain.map((part) => `${part}:${end}`));
  // Top to top, bottom to bottom, in turn; the last one's free end returns to the winding's other one.
  const nets = chain.slice(1).map((part, i) => [`${chain[i]}:${i % 2}`, `${part}:${i % 2}`]);
  return [...nets, [`${chain.at(-1)}:${(chain.length - 1) % 2}`, `${winding.name}:1`]];
}

/** Faults of a drawing in words for its maintainer; none for a sound one. */
export function faultsOf(circuit: Circuit, drawing: Drawing): string[] {
  return [...partFaults(circuit, drawing), ...netFaults(circuit, drawing), ...placeFaults(drawing)];
}

function partFaults(circuit: Circuit, drawing: Drawing): string[] {
  const out: string[] = [];
  const drawn = drawing.symbols.map((s) => s.part);
  const known = new Set([...circuit.elements.map(idOf), ...circuit.heaters.flatMap((h) => [h.name, ...heatersOn(h)])]);
  for (const name of known) {
    const times = drawn.filter((part) => part === name).length;
    if (times !== 1) out.push(`${name} is drawn ${times} times`);
  }
  for (const part of drawn) if (!known.has(part)) out.push(`${part} is drawn and is not in the circuit`);
  return out;
}

function netFaults(circuit: Circuit, drawing: Drawing): string[] {
  const wanted = new Set(netsOf(circuit).map((net) => net.join(" ")));
  const found = new Set(readBack(drawing).map((net) => net.join(" ")));
  return [
    ...[...wanted].filter((net) => !found.has(net)).map((net) => `not joined as in the circuit: ${net}`),
    ...[...found].filter((net) => !wanted.has(net)).map((net) => `joined on the sheet only: ${net}`),
  ];
}

const isLevel = (w: Wire) => Math.abs(w.from.y - w.to.y) < 1e-6;

/** The inside of what a wire covers: a line has none, so it is given a little. */
function bodyOf(w: Wire): Box {
  const THIN = 0.05;
  const b = boxOf(w.from.x, w.from.y, w.to.x, w.to.y);
  return isLevel(w) ? { ...b, y: b.y - THIN, height: 2 * THIN } : { ...b, x: b.x - THIN, width: 2 * THIN };
}

/** A box a little smaller all round, so that what ends on its edge does not lie in it. */
const inside = (b: Box, by: number): Box => ({
  x: b.x + Math.min(by, b.width / 2),
  y: b.y + Math.min(by, b.height / 2),
  width: Math.max(0, b.width - 2 * by),
  height: Math.max(0, b.height - 2 * by),
});

function placeFaults({ symbols, wires, junctions, marks, labels, tags }: Drawing): string[] {
  const out: string[] = [];
  const things = [
    ...symbols.map((s) => ({ what: s.part, box: inside(s.box, 0.1) })),
    ...marks.map((m) => ({ what: `mark ${m.kind} ${m.text}`, box: inside(m.box, 0.05) })),
    ...labels.map((l) => ({ what: `label of ${l.part}`, box: inside(l.box, 0.05) })),
    ...tags.map((t) => ({ what: `volts of ${t.node}`, box: inside(t.box, 0.05) })),
  ];
  for (let i = 0; i < things.length; i++)
    for (let j = i + 1; j < things.length; j++)
      if (overlap(things[i]!.box, things[j]!.box)) out.push(`${things[i]!.what} lies on ${things[j]!.what}`);
  for (const wire of wires) {
    const body = bodyOf(wire);
    for (const { what, box } of things) if (overlap(body, box)) out.push(`a wire of ${wire.node} runs through ${what}`);
  }
  for (let i = 0; i < wires.length; i++)
    for (let j = i + 1; j < wires.length; j++) {
      const [a, b] = [wires[i]!, wires[j]!];
      if (a.node === b.node) continue;
      const parallel = isLevel(a) === isLevel(b);
      if (parallel ? overlap(bodyOf(a), bodyOf(b)) : [a.from, a.to].some((p) => onWire(p, b)) || [b.from, b.to].some((p) => onWire(p, a)))
        out.push(`wires of ${a.node} and ${b.node} touch`);
    }
  for (const { at, node } of junctions)
    if (!wires.some((w) => w.node === node && onWire(at, w))) out.push(`a junction of ${node} lies on no wire`);
  for (const symbol of symbols)
    for (const pin of symbol.pins)
      for (const wire of wires)
        if (
          onWire(pin.at, wire) &&
          ![wire.from, wire.to].some((p) => samePoint(p, pin.at)) &&
          !junctions.some((j) => samePoint(j.at, pin.at))
        )
          out.push(`a wire of ${wire.node} passes over a terminal of ${symbol.part}`);
  return out;
}

/** How good a drawing is to read: wires that cross, and their bends. */
export function measure({ wires }: Drawing): { crossings: number; bends: number } {
  let crossings = 0;
  let bends = 0;
  for (let i = 0; i < wires.length; i++)
    for (let j = i + 1; j < wires.length; j++) {
      const [a, b] = [wires[i]!, wires[j]!];
      if (isLevel(a) === isLevel(b)) continue;
      const [level, upright] = isLevel(a) ? [a, b] : [b, a];
      const at = { x: upright.from.x, y: level.from.y };
      if (a.node !== b.node && onWire(at, level) && onWire(at, upright)) crossings++;
      if (a.node === b.node && [a.from, a.to].some((p) => [b.from, b.to].some((q) => samePoint(p, q)))) bends++;
    }
  return { crossings, bends };
}
