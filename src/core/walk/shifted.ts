/** A series of readings that slipped by one row: each is off at its own point and right at the point beside it. */

import { verdictOf } from "../expectation/expectation";
import type { EventDraft } from "../tape/events/event";
import type { WalkRow } from "./walk";

export interface Shifted {
  /** By how many rows they belong further on: 1 or −1. */
  by: 1 | -1;
  /** What was read, and where it belongs. */
  moves: { from: WalkRow; to: WalkRow }[];
}

/** Two in a row are asked about. */
const LEAST = 2;

/**
 * Asks about readings in a row, newest last, that are all off at their own point and in band at the one beside it.
 * @param rows in the order of the walk. @param fresh points that were read in this visit, oldest first.
 * @returns undefined where fewer than two slipped, or where the points beside have readings of their own that stand.
 */
export function shiftedSeries(rows: readonly WalkRow[], fresh: readonly string[]): Shifted | undefined {
  for (const by of [1, -1] as const) {
    const moves: Shifted["moves"] = [];
    for (const name of [...fresh].reverse()) {
      const i = rows.findIndex((r) => r.point.name === name);
      const [from, to] = [rows[i], rows[i + by]];
      if (!from?.reading || !to?.expected || !from.expected) break;
      if (from.verdict === "in" || verdictOf(from.reading.value, to.expected) !== "in") break;
      if (moves.length > 0 && rows.indexOf(moves.at(-1)!.from) !== i + 1) break;
      moves.push({ from, to });
    }
    // Points of one rail are near each other: at least one has to be plainly out.
    if (moves.length >= LEAST && moves.some((m) => m.from.verdict === "out")) return { by, moves: moves.reverse() };
  }
  return undefined;
}

/** Corrections that put each reading where it belongs. */
export const movedReadings = ({ moves, by }: Shifted): EventDraft<"reading">[] =>
  moves.map(({ from, to }) => {
    const { seq, at: _at, who: _who, ...payload } = from.reading!;
    return {
      type: "reading",
      supersedes: seq,
      reason: by === 1 ? `belongs to the point after ${from.point.name}` : `belongs to the point before ${from.point.name}`,
      payload: { ...payload, point: to.point.name },
    };
  });
