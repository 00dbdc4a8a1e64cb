import fc from "fast-check";
import { circuitOf, demoAmp } from "../solver/circuits-for-tests";
import { findTubeType } from "../tubes/library";
import { alter } from "../circuit/alter";
import { plateCurves, turnsRatio } from "./load-line";
import { groupOf, matchTubes, type MeasuredTube } from "./matching";
import { belowFull, dampingFrom, judgeSignal, signalSteps } from "./signal-walk";
import { SHEET_PAIRS } from "./pairs-for-tests";

describe("load line", () => {
  test.each(SHEET_PAIRS)("the corner of a pair gives the power of its published table within a fifth: $type", (p) => {
    const { clip, ohms } = plateCurves({
      type: findTubeType(p.type)!,
      single: false,
      tubes: 1,
      supply: p.plate,
      screen: p.screen,
      idle: p.plateMilliamps / 1e3,
      primary: p.zpp,
    });
    expect(ohms).toBe(p.zpp / 4);
    expect(clip.watts / p.watts).toBeGreaterThan(0.8);
    expect(clip.watts / p.watts).toBeLessThan(1.2);
  });
  test("a single-ended line goes through the idle point with the slope of the primary", () => {
    const { load, idle } = plateCurves({
      type: findTubeType("EL84")!,
      single: true,
      tubes: 1,
      supply: 250,
      screen: 250,
      idle: 0.048,
      primary: 5200,
    });
    const [[, i0], [v1, i1]] = load as [[number, number], [number, number]];
    expect(i0).toBeCloseTo(idle.amps + 250 / 5200, 9);
    expect(v1).toBeCloseTo(250 + 0.048 * 5200, 6);
    expect(i1).toBeCloseTo(0, 9);
  });
  test("curves are those of the type's sheet, the limit its rating", () => {
    const { curves, limit } = plateCurves({
      type: findTubeType("6V6GT")!,
      single: false,
      tubes: 1,
      supply: 285,
      screen: 285,
      idle: 0.035,
      primary: 8000,
    });
    for (const [v, i] of limit) expect(v * i).toBeCloseTo(findTubeType("6V6GT")!.ratings!.plateWatts, 6);
    expect(curves[0]!.grid).toBeCloseTo(0);
    // Falling with the grid at any one plate voltage.
    const at = curves.map((c) => c.points[30]![1]);
    expect(at).toEqual([...at].sort((a, b) => b - a));
  });
  test("turns ratio: 100 V on the primary, 4.92 V on the secondary with 16 Ω is 6.6 kΩ; on half the load half of it", () => {
    const r = turnsRatio(100, 4.9237, 16, 6600);
    expect(r.reflected).toBeCloseTo(6600, -1);
    expect(r.share).toBeCloseTo(1, 2);
    const wrong = turnsRatio(100, 4.9237, 8, 6600);
    expect(wrong.share).toBeCloseTo(0.5, 2);
    expect(wrong.loadWanted).toBeCloseTo(16, 1);
    expect(() => turnsRatio(100, 0, 8)).toThrow("secondary");
  });
  test("a figure that is missing is named", () =>
    expect(() => plateCurves({ type: findTubeType("EL84")!, single: true, tubes: 1, supply: 250, idle: 0, primary: 5200 })).toThrow(
      "idle",
    ));
});

describe("matching", () => {
  test("the closest pairs of a handful, by hand", () => {
    const tubes = [30, 40, 31, 41.5, 55].map((milliamps, id) => ({ id, milliamps }));
    const { groups, left } = matchTubes(tubes, 2, 0.1);
    expect(groups.map((g) => g.tubes.map((t) => t.milliamps).sort())).toEqual([
      [30, 31],
      [40, 41.5],
    ]);
    expect(left.map((t) => t.milliamps)).toEqual([55]);
  });
  /** Every way to part tubes into pairs, the least sum of spreads. */
  const best = (tubes: MeasuredTube[]): number => {
    if (tubes.length < 2) return 0;
    const [first, ...rest] = tubes as [MeasuredTube, ...MeasuredTube[]];
    return Math.min(...rest.map((other, i) => groupOf([first, other]).spread + best(rest.filter((_, k) => k !== i))));
  };
  test("within a fifth of the best possible sum over random stocks, found by trying all; disjoint always", () => {
    let [own, ideal] = [0, 0];
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: 30, max: 50, noNaN: true }), fc.double({ min: 4, max: 6, noNaN: true })), {
          minLength: 8,
          maxLength: 8,
        }),
        (rows) => {
          const tubes = rows.map(([milliamps, gm], id) => ({ id, milliamps, gm }));
          const { groups, left } = matchTubes(tubes, 2, 10);
          expect(left).toEqual([]);
          expect(new Set(groups.flatMap((g) => g.tubes.map((t) => t.id))).size).toBe(8);
          own += groups.reduce((sum, g) => sum + g.spread, 0);
          ideal += best(tubes);
        },
      ),
      { numRuns: 60, seed: 5 },
    );
    expect(own / ideal).toBeLessThan(1.2);
  });
  test("quads and sextets stay within the bound; a tube without transconductance counts by its current", () => {
    const tubes = Array.from({ length: 24 }, (_, id) => ({ id, milliamps: 35 + (id % 12), ...(id % 5 ? { gm: 5 + (id % 3) * 0.1 } : {}) }));
    for (const size of [4, 6])
      for (const g of matchTubes(tubes, size, 0.1).groups) expect([g.tubes.length, g.spread <= 0.1]).toEqual([size, true]);
    expect(() => matchTubes(tubes, 1)).toThrow("two or more");
  });
});

