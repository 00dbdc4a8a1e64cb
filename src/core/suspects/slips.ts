/** Why a reading that fits nothing may be what it is: the range, the leads, the pin beside. */

import { envelopeOf } from "../circuit/circuit";
import type { Column } from "./columns";
import type { Weighed } from "./posterior";
import type { FaultTable } from "./table";
import * as texts from "../texts/suspects";

/** Two figures are the same within this part, or these volts. */
const SAME_PART = 0.06;
const SAME_VOLTS = 0.05;
const same = (a: number, b: number) => Math.abs(a - b) <= Math.max(SAME_PART * Math.abs(b), SAME_VOLTS);
/** Below this everything looks like everything. */
const LEAST_VOLTS = 0.3;

/** @param top the explanation that leaves the reading over. @returns a sentence, or undefined where no slip of the hand gives this figure. */
export function slipWords(table: FaultTable, top: Weighed, column: Column, index: number): string | undefined {
  const { evidence, y } = column;
  if (evidence?.kind !== "dcv") return undefined;
  const expected = top.mean[index]!;
  if (!Number.isFinite(expected)) return undefined;
  const telling = Math.abs(y) > LEAST_VOLTS || Math.abs(expected) > LEAST_VOLTS;
  if (telling && same(y, 1000 * expected)) return texts.fitsMillivoltsMeterMay();
  if (telling && same(1000 * y, expected)) return texts.fitsVoltsReadMillivolts();
  if (Math.abs(y) > LEAST_VOLTS && same(-y, expected)) return texts.fitsOtherSignLeads();
  if (Math.abs(y) < LEAST_VOLTS || top.line < 0) return undefined;
  const tube = (name: string) => envelopeOf(name.split(".")[0]!.toUpperCase());
  const volts = table.shown(evidence.conditions)[top.line]!.volts;
  const beside = table.points.find((p, i) => p !== evidence.point && tube(p) === tube(evidence.point) && same(y, volts[i]!));
  return beside && texts.whatShouldShowProbe(beside);
}
