/** What was settled, laid on a circuit or written into its file. */

import { type Circuit, type Element } from "../circuit/circuit";
import { setFact, setNote, setValue } from "../circuit/edit-line";
import { readCircuit } from "../circuit/read";
import { spiceNumber } from "../circuit/write";
import type { Fitted, Settled } from "./settle";

const partsOf = (f: Pick<Fitted, "part">) => f.part.split(" ");
/** Four figures are more than any chart tells. */
const rounded = (value: number) => Number(value.toPrecision(4));

/** The circuit with the settled values, to be solved; the one given stays as it is. */
export function withSettled(circuit: Circuit, settled: Pick<Settled, "fitted">): Circuit {
  const elements = circuit.elements.map((e) => settled.fitted.filter((f) => partsOf(f).includes(e.name)).reduce(applied, e));
  return { ...circuit, elements };
}

function applied(e: Element, f: Fitted): Element {
  const after = rounded(f.after);
  if (f.what === "strength") return { ...e, notes: { ...e.notes, strength: after } };
  if (f.key === "@dcr") return { ...e, notes: { ...e.notes, dcr: after } };
  if (f.key === undefined) return { ...e, value: after };
  // Both halves of a primary move together.
  const params: Element["params"] = { ...e.params, [f.key]: after };
  if (f.key === "dcr" && typeof e.params.dcr2 === "number") params.dcr2 = rounded((e.params.dcr2 * f.after) / f.before);
  return { ...e, params };
}

/** The file with the settled values in their lines, marked as settled, and on what; every other byte stays. */
export function writeSettled(text: string, settled: Pick<Settled, "fitted">, on: string): string {
  let out = text;
  // Read from this very text: lines are found by their numbers.
  const { circuit } = readCircuit(text);
  for (const f of settled.fitted)
    for (const e of circuit.elements.filter((x) => partsOf(f).includes(x.name) && (f.what !== "strength" || x.tube))) {
      const after = spiceNumber(rounded(f.after));
      if (f.what === "strength") out = setNote(out, e.line, "strength", after);
      else if (f.key === "@dcr") out = setNote(out, e.line, "dcr", after);
      else out = setValue(out, e, after, e.notes.prov === "seen" ? undefined : "settled", f.key);
      if (f.key === "dcr" && typeof e.params.dcr2 === "number")
        out = setValue(out, e, spiceNumber(rounded((e.params.dcr2 * f.after) / f.before)), undefined, "dcr2");
    }
  return setFact(out, "settled", on);
}
