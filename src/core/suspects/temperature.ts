/** How hot a tube's bulb gets by what it burns, for readings by thermometer or finger. Degrees Celsius. */

import type { TubeType } from "../tubes/library";
import type { Temperature } from "../tape/events/cold-check-events";

/** Inside an open chassis on a bench. */
export const AMBIENT = 25;
/** A finger's judgement as a thermometer's. Too hot to touch begins near 60 °C; glass beyond it is far hotter. */
const BY_TOUCH: Record<NonNullable<Temperature["touch"]>, number> = { cold: 27, warm: 42, hot: 60, "too hot to touch": 130 };
/** The hottest spot of a bulb at full dissipation over ambient: power tubes reach their published 220 to 250 °C, small ones near 110. */
const POWER_RISE = 195;
const SMALL_RISE = 80;
const POWER_WATTS = 5;
/** Heat leaves by radiation and draught: the rise goes with less than the first power of the watts. Scutum's own figure. */
const EXPONENT = 0.8;
/** A tube that has not been on for so long says nothing. */
export const WARM_MINUTES = 5;

/** Bulb temperature with `watts` on its electrodes. @param heated part of its heater that burns: 0 when it is open. */
export function bulbCelsius(type: TubeType, watts: number, heated: number, sections = 1): number {
  const rated = (type.ratings?.plateWatts ?? 2) * sections + (type.ratings?.screenWatts ?? 0);
  const heater = type.heater.volts * type.heater.amps;
  const rise = rated >= POWER_WATTS ? POWER_RISE : SMALL_RISE;
  return AMBIENT + rise * ((heated * heater + Math.max(0, watts)) / (heater + rated)) ** EXPONENT;
}

/** One sigma of such a prediction: where on the bulb, how it stands in the draught. */
export const bulbSigma = (celsius: number) => Math.hypot(0.25 * (celsius - AMBIENT), 10);

/** Degrees that a reading stands for; undefined for one that is neither. */
export function celsiusOf(t: Pick<Temperature, "celsius" | "touch">): number | undefined {
  return t.celsius ?? (t.touch && BY_TOUCH[t.touch]);
}
