/**
 * Reads the circuit back from the drawing's geometry alone: pins, wires, junctions and the names of marks. What a wire is said to belong to is
 * not looked at, so that a drawing that joins what is not joined is found out.
 */

import type { Drawing, Point, Wire } from "./geometry";
import { onWire, samePoint } from "./nets";

/** Terminals that are joined on the sheet, "R7:0" for the first terminal of R7; each in one list, lists and terminals sorted. */
export function readBack(drawing: Drawing): string[][] {
  const { wires, junctions, marks, symbols } = drawing;
  const parent: number[] = [];
  const make = () => parent.push(parent.length) - 1;
  const rootOf = (i: number): number => (parent[i] === i ? i : (parent[i] = rootOf(parent[i]!)));
  const join = (a: number, b: number) => void (parent[rootOf(a)] = rootOf(b));

  const ofWire = wires.map(make);
  const ends = (w: Wire) => [w.from, w.to];
  for (let i = 0; i < wires.length; i++)
    for (let j = i + 1; j < wires.length; j++)
      if (ends(wires[i]!).some((a) => ends(wires[j]!).some((b) => samePoint(a, b)))) join(ofWire[i]!, ofWire[j]!);
  for (const { at } of junctions) {
    const here = wires.flatMap((w, i) => (onWire(at, w) ? [ofWire[i]!] : []));
    for (const other of here) join(here[0]!, other);
  }
  /** Joins what stands at a point with the wires that end there, or that pass through a junction there, and with what else stands there. */
  const places: { at: Point; id: number }[] = [];
  const put = (at: Point): number => {
    const id = make();
    wires.forEach((w, i) => {
      if (ends(w).some((p) => samePoint(p, at))) join(id, ofWire[i]!);
    });
    if (junctions.some((j) => samePoint(j.at, at))) wires.forEach((w, i) => onWire(at, w) && join(id, ofWire[i]!));
    for (const other of places) if (samePoint(other.at, at)) join(id, other.id);
    places.push({ at, id });
    return id;
  };
  const named = new Map<string, number>();
  for (const mark of marks) {
    const id = put(mark.at);
    if (mark.kind === "input") continue;
    const name = `${mark.kind === "ground" ? "ground" : "rail"} ${mark.text}`;
    const known = named.get(name);
    if (known === undefined) named.set(name, id);
    else join(id, known);
  }
  const nets = new Map<number, string[]>();
  for (const symbol of symbols)
    for (const pin of symbol.pins) {
      const root = put(pin.at);
      nets.set(root, [...(nets.get(root) ?? []), `${symbol.part}:${pin.terminal}`]);
    }
  const byRoot = new Map<number, string[]>();
  for (const [id, terminals] of nets) byRoot.set(rootOf(id), [...(byRoot.get(rootOf(id)) ?? []), ...terminals]);
  return sorted([...byRoot.values()]);
}

/** Lists in one order, so that two of them can be compared. */
export function sorted(nets: string[][]): string[][] {
  return nets.map((net) => [...net].sort()).sort((a, b) => (a[0]! < b[0]! ? -1 : 1));
}
