/** From decibels and ratios to the chances of an answer, as an ear and a meter judge them. */

import { logistic } from "../numeric/logistic";
import { RIPPLE_READ } from "./test";

/** An answer given wrongly, or an amp that does not keep to the model. */
export const SLIP = 0.05;
/** Decibels between "gone", "less", "no change" and "more", and how well an ear keeps to them. */
const [GONE_DB, LESS_DB, MORE_DB] = [-18, -4.5, 4.5];
const EAR_DB = 3.5;
/** A noise that is not this one is left under it. */
const REST_DB = -32;

/** Ratios to a sound amp's ripple at which the next word begins. */
export const EDGES = [0.5, 1.8, 5] as const;

/** Which of the words a reading of ripple is, by its ratio to that of a sound amp. */
export function rippleBucket(ratio: number): (typeof RIPPLE_READ)[number] {
  const [less, twice, five] = EDGES;
  return ratio < less ? RIPPLE_READ[3] : ratio < twice ? RIPPLE_READ[0] : ratio < five ? RIPPLE_READ[1] : RIPPLE_READ[2];
}

/** Chances of "gone", "less", "no change", "more" for a change of so many decibels, as an ear judges it. */
export function heard(db: number): number[] {
  const shown = Math.max(REST_DB, db);
  const below = (edge: number) => logistic((1.7 * (edge - shown)) / EAR_DB);
  const [gone, less, same] = [below(GONE_DB), below(LESS_DB), below(MORE_DB)];
  return [gone, less - gone, same - less, 1 - same];
}

/** Chances of what a slow turn from end to end sounds like. @param levels at equal steps of the travel. */
export function sweptChances(levels: readonly number[]): number[] {
  const most = Math.max(...levels, 1e-30);
  const db = levels.map((l) => Math.max(REST_DB, 20 * Math.log10(l / most + 1e-12)));
  const spread = -Math.min(...db);
  const moves = logistic((spread - 6) / 2);
  const [low, high] = [db[0]!, db.at(-1)!];
  const inner = Math.max(...db.slice(1, -1));
  const midway = moves * logistic((inner - Math.max(low, high) - 2) / 1);
  const up = (moves - midway) * logistic((high - low) / 2);
  return [1 - moves, up, midway, moves - midway - up].map((p) => Math.max(0, p));
}

/** Chances of "loud", "soft", "nothing" for the touch of a grid: what comes through against what comes through a sound amp. */
export function touchedChances(here: number, sound: number): number[] {
  const db = 20 * Math.log10(here / Math.max(sound, 1e-30) + 1e-9);
  const [loud, nothing] = [logistic((db + 12) / 3), logistic((-db - 32) / 3)];
  return [loud, Math.max(0, 1 - loud - nothing), nothing];
}

/** Chances of each channel having it, and at last of all having it alike. @param levels one for each channel. */
export function sideChances(levels: readonly number[]): number[] {
  const db = levels.map((l) => 20 * Math.log10(l + 1e-30));
  const own = db.map((x, i) => logistic((x - Math.max(...db.filter((_, k) => k !== i)) - 6) / 2));
  return [...own, Math.max(0, 1 - own.reduce((a, b) => a + b, 0))];
}
