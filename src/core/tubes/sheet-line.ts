/**
 * Points of a data sheet as they are typed: `Va / Vg2 / Vg: Ia + Ig2, gm`, one a line; a triode has no Vg2 and no Ig2.
 * In a shop that writes 12,5 a semicolon stands before gm.
 */

import { language, typedNumber } from "../language/language";
import type { SheetData, SheetPoint } from "./sheet-points";
import * as texts from "../texts/tubes";

const EXAMPLE = "250 / 250 / -12.5: 45 + 4.5, 4.1";

/** A point of a sheet as this shop writes it. */
export const sheetExample = () => (language().decimal === "," ? EXAMPLE.replace(",", ";").replaceAll(".", ",") : EXAMPLE);

/** A line as LINE has it, whichever decimal sign this shop writes. */
const withPoints = (line: string) => (language().decimal === "," ? line.replaceAll(",", ".").replaceAll(";", ",") : line);

/** Grid current scales of the model where a sheet says nothing: output tubes draw more. */
const KGRID_PENTODE = 900;
const KGRID_TRIODE = 2000;

const LINE = /^\s*([\d.]+)\s*\/\s*(?:([\d.]+)\s*\/\s*)?([-−+]?[\d.]+)\s*:\s*([\d.]+)\s*(?:\+\s*([\d.]+)\s*)?(?:,\s*([\d.]+)\s*)?$/;

/** The sheet, or what is wrong with what was typed. Volts, milliamperes, mA/V. */
export function readSheet(name: string, mu: string, text: string): { data: SheetData } | { problem: string } {
  if (!/^[A-Za-z0-9][\w-]*$/.test(name)) return { problem: texts.typeNameWantedSuch(name || "nothing") };
  if (!(typedNumber(mu) > 0)) return { problem: texts.aboveZeroWantedGrid(mu || "nothing") };
  const points: SheetPoint[] = [];
  for (const line of text.split("\n").filter((l) => l.trim())) {
    const m = LINE.exec(withPoints(line));
    if (!m) return { problem: texts.noPointAccepted(line.trim(), sheetExample()) };
    const number = (s: string | undefined) => (s === undefined ? undefined : Number(s.replace("−", "-")));
    points.push({ va: number(m[1])!, vg2: number(m[2]), vg: number(m[3])!, ia: number(m[4])!, ig2: number(m[5]), gm: number(m[6]) });
  }
  if (points.length === 0) return { problem: texts.leastOnePointSheet(sheetExample()) };
  const screens = points.filter((p) => p.vg2 !== undefined).length;
  if (screens !== 0 && screens !== points.length) return { problem: texts.eitherAllPointsHave() };
  return { data: { type: name.toUpperCase(), mu: typedNumber(mu), kgrid: screens ? KGRID_PENTODE : KGRID_TRIODE, points } };
}
