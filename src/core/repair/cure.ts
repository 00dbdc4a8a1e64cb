/** Several changes are in since it works: which one cured it, by putting them back in the order that tells soonest. */

import type { CureTest } from "../tape/events/plan-events";
import * as texts from "../texts/work";

/** A change that may be the cure. */
export interface MayHaveCured {
  /** Its line on the tape. */
  line: number;
  position: string;
  /** How likely it is the cure; only proportions matter. */
  chance: number;
  /** To put it back, or to fit it again. */
  minutes: number;
}

export interface CureStep {
  /** Changes that may still be the cure. */
  left: number[];
  /** The one that is, once it is known. */
  cure?: number;
  /** What is out of the amp in the next test, of those that are left. */
  out?: number[];
  putBack: number[];
  fitAgain: number[];
  /** Expected until it is known, by this way of going on. */
  minutes: number;
  /** What to do, in words. */
  says: string;
}

/** More are not tried: each further one triples the work. */
export const MOST_CHANGES = 12;

/**
 * The changes that may still be the cure: one of those that were out when the fault was back, none of those that were out when it was not.
 * Only tests of the same changes count.
 */
export function leftAfter(among: readonly number[], tests: readonly Pick<CureTest, "out" | "result">[]): number[] {
  return among.filter((line) => tests.every((t) => t.out.includes(line) === (t.result === "fault is back")));
}

/**
 * The next test. One single change is taken for the cure. Each test splits those that are left: with the ones that are out the fault is
 * back, or it is not; what is left is then all out, or all in. The cheapest way to the end is found by going through all of them
 * (dynamic programming over sets), in minutes of soldering and of trying again.
 * @param changes up to twelve.
 * @param outNow lines that are out of the amp now.
 * @param trying minutes that it takes to see whether the fault is there.
 */
export function nextCureTest(
  changes: readonly MayHaveCured[],
  tests: readonly Pick<CureTest, "out" | "result">[],
  outNow: readonly number[],
  trying: number,
): CureStep {
  const left = leftAfter(
    changes.map((c) => c.line),
    tests,
  );
  const of = (line: number) => changes.find((c) => c.line === line)!;
  const end = (says: string, cure?: number): CureStep => ({
    left,
    ...(cure === undefined ? {} : { cure }),
    putBack: [],
    fitAgain: [],
    minutes: 0,
    says,
  });
  if (left.length === 0) return end(texts.noSingleOne());
  if (left.length === 1) return end(tests.length === 0 ? texts.nothingToTell() : texts.curedBy(of(left[0]!).position), left[0]);
  if (left.length > MOST_CHANGES) throw new RangeError(`${left.length} changes; up to ${MOST_CHANGES} can be told apart`);

  const all = (1 << left.length) - 1;
  const sums = (of: (c: MayHaveCured) => number) => {
    const sum = new Float64Array(all + 1);
    for (let set = 1; set <= all; set++) {
      const low = set & -set;
      sum[set] = sum[set ^ low]! + of(changes.find((c) => c.line === left[31 - Math.clz32(low)])!);
    }
    return sum;
  };
  const [chance, minutes] = [sums((c) => Math.max(1e-9, c.chance)), sums((c) => c.minutes)];
  /** Expected minutes to the end from a set that is all in the amp, and from one that is all out of it. */
  const fromIn = new Float64Array(all + 1);
  const fromOut = new Float64Array(all + 1);
  const cost = (set: number, out: number, moved: number) =>
    trying + moved + (chance[out]! * fromOut[out]! + chance[set ^ out]! * fromIn[set ^ out]!) / chance[set]!;
  const best = (set: number, moved: (out: number) => number): { out: number; minutes: number } => {
    let found = { out: 0, minutes: Infinity };
    for (let out = (set - 1) & set; out > 0; out = (out - 1) & set) {
      const m = cost(set, out, moved(out));
      // Equal ways: the one that takes fewer parts out.
      if (m < found.minutes - 1e-9 || (m < found.minutes + 1e-9 && minutes[out]! < minutes[found.out]!)) found = { out, minutes: m };
    }
    return found;
  };
  for (let set = 1; set <= all; set++) {
    if ((set & (set - 1)) === 0) continue;
    fromIn[set] = best(set, (out) => minutes[out]!).minutes;
    fromOut[set] = best(set, (out) => minutes[set ^ out]!).minutes;
  }
  const now = left.reduce((set, line, i) => (outNow.includes(line) ? set | (1 << i) : set), 0);
  const { out, minutes: expected } = best(all, (o) => minutes[o ^ now]!);
  const lines = (set: number) => left.filter((_, i) => set & (1 << i));
  const [putBack, fitAgain] = [lines(out & ~now), lines(now & ~out)];
  const names = (list: number[]) => list.map((l) => of(l).position).join(", ");
  return {
    left,
    out: lines(out),
    putBack,
    fitAgain,
    minutes: expected,
    says:
      putBack.length > 0 && fitAgain.length > 0
        ? texts.testBoth(names(putBack), names(fitAgain))
        : putBack.length > 0
          ? texts.testPutBack(names(putBack))
          : texts.testFitAgain(names(fitAgain)),
  };
}
