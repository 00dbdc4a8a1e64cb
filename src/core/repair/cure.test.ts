/** Which of several changes cured it: against a hand-worked case and against every strategy tried by force. */

import fc from "fast-check";
import "@/fixed-draws-for-tests";
import { leftAfter, nextCureTest, type MayHaveCured } from "./cure";

const change = (line: number, minutes = 10, chance = 1): MayHaveCured => ({ line, position: `P${line}`, chance, minutes });

test("three alike, ten minutes each and five to try: one back, then one of the other two", () => {
  // One out: 15, and in two of three cases 15 more: 25. Two out: 25, and in two of three cases 15 more: 35.
  const step = nextCureTest([change(1), change(2), change(3)], [], [], 5);
  expect(step.putBack).toHaveLength(1);
  expect(step.minutes).toBeCloseTo(25, 9);
  expect(step.says).toMatch(/^Put back P\d, then try the complaint again\.$/);
});

test("the likely one is tried first, the costly one never where the others tell", () => {
  expect(nextCureTest([change(1, 10, 8), change(2), change(3)], [], [], 5).putBack).toEqual([1]);
  expect(nextCureTest([change(1, 300), change(2), change(3)], [], [], 5).putBack).not.toContain(1);
});

test("what the tests leave; the fault is back with the cure out", () => {
  expect(leftAfter([1, 2, 3, 4], [{ out: [1, 2], result: "fault is back" }])).toEqual([1, 2]);
  expect(leftAfter([1, 2, 3, 4], [{ out: [1, 2], result: "still cured" }])).toEqual([3, 4]);
  const all = [change(1), change(2), change(3)];
  const step = nextCureTest(all, [{ out: [1, 2], result: "fault is back" }], [1, 2], 5);
  // Both are out and one of them is it: fit one again.
  expect([step.putBack, step.fitAgain.length, step.minutes]).toEqual([[], 1, 15]);
  expect(nextCureTest(all, [{ out: [1], result: "fault is back" }], [1], 5)).toMatchObject({ cure: 1, says: "P1 cured it" });
});

test("answers that no single change explains are said to be so, and one change alone is not proved by itself", () => {
  const none = nextCureTest(
    [change(1), change(2)],
    [
      { out: [1], result: "still cured" },
      { out: [2], result: "still cured" },
    ],
    [],
    5,
  );
  expect(none.cure).toBeUndefined();
  expect(none.says).toMatch(/two of the changes together, or the fault comes and goes/);
  expect(nextCureTest([change(1)], [], [], 5).says).toMatch(/Put it back to be sure/);
  expect(() =>
    nextCureTest(
      Array.from({ length: 13 }, (_, i) => change(i)),
      [],
      [],
      5,
    ),
  ).toThrow("13 changes; up to 12");
});

/** Expected minutes by trying every way to go on from every state: which are in, which may be it. Written apart, and slow. */
function byForce(changes: MayHaveCured[], maybe: boolean[], isOut: boolean[], trying: number): number {
  const left = changes.map((_, i) => i).filter((i) => maybe[i]);
  if (left.length <= 1) return 0;
  const whole = left.reduce((s, i) => s + changes[i]!.chance, 0);
  let best = Infinity;
  for (let pattern = 1; pattern < 2 ** left.length - 1; pattern++) {
    const out = left.filter((_, k) => Math.floor(pattern / 2 ** k) % 2 === 1);
    const moved = left.filter((i) => out.includes(i) !== isOut[i]).reduce((s, i) => s + changes[i]!.minutes, 0);
    const p = out.reduce((s, i) => s + changes[i]!.chance, 0) / whole;
    const now = isOut.map((o, i) => (left.includes(i) ? out.includes(i) : o));
    const back = byForce(
      changes,
      maybe.map((m, i) => m && out.includes(i)),
      now,
      trying,
    );
    const still = byForce(
      changes,
      maybe.map((m, i) => m && !out.includes(i)),
      now,
      trying,
    );
    best = Math.min(best, trying + moved + p * back + (1 - p) * still);
  }
  return best;
}

test("no way to go on is quicker, from whatever is out now", () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ minutes: fc.integer({ min: 1, max: 60 }), chance: fc.integer({ min: 1, max: 9 }), out: fc.boolean() }), {
        minLength: 2,
        maxLength: 4,
      }),
      fc.integer({ min: 1, max: 60 }),
      (given, trying) => {
        const changes = given.map((g, i) => change(i + 1, g.minutes, g.chance));
        const out = changes.filter((_, i) => given[i]!.out).map((c) => c.line);
        const force = byForce(
          changes,
          given.map(() => true),
          given.map((g) => g.out),
          trying,
        );
        expect(nextCureTest(changes, [], out, trying).minutes).toBeCloseTo(force, 6);
      },
    ),
    { numRuns: 60 },
  );
});

test("followed to its end it names the one that cured it", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 7 }),
      fc.nat(),
      fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 7, maxLength: 7 }),
      (n, which, minutes) => {
        const changes = Array.from({ length: n }, (_, i) => change(i + 1, minutes[i]));
        const cure = (which % n) + 1;
        const tests: { out: number[]; result: "fault is back" | "still cured" }[] = [];
        let out: number[] = [];
        for (let i = 0; i < n; i++) {
          const step = nextCureTest(changes, tests, out, 10);
          if (!step.out) return expect(step.cure).toBe(cure);
          out = [...out.filter((l) => !step.fitAgain.includes(l)), ...step.putBack];
          tests.push({ out: step.out, result: out.includes(cure) ? "fault is back" : "still cured" });
        }
        expect(nextCureTest(changes, tests, out, 10).cure).toBe(cure);
      },
    ),
  );
});
