/** Points of a data sheet as they are typed: `Va / Vg2 / Vg: Ia + Ig2, gm`, one a line; a triode has no Vg2 and no Ig2. */

import type { SheetData, SheetPoint } from "./sheet-points";

export const SHEET_EXAMPLE = "250 / 250 / -12.5: 45 + 4.5, 4.1";

/** Grid current scales of the model where a sheet says nothing: output tubes draw more. */
const KGRID_PENTODE = 900;
const KGRID_TRIODE = 2000;

const LINE = /^\s*([\d.]+)\s*\/\s*(?:([\d.]+)\s*\/\s*)?([-−+]?[\d.]+)\s*:\s*([\d.]+)\s*(?:\+\s*([\d.]+)\s*)?(?:,\s*([\d.]+)\s*)?$/;

/** The sheet, or what is wrong with what was typed. Volts, milliamperes, mA/V. */
export function readSheet(name: string, mu: string, text: string): { data: SheetData } | { problem: string } {
  if (!/^[A-Za-z0-9][\w-]*$/.test(name)) return { problem: `A type name is wanted, such as 6CB5A; read ${name || "nothing"}.` };
  if (!(Number(mu) > 0)) return { problem: `µ above zero is wanted (of grid 2 for a pentode); read ${mu || "nothing"}.` };
  const points: SheetPoint[] = [];
  for (const line of text.split("\n").filter((l) => l.trim())) {
    const m = LINE.exec(line);
    if (!m) return { problem: `“${line.trim()}” is no point. Accepted: ${SHEET_EXAMPLE}` };
    const number = (s: string | undefined) => (s === undefined ? undefined : Number(s.replace("−", "-")));
    points.push({ va: number(m[1])!, vg2: number(m[2]), vg: number(m[3])!, ia: number(m[4])!, ig2: number(m[5]), gm: number(m[6]) });
  }
  if (points.length === 0) return { problem: `At least one point of the sheet is wanted, such as ${SHEET_EXAMPLE}` };
  const screens = points.filter((p) => p.vg2 !== undefined).length;
  if (screens !== 0 && screens !== points.length) return { problem: "Either all points have a screen voltage or none." };
  return { data: { type: name.toUpperCase(), mu: Number(mu), kgrid: screens ? KGRID_PENTODE : KGRID_TRIODE, points } };
}
