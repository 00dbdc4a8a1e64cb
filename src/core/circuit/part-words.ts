/** A part of the circuit in the words of a parts list. */

import type { Element } from "./circuit";
import { formatQuantity } from "../quantity/format";
import type { Unit } from "../quantity/unit";

/** What the circuit says of a part, as a parts list would: "22 nF 400 V paper". */
export function describePart(part: Element | undefined): string | undefined {
  if (!part) return undefined;
  const unit: Unit | undefined =
    part.letter === "R" || part.type === "POT" ? "Ω" : part.letter === "C" ? "F" : part.letter === "L" ? "H" : undefined;
  const words = [
    part.value !== undefined && unit ? formatQuantity(part.value, unit, 2).replace(".0 ", " ") : part.type,
    part.notes.watts ? `${part.notes.watts} W` : undefined,
    part.notes.volts ? `${part.notes.volts} V` : undefined,
    part.notes.kind,
  ];
  return words.filter(Boolean).join(" ");
}
