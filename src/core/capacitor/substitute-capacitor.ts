/** Whether one capacitor may take another's place: volts, capacitance, the rectifier's limit, ripple, temperature, life, size, case. */

import { formatQuantity } from "../quantity/format";
import { figure } from "../language/language";
import type { CaseLead } from "../tape/events/words";
import type { PartCheck } from "./check";
import type { CapacitorRole } from "./role";
import * as texts from "../texts/capacitor";

export const MOUNTINGS = ["axial", "radial", "clamp", "twist-lock", "screw", "board"] as const;
export type Mounting = (typeof MOUNTINGS)[number];

export interface CapacitorOffer {
  farads: number;
  volts: number;
  kind: string;
  /** Temperature class and hours at it, as the data sheet promises. */
  celsius?: number;
  hours?: number;
  /** Amperes rms at 100 or 120 Hz. */
  ripple?: number;
  /** Millimetres. */
  diameter?: number;
  length?: number;
  mounting?: Mounting;
  caseLead?: CaseLead;
  safetyClass?: "X" | "Y";
}

export interface CapacitorPlaceNeeds {
  name: string;
  role: CapacitorRole;
  /** Of the part that the circuit was drawn with. */
  farads: number;
  /** The most volts that it can see: tubes out, mains up. */
  worst: number;
  ripple: number;
  /** Farads at most at the rectifier, and whose sheet says so. */
  firstLimit?: { farads: number; tube: string };
  safety?: "X" | "Y";
  /** Degrees Celsius beside it. */
  inside: number;
  /** Hours of use in a year. */
  hoursYear: number;
  /** Years that the shop wants it to last. */
  years: number;
  diameter?: number;
  length?: number;
  mounting?: Mounting;
  caseLead?: CaseLead;
}

/** Parts of the old capacitance that do no harm, by what the capacitor does. Scutum's own; bass corners and the rectifier are checked apart. */
const WINDOW: Partial<Record<CapacitorRole, [number, number]>> = {
  reservoir: [0.8, 2],
  filter: [0.8, 3],
  bias: [0.8, 4],
  "cathode bypass": [0.8, 2.2],
  "screen bypass": [0.8, 2.2],
  coupling: [0.8, 1.25],
  feedback: [0.9, 1.1],
  tone: [0.9, 1.1],
  treble: [0.9, 1.1],
  "line to chassis": [0.1, 1],
  "across the line": [0.5, 2],
  "output to a jack": [0.8, 2.2],
};
/** Over the worst volts by so many parts: within is no margin. */
const MARGIN = 1.05;
/** Amperes of ripple in parts of the rating. */
const RIPPLE_USED = 0.7;
/** Millimetres of lead bent, or of a sleeve. */
const FITS_WITHIN = 1;

/** Hours doubled for each ten degrees below the class: the rule of the makers' application notes for wet electrolytics. */
export const lifeHours = (hours: number, celsius: number, inside: number): number => hours * 2 ** ((celsius - inside) / 10);

/** Class-Y may stand in for X, not the other way: IEC 60384-14. */
const meets = (needs: "X" | "Y", has: "X" | "Y" | undefined) => has === needs || (needs === "X" && has === "Y");

