/** A new capacitor or resistor as somebody writes it down, "22 nF 630 V polypropylene": read, checked in its place, put into the circuit. */

import type { Circuit, Element } from "../circuit/circuit";
import { spiceNumber } from "../circuit/write";
import { parseQuantity } from "../quantity/parse";
import * as texts from "../texts/capacitor";
import type { PartCheck } from "./check";
import { fittedSet } from "./kit";
import type { KnownCapacitor } from "./known";
import { placeNeeds } from "./place-needs";
import type { CapacitorStress } from "./stress";
import { checkCapacitor, type CapacitorOffer } from "./substitute-capacitor";
import { checkResistor, RESISTOR_KINDS, shouldFailOpen, type ResistorOffer } from "./substitute-resistor";

export type TypedPart = { letter: "C"; offer: CapacitorOffer } | { letter: "R"; offer: ResistorOffer };

export type ReadPart = { ok: true; part: TypedPart } | { ok: false; why: string };

const CAPACITOR_KINDS = ["electrolytic", "polypropylene", "polyester", "film", "paper", "mica", "ceramic", "tantalum"];

/** The first number with that unit in a text. */
function figureWith(text: string, unit: string): number | undefined {
  const match = new RegExp(`(\\d+(?:[.,]\\d+)?)\\s*${unit}(?![\\p{L}\\d])`, "iu").exec(text);
  return match ? Number(match[1]!.replace(",", ".")) : undefined;
}

/**
 * The value comes first; of a capacitor the volts have to be named, of a resistor the watts: without them nothing can be checked.
 * @param decimal sign of the shop.
 */
export function readTypedPart(letter: "C" | "R", text: string, decimal: "." | ","): ReadPart {
  // "22 nF" and "22nF"; "4k7" and "4.7 kΩ".
  const first = /^\s*(\S+(?:\s*(?:[pnuµμmkM]?(?:F|[ΩΩ]|ohms?)|MFD|mmf))?)/u.exec(text)?.[1] ?? "";
  const value = [first, text.trim().split(/\s+/)[0] ?? ""]
    .map((t) => parseQuantity(t, { unit: letter === "C" ? "F" : "Ω", decimal }))
    .find((p) => p.ok);
  if (!value?.ok || !(value.quantity.value > 0)) return { ok: false, why: texts.valueNotRead() };
  const lower = text.toLowerCase();
  if (letter === "C") {
    const volts = figureWith(text, "V");
    if (volts === undefined) return { ok: false, why: texts.voltsNotNamed() };
    const celsius = figureWith(text, "°?C");
    const hours = figureWith(text, "h");
    const kind = CAPACITOR_KINDS.find((k) => lower.includes(k)) ?? "";
    if (kind === "") return { ok: false, why: texts.kindNotNamed() };
    return {
      ok: true,
      part: { letter, offer: { farads: value.quantity.value, volts, kind, ...(celsius ? { celsius } : {}), ...(hours ? { hours } : {}) } },
    };
  }
  const watts = figureWith(text, "W");
  if (watts === undefined) return { ok: false, why: texts.wattsNotNamed() };
  // "metal-oxide" before "carbon" would find it in neither; the longest name that is there.
  const kind = [...RESISTOR_KINDS].sort((a, b) => b.length - a.length).find((k) => lower.replace(/[\s-]+/g, "-").includes(k)) ?? "";
  if (kind === "") return { ok: false, why: texts.kindNotNamed() };
  return { ok: true, part: { letter, offer: { ohms: value.quantity.value, watts, kind } } };
}

/** What bears on the place: of a capacitor its stress, of a resistor the watts in it and the volts across it with the mains up a tenth. */
export interface PlaceBears {
  known?: KnownCapacitor;
  stress?: CapacitorStress;
  born?: { watts?: number; volts: number };
}

/** @returns undefined as long as what bears on the place is not solved. */
export function checkTypedPart(
  circuit: Circuit,
  e: Element,
  part: TypedPart,
  { known, stress, born }: PlaceBears,
): PartCheck[] | undefined {
  if (part.letter === "C")
    return known && (stress || known.role.safety) ? checkCapacitor(placeNeeds(circuit, known, stress), part.offer) : undefined;
  if (!born || e.value === undefined) return undefined;
  const needs = {
    name: e.name,
    ohms: e.value,
    tol: e.notes.tol ?? 0.1,
    watts: born.watts ?? 0,
    volts: born.volts,
    failOpen: shouldFailOpen(circuit, e),
  };
  return checkResistor(needs, part.offer);
}

/** The part in the engine's words. @param year in which it is fitted. */
export const typedSet = (name: string, part: TypedPart, year: number): string[] =>
  part.letter === "C"
    ? fittedSet(name, part.offer, year)
    : [
        `${name}=${spiceNumber(part.offer.ohms)}`,
        `${name}.watts=${part.offer.watts}`,
        `${name}.kind=${part.offer.kind}`,
        `${name}.year=${year}`,
      ];
