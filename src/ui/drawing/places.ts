/** Where things are on the drawing: the part next to another in a direction, the middle of a node, what a name means. */

import type { Circuit } from "@/core/circuit/circuit";
import { fileName } from "@/core/circuit/circuit";
import type { Direction, Drawing, Point } from "@/core/drawing/geometry";

const middle = (box: { x: number; y: number; width: number; height: number }): Point => ({
  x: box.x + box.width / 2,
  y: box.y + box.height / 2,
});

/** Where a part's symbol is; undefined for what is not on the drawing. */
export function placeOfPart(drawing: Drawing, part: string): Point | undefined {
  const symbol = drawing.symbols.find((s) => s.part === part);
  return symbol && middle(symbol.box);
}

/** Where a node is best looked at: its volts, else its first wire or mark. */
export function placeOfNode(drawing: Drawing, node: string): Point | undefined {
  const tag = drawing.tags.find((t) => t.node === node);
  if (tag) return tag.at;
  const wire = drawing.wires.find((w) => w.node === node);
  return wire?.from ?? drawing.marks.find((m) => m.node === node)?.at;
}

/**
 * The part that one comes to from another by an arrow key: the nearest one that lies more in that direction than beside it.
 * Without a part to begin at, the first of the drawing.
 */
export function nextPart(drawing: Drawing, from: string | undefined, direction: Direction): string | undefined {
  const at = from === undefined ? undefined : placeOfPart(drawing, from);
  if (!at) return drawing.symbols[0]?.part;
  let best: { part: string; cost: number } | undefined;
  for (const symbol of drawing.symbols) {
    if (symbol.part === from) continue;
    const to = middle(symbol.box);
    const [dx, dy] = [to.x - at.x, to.y - at.y];
    const ahead = direction === "right" ? dx : direction === "left" ? -dx : direction === "down" ? dy : -dy;
    const aside = Math.abs(direction === "left" || direction === "right" ? dy : dx);
    if (ahead <= 0.01 || aside > 2 * ahead) continue;
    const cost = ahead + 2 * aside;
    if (!best || cost < best.cost) best = { part: symbol.part, cost };
  }
  return best?.part ?? from;
}

/** A part, a test point or a node by what was typed, whatever its case: its name in the circuit file or as the trade writes it. */
export function findByName(circuit: Circuit, typed: string): { part: string } | { node: string } | undefined {
  const name = typed.trim().toLowerCase();
  if (name === "") return undefined;
  const part =
    circuit.elements.find((e) => fileName(e).toLowerCase() === name) ?? circuit.elements.find((e) => e.name.toLowerCase() === name);
  const point = circuit.points.find((p) => p.name.toLowerCase() === name);
  // "B1" is a point and hardly ever a part; "V1" alone is a tube of which there are halves.
  if (point && !part) return { node: point.node };
  if (part) return { part: fileName(part) };
  const half = circuit.elements.find((e) => e.name.toLowerCase() === `${name}a`);
  if (half) return { part: fileName(half) };
  const node = circuit.elements.flatMap((e) => e.nodes).find((n) => n === name);
  return node === undefined ? undefined : { node };
}
