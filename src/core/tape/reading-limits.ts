/** What a reading on a tube amplifier can and cannot be. A slip of the range switch is caught here, before it is logged. */

import { formatQuantity } from "../quantity/format";
import type { ReadingKind } from "./events/words";
import * as texts from "../texts/tape";

const MOST: Record<ReadingKind, [number, string]> = {
  dcv: [3000, texts.upEitherWay],
  acv: [3000, "0 to 3000 V"],
  ma: [5000, texts.upToA],
  ohm: [1e11, "0 to 100 GΩ"],
  leak: [1000, texts.upToV],
  gm: [250, "0 to 250 %"],
};

/** One sentence saying why the value cannot be, or undefined when it can. Base units, milliamperes for "ma". */
export function readingProblem(kind: ReadingKind, value: number): string | undefined {
  const [most, accepted] = MOST[kind];
  const unit = kind === "ohm" ? "Ω" : kind === "gm" ? "%" : kind === "ma" ? "A" : "V";
  const shown = formatQuantity(kind === "ma" ? value / 1000 : value, unit, 4);
  if (!Number.isFinite(value)) return texts.readValueNotNumber();
  if (value < 0 && (kind === "ohm" || kind === "gm" || kind === "acv")) return texts.readCannotNegativeAccepted(shown, accepted);
  if (Math.abs(value) > most) return texts.readNoTubeAmplifier(shown, accepted);
  return undefined;
}
