import { fitDecay, timeToLimit, type DecayPoint } from "./decay-fit";
import { normalDraws } from "./random";
import { studentQuantile } from "./student";

const DIGIT = 1e-6;

/** Points of a known decay as a meter with 1 % and a last digit shows them; times spread as they are logged, closer at the start. */
function noisy(
  seed: number,
  { final, amplitude, tau, n = 24 }: { final: number; amplitude: number; tau: number; n?: number },
): DecayPoint[] {
  const normal = normalDraws(seed);
  return Array.from({ length: n }, (_, i) => {
    const t = 3 * tau * (i / (n - 1)) ** 1.5;
    const clean = final + amplitude * Math.exp(-t / tau);
    const sigma = Math.hypot(0.01 * clean, DIGIT / Math.sqrt(12));
    return { t, value: clean + sigma * normal(), sigma };
  });
}

test.each([
  [1, 12.706],
  [2, 4.303],
  [3, 3.182],
  [5, 2.571],
  [10, 2.228],
  [30, 2.042],
  [100, 1.984],
])("Student's t for 95 %% at %d degrees of freedom is the printed %d", (freedom, printed) =>
  expect(studentQuantile(0.95, freedom)).toBeCloseTo(printed, 2),
);

test("without noise the constants come back", () => {
  const [final, amplitude, tau] = [0.4e-3, 3e-3, 900];
  const points = Array.from({ length: 12 }, (_, i) => {
    const t = i * 200;
    return { t, value: final + amplitude * Math.exp(-t / tau), sigma: 1e-6 };
  });
  const fit = fitDecay(points)!;
  expect(fit.tau / tau).toBeCloseTo(1, 4);
  expect(fit.final / final).toBeCloseTo(1, 4);
  // By hand: 900·ln(3/(0.8 − 0.4)) = 1813 s.
  expect(timeToLimit(points, fit, 0.8e-3)!.seconds).toBeCloseTo(1813.4, 0);
});

test("known constants come back from noisy points within 5 % in the mean, and the intervals hold them in 95 of 100 runs", () => {
  const runs = 300;
  const truth = { final: 0.5e-3, amplitude: 2.5e-3, tau: 1200 };
  const limit = 0.8e-3;
  const at = truth.tau * Math.log(truth.amplitude / (limit - truth.final));
  let [tauOff, tauIn, finalIn, timeIn] = [0, 0, 0, 0];
  for (let seed = 1; seed <= runs; seed++) {
    const points = noisy(seed, truth);
    const fit = fitDecay(points)!;
    tauOff += Math.abs(fit.tau / truth.tau - 1) / runs;
    const holds = ([low, high]: readonly [number, number], x: number) => Number(low <= x && x <= high);
    tauIn += holds(fit.within.tau, truth.tau);
    finalIn += holds(fit.within.final, truth.final);
    timeIn += holds(timeToLimit(points, fit, limit)!.within, at);
  }
  expect(tauOff).toBeLessThan(0.05);
  // 95 % of 300 runs, less what chance allows (two standard deviations of a share of 0.95 in 300: 2.5 %).
  for (const held of [tauIn, finalIn, timeIn]) {
    expect(held / runs).toBeGreaterThan(0.925);
    expect(held / runs).toBeLessThan(0.99);
  }
});

test("what does not fall, or too few points, is no decay", () => {
  expect(fitDecay(noisy(1, { final: 1e-3, amplitude: 1e-3, tau: 100, n: 4 }))).toBeUndefined();
  const rising = Array.from({ length: 10 }, (_, i) => ({ t: i * 60, value: 1e-3 + 1e-4 * i, sigma: 1e-6 }));
  const fit = fitDecay(rising);
  // A line up may be called a decay only with a falling part.
  expect(fit === undefined || fit.at(540) < fit.at(0)).toBe(true);
});

test("a final value above the limit is never reached", () => {
  const points = noisy(3, { final: 2e-3, amplitude: 2e-3, tau: 600 });
  expect(timeToLimit(points, fitDecay(points)!, 1e-3)).toBeUndefined();
});
