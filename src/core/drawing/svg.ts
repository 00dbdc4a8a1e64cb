/** A drawing as an SVG file of its own, black on white, for other programs and for paper. */

import type { Circuit } from "../circuit/circuit";
import { TEXT_HEIGHT, type Drawing } from "./geometry";
import { markStrokes, markTextAt, strokesOf, type School, type Stroke } from "./strokes";

const ESCAPES: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };
const text = (value: string) => value.replace(/[&<>"]/g, (c) => ESCAPES[c]!);
const round = (value: number) => Math.round(value * 100) / 100;

/** Millimetres of a unit where the sheet is printed at its own size. */
const UNIT_MM = 1.6;

/** @param notes lines beside a node with a test point, the first one bold: its volts. */
export function svgOf(drawing: Drawing, circuit: Circuit, school: School, notes: Readonly<Record<string, readonly string[]>>): string {
  const { width, height } = drawing;
  const out: string[] = [];
  const write = (value: string, x: number, y: number, size: number, more = "") =>
    out.push(`<text x="${round(x)}" y="${round(y)}" font-size="${size}" ${more}>${text(value)}</text>`);
  const strokes = (list: Stroke[]) => {
    for (const s of list)
      out.push(`<path d="${s.d}" fill="${s.filled ? "#000" : "none"}" stroke="#000"${s.dashed ? ' stroke-dasharray="0.5 0.35"' : ""}/>`);
  };
  for (const w of drawing.wires)
    out.push(`<path d="M${round(w.from.x)} ${round(w.from.y)}L${round(w.to.x)} ${round(w.to.y)}" stroke="#000" fill="none"/>`);
  for (const s of drawing.symbols) {
    out.push(`<g id="${text(s.part)}">`);
    strokes(strokesOf(s, circuit, school));
    out.push("</g>");
  }
  for (const j of drawing.junctions) out.push(`<circle cx="${round(j.at.x)}" cy="${round(j.at.y)}" r="0.32" stroke="none"/>`);
  out.push('<g stroke="none">');
  for (const s of drawing.sections) write(s.title, s.box.x, s.box.y + 1.6, 1.8, 'font-weight="bold"');
  for (const l of drawing.labels) {
    const x = l.align === "start" ? l.box.x : l.align === "end" ? l.box.x + l.box.width : l.box.x + l.box.width / 2;
    l.lines.forEach((line, i) =>
      write(line, x, l.box.y + TEXT_HEIGHT * (i + 0.8), TEXT_HEIGHT, `text-anchor="${l.align}"${i === 0 ? ' font-weight="bold"' : ""}`),
    );
  }
  for (const tag of drawing.tags)
    (notes[tag.node] ?? [])
      .slice(0, 2)
      .forEach((line, i) => write(line, tag.box.x + 0.4, tag.box.y + 1.3 + i * 1.5, 1.4, i === 0 ? 'font-weight="bold"' : ""));
  for (const s of drawing.symbols)
    if (s.shape === "triode" || s.shape === "pentode")
      for (const p of s.pins)
        if (p.text) write(p.text, p.at.x + (p.at.x > s.at.x ? -0.7 : 0.15), p.at.y + (p.at.y < s.at.y ? 1 : -0.25), 1);
  out.push("</g>");
  for (const m of drawing.marks) {
    strokes(markStrokes(m));
    const at = markTextAt(m);
    if (m.text) write(m.text, at.x, at.y + 0.45, TEXT_HEIGHT * 0.9, 'text-anchor="middle" stroke="none"');
  }
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${round(width)} ${round(height)}" width="${round(width * UNIT_MM)}mm" height="${round(height * UNIT_MM)}mm" font-family="B612, 'DejaVu Sans', sans-serif" stroke-width="0.16" stroke-linecap="round">`,
    `<title>${text(circuit.title)}</title>`,
    `<rect width="100%" height="100%" fill="#fff" stroke="none"/>`,
    ...out,
    "</svg>",
  ].join("\n");
}
