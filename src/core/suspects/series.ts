/** The making that a part is of: parts of one making age alike. */

import type { Element } from "../circuit/circuit";

/** Parts of one making, which age alike: "paper capacitor", "EL84". Undefined where the file does not say what it is made of. */
export function seriesOf(e: Element): string | undefined {
  if (e.tube || e.rectifierTube) return e.type;
  const kind = e.notes.kind?.trim().toLowerCase();
  if (!kind) return undefined;
  return e.letter === "C" ? `${kind} capacitor` : e.letter === "R" ? `${kind} resistor` : undefined;
}
