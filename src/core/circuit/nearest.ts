/** Which amp of a library comes nearest to one that has no drawing: by the tubes in it. */

import { isRectifier } from "./special-parts";
import { envelopeOf, type Circuit } from "./circuit";
import { findTubeType } from "../tubes/library";

/** Types of the envelopes of an amp, each as often as it is there: ["12AX7", "EL84", "EZ80"]. */
export function complementOf(circuit: Circuit): string[] {
  const envelopes = new Map<string, string>();
  for (const e of circuit.elements) {
    if (e.tube) envelopes.set(envelopeOf(e.name), e.type!);
    else if (isRectifier(e.type) && e.rectifierTube) envelopes.set(e.name, e.rectifierTube.type);
  }
  return [...envelopes.values()].sort();
}

/** Names of the envelopes that can be taken out of their sockets, rectifier tubes too: ["V1", "V2", "V3"]. */
export function removableTubes(circuit: Circuit): string[] {
  const names = circuit.elements.flatMap((e) => (e.tube ? [envelopeOf(e.name)] : e.rectifierTube ? [e.name] : []));
  return [...new Set(names)].sort((a, b) => a.localeCompare(b, "en", { numeric: true }));
}

/** Shown as the trade writes it: "2 × 6V6GT, 12AX7". */
export function complementWords(types: readonly string[]): string {
  const counts = new Map<string, number>();
  for (const t of types) counts.set(t, (counts.get(t) ?? 0) + 1);
  return [...counts].map(([type, n]) => (n > 1 ? `${n} × ${type}` : type)).join(", ");
}

/** Reads "2 x 6V6, ECC83 5Y3": types by any of their names; what is no type is left out and named. */
export function readComplement(typed: string): { types: string[]; unknown: string[] } {
  const types: string[] = [];
  const unknown: string[] = [];
  for (const [, count, name = ""] of typed.matchAll(/(?:(\d)\s*[x×*]\s*)?([A-Za-z0-9]+)/g)) {
    const type = findTubeType(name);
    if (!type) unknown.push(name);
    else for (let k = 0; k < Number(count ?? 1); k++) types.push(type.type);
  }
  return { types: types.sort(), unknown };
}

/** Likeness of two complements, 0 to 1: tubes in common over tubes in either. Output tubes and rectifiers count like the rest. */
export function likeness(a: readonly string[], b: readonly string[]): number {
  const left = [...b];
  let common = 0;
  for (const t of a) {
    const at = left.indexOf(t);
    if (at < 0) continue;
    left.splice(at, 1);
    common++;
  }
  const all = a.length + b.length - common;
  return all === 0 ? 0 : common / all;
}
