/** Capacitance, series resistance and dissipation as a bridge or meter shows them, judged by the kind of capacitor. */

import { formatQuantity } from "../quantity/format";
import type { Verdict } from "../expectation/expectation";
import { figure } from "../language/language";
import * as texts from "../texts/capacitor";

interface KindLimits {
  is: RegExp;
  /** Parts of the marked capacitance, low and high end, that makers allow. */
  low: number;
  high: number;
  /** Dissipation factor that a data sheet allows at 100 Hz to 1 kHz. */
  dissipation: number;
}

/** Windows and dissipation of published data sheets; the wide upper end of old electrolytics is what they were sold with. */
const KINDS: KindLimits[] = [
  { is: /electrolytic|tantalum/i, low: 0.8, high: 1.5, dissipation: 0.2 },
  { is: /polypropylene|polystyrene|teflon/i, low: 0.9, high: 1.1, dissipation: 0.001 },
  { is: /paper|oil|wax|black/i, low: 0.8, high: 1.2, dissipation: 0.015 },
  { is: /mica/i, low: 0.9, high: 1.1, dissipation: 0.002 },
  { is: /ceramic/i, low: 0.8, high: 1.3, dissipation: 0.03 },
  { is: /./, low: 0.9, high: 1.1, dissipation: 0.01 },
];
/** Beyond the window by so much of the marked value it is no drift any more. */
const FAR = 0.2;
/** From so many times its limit a dissipation is out, below it watched. */
const TWICE = 2;
/** Hertz of the dissipation figures above. */
const SHEET_HERTZ = 120;

export interface Judged {
  verdict: Verdict;
  why: string;
}

const limitsOf = (kind: string | undefined, farads: number) =>
  KINDS.find((k) => k.is.test(kind ?? (farads >= 1e-6 ? "electrolytic" : "film")))!;

/** @param marked and @param read farads. */
export function judgeCapacitance(marked: number, read: number, kind?: string): Judged {
  const { low, high } = limitsOf(kind, marked);
  const part = read / marked;
  const shown = `${Math.round(part * 100)} %`;
  if (part < low) {
    // Some lost in the meter and leads: a lost half is a dried-out electrolytic.
    return { verdict: part < low - FAR ? "out" : "watch", why: texts.capacitanceLow(shown, kind === undefined || /electro/.test(kind)) };
  }
  if (part > high)
    return { verdict: part > high + FAR ? "out" : "watch", why: texts.capacitanceHigh(shown, /paper|oil|wax|black/i.test(kind ?? "")) };
  return { verdict: "in", why: texts.ofMarked(shown) };
}

/** Ohms that a capacitor's losses may come to at `hertz`: D/(2πfC), D of the sheet; at 1 kHz and above no less than at 120 Hz is asked of an electrolytic. */
export function mostSeriesOhms(farads: number, kind?: string, hertz = SHEET_HERTZ): number {
  const { dissipation, is } = limitsOf(kind, farads);
  const electrolytic = is.test("electrolytic");
  return dissipation / (2 * Math.PI * (electrolytic ? SHEET_HERTZ : hertz) * farads);
}

/** @param ohms series resistance as read at `hertz`. */
export function judgeSeriesOhms(farads: number, ohms: number, kind?: string, hertz = SHEET_HERTZ): Judged {
  const most = mostSeriesOhms(farads, kind, hertz);
  const verdict: Verdict = ohms <= most ? "in" : ohms <= TWICE * most ? "watch" : "out";
  return { verdict, why: texts.seriesOhms(formatQuantity(most, "Ω", 2)) };
}

/** @param read dissipation factor, 0.02 for 2 %. */
export function judgeDissipation(farads: number, read: number, kind?: string): Judged {
  const { dissipation } = limitsOf(kind, farads);
  const verdict: Verdict = read <= dissipation ? "in" : read <= TWICE * dissipation ? "watch" : "out";
  return { verdict, why: texts.dissipationMost(figure(dissipation)) };
}
