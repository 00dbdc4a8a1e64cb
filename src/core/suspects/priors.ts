/** How likely each kind of fault is before anything is measured: by kind of part, its age, and what is known of it. */

import type { Element } from "../circuit/circuit";

export type FaultKind =
  | "none"
  | "resistor open"
  | "resistor high"
  | "resistor low"
  | "electrolytic leaky"
  | "electrolytic shorted"
  | "electrolytic open"
  | "coupling leaky"
  | "coupling shorted"
  | "coupling open"
  | "tube weak"
  | "tube dead"
  | "tube gassy"
  | "heater-cathode leak"
  | "tube shorted"
  | "heater open"
  | "pin open"
  | "winding open"
  | "rectifier weak"
  | "rectifier half"
  | "rectifier dead"
  | "wiper open"
  | "switch open"
  | "board leak"
  | "can lifted"
  | "electrolytic low"
  | "wrong value"
  | "wrong tube"
  | "tubes swapped"
  | "miswired socket"
  | "shorted turns"
  | "mains"
  | "unknown"
  | "pair";

/** Relative weights for a part of middling age; only their proportions matter. Scutum's own, to be moved by what a shop sees. */
const WEIGHT: Record<FaultKind, number> = {
  none: 0,
  "resistor open": 4,
  "resistor high": 6,
  "resistor low": 0.15,
  "electrolytic leaky": 10,
  "electrolytic shorted": 2,
  "electrolytic open": 6,
  "coupling leaky": 8,
  "coupling shorted": 1,
  "coupling open": 1.5,
  "tube weak": 12,
  "tube dead": 5,
  "tube gassy": 4,
  "heater-cathode leak": 2,
  "tube shorted": 1.5,
  "heater open": 4,
  "pin open": 1,
  "winding open": 2,
  "rectifier weak": 6,
  "rectifier half": 2,
  "rectifier dead": 4,
  "wiper open": 2,
  "switch open": 3,
  "board leak": 1.5,
  "can lifted": 1.5,
  "electrolytic low": 8,
  "wrong value": 0.25,
  "wrong tube": 1.5,
  "tubes swapped": 0.5,
  "miswired socket": 0.3,
  "shorted turns": 0.7,
  mains: 40,
  unknown: 0,
  pair: 0,
};

/** A part of this year or later counts as new, one of this year or before as old. */
const NEW_YEAR = 2005;
const OLD_YEAR = 1975;

/** Weight of a fault of that kind in that part. */
export function priorOf(kind: FaultKind, e: Element | undefined): number {
  let weight = WEIGHT[kind];
  const material = e?.notes.kind ?? "";
  if (kind.startsWith("coupling")) {
    if (material === "paper") weight *= 3;
    else if (/mica|ceramic/.test(material)) weight *= 0.2;
    else if (/poly|film/.test(material)) weight *= 0.4;
  }
  if (kind.startsWith("resistor")) {
    if (material === "wirewound") weight *= kind === "resistor high" ? 0.3 : 1;
    else if (/metal/.test(material)) weight *= 0.2;
  }
  const year = e?.notes.year;
  if (year !== undefined && /electrolytic|coupling|resistor/.test(kind)) weight *= year >= NEW_YEAR ? 0.15 : year <= OLD_YEAR ? 1.5 : 1;
  return weight;
}

/** Chance that an amp on the bench shows nothing that a meter would find. */
export const NOTHING_WRONG_CHANCE = 0.4;
/** Chance of something that is on no list. */
export const UNKNOWN_CHANCE = 0.03;
/** Chance of two faults at once, shared out over the pairs that are tried. */
export const PAIR_CHANCE = 0.08;
