/** Ohms as a technician types what the meter shows, its overload among them. */

import { parseQuantity } from "./parse";
import * as texts from "../texts/quantity";

/** What is typed for an ohmmeter's overload, and what is logged for it. */
const OVERLOAD = /^(ol|open|∞)$/i;
export const OPEN_OHMS = 1e9;

export const isOverload = (text: string) => OVERLOAD.test(text.trim());

/** The ohms, `OPEN_OHMS` for an overload; else why it cannot be read, with what is accepted. */
export function readOhms(text: string, decimal: "." | ","): number | string {
  if (isOverload(text)) return OPEN_OHMS;
  const parsed = parseQuantity(text, { unit: "Ω", decimal });
  if (!parsed.ok) return texts.acceptedOl(parsed.why, parsed.accepted);
  return parsed.quantity.value >= 0 ? parsed.quantity.value : texts.readAcceptedZeroMore(text);
}
