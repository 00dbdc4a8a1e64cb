import { leakFromGrid } from "./coupling-leak";
import { leakageLimit, limitAt } from "./leakage-limit";
import { judgeCapacitance, judgeDissipation, judgeSeriesOhms, mostSeriesOhms } from "./measured";

test("hand-worked: an electrolytic of today, IEC 60384-4", () => {
  // 47 µF × 450 V = 21150 µC: 0.03 × 21150 + 20 = 654.5 µA.
  expect(leakageLimit({ farads: 47e-6, volts: 450, kind: "electrolytic", year: 2024 }).amps).toBeCloseTo(654.5e-6, 9);
  // 22 µF × 25 V = 550 µC: 0.05 × 550 = 27.5 µA.
  expect(leakageLimit({ farads: 22e-6, volts: 25, kind: "electrolytic", year: 2020 }).amps).toBeCloseTo(27.5e-6, 9);
  // 1 µF × 50 V: 2.5 µA, and 5 µA at least.
  expect(leakageLimit({ farads: 1e-6, volts: 50, kind: "electrolytic", year: 2020 }).amps).toBeCloseTo(5e-6, 12);
});

test("hand-worked: an old one, K·C + 0.3 mA; unknown age counts as old", () => {
  expect(leakageLimit({ farads: 32e-6, volts: 450, year: 1959 }).amps).toBeCloseTo(0.04e-3 * 32 + 0.3e-3, 9);
  expect(leakageLimit({ farads: 50e-6, volts: 150 })).toMatchObject({
    amps: expect.closeTo(1.3e-3, 9) as number,
    formula: expect.stringContaining("0.02") as string,
  });
});

test("hand-worked: film by its time constant, or by the ohms promised for small ones", () => {
  // Polypropylene 30 000 s: 1 µF has 30 GΩ, 630 V are 21 nA. 100 nF: 100 GΩ promised at most.
  expect(leakageLimit({ farads: 1e-6, volts: 630, kind: "polypropylene" }).amps).toBeCloseTo(21e-9, 12);
  expect(leakageLimit({ farads: 100e-9, volts: 630, kind: "polypropylene" }).amps).toBeCloseTo(6.3e-9, 13);
});

test("below the rated volts less is allowed; without ratings nothing is said", () => {
  const limit = leakageLimit({ farads: 32e-6, volts: 450, year: 1959 });
  expect(limitAt(limit, 450, 225)).toBeCloseTo(limit.amps / 2, 12);
  expect(limitAt(limit, 450, 600)).toBe(limit.amps);
  expect(() => leakageLimit({ farads: NaN, volts: 450 })).toThrow(/read them off the part/);
  expect(() => leakageLimit({ farads: 1e-6, volts: 0 })).toThrow(RangeError);
});

test("hand-worked: a leak from volts at the grid, the meter beside the grid's resistor", () => {
  // 2 V at 1 MΩ ∥ 10 MΩ: 2.2 µA through the leak; (202 − 2) / 2.2 µA = 90.9 MΩ; without the meter 202·1/(91.9) = 2.198 V.
  const { ohms, unloadedVolts, amps } = leakFromGrid(202, 1e6, 2);
  expect(ohms / 90.909e6).toBeCloseTo(1, 4);
  expect(unloadedVolts).toBeCloseTo(2.1978, 3);
  expect(amps).toBeCloseTo(2e-6, 10);
  expect(leakFromGrid(202, 1e6, 0).ohms).toBe(Infinity);
  expect(() => leakFromGrid(202, 1e6, 203)).toThrow(/read 203/);
  expect(() => leakFromGrid(202, 1e6, -1)).toThrow(RangeError);
  // On a fixed bias of −40 V the grid rests there: 1 V up in 220 kΩ is 4.55 µA, less what the meter draws to −39 V, 3.9 µA.
  expect(leakFromGrid(260, 220e3, -39, 10e6, -40).ohms / (299 / (4.54545e-6 - 3.9e-6))).toBeCloseTo(1, 3);
});

test("capacitance, series resistance and losses by kind", () => {
  expect(judgeCapacitance(32e-6, 40e-6, "electrolytic").verdict).toBe("in");
  expect(judgeCapacitance(32e-6, 22e-6, "electrolytic").verdict).toBe("watch");
  expect(judgeCapacitance(32e-6, 12e-6, "electrolytic")).toMatchObject({
    verdict: "out",
    why: expect.stringContaining("drying out") as string,
  });
  expect(judgeCapacitance(22e-9, 31e-9, "paper")).toMatchObject({ verdict: "out", why: expect.stringContaining("leaky one") as string });
  expect(judgeCapacitance(22e-9, 22e-6, "polyester").why).toContain("µF against pF");
  // D 0.2 at 120 Hz and 10 µF: 0.2/(2π·120·10 µF) = 26.5 Ω.
  expect(mostSeriesOhms(10e-6, "electrolytic")).toBeCloseTo(26.53, 1);
  expect(judgeSeriesOhms(10e-6, 20, "electrolytic").verdict).toBe("in");
  expect(judgeSeriesOhms(10e-6, 90, "electrolytic").verdict).toBe("out");
  expect(judgeDissipation(22e-9, 0.012, "paper").verdict).toBe("in");
  expect(judgeDissipation(22e-9, 0.004, "polypropylene").verdict).toBe("out");
});
