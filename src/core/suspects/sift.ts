/** Which lines of the table are worth a close look: those nearest to the readings once the mains, which moves them all, is allowed for. */

import type { Column } from "./columns";
import type { FaultTable } from "./table";

/** From this many readings the lines are sifted; roughly to the first number, then by their own spread to the second. */
const SIFTED_FROM = 6;
const ROUGHLY = 260;
const MOST_LINES = 110;
/** A reading can speak against a line by this much at most in the sifting: it may be a slip. */
const MOST_AGAINST = 6;
/** From so many sigmas on a reading does not help to find how far the wall is off. */
const OUTLYING = 4;

/** Numbers of the lines to be looked at closely; that of the sound amp always. */
export function likelyLines(table: FaultTable, columns: Column[]): Set<number> {
  const all = table.hypotheses.map((_, line) => line);
  if (columns.length < SIFTED_FROM || all.length <= MOST_LINES) return new Set(all);
  const nearest = (lines: number[], count: number, sharesOf: (line: number) => Shares) => {
    const against = lines.map((line) => ({ line, sum: distanceOf(columns, line, sharesOf(line)) }));
    return against
      .sort((a, b) => a.sum - b.sum)
      .slice(0, count)
      .map((a) => a.line);
  };
  // The sound amp's spread stands for all at first: to work out each line's own takes longer than the sifting.
  const sound = sharesAt(columns, 0, table.mainsKnob);
  const roughly = nearest(all, ROUGHLY, () => sound);
  return new Set([0, ...nearest(roughly, MOST_LINES, (line) => sharesAt(columns, line, table.mainsKnob))]);
}

/** Of each column: one sigma by all that the readings share, and by the mains alone. */
interface Shares {
  all: Float64Array;
  mains: Float64Array;
}

function sharesAt(columns: Column[], line: number, mainsKnob: number | undefined): Shares {
  return {
    all: Float64Array.from(columns, (c) => c.sharedSigma(line)),
    mains: Float64Array.from(columns, ({ place: p }) =>
      p && mainsKnob !== undefined ? p.mains * p.shown[line]!.sensitivities[p.at * p.knobs + mainsKnob]! : 0,
    ),
  };
}

/** Half the squared distance of the readings from a line, each capped, with the mains where it fits best. */
function distanceOf(columns: Column[], line: number, shares: Shares): number {
  let top = 0;
  let bottom = 1;
  let sum = 0;
  // Twice over the readings: first the mains that fits best, then what is left.
  for (const round of [1, 2] as const) {
    const mains = round === 1 ? 0 : top / bottom;
    sum = 0.5 * mains ** 2;
    for (let i = 0; i < columns.length; i++) {
      const c = columns[i]!;
      const mean = c.mean[line]!;
      if (Number.isNaN(mean)) continue;
      const byMains = shares.mains[i]!;
      const own = c.own(mean);
      const whole = own * own + shares.all[i]! ** 2;
      const alone = Math.max(1e-12, whole - byMains * byMains);
      const off = c.y - mean;
      if (round === 2) sum += Math.min(MOST_AGAINST, (0.5 * (off - mains * byMains) ** 2) / alone);
      else if (off * off <= OUTLYING * OUTLYING * whole) {
        top += (off * byMains) / alone;
        bottom += (byMains * byMains) / alone;
      }
    }
  }
  return sum;
}
