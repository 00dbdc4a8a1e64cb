/** Heater circuits: series strings across the line with their ballast, parallel heaters on a winding. Volts, amperes, ohms, watts. */

import { fixed } from "../language/language";
import { envelopeOf, findElement, type Circuit, type HeaterWinding } from "../circuit/circuit";
import type { TubeType } from "../tubes/library";
import { nearestInSeries } from "../quantity/series";
import { ratingFor, STANDARD_WATTS } from "../quantity/ratings";
import { formatQuantity } from "../quantity/format";
import { parseQuantity } from "../quantity/parse";
import * as texts from "../texts/supply";

export interface HeaterElement {
  tube: string;
  type: string;
  volts: number;
  amps: number;
  /** Hot, at its rated volts; and cold, where a tungsten heater has about a sixth of that. */
  hotOhms: number;
  coldOhms: number;
  /** What an ohmmeter shows of the cold tube out of its socket, and between which pins: halves that the socket joins are in series then. */
  alone: { ohms: number; where: string };
}

/**
 * A tungsten heater at 20 °C has about a sixth of the resistance that it has while it works.
 * Source: resistivity of tungsten, H. A. Jones and I. Langmuir, General Electric Review 30, 1927: 5.65 µΩ·cm at 293 K
 * against 34 at 1300 K, where indirectly heated tubes run their heaters.
 */
export const COLD_PART = 1 / 6;

export function heaterOf(circuit: Circuit, tube: string): HeaterElement | undefined {
  const e = circuit.elements.find((x) => (x.tube || x.rectifierTube) && envelopeOf(x.name) === tube.toUpperCase());
  const type: TubeType | undefined = e?.tube ?? e?.rectifierTube;
  if (!type) return undefined;
  const { volts, amps } = type.heater;
  const coldOhms = (COLD_PART * volts) / amps;
  return { tube: envelopeOf(e!.name), type: type.type, volts, amps, hotOhms: volts / amps, coldOhms, alone: aloneOf(type, coldOhms) };
}

function aloneOf(type: TubeType, coldOhms: number): HeaterElement["alone"] {
  const pins = type.heaterPins;
  if (!pins) return { ohms: coldOhms, where: texts.acrossHeaterPins() };
  const [a, b] = pins.ends;
  if (pins.centre === undefined) return { ohms: coldOhms, where: texts.pinPin(a, b) };
  // In parallel the halves show a quarter of what they show in series.
  const half = formatQuantity(2 * coldOhms, "Ω", 2);
  return {
    ohms: 4 * coldOhms,
    where: texts.pinPinBothHalves(a, b, a, b, pins.centre, half),
  };
}

export interface HeaterString {
  name: string;
  elements: HeaterElement[];
  /** Volts that the tubes want together. */
  sum: number;
  /** The current that all are made for; undefined when they differ: then one of them is the wrong type. */
  amps?: number;
  /** Volts left for the ballast at the line given, and the resistance and watts that take them. */
  dropVolts: number;
  ballastOhms: number;
  ballastWatts: number;
  /** The resistance that exists next to it, and the rating with a factor of two in hand. */
  ballastFits: number;
  ballastRating: number;
  /** Ohms of the ballast that the circuit names. */
  fitted?: number;
  /** With that ballast: amperes, and part of the rated heater volts that each tube gets. */
  stringAmps: number;
  heaterShare: number;
  /** Amperes at switch-on, everything cold. */
  surgeAmps: number;
  /** Ohms across the whole string cold, and hot. */
  coldOhms: number;
  hotOhms: number;
  doubts: string[];
}

/** The current of a string settles where I·(R_ballast + ΣR(I)) = V; a tungsten heater's resistance goes with about I^0.85, as a lamp's does (IES Lighting Handbook). */
const HEATER_EXPONENT = 0.85;

/**
 * A series string at `lineVolts`.
 * @throws RangeError for a winding that is no string, or a tube that the circuit does not have.
 */
export function heaterString(circuit: Circuit, winding: HeaterWinding, lineVolts: number): HeaterString {
  if (!winding.string) throw new RangeError(texts.noSeriesString(winding.name));
  const elements = winding.tubes.map((t) => {
    const e = heaterOf(circuit, t);
    if (!e) throw new RangeError(texts.noTubeCircuit(t));
    return e;
  });
  const sum = elements.reduce((s, e) => s + e.volts, 0);
  const currents = elements.map((e) => e.amps);
  const same = Math.max(...currents) - Math.min(...currents) < 0.02 * Math.max(...currents);
  const amps = Math.max(...currents);
  const dropVolts = lineVolts - sum;
  const ballastOhms = Math.max(0, dropVolts / amps);
  const ballastWatts = Math.max(0, dropVolts * amps);
  const fitted = ballastIn(circuit, winding);
  const used = fitted ?? ballastOhms;
  const hotOhms = elements.reduce((s, e) => s + e.hotOhms, 0);
  const at = (i: number) => i * used + elements.reduce((s, e) => s + e.volts * (i / e.amps) ** (1 + HEATER_EXPONENT), 0);
  let [low, high] = [0, 3 * amps];
  for (let step = 0; step < 60; step++) {
    const middle = (low + high) / 2;
    if (at(middle) > lineVolts) high = middle;
    else low = middle;
  }
  const stringAmps = (low + high) / 2;
  const heaterShare = (stringAmps / amps) ** (1 + HEATER_EXPONENT);
  const coldOhms = elements.reduce((s, e) => s + e.coldOhms, 0) + used;
  const doubts: string[] = [];
  if (!same) doubts.push(texts.heatersWantDifferentCurrents(currents.map((c) => `${c * 1000} mA`).join(", ")));
  if (dropVolts < 0) doubts.push(texts.tubesWantMoreThan(fixed(sum, 1)));
  if (same && heaterShare > 1.1) doubts.push(texts.eachHeaterGetsVolts(Math.round(heaterShare * 100)));
  if (same && heaterShare < 0.9) doubts.push(texts.eachHeaterGetsOnly(Math.round(heaterShare * 100)));
  return {
    name: winding.name,
    elements,
    sum,
    amps: same ? amps : undefined,
    dropVolts,
    ballastOhms,
    ballastWatts,
    ballastFits: ballastOhms > 0 ? nearestInSeries(ballastOhms, "E24").nearest : 0,
    ballastRating: ratingFor(2 * ballastWatts, STANDARD_WATTS) ?? Math.ceil(2 * ballastWatts),
    fitted,
    stringAmps,
    heaterShare,
    surgeAmps: lineVolts / coldOhms,
    coldOhms,
    hotOhms: hotOhms + used,
    doubts,
  };
}

