/** What to look at before anything is measured, from the amp's own features and age, with the finding that each would make. */

import type { Circuit } from "../circuit/circuit";
import { INSPECTION_GROUPS, type Claimed, type Inspected, type InspectionItem } from "./inspected";
import { insideItems } from "./inspection-inside";
import { mainsItems } from "./inspection-mains";
import { aroundItems } from "./inspection-around";
import * as texts from "../texts/inspection";

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
    by: age === undefined ? texts.ageNotKnown() : texts.aboutYearsOld(age),
    old: (years) => age === undefined || age >= years,
    add: (id, group, place, look, why, text, severity, action) =>
      void out.push({ id, group, place, look, why, finding: { text, severity, action } }),
  };
  mainsItems(inspected);
  insideItems(inspected);
  aroundItems(inspected, claims);
  return out.sort((a, b) => INSPECTION_GROUPS.indexOf(a.group) - INSPECTION_GROUPS.indexOf(b.group));
}

/** Latest year that the circuit file knows: of the model, or of a part. */
function latestYear(circuit: Circuit | undefined): number | undefined {
  const to = Number(circuit?.facts.to ?? circuit?.facts.year);
  if (to > 0) return to;
  const years = (circuit?.elements ?? []).flatMap((e) => e.notes.year ?? []);
  return years.length > 0 ? Math.max(...years) : undefined;
}
