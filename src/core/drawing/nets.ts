/** Wires of one node made plain: pieces on one line joined, junctions where three or more ways meet. */

import type { Junction, Mark, Point, Symbol, Tag, Wire } from "./geometry";

const SAME = 1e-3;
const near = (a: number, b: number) => Math.abs(a - b) < SAME;
const rounded = (value: number) => Math.round(value * 1000) / 1000 + 0;
export const samePoint = (a: Point, b: Point) => near(a.x, b.x) && near(a.y, b.y);

interface Piece {
  /** Level: its y; upright: its x. */
  line: number;
  from: number;
  to: number;
}

/** Pieces on one line that touch or overlap are one. */
function joined(pieces: Piece[]): Piece[] {
  const out: Piece[] = [];
  for (const piece of [...pieces].sort((a, b) => a.line - b.line || a.from - b.from)) {
    const last = out.at(-1);
    if (last && near(last.line, piece.line) && piece.from <= last.to + SAME) last.to = Math.max(last.to, piece.to);
    else out.push({ ...piece });
  }
  return out;
}

/** True where a point lies on a wire, its ends included. */
export function onWire(at: Point, { from, to }: Wire): boolean {
  const within = (v: number, a: number, b: number) => v >= Math.min(a, b) - SAME && v <= Math.max(a, b) + SAME;
  return (near(from.y, to.y) ? near(at.y, from.y) : near(at.x, from.x)) && within(at.x, from.x, to.x) && within(at.y, from.y, to.y);
}

/** The wires of every node joined, ends that lead nowhere taken back, and junctions where wires, pins and marks come from three or more sides. */
export function tidy(
  wires: readonly Wire[],
  symbols: readonly Symbol[],
  marks: readonly Mark[],
  tags: readonly Tag[],
): { wires: Wire[]; junctions: Junction[] } {
  const byNode = new Map<string, Wire[]>();
  for (const wire of wires) {
    const list = byNode.get(wire.node);
    if (list) list.push(wire);
    else byNode.set(wire.node, [wire]);
  }
  const ends = [...symbols.flatMap((s) => s.pins.map((p) => p.at)), ...marks.map((m) => m.at)];
  const out: Wire[] = [];
  const junctions: Junction[] = [];
  for (const [node, list] of byNode) {
    const level: Piece[] = [];
    const upright: Piece[] = [];
    for (const { from, to } of list) {
      if (near(from.y, to.y))
        level.push({ line: rounded(from.y), from: rounded(Math.min(from.x, to.x)), to: rounded(Math.max(from.x, to.x)) });
      else upright.push({ line: rounded(from.x), from: rounded(Math.min(from.y, to.y)), to: rounded(Math.max(from.y, to.y)) });
    }
    const all: Wire[] = [
      ...joined(level).map((p) => ({ node, from: { x: p.from, y: p.line }, to: { x: p.to, y: p.line } })),
      ...joined(upright).map((p) => ({ node, from: { x: p.line, y: p.from }, to: { x: p.line, y: p.to } })),
    ];
    const plain = trimmed(all, [...ends, ...tags.filter((t) => t.node === node).map((t) => t.at)]);
    const meets: Point[] = plain.flatMap((w) => [w.from, w.to]);
    for (const a of plain)
      for (const b of plain)
        if (near(a.from.y, a.to.y) && near(b.from.x, b.to.x)) {
          const at = { x: b.from.x, y: a.from.y };
          if (onWire(at, a) && onWire(at, b)) meets.push(at);
        }
    meets.push(...ends.filter((at) => plain.some((w) => onWire(at, w))));
    const seen: Point[] = [];
    for (const at of meets) {
      if (seen.some((p) => samePoint(p, at))) continue;
      seen.push(at);
      if (waysAt(at, plain) + ends.filter((p) => samePoint(p, at)).length >= 3) junctions.push({ node, at });
    }
    out.push(...plain);
  }
  return { wires: out, junctions };
}

/** From how many sides wires come to a point: one for each end there, two for each that passes. */
function waysAt(at: Point, wires: readonly Wire[]): number {
  let ways = 0;
  for (const wire of wires) if (onWire(at, wire)) ways += samePoint(at, wire.from) || samePoint(at, wire.to) ? 1 : 2;
  return ways;
}

/** Wires without the pieces that lead past their last pin, mark, tag or wire to nowhere. */
function trimmed(wires: readonly Wire[], held: readonly Point[]): Wire[] {
  let out = [...wires];
  for (let shorter = true; shorter;) {
    shorter = false;
    out = out.flatMap((wire) => {
      const level = near(wire.from.y, wire.to.y);
      const others = out.filter((o) => o !== wire);
      const met = [
        ...held.filter((at) => onWire(at, wire)),
        ...others.flatMap((o) => [o.from, o.to]).filter((at) => onWire(at, wire)),
        ...[wire.from, wire.to].filter((at) => others.some((o) => onWire(at, o))),
        ...others
          .filter((o) => near(o.from.y, o.to.y) !== level)
          .map((o) => (level ? { x: o.from.x, y: wire.from.y } : { x: wire.from.x, y: o.from.y }))
          .filter((at) => onWire(at, wire) && others.some((o) => onWire(at, o))),
      ].sort((a, b) => (level ? a.x - b.x : a.y - b.y));
      const [from, to] = [met[0], met.at(-1)];
      if (from && to && samePoint(from, wire.from) && samePoint(to, wire.to)) return [wire];
      shorter = true;
      return from && to && !samePoint(from, to) ? [{ ...wire, from, to }] : [];
    });
  }
  return out;
}
