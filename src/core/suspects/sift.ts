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
  const all = new Float64Array(columns.length);
  const mains = new Float64Array(columns.length);
  for (let i = 0; i < columns.length; i++) {
    const { place: p } = columns[i]!;
    all[i] = columns[i]!.sharedSigma(line);
    if (p && mainsKnob !== undefined) mains[i] = p.mains * p.shown[line]!.sensitivities[p.at * p.knobs + mainsKnob]!;
  }
  return { all, mains };
}

/** Working room of a distance, kept from one line to the next. */
let kept = { off: new Float64Array(0), alone: new Float64Array(0) };
function room(length: number) {
  if (kept.off.length < length) kept = { off: new Float64Array(length), alone: new Float64Array(length) };
  return kept;
}

/** Half the squared distance of the readings from a line, each capped, with the mains where it fits best. */
function distanceOf(columns: Column[], line: number, shares: Shares): number {
  let top = 0;
  let bottom = 1;
  const { off, alone } = room(columns.length);
  // First the mains that fits best, then what is left.
  for (let i = 0; i < columns.length; i++) {
    const c = columns[i]!;
    const mean = c.mean[line]!;
    off[i] = c.y - mean;
    if (Number.isNaN(mean)) continue;
    const byMains = shares.mains[i]!;
    const own = c.own(mean);
    const shared = shares.all[i]!;
    const whole = own * own + shared * shared;
    alone[i] = Math.max(1e-12, whole - byMains * byMains);
    if (off[i]! * off[i]! > OUTLYING * OUTLYING * whole) continue;
    top += (off[i]! * byMains) / alone[i]!;
    bottom += (byMains * byMains) / alone[i]!;
  }
  const mains = top / bottom;
  let sum = 0.5 * mains * mains;
  for (let i = 0; i < columns.length; i++) {
    if (Number.isNaN(off[i]!)) continue;
    const left = off[i]! - mains * shares.mains[i]!;
    sum += Math.min(MOST_AGAINST, (0.5 * left * left) / alone[i]!);
  }
  return sum;
}
