/** What is written beside a part, short enough for the sheet. */

import { fileName, type Element } from "../circuit/circuit";
import { markedValue } from "../circuit/part-place";
import { textWidth } from "./geometry";

/** Longer names and values are cut here; the whole of it stands in the list beside the drawing. */
const LONGEST = 12;

export const cut = (text: string): string => (text.length > LONGEST ? `${text.slice(0, LONGEST - 1)}…` : text);

const UNITS = { R: "Ω", C: "F", L: "H", V: "V", I: "A" } as const;

/** The value as the trade writes it on a drawing: "100 k", "180 Ω", "22 nF". */
export function shortValue(e: Element): string | undefined {
  if (e.tube) return e.type;
  if (e.letter === "K") return `${e.params.first} ${e.params.second}`;
  if (e.type === "POT") return ohms(e.value ?? 0);
  if (e.type === "SW") return e.params.state === "open" ? "open" : "closed";
  if (e.letter === "D") return e.type;
  if (e.letter === "X") return e.rectifierTube?.type;
  if (e.value === undefined) return undefined;
  return e.letter === "R" ? ohms(e.value) : markedValue(e.value, UNITS[e.letter as "C"]);
}

const ohms = (value: number): string => markedValue(value, "Ω").replace(/([kMG])Ω$/, "$1");

/** Name and value, each on its line. */
export function labelLines(e: Element): string[] {
  const value = shortValue(e);
  const winding = typeof e.params.vac === "number" ? `${markedValue(e.params.vac, "V")} ~` : undefined;
  return [e.name, value, winding].filter((line) => line !== undefined && line !== "").map((line) => cut(line!));
}

export const labelWidth = (lines: readonly string[]): number => Math.max(...lines.map(textWidth));

export const idOf = fileName;
