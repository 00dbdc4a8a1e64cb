/** The bias table: each tube's current, watts and part of its rating, the spread between them, and whether it has settled. */

import type { RatingSystem } from "../tubes/library";
import type { OutputStage } from "./output-stage";
import { readCurrent, type CurrentReading, type Way } from "./read-current";

export interface BiasRow {
  tube: string;
  type: string;
  way: Way;
  /** Amperes. */
  plate: number;
  screen: number;
  screenBy: "measured" | "type" | "none";
  sharedBy: number;
  plateVolts?: number;
  plateWatts?: number;
  screenWatts?: number;
  ofRating?: number;
  ofScreenRating?: number;
  ratedWatts?: number;
  system?: RatingSystem;
  doubts: string[];
}

export interface BiasTable {
  rows: BiasRow[];
  /** Readings that cannot be taken, with the reason. */
  refused: { tube: string; why: string; accepted: string }[];
  /** Output tubes without a reading. */
  missing: string[];
  /** Largest less smallest plate current, in parts of their mean; undefined where fewer than two tubes are told apart. */
  spread?: number;
  /** Mean current of the first half less that of the second, amperes: what magnetises the core. */
  standing?: number;
  /** Types in the stage where it has more than one. */
  mixed?: string[];
}

/** @param volts plate and screen volts to the cathode by tube, where they are known. */
export function biasTable(
  stage: OutputStage,
  readings: readonly CurrentReading[],
  volts: (tube: string) => { plate?: number; screen?: number },
): BiasTable {
  const rows: BiasRow[] = [];
  const refused: BiasTable["refused"] = [];
  for (const reading of readings) {
    const { plate: plateVolts, screen: screenVolts } = volts(reading.tube);
    const read = readCurrent(stage, reading, plateVolts);
    if (!read.ok) {
      refused.push({ tube: reading.tube, why: read.why, accepted: read.accepted });
      continue;
    }
    const { plate, screen, screenBy, sharedBy, way, tube } = read.current;
    const type = stage.tubes.find((t) => t.name === tube)!.type;
    const { plateWatts: rated, screenWatts: screenRated, system } = type.ratings ?? {};
    const plateWatts = plateVolts === undefined ? undefined : plate * plateVolts;
    const screenWatts = screenVolts === undefined ? undefined : screen * screenVolts;
    rows.push({
      tube,
      type: type.type,
      way,
      plate,
      screen,
      screenBy,
      sharedBy,
      ...(plateWatts === undefined ? {} : { plateVolts, plateWatts, ...(rated ? { ofRating: plateWatts / rated } : {}) }),
      ...(screenWatts === undefined ? {} : { screenWatts, ...(screenRated ? { ofScreenRating: screenWatts / screenRated } : {}) }),
      ...(rated ? { ratedWatts: rated, system } : {}),
      doubts: read.doubts,
    });
  }
  const amps = rows.map((r) => r.plate);
  const mean = amps.reduce((a, b) => a + b, 0) / Math.max(1, amps.length);
  const half = (h: 0 | 1) => {
    const of = rows.filter((r) => stage.tubes.find((t) => t.name === r.tube)!.half === h);
    return of.length === 0 ? undefined : of.reduce((sum, r) => sum + r.plate, 0);
  };
  const [first, second] = [half(0), half(1)];
  const types = [...new Set(stage.tubes.map((t) => t.type.type))];
  return {
    rows,
    refused,
    missing: stage.tubes.map((t) => t.name).filter((name) => !readings.some((r) => r.tube.toUpperCase() === name)),
    ...(rows.length > 1 && rows.every((r) => r.sharedBy === 1) && mean > 0
      ? { spread: (Math.max(...amps) - Math.min(...amps)) / mean }
      : {}),
    ...(!stage.single && first !== undefined && second !== undefined ? { standing: first - second } : {}),
    ...(types.length > 1 ? { mixed: types } : {}),
  };
}

export interface Drift {
  /** Part of the current a minute, over the last readings. */
  perMinute: number;
  settled: boolean;
  /** Minutes that the readings span. */
  span: number;
}

/** An idle has settled when it moves by less than this part a minute, over at least so many minutes. */
export const SETTLED_A_MINUTE = 0.005;
const LEAST_MINUTES = 3;

/**
 * Whether a tube's current still moves: the least-squares slope over the last ten minutes of readings.
 * @param readings minutes and amperes, in order. @returns undefined with fewer than three readings or no time between them.
 */
export function driftOf(readings: readonly { minutes: number; amps: number }[]): Drift | undefined {
  const last = readings.at(-1);
  if (!last) return undefined;
  const recent = readings.filter((r) => r.minutes > last.minutes - 10);
  const span = last.minutes - (recent[0]?.minutes ?? last.minutes);
  if (recent.length < 3 || span <= 0) return undefined;
  const mean = (f: (r: (typeof recent)[number]) => number) => recent.reduce((sum, r) => sum + f(r), 0) / recent.length;
  const [t, i] = [mean((r) => r.minutes), mean((r) => r.amps)];
  const slope = mean((r) => (r.minutes - t) * (r.amps - i)) / mean((r) => (r.minutes - t) ** 2);
  const perMinute = i > 0 ? slope / i : 0;
  return { perMinute, span, settled: span >= LEAST_MINUTES && Math.abs(perMinute) < SETTLED_A_MINUTE };
}
