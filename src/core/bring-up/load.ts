/** Speaker, cable and dummy load: whether the amp sees what its output transformer wants. Ohms, watts, volts, metres. */

import { fixed } from "../language/language";
import * as texts from "../texts/bring-up";

/** A voice coil's direct resistance is about this part of its nominal impedance. Usual figure of published speaker data. */
const COIL_PART = 0.8;
/** Copper, ohm-metres at 20 °C. Source: IEC 60028. */
const COPPER = 1.724e-8;
/** A square wave of the same peak carries twice the watts of a sine: what an amp driven hard gives. */
const SQUARE_TIMES = 2;
/** Ratio of load to tap that tube amps bear without harm: one step of the taps, and the coil's own spread. Usual practice. */
const BEARABLE = 2.2;

export interface LoadVerdict {
  verdict: "in" | "watch" | "out";
  why: string;
}

/** A speaker by its voice coil's ohms, read with a meter at the end of its own lead. */
export function judgeCoil(readOhms: number, tapOhms: number): LoadVerdict & { nominal: number } {
  const nominal = readOhms / COIL_PART;
  if (!(readOhms < 1e4)) return { nominal: Infinity, verdict: "out", why: texts.openCoilLeadPlug() };
  if (readOhms < 0.5) return { nominal, verdict: "out", why: texts.shortLeadPlugCoil() };
  return { nominal, ...judgeMatch(nominal, tapOhms) };
}

/** A load against the tap that it is on. */
export function judgeMatch(loadOhms: number, tapOhms: number): LoadVerdict {
  const ratio = loadOhms / tapOhms;
  if (ratio > 0.75 && ratio < 1.33) return { verdict: "in", why: "" };
  const how = ratio > 1 ? texts.aboveTapScreensWork() : texts.belowTapPlatesWork();
  const ends = ratio > BEARABLE || ratio < 1 / BEARABLE;
  return { verdict: ends ? "out" : "watch", why: texts.timesTap(fixed(ratio, 1), how) };
}

/** What a dummy load must bear for an amp of `ampWatts` driven hard, and whether one of `watts` and `ohms` does. */
export function judgeDummy(ohms: number, watts: number, tapOhms: number, ampWatts: number): LoadVerdict & { wanted: number } {
  const wanted = SQUARE_TIMES * ampWatts;
  const match = judgeMatch(ohms, tapOhms);
  if (watts < ampWatts) return { wanted, verdict: "out", why: texts.burnsAmpWhenDriven(watts, ampWatts, wanted) };
  if (match.verdict !== "in") return { wanted, ...match };
  if (watts < wanted) return { wanted, verdict: "watch", why: texts.enoughSineNotWhen(wanted) };
  return { wanted, verdict: "in", why: "" };
}

/**
 * A speaker cable: both conductors' ohms and the part of the power lost in them: R = 2ρl/A, Rc/(Rc + Rl).
 * @throws RangeError unless all are positive.
 */
export function cableLoss(metres: number, squareMillimetres: number, loadOhms: number): { ohms: number; share: number } {
  for (const [name, x] of Object.entries({ metres, squareMillimetres, loadOhms }))
    if (!(x > 0)) throw new RangeError(texts.aboveZeroWantedRead(name, x));
  const ohms = (2 * COPPER * metres) / (squareMillimetres * 1e-6);
  return { ohms, share: ohms / (ohms + loadOhms) };
}

/** Ohms of a constant-voltage line that carries `watts` at `lineVolts`: V²/P. */
export function lineLoad(lineVolts: number, watts: number): number {
  return (lineVolts * lineVolts) / watts;
}