function ballastIn(circuit: Circuit, winding: HeaterWinding): number | undefined {
  if (winding.ballast === undefined) return undefined;
  const part = findElement(circuit, winding.ballast);
  if (part?.letter === "R") return part.value;
  const parsed = parseQuantity(winding.ballast, { unit: "Ω" });
  return parsed.ok ? parsed.quantity.value : undefined;
}

export interface OpenElement {
  /** The tube, "ballast", or undefined when the readings do not say. */
  open?: string;
  says: string;
  /** The element to read next. */
  next?: string;
}

/** Above this an element is open: the coldest string has some hundreds of ohms. */
const OPEN_OHMS = 100e3;

/**
 * Where an open string is open, from ohms read across single elements (Infinity for overload) with the plug out.
 * Half of what is left is read across at once where that is possible: so many readings as halvings.
 */
export function findOpen(string: HeaterString, ohms: ReadonlyMap<string, number>): OpenElement {
  const names = [...string.elements.map((e) => e.tube), ...(string.fitted === undefined ? [] : ["ballast"])];
  const cold = (name: string) => string.elements.find((e) => e.tube === name)?.coldOhms ?? string.fitted!;
  const opens = names.filter((n) => (ohms.get(n) ?? 0) > OPEN_OHMS);
  if (opens.length > 0)
    return {
      open: opens[0],
      says: texts.openOverloadWhereAbout(
        opens.join(" and "),
        opens.length > 1 ? "are" : "is",
        opens.length > 1 ? texts.theyRead() : texts.itReads(),
        Math.round(cold(opens[0]!)),
      ),
    };
  const left = names.filter((n) => !ohms.has(n));
  const read = names.filter((n) => ohms.has(n));
  const odd = read.find((n) => ohms.get(n)! > 3 * cold(n));
  if (left.length === 0)
    return {
      says: odd ? texts.noElementOpenBut(odd, Math.round(ohms.get(odd)!), Math.round(cold(odd))) : texts.everyElementHasContinuity(),
    };
  return {
    says: texts.notReadYetTube(left.length, names.length),
    next: left.reduce((a, b) => (b !== "ballast" && (a === "ballast" || cold(b) > cold(a)) ? b : a)),
  };
}

/** Volts that appear across each element of a live string with one open: the whole line across the open one, nothing elsewhere. */
export function voltsWithOpen(string: HeaterString, open: string, lineVolts: number): Map<string, number> {
  return new Map(string.elements.map((e) => [e.tube, e.tube === open ? lineVolts : 0]));
}

export interface HeaterLoad {
  name: string;
  volts: number;
  elements: HeaterElement[];
  amps: number;
  watts: number;
  /** Against the winding's rating, where it is known. */
  share?: number;
  /** Ohms across the winding's pins with the tubes in, cold. */
  coldOhms: number;
  doubts: string[];
}

/** Parallel heaters on one winding. @param ratedAmps of the winding, when known. @throws RangeError for a series string. */
export function heaterLoad(circuit: Circuit, winding: HeaterWinding, ratedAmps?: number): HeaterLoad {
  if (winding.string) throw new RangeError(texts.seriesString(winding.name));
  const elements = winding.tubes.flatMap((t) => heaterOf(circuit, t) ?? []);
  const volts = winding.volts ?? elements[0]?.volts ?? 0;
  // Twins are made for two voltages: on a 6.3 V winding their halves lie in parallel and take the same watts.
  const ampsOf = (e: HeaterElement) => (e.volts * e.amps) / volts;
  const amps = elements.reduce((s, e) => s + ampsOf(e), 0);
  const doubts = elements
    .filter((e) => Math.abs(e.volts - volts) > 0.1 * volts && Math.abs(e.volts - 2 * volts) > 0.1 * volts)
    .map((e) => texts.wantsWindingGives(e.tube, e.type, e.volts, volts));
  if (ratedAmps !== undefined && amps > ratedAmps) doubts.push(texts.heatersTakeWindingRuns(fixed(amps, 2), ratedAmps));
  return {
    name: winding.name,
    volts,
    elements,
    amps,
    watts: volts * amps,
    share: ratedAmps === undefined ? undefined : amps / ratedAmps,
    coldOhms: amps > 0 ? (COLD_PART * volts) / amps : Infinity,
    doubts,
  };
}

/** Volts at the heaters against their rating: what it means for their life. */
export function judgeHeaterVolts(rated: number, read: number): { verdict: "in" | "watch" | "out"; why: string } {
  const off = read / rated - 1;
  if (Math.abs(off) <= 0.05) return { verdict: "in", why: "within 5 %" };
  const how = off > 0 ? texts.highEmittersHeatersAge() : texts.lowCathodesStripUnder();
  return { verdict: Math.abs(off) <= 0.1 ? "watch" : "out", why: `${Math.round(off * 100)} %, ${how}` };
}
