/** The note at a node in words, for who does not see the drawing. */

import { VERDICT_WORD } from "@/core/expectation/expectation";
import type { NodeNote } from "./layer";

/** @example layerWords({ expected: "185 V", read: "97 V", verdict: "out" }) // "expected 185 V, read 97 V, out" */
export function layerWords({ expected, read, verdict }: NodeNote): string {
  return [expected && `expected ${expected}`, read && `read ${read}`, read && verdict && verdict !== "none" && VERDICT_WORD[verdict]]
    .filter(Boolean)
    .join(", ");
}
