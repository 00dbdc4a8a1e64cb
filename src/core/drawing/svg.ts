/** A drawing as an SVG file of its own, black on white, for other programs and for paper. */

import type { Linework } from "./linework";

const ESCAPES: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };
const escaped = (value: string) => value.replace(/[&<>"]/g, (c) => ESCAPES[c]!);

/** Millimetres of a unit where the sheet is printed at its own size. */
const UNIT_MM = 1.6;

/** @param title what programs show as the picture's name. */
export function svgOf({ view, strokes, texts }: Linework, title: string): string {
  const mm = (units: number) => `${Math.round(units * UNIT_MM * 10) / 10}mm`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${view.x} ${view.y} ${view.width} ${view.height}" width="${mm(view.width)}" height="${mm(view.height)}" font-family="B612, 'DejaVu Sans', sans-serif">`,
    `<title>${escaped(title)}</title>`,
    `<rect x="${view.x}" y="${view.y}" width="${view.width}" height="${view.height}" fill="#fff"/>`,
    '<g stroke="#000" stroke-width="0.16" stroke-linecap="round">',
    ...strokes.map((s) => `<path d="${s.d}" fill="${s.filled ? "#000" : "none"}"${s.dashed ? ' stroke-dasharray="0.5 0.35"' : ""}/>`),
    "</g>",
    ...texts.map(
      (t) =>
        `<text x="${t.x}" y="${t.y}" font-size="${t.size}"${t.anchor === "start" ? "" : ` text-anchor="${t.anchor}"`}${t.bold ? ' font-weight="bold"' : ""}>${escaped(t.text)}</text>`,
    ),
    "</svg>",
    "",
  ].join("\n");
}
