/** How much a capacitor may leak: by its class, capacitance, voltage and age, with the formula that says so. */

import { formatQuantity } from "../quantity/format";
import * as texts from "../texts/capacitor";

export interface LeakageLimit {
  /** Amperes at the rated volts. */
  amps: number;
  /** The formula with its figures, for the screen. */
  formula: string;
  source: string;
}

export interface Rated {
  farads: number;
  volts: number;
  kind?: string;
  /** Year it was made; unknown counts as old. */
  year?: number;
}

/** From here on electrolytics were made to the standard of today. */
const MODERN_YEAR = 1985;

/** K in mA/µF by rated volts: the scheme of the period's standards for dry electrolytics, I = K·C + 0.3 mA. */
const OLD_K: [volts: number, k: number][] = [
  [100, 0.01],
  [250, 0.02],
  [350, 0.025],
  [Infinity, 0.04],
];

/** Seconds (MΩ·µF) and ohms, the smaller insulation of the two, that data sheets of each dielectric promise when new. */
const INSULATION: [RegExp, seconds: number, ohms: number][] = [
  [/polypropylene|teflon|polystyrene/i, 30e3, 100e9],
  [/polyester|mylar|film|poly/i, 10e3, 30e9],
  [/mica/i, 1e3, 10e9],
  [/ceramic/i, 1e3, 10e9],
  // New paper, published data of the time: old ones are held to it and then judged by what they do to the grid.
  [/paper|oil|wax|black/i, 1e3, 3e9],
];

/**
 * Amperes allowed after the voltage has stood for some minutes.
 * Electrolytics of today: IEC 60384-4, general purpose: 0.05·C·V (at least 5 µA) to 1000 µC, 0.03·C·V + 20 µA above; older ones: K·C + 0.3 mA.
 * Others: V/R with R of the data sheets' time constant.
 * @throws RangeError without capacitance or volts.
 * @example leakageLimit({ farads: 47e-6, volts: 450, kind: "electrolytic", year: 2024 }).amps // 654.5e-6
 */
export function leakageLimit({ farads, volts, kind = "electrolytic", year }: Rated): LeakageLimit {
  if (!(farads > 0) || !(volts > 0)) throw new RangeError(texts.ratingsWanted());
  const shown = (amps: number) => formatQuantity(amps, "A", 3);
  if (/electrolytic|tantalum/i.test(kind)) {
    if (year !== undefined && year >= MODERN_YEAR) {
      const charge = farads * volts * 1e6;
      const amps = charge <= 1000 ? Math.max(0.05 * charge, 5) * 1e-6 : (0.03 * charge + 20) * 1e-6;
      return { amps, formula: texts.limitModern(charge <= 1000, Math.round(charge), shown(amps)), source: texts.sourceIec() };
    }
    const k = OLD_K.find(([most]) => volts <= most)![1];
    const amps = (k * farads * 1e6 + 0.3) * 1e-3;
    return { amps, formula: texts.limitOld(k, formatQuantity(farads, "F", 3), shown(amps)), source: texts.sourceOld() };
  }
  const [, seconds, most] = INSULATION.find(([is]) => is.test(kind)) ?? INSULATION[1]!;
  const ohms = Math.min(most, seconds / farads);
  const amps = volts / ohms;
  return { amps, formula: texts.limitFilm(formatQuantity(ohms, "Ω", 2), shown(amps)), source: texts.sourceFilm() };
}

/** What is allowed below the rated volts: leakage falls at least as the voltage does. */
export const limitAt = (limit: LeakageLimit, rated: number, volts: number): number => limit.amps * Math.min(1, Math.max(0, volts / rated));
