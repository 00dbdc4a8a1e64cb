/** Matched pairs, quads and sextets out of a stock of measured tubes: disjoint groups with the least spread. */

import * as texts from "../texts/output";

export interface MeasuredTube {
  id: number;
  /** Milliamperes at the test's volts. */
  milliamps: number;
  /** mA/V; undefined where the tester does not show it. */
  gm?: number;
}

export interface Group<T extends MeasuredTube = MeasuredTube> {
  tubes: T[];
  /** Largest less smallest, in parts of the mean. */
  current: number;
  gm?: number;
  /** The larger of the two. */
  spread: number;
}

/** Spread of a set of tubes in current and, where all have it, in transconductance. */
export function groupOf<T extends MeasuredTube>(tubes: readonly T[]): Group<T> {
  const spread = (values: readonly number[]) => {
    const mean = values.reduce((a, b) => a + b, 0) / values.length;
    return mean > 0 ? (Math.max(...values) - Math.min(...values)) / mean : 0;
  };
  const current = spread(tubes.map((t) => t.milliamps));
  const gms = tubes.flatMap((t) => t.gm ?? []);
  const gm = gms.length === tubes.length ? spread(gms) : undefined;
  return {
    tubes: [...tubes].sort((a, b) => a.id - b.id),
    current,
    ...(gm === undefined ? {} : { gm }),
    spread: Math.max(current, gm ?? 0),
  };
}

/**
 * As many disjoint groups of `size` as stay within `most` spread, the closest first; then tubes are exchanged between groups, and with
 * those left over, as long as the spreads together fall.
 * @param most spread of current and transconductance, in parts: 0.05 for 5 %.
 * @throws RangeError for a size under two.
 */
export function matchTubes<T extends MeasuredTube>(tubes: readonly T[], size: number, most = 0.1): { groups: Group<T>[]; left: T[] } {
  if (!(Number.isInteger(size) && size >= 2)) throw new RangeError(texts.groupSize(size));
  let left = [...tubes].sort((a, b) => a.milliamps - b.milliamps);
  const groups: Group<T>[] = [];
  while (left.length >= size) {
    let best: Group<T> | undefined;
    for (const seed of left) {
      const near = [...left].sort((a, b) => distance(seed, a) - distance(seed, b)).slice(0, size);
      const group = groupOf(near);
      if (!best || group.spread < best.spread) best = group;
    }
    if (!best || best.spread > most) break;
    groups.push(best);
    const taken = new Set(best.tubes.map((t) => t.id));
    left = left.filter((t) => !taken.has(t.id));
  }
  const improved = exchange(groups, left, most);
  return { groups: improved.groups.sort((a, b) => a.spread - b.spread), left: improved.left };
}

const distance = (a: MeasuredTube, b: MeasuredTube) =>
  Math.max(
    Math.abs(a.milliamps - b.milliamps) / (a.milliamps + b.milliamps || 1),
    a.gm !== undefined && b.gm !== undefined ? Math.abs(a.gm - b.gm) / (a.gm + b.gm || 1) : 0,
  );

const MOST_ROUNDS = 20;

/** Swaps one tube of a group for one of another group, or for one left over, where that lowers the sum of spreads. */
function exchange<T extends MeasuredTube>(groups: Group<T>[], left: T[], most: number): { groups: Group<T>[]; left: T[] } {
  const made = groups.map((g) => g);
  let spare = [...left];
  for (let round = 0, moved = true; moved && round < MOST_ROUNDS; round++) {
    moved = false;
    for (let a = 0; a < made.length; a++) {
      for (let i = 0; i < made[a]!.tubes.length; i++) {
        for (const [s, other] of spare.entries()) {
          const tried = groupOf(made[a]!.tubes.map((t, k) => (k === i ? other : t)));
          if (tried.spread < made[a]!.spread - 1e-12) {
            spare = spare.map((t, k) => (k === s ? made[a]!.tubes[i]! : t));
            made[a] = tried;
            moved = true;
          }
        }
        for (let b = a + 1; b < made.length; b++)
          for (let j = 0; j < made[b]!.tubes.length; j++) {
            const [x, y] = [made[a]!.tubes[i]!, made[b]!.tubes[j]!];
            const first = groupOf(made[a]!.tubes.map((t, k) => (k === i ? y : t)));
            const second = groupOf(made[b]!.tubes.map((t, k) => (k === j ? x : t)));
            if (first.spread + second.spread < made[a]!.spread + made[b]!.spread - 1e-12 && Math.max(first.spread, second.spread) <= most) {
              made[a] = first;
              made[b] = second;
              moved = true;
            }
          }
      }
    }
  }
  return { groups: made, left: spare };
}
