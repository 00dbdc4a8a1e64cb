/** What the inspection list is made from, and what an item of it is. */

import { envelopeOf, type Circuit, type Element } from "../circuit/circuit";
import type { Severity } from "../tape/events/words";

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

/** Envelopes of parts, each once, in words. */
export const namesOf = (list: readonly Element[]) => [...new Set(list.map((e) => envelopeOf(e.name)))].join(", ");
