/** Ratings and parameters of a part as changes write them: `C1.volts=500`, `R1.watts=5`, `P1.taper=linear`, `PS.rs=150`. */

import { parseQuantity } from "../quantity/parse";
import type { Unit } from "../quantity/unit";
import type { Element } from "./circuit";

/** Notes of resistors, capacitors, chokes and controls; a unit for what is a quantity. */
const NOTES: Record<string, Unit | "year" | "word"> = { volts: "V", watts: "W", year: "year", kind: "word", dcr: "Ω" };
/** Parameters that a part of a type may be given instead of its own. */
const PARAMETERS: Record<string, Record<string, Unit | "word">> = {
  POT: { taper: "word", value: "Ω" },
  RECT_FULL: { rs: "Ω", vac: "V" },
  RECT_BRIDGE: { rs: "Ω", vac: "V" },
  RECT_HALF: { rs: "Ω", vac: "V" },
  DOUBLER: { rs: "Ω", vac: "V" },
  OPT_SE: { zp: "Ω", load: "Ω", dcr: "Ω", lp: "H" as Unit },
  OPT_PP: { zpp: "Ω", load: "Ω", dcr: "Ω", dcr2: "Ω", lp: "H" as Unit },
};
const WORD = /^[a-z][a-z0-9-]{1,30}$/i;
const FIRST_YEAR = 1900;
const LAST_YEAR = 2100;

/** What of that part can be changed by a name behind a point; empty for a tube, whose pins are named there. */
export function changeableOf(e: Element): string[] {
  if (e.tube) return [];
  return [...("RCL".includes(e.letter) || e.type === "POT" ? Object.keys(NOTES) : []), ...Object.keys(PARAMETERS[e.type ?? ""] ?? {})];
}

/** The part with that rating or parameter; undefined where the text is none. */
export function withRating(e: Element, key: string, text: string): Element | undefined {
  const parameter = PARAMETERS[e.type ?? ""]?.[key];
  const unit = parameter ?? NOTES[key];
  if (unit === "word") {
    if (!WORD.test(text)) return undefined;
    return parameter ? { ...e, params: { ...e.params, [key]: text } } : { ...e, notes: { ...e.notes, [key]: text } };
  }
  if (unit === "year") {
    const year = Number(text);
    return Number.isInteger(year) && year >= FIRST_YEAR && year <= LAST_YEAR ? { ...e, notes: { ...e.notes, year } } : undefined;
  }
  const parsed = parseQuantity(text, { unit });
  if (!parsed.ok || !(parsed.quantity.value > 0)) return undefined;
  const { value } = parsed.quantity;
  // A control's ohms stand beside its parameters, as a resistor's do.
  if (e.type === "POT" && key === "value") return { ...e, value };
  return parameter ? { ...e, params: { ...e.params, [key]: value } } : { ...e, notes: { ...e.notes, [key]: value } };
}
