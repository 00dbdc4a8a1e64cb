/** What stands on a capacitor as somebody types it: size and rated volts, each in its field or both in the first, "16u 450V". */

import { parseQuantity } from "../quantity/parse";
import * as texts from "../texts/capacitor";

export type ReadMarking = { ok: true; farads: number; volts?: number } | { ok: false; why: string };

/**
 * @param size "32u", "0.022 MFD", "16u 450V". @param rated "450"; nothing where it stands in the size or cannot be read.
 * @param decimal sign of the shop.
 * @example readMarking("16u 450V", "", ".") // { ok: true, farads: 16e-6, volts: 450 }
 */
export function readMarking(size: string, rated: string, decimal: "." | ","): ReadMarking {
  const both = rated.trim() === "" ? /^(.*\S)\s+([\d.,]+)\s*V?$/i.exec(size.trim()) : null;
  const [farads, volts] = both ? [both[1]!, both[2]!] : [size, rated.trim()];
  const c = parseQuantity(farads, { unit: "F", decimal });
  if (!c.ok) return { ok: false, why: texts.sizeNotRead(c.why) };
  if (c.quantity.value < 1e-13 || c.quantity.value > 1) return { ok: false, why: texts.sizeOutside(c.quantity.echo) };
  if (volts === "") return { ok: true, farads: c.quantity.value };
  const v = parseQuantity(volts, { unit: "V", decimal });
  if (!v.ok) return { ok: false, why: texts.ratedNotRead(v.why) };
  if (v.quantity.value < 1 || v.quantity.value > 20_000) return { ok: false, why: texts.ratedOutside(v.quantity.echo) };
  return { ok: true, farads: c.quantity.value, volts: v.quantity.value };
}
