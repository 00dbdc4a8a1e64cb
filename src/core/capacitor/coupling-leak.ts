/** Leakage of coupling capacitors: with one leg lifted it is measured, in circuit it can only be guessed. Volts, ohms, amperes. */

import { fixed } from "../language/language";
import * as texts from "../texts/capacitor";

/**
 * Ohms of a leak from the volts at the lifted leg, a meter of `meterOhms` between it and chassis: R = Rm·(V/Vr − 1).
 * @throws RangeError unless the source and the meter are positive and the reading lies from 0 to the source.
 */
export function leakOhms(sourceVolts: number, readVolts: number, meterOhms = 10e6): number {
  if (!(sourceVolts > 0) || !(meterOhms > 0)) throw new RangeError(texts.sourceVoltsMeterOhms());
  if (!(readVolts >= 0) || readVolts > sourceVolts) throw new RangeError(texts.liftedLegShowsBetween(sourceVolts, readVolts));
  return readVolts === 0 ? Infinity : meterOhms * (sourceVolts / readVolts - 1);
}

/** Volts that a leak puts on a grid with its leak resistor to the bias or chassis: V·Rg/(Rg + Rleak). Holds while the grid draws no current. */
export function gridShift(sourceVolts: number, gridLeakOhms: number, leak: number): number {
  return Number.isFinite(leak) ? (sourceVolts * gridLeakOhms) / (gridLeakOhms + leak) : 0;
}

export interface LeakVerdict {
  ohms: number;
  amps: number;
  /** Volts that it puts on the grid that it feeds; undefined where that grid's leak resistor is not known. */
  gridVolts?: number;
  verdict: "in" | "watch" | "out";
  why: string;
}

/** A shift below this is lost in the tube's own spread; above the other it takes a stage's bias away. Scutum's own figures. */
export const SHIFT_SEEN = 0.1;
const SHIFT_BAD = 0.5;
/** Where no grid is fed: a sound film capacitor leaks through more than this. */
const LEAST_OHMS = 100e6;

/** What the reading at a lifted leg says of the capacitor. */
export function judgeLeak(sourceVolts: number, readVolts: number, gridLeakOhms?: number, meterOhms = 10e6): LeakVerdict {
  const ohms = leakOhms(sourceVolts, readVolts, meterOhms);
  const amps = Number.isFinite(ohms) ? sourceVolts / ohms : 0;
  if (gridLeakOhms === undefined)
    return { ohms, amps, verdict: ohms >= LEAST_OHMS ? "in" : ohms >= LEAST_OHMS / 10 ? "watch" : "out", why: "" };
  const gridVolts = gridShift(sourceVolts, gridLeakOhms, ohms);
  const verdict = gridVolts <= SHIFT_SEEN ? "in" : gridVolts <= SHIFT_BAD ? "watch" : "out";
  return {
    ohms,
    amps,
    gridVolts,
    verdict,
    why: texts.putsGrid(gridVolts < 0.01 ? texts.nextNothing() : `${fixed(gridVolts, 2)} V`),
  };
}

/**
 * Why volts on a grid in circuit are not the capacitor's leakage: the same reading follows from either of these.
 * @returns the leak that would explain it, and the grid current of the tube that would.
 */
export function eitherOf(sourceVolts: number, gridLeakOhms: number, gridVolts: number): { leakOhms: number; gridMicroamps: number } {
  return {
    leakOhms: gridVolts > 0 ? (gridLeakOhms * (sourceVolts - gridVolts)) / gridVolts : Infinity,
    gridMicroamps: (gridVolts / gridLeakOhms) * 1e6,
  };
}

export interface GridLeak {
  /** Ohms of the way that the volts come by, were it the capacitor alone. */
  ohms: number;
  /** Volts on the grid once the meter is taken away. */
  unloadedVolts: number;
  /** Amperes that flow in the grid's own resistor. */
  amps: number;
}

/**
 * The leak from volts read at a grid in circuit, the meter in parallel with the grid's resistor: R = (V − Vg)/(Vg/Rg + Vg/Rm).
 * It holds while the grid draws no current: with the tube out, or by a reading that stays when the tube is pulled.
 * @param rest volts that the grid stands at without any leak: 0, or the bias. @throws RangeError where a reading cannot come from a leak.
 */
export function leakFromGrid(sourceVolts: number, gridLeakOhms: number, gridVolts: number, meterOhms = 10e6, rest = 0): GridLeak {
  const rise = gridVolts - rest;
  if (!(sourceVolts > rest) || !(gridLeakOhms > 0) || !(meterOhms > 0)) throw new RangeError(texts.sourceVoltsMeterOhms());
  if (rise < 0 || gridVolts >= sourceVolts) throw new RangeError(texts.gridShowsBetween(rest, sourceVolts, gridVolts));
  if (rise === 0) return { ohms: Infinity, unloadedVolts: rest, amps: 0 };
  // The meter's own end is chassis; the resistor's is what the grid rests at.
  const amps = rise / gridLeakOhms + gridVolts / meterOhms;
  if (amps <= 0) return { ohms: Infinity, unloadedVolts: rest, amps: 0 };
  const ohms = (sourceVolts - gridVolts) / amps;
  return { ohms, unloadedVolts: rest + ((sourceVolts - rest) * gridLeakOhms) / (gridLeakOhms + ohms), amps: rise / gridLeakOhms };
}
