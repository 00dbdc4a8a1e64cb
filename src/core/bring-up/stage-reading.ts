/** A reading taken in a stage, held against what the model shows with these tubes out at the volts that the amp had. Volts. */

import { formatVolts } from "../quantity/format";
import type { Verdict } from "../expectation/expectation";
import type { StageStep } from "./corridor";
import * as texts from "../texts/bring-up";

/** Within this part of what is expected, or this many volts, a stage's reading is in; twice that is a watch. */
const BAND = 0.12;
const LEAST = 0.5;
/** Below this a grid stands at zero. */
const ZERO = 0.3;

/** Volts expected at a point with `mains` at the amp: straight between the steps, nothing at zero; at the last step when not known. */
export function stageVolts(point: string, steps: readonly StageStep[], mains: number | undefined): number | undefined {
  const from = [{ mains: 0, volts: { [point]: 0 } }, ...steps.filter((s) => s.volts[point] !== undefined)];
  if (from.length < 2) return undefined;
  if (mains === undefined) return from.at(-1)!.volts[point];
  const k = from.findIndex((s) => s.mains >= mains);
  const [a, b] = k < 0 ? [from.at(-2)!, from.at(-1)!] : k === 0 ? [from[0]!, from[1]!] : [from[k - 1]!, from[k]!];
  return a.volts[point]! + ((mains - a.mains) / (b.mains - a.mains)) * (b.volts[point]! - a.volts[point]!);
}

/** Undefined where the model has nothing to hold it against. */
export function judgeStageReading(
  point: string,
  value: number,
  steps: readonly StageStep[],
  mains: number | undefined,
): { verdict: Verdict; why: string } | undefined {
  const expected = stageVolts(point, steps, mains);
  if (expected === undefined) return undefined;
  const off = value - expected;
  const atZero = Math.abs(expected) < ZERO;
  const least = atZero ? ZERO : Math.max(LEAST, BAND * Math.abs(expected));
  if (Math.abs(off) <= least) return { verdict: "in", why: "" };
  const why = atZero
    ? off > 0
      ? texts.voltsGridShouldHave()
      : texts.gridPulledNegative()
    : texts.expected(formatVolts(expected), mains === undefined ? "" : ` at ${Math.round(mains)} V`);
  return { verdict: Math.abs(off) > 2 * least ? "out" : "watch", why };
}
