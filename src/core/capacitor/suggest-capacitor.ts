/** A capacitor that exists for a place: the next value sold and the next rating above what it can see. */

import { ELECTROLYTIC_VOLTS, FILM_VOLTS, ratingFor } from "../quantity/ratings";
import { nearestInSeries } from "../quantity/series";
import type { CapacitorOffer, CapacitorPlaceNeeds } from "./substitute-capacitor";
import * as texts from "../texts/capacitor";

export interface Suggested {
  offer: CapacitorOffer;
  /** In series, each with a resistor across it, where no single one is sold for the volts. */
  inSeries: 1 | 2;
  /** Ohms of each resistor across two in series. */
  balance?: number;
  why: string;
}

/** Volts asked for over the worst that it sees. */
const MARGIN = 1.1;
/** Amperes that balancing resistors carry in parts of what two unlike capacitors may leak apart: 0.015·C·V of data sheets for pairs. */
const BALANCE = 0.015;
const MICA_BELOW = 2e-9;
/** Volts rms that class X2 and Y2 are sold for. */
const LINE_RATED = 275;
/** °C and hours at them of the electrolytics that are suggested. */
const CAN_CELSIUS = 105;
const CAN_HOURS = 5000;

export function suggestCapacitor(place: CapacitorPlaceNeeds): Suggested {
  if (!(place.farads > 0)) throw new RangeError(texts.ratingsWanted());
  const electrolytic = place.farads >= 1e-6 && !["coupling", "feedback", "tone", "treble"].includes(place.role);
  const wanted = Math.max(place.worst * MARGIN, electrolytic ? 16 : 100);
  if (place.safety) {
    const farads = nearestInSeries(place.farads, "E6").nearest;
    return {
      offer: {
        farads: place.safety === "Y" ? Math.min(farads, 4.7e-9) : farads,
        volts: LINE_RATED,
        kind: "film",
        safetyClass: place.safety,
      },
      inSeries: 1,
      why: texts.safetyType(place.safety),
    };
  }
  if (!electrolytic) {
    const kind = place.farads < MICA_BELOW ? "mica" : "polypropylene";
    const farads = nearestInSeries(
      place.farads,
      place.role === "tone" || place.role === "feedback" || place.role === "treble" ? "E24" : "E6",
    ).nearest;
    const volts = ratingFor(wanted, FILM_VOLTS);
    if (volts === undefined) throw new RangeError(texts.noFilmFor(Math.round(wanted)));
    return { offer: { farads, volts, kind }, inSeries: 1, why: "" };
  }
  const most = place.role === "reservoir" ? place.firstLimit?.farads : undefined;
  const { below, above, nearest } = nearestInSeries(place.farads, "E6");
  // The next above where nearest would lose capacitance, unless the rectifier's sheet forbids it.
  const value = nearest < place.farads * 0.8 ? above : nearest;
  const farads = most !== undefined && value > most * (1 + 1e-6) ? below : value;
  const volts = ratingFor(wanted, ELECTROLYTIC_VOLTS);
  const offer = { farads, kind: "electrolytic", celsius: CAN_CELSIUS, hours: CAN_HOURS };
  if (volts !== undefined) return { offer: { ...offer, volts }, inSeries: 1, why: "" };
  const each = ratingFor(wanted / 2, ELECTROLYTIC_VOLTS);
  if (each === undefined) throw new RangeError(texts.noElectrolyticFor(Math.round(wanted)));
  const double = nearestInSeries(2 * farads, "E6").nearest;
  const leak = BALANCE * double * 1e6 * (wanted / 2) * 1e-6;
  return {
    offer: { ...offer, farads: double / 2, volts: 2 * each },
    inSeries: 2,
    balance: nearestInSeries(wanted / 2 / Math.max(leak, 1e-6) / 2, "E12").below,
    why: texts.twoInSeries(each),
  };
}
