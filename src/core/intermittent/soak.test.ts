import { soakPlan, soakState } from "./soak";
import { foldJob } from "../tape/fold";
import { START, tape } from "../tape/tape-for-tests";

const tapeOf = (lines: Parameters<typeof tape>) =>
  tape(...lines.map(([minutes, draft]): Parameters<typeof tape>[number] => [minutes * 60, draft]));

test("hours without failure for a confidence: about three mean intervals for 95 %, more when few failures were seen", () => {
  // A hundred failures in 200 h: two hours between them; ln 20 = 3.0 of those.
  expect(soakPlan({ failures: 100, hours: 200, onsetMinutes: 0, confidence: 0.95 }).hours).toBeCloseTo(6.08, 1);
  // Three failures in six hours: 6·(20^(1/3) − 1).
  expect(soakPlan({ failures: 3, hours: 6, onsetMinutes: 0, confidence: 0.95 }).hours).toBeCloseTo(6 * (Math.cbrt(20) - 1), 9);
  // One failure says little: nineteen times as long.
  expect(soakPlan({ failures: 1, hours: 2, onsetMinutes: 0, confidence: 0.95 }).hours).toBeCloseTo(38, 9);
});

test("a fault of every warming-up is about cycles longer than it used to take", () => {
  // Three of three failed. Chance of n without: Π i/(4 + i) = 1/5, 1/15, 1/35 for n = 1, 2, 3.
  const plan = soakPlan({ failures: 3, hours: 2, onsetMinutes: 40, confidence: 0.95 });
  expect(plan.cycles).toBe(3);
  expect(plan.cycleMinutes).toBe(60);
  expect(plan.hours).toBeGreaterThanOrEqual(3);
  expect(soakPlan({ failures: 3, hours: 2, onsetMinutes: 40, confidence: 0.99 }).cycles).toBe(5);
});

test("bad figures are refused by name", () => {
  expect(() => soakPlan({ failures: 0, hours: 2, onsetMinutes: 0, confidence: 0.95 })).toThrow("at least one failure");
  expect(() => soakPlan({ failures: 1, hours: 2, onsetMinutes: 0, confidence: 1 })).toThrow("0.5 to 0.999");
});

const begun = {
  type: "soak-begun",
  payload: { fault: "loses half its level", failures: 3, hours: 2, onsetMinutes: 40, confidence: 0.95 },
} as const;
const on = { type: "power", payload: { state: "on", plug: "in" } } as const;
const off = { type: "power", payload: { state: "off", plug: "out" } } as const;

test("the tape's own power lines are the clock: short runs are no cycles, a failure begins anew", () => {
  const soaked = tapeOf([
    [0, begun],
    [1, on],
    [71, off],
    [80, on],
    [100, off],
    [110, on],
  ]);
  const at = (minutes: number, events = soaked) => soakState(foldJob(events), START + minutes * 60_000)!;
  expect(at(130)).toMatchObject({ cycles: 1, cyclesLeft: 2, failures: [] });
  expect(at(130).hours).toBeCloseTo(110 / 60, 9);
  expect(at(180)).toMatchObject({ cycles: 2 });
  expect(at(180).confidence).toBeCloseTo(1 - 1 / 15, 9);
  const failed = tapeOf([
    [0, begun],
    [1, on],
    [71, off],
    [80, on],
    [125, { type: "occurrence", payload: { what: "half the level again", warmMinutes: 45 } }],
  ]);
  expect(at(160, failed)).toMatchObject({ cycles: 0, failures: [{ what: "half the level again" }] });
  expect(at(130, failed).hours).toBeCloseTo(5 / 60, 9);
});
