/** How an electrolytic is reformed: the steps of the supply, the resistor in series, how long at each, and when not to try. */

import { storedEnergy } from "../supply/stored-energy";
import { decade } from "../quantity/series";
import { ratingFor, STANDARD_WATTS } from "../quantity/ratings";
import { leakageLimit, type Rated } from "./leakage-limit";
import * as texts from "../texts/capacitor";

export interface ReformPlan {
  /** Volts of the supply, step by step, to the target. */
  steps: number[];
  target: number;
  /** In series with the capacitor, and the watts to fit for it. */
  ohms: number;
  watts: number;
  /** Watts at most in the capacitor, however bad it is: V²/4R. */
  inside: number;
  dwellMinutes: number;
  /** Amperes that it may leak at the target, with the formula. */
  limit: number;
  formula: string;
  source: string;
  /** Joules that it holds at the target. */
  joules: number;
  /** Seconds to come down through the series resistor once the supply is at nothing. */
  downSeconds: number;
}

/** Part of the supply that the series resistor takes at the limit itself: more, and the capacitor never sees its working volts. */
const IN_RESISTOR = 0.12;
const LEAST_OHMS = 1000;
/** Steps are about this part of the target, and no smaller than these volts. */
const STEP = 0.125;
const LEAST_STEP = 10;
const DWELL = 10;
/** Idle for longer it is taken slower. */
const LONG_IDLE = 20;

/**
 * @param working the most volts that it sees in its amp: it is not reformed higher, and never above its rating.
 * @param idle years since it was last under voltage. @param safe volts at which it counts as down.
 * @throws RangeError without ratings, or where its place asks for more than its rating.
 */
export function reformPlan(
  part: Rated,
  working: number,
  { idle = LONG_IDLE + 1, safe = 10 }: { idle?: number; safe?: number } = {},
): ReformPlan {
  const limit = leakageLimit(part);
  if (!(working > 0)) throw new RangeError(texts.ratingsWanted());
  if (working > part.volts) throw new RangeError(texts.aboveRating(Math.round(working), part.volts));
  const target = Math.min(part.volts, Math.ceil(working / 5) * 5);
  const allowed = limit.amps * Math.min(1, target / part.volts);
  const ohms = Math.max(LEAST_OHMS, below((IN_RESISTOR * target) / allowed));
  const count = Math.max(3, Math.round(1 / STEP));
  const size = Math.max(LEAST_STEP, target / count);
  const steps: number[] = [];
  for (let v = size; v < target - size / 2; v += size) steps.push(Math.round(v / 5) * 5);
  const up = [...new Set([...steps.filter((v) => v > 0), target])];
  return {
    steps: up,
    target,
    ohms,
    // A puncture puts the whole supply across it until the supply is off.
    watts: ratingFor(Math.max(0.5, target ** 2 / ohms), STANDARD_WATTS) ?? 100,
    inside: target ** 2 / (4 * ohms),
    dwellMinutes: idle > LONG_IDLE ? 2 * DWELL : DWELL,
    limit: allowed,
    formula: limit.formula,
    source: limit.source,
    joules: storedEnergy(part.farads, target),
    downSeconds: ohms * part.farads * Math.log(Math.max(1, target / safe)),
  };
}

/** The next value of E12 down. */
function below(ohms: number): number {
  const power = Math.floor(Math.log10(ohms) + 1e-9);
  const found = decade("E12").findLast((m) => m * 10 ** power <= ohms * (1 + 1e-9)) ?? 1;
  return Number(`${found}e${power}`);
}

/** What speaks against reforming a capacitor at all, in words; empty where nothing does. */
export function reformRefused(known: {
  farads?: number;
  volts?: number;
  /** Findings of the eye at it. */
  seen?: string;
  /** Measured cold across it. */
  ohms?: number;
  /** Parts of the marked capacitance. */
  left?: number;
  backwards?: boolean;
  electrolytic: boolean;
  safety?: boolean;
}): string[] {
  const out: string[] = [];
  if (!known.electrolytic) out.push(texts.onlyElectrolytics());
  if (known.safety) out.push(texts.safetyNeverReformed());
  if (!known.farads || !known.volts) out.push(texts.ratingsWanted());
  if (/vent|bulg|leak(s|ed|ing)? (electrolyte|fluid)|split|swollen|burst|crack/i.test(known.seen ?? ""))
    out.push(texts.seenBad(known.seen!));
  if (known.ohms !== undefined && known.ohms < 5000) out.push(texts.coldShort());
  if (known.left !== undefined && known.left < 0.6) out.push(texts.driedOut(Math.round(known.left * 100)));
  if (known.backwards) out.push(texts.wasBackwards());
  return out;
}
