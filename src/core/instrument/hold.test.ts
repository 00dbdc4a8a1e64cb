import { bandOf, feedHold, HOLD, startHold, type HoldState, type Sample } from "./hold";
import { uniformDraws } from "../numeric/random";

/** Feeds values four times a second. */
function feed(state: HoldState, values: (number | undefined)[], digit = 0.1, from = 0): HoldState {
  return values.reduce<HoldState>(
    (s, value, i) => feedHold(s, { at: from + i * 250, ...(value === undefined ? { over: true } : { value }), digit } as Sample),
    state,
  );
}
const volts = (value: number, count = 8) => Array.from({ length: count }, () => value);

test("the band is the meter's noise floor at a small reading and a part of a large one", () => {
  expect(bandOf(HOLD, 0, 0.0001)).toBeCloseTo(0.0004, 9);
  expect(bandOf(HOLD, 318, 0.1)).toBeCloseTo(0.636, 9);
});

test("a steady display is held after the dwell, not before", () => {
  const soon = feed(startHold(), [318.2, 318.1, 318.3]);
  expect(soon.phase).toBe("steadying");
  expect(soon.part).toBeCloseTo(500 / 1200, 6);
  const held = feed(startHold(), [318.2, 318.1, 318.3, 318.2, 318.2, 318.1]);
  expect(held.phase).toBe("held");
  expect(held.value).toBeCloseTo(318.183, 3);
});

test("the time it took to arrive does not go into the reading", () => {
  const held = feed(startHold(), [3, 120, 290, 316, 318.2, 318.1, 318.3, 318.2, 318.2, 318.1]);
  expect(held.phase).toBe("held");
  expect(held.value).toBeCloseTo(318.18, 1);
});

test("an open probe that wanders about zero is never held, whatever the seed", () => {
  for (let seed = 1; seed <= 40; seed++) {
    const draw = uniformDraws(seed);
    let state = startHold({ expected: 0 });
    let stray = 0;
    for (let i = 0; i < 80; i++) {
      stray = 0.7 * stray + (draw() - 0.5) * 0.05;
      state = feedHold(state, { at: i * 250, value: Number(stray.toFixed(5)), digit: 0.00001 });
      expect(state.phase).not.toBe("held");
    }
    expect(["open", "steadying"]).toContain(state.phase);
  }
});

test("zero on a coarse range, where volts belong, waits for the key; where zero belongs it is held", () => {
  expect(feed(startHold({ expected: 245 }), volts(0)).phase).toBe("doubtful-zero");
  expect(feed(startHold({ expected: 1.19 }), volts(0.0001), 0.00001).phase).toBe("doubtful-zero");
  expect(feed(startHold({ expected: 1.19 }), volts(0.06), 0.00001).phase).toBe("held");
  expect(feed(startHold({ expected: 0 }), volts(0.0001), 0.0001).phase).toBe("held");
  expect(feed(startHold(), volts(0)).phase).toBe("held");
});

test("a point that still charges creeps inside the band and is not held", () => {
  // A volt and a half in ten seconds up to 300 V: inside the band at any moment, but on its way.
  const creeping = Array.from({ length: 12 }, (_, i) => 300 + 0.11 * i);
  expect(feed(startHold(), creeping).phase).not.toBe("held");
});

test("the reading before has to be left before the same volts are taken again", () => {
  const after = startHold({}, { value: 318.2, digit: 0.1 });
  const still = feed(after, volts(318.2, 20));
  expect(still.phase).toBe("lift");
  const lifted = feed(still, [0.02, 318.2, 318.2, 318.2, 318.2, 318.2, 318.2], 0.1, 5000);
  expect(lifted.phase).toBe("held");
});

test("a change of range or an overload begins the dwell anew", () => {
  let state = feed(startHold(), volts(1.95, 4), 0.001);
  state = feedHold(state, { at: 1000, over: true, digit: 0.001 });
  expect(state.phase).toBe("over");
  state = feed(state, volts(2.31, 3), 0.01, 1250);
  expect(state.phase).toBe("steadying");
  state = feed(state, volts(2.31, 4), 0.01, 2000);
  expect(state.phase).toBe("held");
  expect(state.value).toBeCloseTo(2.31, 9);
});

test("a swing is told with its ends and its mean, and not held", () => {
  // A tremolo at 4 Hz under a slow meter: 226 V and 14 V either way.
  const swing = Array.from({ length: 24 }, (_, i) => 226 + 14 * Math.sin(i * 1.9));
  const state = feed(startHold(), swing);
  expect(state.phase).toBe("swinging");
  expect(state.value).toBeCloseTo(226, -1);
  expect(state.low).toBeLessThan(214);
  expect(state.high).toBeGreaterThan(238);
});

test("a sample that comes twice or late changes nothing", () => {
  const state = feed(startHold(), volts(12.4, 3));
  expect(feedHold(state, { at: 500, value: 99, digit: 0.1 })).toBe(state);
  expect(feedHold(state, { at: 250, value: 99, digit: 0.1 })).toBe(state);
});

test("the point before is not taken for this one because its rail creeps while the tubes warm; a lifted probe ends it", () => {
  // A rail that rises from 103 to 117 V under a probe that has not moved, then stands still.
  const creeping = Array.from({ length: 40 }, (_, i) => 117 - 14 * Math.exp(-i / 8));
  let state = startHold({ expected: 6.8 }, { value: 103, digit: 0.1 });
  for (const [i, value] of [...creeping, ...volts(117, 20)].entries()) {
    state = feedHold(state, { at: i * 250, value, digit: 0.1 });
    expect(state.phase).toBe("lift");
  }
  state = feed(state, [0.03, 6.8, 6.8, 6.8, 6.8, 6.8, 6.8], 0.1, 20_000);
  expect([state.phase, state.value]).toEqual(["held", 6.8]);

  // The same with samples missing, as on a machine that is busy.
  state = startHold({ expected: 6.8 }, { value: 103, digit: 0.1 });
  for (const [i, value] of [103, 106.1, 108, 109, 109.5, ...volts(109.6, 10)].entries()) {
    state = feedHold(state, { at: i * 1500, value, digit: 0.1 });
    expect(state.phase).toBe("lift");
  }
});
