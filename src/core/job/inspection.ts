/** What to look at before anything is measured, from the amp's own features and age, with the finding that each would make. */

import { envelopeOf, type Circuit, type Element } from "../circuit/circuit";
import type { Severity } from "./events/words";
import { insideItems } from "./inspection-inside";
import { mainsItems } from "./inspection-mains";
import { aroundItems } from "./inspection-around";

export const INSPECTION_GROUPS = [
  "mains",
  "heat and damage",
  "capacitors",
  "tubes",
  "joints and sockets",
  "earlier work",
  "mechanical",
] as const;
export type InspectionGroup = (typeof INSPECTION_GROUPS)[number];

export interface InspectionItem {
  /** Stable, so that an answer stays with it: "paper-caps". */
  id: string;
  group: InspectionGroup;
  place: string;
  /** What to look for, as an instruction. */
  look: string;
  /** Why this amp has it on its list. */
  why: string;
  /** The finding to draft when it is found. */
  finding: { text: string; severity: Severity; action: string };
}

export interface Claimed {
  text: string;
  year?: number;
}

/** What the lists are made from. */
export interface Inspected {
  circuit?: Circuit;
  parts: Element[];
  /** Year now, and year by which it was made at the latest, when known. */
  today: number;
  year?: number;
  /** Its age in words. */
  by: string;
  /** True from that many years on, and when its age is not known. */
  old(years: number): boolean;
  add(id: string, group: InspectionGroup, place: string, look: string, why: string, text: string, severity: Severity, action: string): void;
}

/**
 * The list for an amp.
 * @param today year now. @param made year by which the amp was made at the latest, when known.
 */
export function inspectionList(
  circuit: Circuit | undefined,
  today: number,
  made: number | undefined,
  claims: readonly Claimed[] = [],
): InspectionItem[] {
  const year = made ?? latestYear(circuit);
  const age = year === undefined ? undefined : today - year;
  const out: InspectionItem[] = [];
  const inspected: Inspected = {
    circuit,
    parts: circuit?.elements ?? [],
    today,
    year,
    by: age === undefined ? "age not known" : `about ${age} years old`,
    old: (years) => age === undefined || age >= years,
    add: (id, group, place, look, why, text, severity, action) =>
      void out.push({ id, group, place, look, why, finding: { text, severity, action } }),
  };
  mainsItems(inspected);
  insideItems(inspected);
  aroundItems(inspected, claims);
  return out.sort((a, b) => INSPECTION_GROUPS.indexOf(a.group) - INSPECTION_GROUPS.indexOf(b.group));
}

/** Envelopes of parts, each once, in words. */
export const namesOf = (list: readonly Element[]) => [...new Set(list.map((e) => envelopeOf(e.name)))].join(", ");

/** Latest year that the circuit file knows: of the model, or of a part. */
function latestYear(circuit: Circuit | undefined): number | undefined {
  const to = Number(circuit?.facts.to ?? circuit?.facts.year);
  if (to > 0) return to;
  const years = (circuit?.elements ?? []).flatMap((e) => e.notes.year ?? []);
  return years.length > 0 ? Math.max(...years) : undefined;
}
