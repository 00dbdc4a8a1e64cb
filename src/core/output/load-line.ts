/** A tube's plate curves at its actual screen, the dissipation limit, and the line that the load draws across them. */

import { pentodeLaw, triodeLaw, PENTODE_OUT, TRIODE_OUT } from "../tubes/model";
import type { TubeType } from "../tubes/library";
import * as texts from "../texts/output";

/** Volts to the cathode, amperes. */
export type CurvePoint = readonly [volts: number, amps: number];

export interface PlateCurves {
  curves: { grid: number; points: CurvePoint[] }[];
  /** Plate current at which the plate rating is reached, by plate volts. */
  limit: CurvePoint[];
  /** The load's line, for a pair the composite of both halves against one half's swing. */
  load: CurvePoint[];
  /** Where one half alone carries the current, for a pair. */
  idle: { volts: number; amps: number };
  /** Where the grid reaches zero: the plate can go no lower. */
  clip: { volts: number; amps: number; watts: number };
  /** Ohms that one plate works into when it carries the current alone. */
  ohms: number;
}

export interface LoadQuestion {
  type: TubeType;
  /** Emission of the tubes in parts of the sheet's. */
  strength?: number;
  single: boolean;
  /** Tubes in parallel on each half. */
  tubes: number;
  /** Volts to the cathode: the supply that feeds the transformer, the screen. */
  supply: number;
  screen?: number;
  /** Part of the winding at which the screens are tapped. */
  ultralinear?: number;
  /** Plate amperes of one tube at idle. */
  idle: number;
  /** Ohms of the primary, plate to plate for a pair. */
  primary: number;
}

const CURVES = 9;
const STEPS = 60;

/** Plate amperes of one tube. */
export function plateAmps(
  { type, strength = 1 }: Pick<LoadQuestion, "type" | "strength">,
  plate: number,
  screen: number,
  grid: number,
): number {
  const model = type.model;
  if (!model) throw new RangeError(texts.typeWithoutModel(type.type));
  const out = new Float64Array(Math.max(PENTODE_OUT, TRIODE_OUT));
  if (model.kind === "pentode") pentodeLaw(model, plate, screen, grid, out);
  else triodeLaw(model, plate, grid, out);
  return strength * out[0]!;
}

/**
 * Curves, load line and the corner where it clips.
 *
 * Single-ended the line has the slope of the primary through the idle point. Of a pair in class AB each plate works into a quarter of the
 * plate-to-plate load once the other half is cut off, and what counts is the difference of the halves' currents: the composite line runs from
 * (supply, 0) with the slope of Zpp/4. Source: B. J. Thompson, "Graphical determination of performance of push-pull audio amplifiers",
 * Proc. IRE 21, 1933.
 * @throws RangeError where a figure is missing or not above zero, or the type has no model.
 */
export function plateCurves(q: LoadQuestion): PlateCurves {
  for (const [name, value] of Object.entries({ supply: q.supply, idle: q.idle, primary: q.primary, tubes: q.tubes }))
    if (!(value > 0)) throw new RangeError(texts.aboveZero(name, value));
  const n = q.tubes;
  const ohms = q.single ? q.primary : q.primary / 4;
  const screenAt = (plate: number) =>
    q.ultralinear === undefined ? (q.screen ?? q.supply) : q.supply + q.ultralinear * (plate - q.supply);
  const amps = (plate: number, grid: number) => n * plateAmps(q, plate, screenAt(plate), grid);
  const most = 2 * q.supply;
  const cut = cutOff(q, screenAt);
  const curves = Array.from({ length: CURVES }, (_, i) => {
    const grid = (cut * i) / CURVES;
    return {
      grid,
      points: Array.from(
        { length: STEPS },
        (__, k): CurvePoint => [(most * k) / (STEPS - 1), amps((most * k) / (STEPS - 1), grid) / n] as const,
      ),
    };
  });
  const rated = q.type.ratings?.plateWatts;
  const limit = rated
    ? Array.from({ length: STEPS }, (_, k): CurvePoint => {
        const volts = most * (0.08 + (0.92 * k) / (STEPS - 1));
        return [volts, rated / volts];
      })
    : [];
  // Corner: the line of the load against the curve of grid zero.
  const onLine = (volts: number) => (q.single ? n * q.idle + (q.supply - volts) / ohms : (q.supply - volts) / ohms);
  let [low, high] = [0, q.supply];
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (amps(middle, 0) < onLine(middle)) low = middle;
    else high = middle;
  }
  const corner = high;
  const peak = onLine(corner);
  const swing = q.supply - corner;
  // Single-ended the other way ends where the current does.
  const useful = q.single ? Math.min(swing, n * q.idle * ohms) : swing;
  const end = q.single ? q.supply + n * q.idle * ohms : q.supply;
  return {
    curves,
    limit,
    load: [
      [0, onLine(0) / n],
      [end, onLine(end) / n],
    ],
    idle: { volts: q.supply, amps: q.idle },
    clip: { volts: corner, amps: peak / n, watts: useful ** 2 / (2 * ohms) },
    ohms,
  };
}

/** Grid volts at which the tube has next to no current at the supply's volts. */
function cutOff(q: LoadQuestion, screenAt: (plate: number) => number): number {
  let grid = -1;
  while (grid > -150 && plateAmps(q, q.supply, screenAt(q.supply), grid) > 0.001) grid -= 1;
  return grid;
}

export interface Ratio {
  /** Turns of the whole primary for one of the secondary. */
  turns: number;
  /** Ohms that the load reflects into the primary. */
  reflected: number;
  /** The load that would reflect the ohms wanted; undefined where none were given. */
  loadWanted?: number;
  /** Reflected over wanted. */
  share?: number;
}

/**
 * Turns ratio from an AC test, primary volts over secondary volts with nothing on the secondary; Z' = n²·Z.
 * @param wanted ohms that the tubes want to see, as the file or the data sheet has them.
 * @throws RangeError for figures that are not above zero.
 */
export function turnsRatio(primaryVolts: number, secondaryVolts: number, load: number, wanted?: number): Ratio {
  for (const [name, value] of Object.entries({ primary: primaryVolts, secondary: secondaryVolts, load }))
    if (!(value > 0)) throw new RangeError(texts.aboveZero(name, value));
  const turns = primaryVolts / secondaryVolts;
  const reflected = turns ** 2 * load;
  return { turns, reflected, ...(wanted ? { loadWanted: wanted / turns ** 2, share: reflected / wanted } : {}) };
}

/** Reflected loads further off than this, in parts, are the wrong load, the wrong tap or shorted turns. */
export const WRONG_LOAD = 0.3;
