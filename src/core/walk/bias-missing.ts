/** A bias that is missing, as it is read on the live amp: nothing is to be read then, but to be switched off. */

import { verdictOf } from "../expectation/expectation";
import * as texts from "../texts/walk";
import type { WalkRow } from "./walk";

/** Whether a reading of a point says that the bias is missing or low. @param volts as read. */
export function biasMissing(row: Pick<WalkRow, "role" | "expected">, volts: number): boolean {
  const { role, expected } = row;
  return role === "bias" && expected !== undefined && verdictOf(volts, expected) === "out" && Math.abs(volts) < Math.abs(expected.low);
}

/** What is to be done then. @param label of the point. */
export const switchOffWithoutBias = (label: string): string => texts.biasIsMissing(label);