describe("signal walk", () => {
  const drover = demoAmp("drover-40");
  const tone = { volts: 0.002, hertz: 1000 };
  test("levels through a known divider and a known gain", () => {
    // 12AX7 with 100 kΩ into 1 MΩ, published resistance-coupled figures give a gain of about 52 to 62.
    const c = circuitOf(
      "VB b 0 250",
      "*@stage V1 in=in out=p",
      "*@point V1.p node=p order=1",
      "XV1 p g k 12AX7",
      "R1 b p 100k",
      "R2 k 0 1.5k",
      "C1 k 0 25u",
      "R3 in g 1k",
      "R4 in 0 1MEG",
      "R5 o 0 1MEG",
      "C2 p o 100n",
    );
    const steps = signalSteps(c, { volts: 0.1, hertz: 1000 });
    const plate = steps.find((s) => s.point === "V1.p")!;
    expect(plate.expected / 0.1).toBeGreaterThan(50);
    expect(plate.expected / 0.1).toBeLessThan(64);
    expect(plate.inverts).toBe(true);
    const loud = signalSteps(c, { volts: 4, hertz: 1000 }).find((s) => s.point === "V1.p")!;
    expect(loud.clips).toBe(true);
  });
  test("a bypass capacitor that is open is found between the two points that it lies between", () => {
    const expected = signalSteps(drover, tone);
    const faulty = signalSteps(alter(drover, ["C10=open"]), tone);
    const readings = faulty.slice(0, 6).map((s) => ({ point: s.point, volts: s.expected }));
    const judged = judgeSignal(expected, readings);
    expect(judged.first?.row.point).toBe("V2A.p");
    expect(judged.first?.after?.point).toBe("g2a");
    expect(judged.says).toContain("between V2A.g and V2A.p");
  });
  test("within tolerance, nothing read, and a stage after the fault is not blamed for it", () => {
    const steps = signalSteps(drover, tone);
    expect(judgeSignal(steps, []).says).toContain("No level");
    expect(
      judgeSignal(
        steps,
        steps.map((s) => ({ point: s.point, volts: s.expected * 1.1 })),
      ).first,
    ).toBeUndefined();
    const low = judgeSignal(
      steps,
      steps.map((s, i) => ({ point: s.point, volts: i < 4 ? s.expected : s.expected / 4 })),
    );
    expect(low.rows.filter((r) => Math.abs(r.adds ?? 0) > 3)).toHaveLength(1);
  });
  test("damping from two loads: 8 V into 16 Ω and 7.2 V into 8 Ω is an output of 2 Ω, a factor of 4", () => {
    const { ohms, factor } = dampingFrom({ volts: 8, ohms: 16 }, { volts: 7.2, ohms: 8 });
    // (8 − 7.2)/(0.9 − 0.5) = 2.
    expect(ohms).toBeCloseTo(2, 9);
    expect(factor).toBeCloseTo(4, 9);
    expect(() => dampingFrom({ volts: 7, ohms: 16 }, { volts: 8, ohms: 8 })).toThrow("higher");
  });
  test("4 mV of hum under 15 W into 15 Ω is −71.5 dB", () => expect(belowFull(0.004, 15, 15)).toBeCloseTo(-71.48, 2));
  test("a tone that is none is refused", () => expect(() => signalSteps(drover, { volts: 0, hertz: 1000 })).toThrow("above 0 V"));
});
