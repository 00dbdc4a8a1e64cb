/** An output tube's current out of what was read, by each of the ways in which benches read it; and slips of the hand that it shows. */

import { formatQuantity } from "../quantity/format";
import * as texts from "../texts/output";
import { CURRENT_WAYS, type CurrentWay } from "../tape/events/words";
import { screenShare, type TubeType } from "../tubes/library";
import type { OutputStage, OutputTube } from "./output-stage";

export { CURRENT_WAYS as WAYS };
export type Way = CurrentWay;

/** Base units: volts, amperes, ohms. */
export interface CurrentReading {
  tube: string;
  way: Way;
  /** Volts across the cathode resistor or the half winding; amperes by the probe or the shunting meter. */
  value: number;
  /** Ohms of the cathode resistor or of the half winding, as measured; the file's where nobody measured them. */
  ohms?: number;
  /** Of a shunt: ohms of the meter's current range. */
  meterOhms?: number;
  /** Of a socket probe: whether it stands in the cathode's or the plate's lead; the cathode's unless given. */
  lead?: "cathode" | "plate";
  /** Volts across the screen resistor, where that was read. */
  screenVolts?: number;
}

export interface TubeCurrent {
  tube: string;
  way: Way;
  /** Amperes. */
  plate: number;
  screen: number;
  cathode: number;
  /** How the screen's share is known. */
  screenBy: "measured" | "type" | "none";
  /** Tubes that the reading is shared between evenly, this one counted. */
  sharedBy: number;
}

export type CurrentRead = { ok: true; current: TubeCurrent; doubts: string[] } | { ok: false; why: string; accepted: string };

/** From this many times the rating on no tube idles: a unit or a resistance is wrong. */
const TIMES_RATED = 3;
/** Under this part of the rating nothing idles either. */
const LEAST_OF_RATED = 0.02;

/**
 * The tube's plate, screen and cathode current.
 *
 * - cathode resistor: Ik = V/R, shared evenly by the tubes on it; Ia = Ik − Ig2.
 * - socket probe: Ik, or Ia where it stands in the plate's lead.
 * - half winding: Ia = V/R of that half, shared by the tubes of the half. The screens are fed elsewhere and are not in it.
 * - shunt: the meter lies across the half winding, and what flows through it is Ia·R/(R + Rm); so Ia = I·(1 + Rm/R).
 *
 * The screen's part is V/R of its own resistor where that was read, else the type's share of its data sheet.
 * @param plateVolts plate to cathode where it is known: the current is then held against the rating.
 */
export function readCurrent(stage: OutputStage, reading: CurrentReading, plateVolts?: number): CurrentRead {
  const tube = stage.tubes.find((t) => t.name === reading.tube.toUpperCase());
  if (!tube) return { ok: false, why: texts.noOutputTube(reading.tube), accepted: stage.tubes.map((t) => t.name).join(", ") };
  const { way, value } = reading;
  if (!Number.isFinite(value)) return { ok: false, why: texts.notNumber(), accepted: texts.valueOfWay(way) };
  if (value < 0) return { ok: false, why: texts.wrongSign(tube.name, way), accepted: texts.valueOfWay(way) };
  const screen = screenOf(tube, reading);
  if (typeof screen === "string") return { ok: false, why: screen, accepted: texts.screenVoltsAccepted() };
  const half = stage.tubes.filter((t) => t.half === tube.half).length;
  const ohms = reading.ohms ?? (way === "cathode resistor" ? tube.cathodeOhms : stage.halfOhms[tube.half]);
  const needs = way === "cathode resistor" || way === "half winding" || way === "shunt";
  if (needs && !(ohms !== undefined && ohms > 0 && Number.isFinite(ohms)))
    return { ok: false, why: texts.ohmsWanted(tube.name, way), accepted: texts.ohmsAccepted(way) };

  const share = tube.type.kind === "pentode" ? screenShare(tube.type) : 0;
  const make = (plate: number, cathode: number, sharedBy: number): CurrentRead => {
    const current: TubeCurrent = {
      tube: tube.name,
      way,
      plate,
      cathode,
      screen: cathode - plate,
      screenBy: screen !== undefined ? "measured" : share > 0 ? "type" : "none",
      sharedBy,
    };
    if (plate < 0) return { ok: false, why: texts.screenAboveCathode(tube.name), accepted: texts.screenVoltsAccepted() };
    return { ok: true, current, doubts: doubtsOf(tube, current, reading, ohms, plateVolts) };
  };
  const fromCathode = (amps: number, by: number) => make(screen === undefined ? amps * (1 - share) : amps - screen, amps, by);
  const fromPlate = (amps: number, by: number) => make(amps, screen === undefined ? amps / (1 - share) : amps + screen, by);
  switch (way) {
    case "cathode resistor":
      return fromCathode(value / ohms! / tube.sharedBy, tube.sharedBy);
    case "socket probe":
      return reading.lead === "plate" ? fromPlate(value, 1) : fromCathode(value, 1);
    case "half winding":
      return fromPlate(value / ohms! / half, half);
    case "shunt":
      return fromPlate((value * (1 + (reading.meterOhms ?? 0) / ohms!)) / half, half);
  }
}

/**
 * One tube's plate current and plate watts without a circuit, from volts read to chassis and across its own cathode resistor.
 * @example typedIdle(findTubeType("6L6GC")!, { plate: 415, across: 0.45, ohms: 10 })
 */
export function typedIdle(type: TubeType, read: { plate: number; across: number; ohms: number }): { plate: number; watts: number } {
  const plate = (read.across / read.ohms) * (1 - screenShare(type));
  return { plate, watts: plate * (read.plate - read.across) };
}

/** Amperes of the screen where its resistor was read; a sentence where that cannot be. */
function screenOf(tube: OutputTube, { screenVolts }: CurrentReading): number | undefined | string {
  if (screenVolts === undefined) return undefined;
  if (!tube.screenResistor) return texts.noScreenResistor(tube.name);
  if (!(screenVolts >= 0)) return texts.screenWrongSign(tube.name);
  return screenVolts / tube.screenResistor.ohms;
}

/** What the current would mean for the tube where it cannot be, with what was probably meant. */
function doubtsOf(tube: OutputTube, current: TubeCurrent, reading: CurrentReading, ohms: number | undefined, plateVolts = 0): string[] {
  const rated = tube.type.ratings?.plateWatts;
  if (!rated || plateVolts <= 0) return [];
  const of = (amps: number) => (amps * plateVolts) / rated;
  const part = of(current.plate);
  const shown = formatQuantity(current.plate, "A", 3);
  const likely = (amps: number) => of(amps) >= 0.2 && of(amps) <= 1.5;
  if (part > TIMES_RATED) {
    const out = [texts.farAbove(tube.name, shown, part.toFixed(0), tube.type.type)];
    if (likely(current.plate / 1000)) out.push(texts.thousandTimesLess(reading.way, formatQuantity(current.plate / 1000, "A", 3)));
    else if (reading.way === "cathode resistor" && likely(current.plate / 10))
      out.push(texts.resistorTenTimes(formatQuantity(ohms!, "Ω", 3)));
    return out;
  }
  if (part < LEAST_OF_RATED && reading.value !== 0) {
    const out = [texts.farBelow(tube.name, shown)];
    if (likely(current.plate * 1000)) out.push(texts.thousandTimesMore(reading.way, formatQuantity(current.plate * 1000, "A", 3)));
    return out;
  }
  return [];
}
