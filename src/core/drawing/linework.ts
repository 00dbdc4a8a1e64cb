/** A drawing as nothing but paths and texts, black on white: for SVG, PDF and the report. */

import type { Circuit } from "../circuit/circuit";
import { overlap, TEXT_HEIGHT, type Box, type Drawing } from "./geometry";
import { markStrokes, strokesOf, type School, type Stroke } from "./strokes";
import { labelX, markTextAt, pinTextAt, type Anchor } from "./text-places";

export interface Text {
  text: string;
  x: number;
  /** Of the line that the letters stand on. */
  y: number;
  size: number;
  anchor: Anchor;
  bold?: boolean;
}

/** In the drawing's units; `view` is the part of it that is to be seen. */
export interface Linework {
  view: Box;
  strokes: Stroke[];
  texts: Text[];
}

/** Lines beside a node with a test point, the first one bold: its volts. */
export type NodeLines = Readonly<Record<string, readonly string[]>>;

const round = (value: number) => Math.round(value * 100) / 100;
/** Height of the line through an axis that is grown so that a level wire has an inside. */
const THIN = 0.1;

/** @param part of the drawing that is wanted, all of it unless given. */
export function lineworkOf(drawing: Drawing, circuit: Circuit, school: School, notes: NodeLines, part?: Box): Linework {
  const view = part ?? { x: 0, y: 0, width: drawing.width, height: drawing.height };
  const seen = (box: Box) => overlap(view, box);
  // A neighbour that would be cut through is left out; its wires lead to the edge.
  const whole = (box: Box) =>
    box.x >= view.x && box.y >= view.y && box.x + box.width <= view.x + view.width && box.y + box.height <= view.y + view.height;
  const strokes: Stroke[] = [];
  const texts: Text[] = [];
  const write = (text: string, x: number, y: number, size: number, anchor: Text["anchor"] = "start", bold?: boolean) =>
    texts.push({ text, x: round(x), y: round(y), size, anchor, ...(bold ? { bold } : {}) });

  for (const { from, to } of drawing.wires) {
    const box = {
      x: Math.min(from.x, to.x) - THIN,
      y: Math.min(from.y, to.y) - THIN,
      width: Math.abs(to.x - from.x) + 2 * THIN,
      height: Math.abs(to.y - from.y) + 2 * THIN,
    };
    if (seen(box)) strokes.push({ d: `M${round(from.x)} ${round(from.y)}L${round(to.x)} ${round(to.y)}` });
  }
  for (const { at } of drawing.junctions) {
    const r = 0.3;
    if (seen({ x: at.x - r, y: at.y - r, width: 2 * r, height: 2 * r }))
      strokes.push({
        d: `M${round(at.x - r)} ${round(at.y)}A${r} ${r} 0 1 0 ${round(at.x + r)} ${round(at.y)}A${r} ${r} 0 1 0 ${round(at.x - r)} ${round(at.y)}`,
        filled: true,
      });
  }
  for (const s of drawing.symbols) {
    if (!whole(s.box)) continue;
    strokes.push(...strokesOf(s, circuit, school));
    for (const p of s.pins) {
      const { x, y, anchor } = pinTextAt(s, p);
      if (p.text) write(p.text, x, y, 1, anchor);
    }
  }
  for (const m of drawing.marks) {
    if (!whole(m.box)) continue;
    strokes.push(...markStrokes(m));
    const at = markTextAt(m);
    if (m.text) write(m.text, at.x, at.y + 0.45, TEXT_HEIGHT * 0.9, "middle");
  }
  for (const s of drawing.sections) if (whole({ ...s.box, height: 2 })) write(s.title, s.box.x, s.box.y + 1.6, 1.8, "start", true);
  for (const l of drawing.labels) {
    if (!whole(l.box)) continue;
    l.lines.forEach((line, i) => write(line, labelX(l), l.box.y + TEXT_HEIGHT * (i + 0.8), TEXT_HEIGHT, l.align, i === 0));
  }
  for (const tag of drawing.tags)
    if (whole(tag.box))
      (notes[tag.node] ?? [])
        .slice(0, 2)
        .forEach((line, i) => write(line, tag.box.x + 0.4, tag.box.y + 1.3 + i * 1.5, 1.4, "start", i === 0));
  return { view, strokes, texts };
}