export function checkCapacitor(place: CapacitorPlaceNeeds, offer: CapacitorOffer): PartCheck[] {
  const out: PartCheck[] = [];
  const add = (what: string, needs: string, has: string, verdict: PartCheck["verdict"], why = "") =>
    out.push({ what, needs, has, verdict, why });
  const volts = (v: number) => `${Math.round(v)} V`;

  add(
    "volts",
    texts.atLeast(volts(Math.ceil(place.worst))),
    volts(offer.volts),
    offer.volts < place.worst ? "out" : offer.volts < MARGIN * place.worst ? "watch" : "in",
    offer.volts < place.worst ? texts.belowUnloaded() : offer.volts < MARGIN * place.worst ? texts.noMargin() : "",
  );
  const [low, high] = WINDOW[place.role] ?? [0.8, 1.25];
  const part = offer.farads / place.farads;
  const shown = (f: number) => formatQuantity(f, "F", 3);
  const small = part < low * (1 - 1e-6);
  const large = part > high * (1 + 1e-6);
  add(
    "capacitance",
    texts.between(shown(low * place.farads), shown(high * place.farads)),
    shown(offer.farads),
    small || large ? (part < low / 2 || part > 2 * high ? "out" : "watch") : "in",
    small ? texts.tooSmall(place.role) : large ? texts.tooLarge(place.role) : "",
  );
  const electrolytic = /electrolytic/i.test(offer.kind);
  if (place.firstLimit && place.role === "reservoir")
    add(
      "first capacitor",
      texts.atMost(shown(place.firstLimit.farads)),
      shown(offer.farads),
      offer.farads > place.firstLimit.farads * (1 + 1e-6) ? "out" : "in",
      offer.farads > place.firstLimit.farads * (1 + 1e-6) ? texts.overFirst(place.firstLimit.tube) : texts.ofSheet(place.firstLimit.tube),
    );
  if (place.ripple > 1e-3) {
    const needs = formatQuantity(place.ripple, "A", 2);
    if (offer.ripple === undefined)
      add(
        "ripple current",
        texts.atLeast(needs),
        "",
        electrolytic ? "none" : "in",
        electrolytic ? texts.rippleUnknown() : texts.filmRipple(),
      );
    else
      add(
        "ripple current",
        texts.atLeast(needs),
        formatQuantity(offer.ripple, "A", 2),
        offer.ripple < place.ripple ? "out" : place.ripple > RIPPLE_USED * offer.ripple ? "watch" : "in",
        offer.ripple < place.ripple ? texts.heatsItself() : "",
      );
  }
  if (electrolytic) {
    if (offer.celsius === undefined) add("temperature", texts.atLeast(`${place.inside + 20} °C`), "", "none", texts.classUnknown());
    else {
      add(
        "temperature",
        texts.atLeast(`${place.inside + 20} °C`),
        `${offer.celsius} °C`,
        offer.celsius < place.inside ? "out" : offer.celsius < place.inside + 20 ? "watch" : "in",
      );
      if (offer.hours !== undefined) {
        const years = lifeHours(offer.hours, offer.celsius, place.inside) / place.hoursYear;
        add(
          "life",
          texts.atLeast(texts.years(place.years)),
          texts.years(Math.round(Math.min(years, 99))),
          years < place.years / 2 ? "out" : years < place.years ? "watch" : "in",
          texts.tenDegrees(place.inside, figure(place.hoursYear)),
        );
      } else add("life", texts.atLeast(texts.years(place.years)), "", "none", texts.hoursUnknown());
    }
  }
  if (place.safety)
    add(
      "safety class",
      place.safety,
      offer.safetyClass ?? texts.noneMarked(),
      meets(place.safety, offer.safetyClass) ? "in" : "out",
      meets(place.safety, offer.safetyClass) ? "" : texts.safetyType(place.safety),
    );
  if (place.role === "coupling" && electrolytic) add("kind", texts.filmWanted(), offer.kind, "out", texts.electrolyticLeaks());
  for (const side of ["diameter", "length"] as const) {
    const [room, has] = [place[side], offer[side]];
    if (room === undefined && has === undefined) continue;
    const mm = (x: number | undefined) => (x === undefined ? "" : `${figure(x)} mm`);
    add(
      side,
      room === undefined ? "?" : texts.atMost(mm(room)),
      mm(has),
      room === undefined || has === undefined ? "none" : has > room + FITS_WITHIN ? "out" : "in",
    );
  }
  if (place.mounting && offer.mounting)
    add(
      "mounting",
      place.mounting,
      offer.mounting,
      place.mounting === offer.mounting ? "in" : "watch",
      place.mounting === offer.mounting ? "" : texts.otherMounting(),
    );
  if (place.caseLead && place.caseLead !== "insulated") {
    const known = place.caseLead !== "unknown" && offer.caseLead !== undefined && offer.caseLead !== "unknown";
    const same = place.caseLead === offer.caseLead || offer.caseLead === "insulated";
    add(
      "case",
      texts.caseWords(place.caseLead),
      offer.caseLead ? texts.caseWords(offer.caseLead) : "",
      known ? (same ? "in" : "out") : "none",
      known ? (same ? "" : texts.caseOther()) : texts.lugUnknown(),
    );
  }
  return out;
}

export interface SectionOffer {
  /** The capacitor of the circuit, and the lug that it goes on. */
  part: string;
  lug?: string;
  offer: CapacitorOffer;
}

/** A can checked section by section; what is of the can alone comes once. @param places by name. */
export function checkCan(
  places: ReadonlyMap<string, CapacitorPlaceNeeds>,
  sections: readonly SectionOffer[],
): { part: string; checks: PartCheck[] }[] {
  const once = new Set(["diameter", "length", "mounting", "case", "temperature", "life"]);
  return sections.map(({ part, offer }, i) => {
    const place = places.get(part);
    if (!place) throw new RangeError(texts.noSuchCapacitor(part));
    const checks = checkCapacitor(place, offer);
    return { part, checks: i === 0 ? checks : checks.filter((c) => !once.has(c.what)) };
  });
}
