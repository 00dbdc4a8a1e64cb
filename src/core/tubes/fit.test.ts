import { FITTED } from "./fitted";
import { fitTube, judgeFit, modelAt } from "./fit";
import { pentodeLaw, PENTODE_OUT, triodeLaw, TRIODE_OUT, emissionAt } from "./model";
import { SHEET_DATA, type SheetData } from "./sheet-points";

/** The table of published data sheet points that every fit answers to: Va, Vg2, Vg, Ia, Ig2, gm, µ where given. */
const TABLE: [string, number, number | undefined, number, number, number | undefined, number, number?][] = [
  ["12AX7", 250, undefined, -2, 1.2, undefined, 1.6, 100],
  ["12AT7", 250, undefined, -2, 10, undefined, 5.5, 60],
  ["12AU7", 250, undefined, -8.5, 10.5, undefined, 2.2, 17],
  ["12AY7", 250, undefined, -4, 3, undefined, 1.75, 44],
  ["6SN7GTB", 250, undefined, -8, 9, undefined, 2.6, 20],
  ["6SL7GT", 250, undefined, -2, 2.3, undefined, 1.6, 70],
  ["6AV6", 250, undefined, -2, 1.2, undefined, 1.6, 100],
  ["12SQ7", 250, undefined, -2, 1.0, undefined, 1.15, 100],
  ["EF86", 250, 140, -2, 3, 0.6, 2.0],
  ["6AU6", 250, 150, -1, 10.6, 4.3, 5.2],
  ["EL84", 250, 250, -7.3, 48, 5.5, 11.3],
  ["6V6GT", 250, 250, -12.5, 45, 4.5, 4.1],
  ["6AQ5", 250, 250, -12.5, 45, 4.5, 4.1],
  ["6L6GC", 250, 250, -14, 72, 5, 6],
  ["5881", 250, 250, -14, 75, 4.3, 6.1],
  ["EL34", 250, 265, -13.5, 100, 15, 11],
  ["KT66", 250, 250, -15, 85, 6.3, 6.5],
  ["KT88", 250, 250, -15, 140, 3, 11.5],
  ["6550", 250, 250, -14, 140, 12, 11],
  ["7591A", 300, 300, -10, 60, 8, 10.2],
  ["35C5", 110, 110, -7.5, 40, 3, 5.8],
  ["50C5", 110, 110, -7.5, 49, 4, 7.5],
  ["50L6GT", 110, 110, -7.5, 49, 4, 8.0],
];

describe("fits against published data sheets", () => {
  test.each(TABLE.map((row) => [row[0], row] as const))("%s", (_name, [type, va, vg2, vg, ia, ig2, gm, mu]) => {
    const model = FITTED[type]!;
    const m = modelAt(model, { va, vg2, vg });
    expect(Math.abs(m.ia / ia - 1)).toBeLessThan(0.1);
    expect(Math.abs(m.gm / gm - 1)).toBeLessThan(0.1);
    if (ig2 !== undefined) expect(Math.abs(m.ig2! / ig2 - 1)).toBeLessThan(0.25);
    if (mu !== undefined) expect(Math.abs(m.mu / mu - 1)).toBeLessThan(0.15);
    expect(model.ex).toBeGreaterThan(1.15);
    expect(model.ex).toBeLessThan(1.75);
    expect(Math.abs(model.mu / SHEET_DATA.find((d) => d.type === type)!.mu - 1)).toBeLessThan(0.15);
  });

  // Class AB idle of the sheets, far from the typical point. The 50L6GT's 200 V point is 24 % off and is not held here.
  test.each([
    ["EL34", 425, 420, -38, 30],
    ["EL34", 400, 400, -36, 30],
    ["KT66", 400, 400, -38, 57.7],
    ["KT88", 560, 300, -34, 60],
  ])("%s idles at %d V, screen %d V, %d V", (type, va, vg2, vg, ia) =>
    expect(Math.abs(modelAt(FITTED[type]!, { va, vg2, vg }).ia / ia - 1)).toBeLessThan(0.12),
  );

  test("a 12AX7 at zero bias and 150 V passes about 3.2 mA", () =>
    expect(modelAt(FITTED["12AX7"]!, { va: 150, vg: 0 }).ia / 3.2).toBeCloseTo(1, 0.9));

  // Published resistance-coupled amplifier table of the ECC83, cathode resistor bypassed: supply, plate and cathode
  // resistors, plate current in mA, voltage gain into a 330 kΩ (680 kΩ) grid leak. None of it was fitted to.
  test.each([
    [200, 100e3, 1800, 330e3, 0.65, 50],
    [250, 100e3, 1500, 330e3, 0.86, 54.5],
    [300, 100e3, 1200, 330e3, 1.11, 57],
    [250, 220e3, 2700, 680e3, 0.48, 66.5],
    [300, 220e3, 2200, 680e3, 0.63, 69],
  ])("ECC83 from %d V through %d Ω, cathode %d Ω", (supply, ra, rk, next, mA, gain) => {
    const model = FITTED["12AX7"]!;
    let ia = 0.5e-3;
    for (let k = 0; k < 200; k++) ia += 0.2 * (modelAt(model, { va: supply - ia * (ra + rk), vg: -ia * rk }).ia / 1e3 - ia);
    const { gm, rp } = modelAt(model, { va: supply - ia * (ra + rk), vg: -ia * rk });
    const load = 1 / (1 / ra + 1 / next);
    expect(Math.abs((ia * 1e3) / mA - 1)).toBeLessThan(0.12);
    expect(Math.abs(((gm / 1e3) * load * rp) / (rp + load) / gain - 1)).toBeLessThan(0.1);
  });

  test("the kept parameters are what the fit gives today", () => {
    const data = SHEET_DATA.find((d) => d.type === "EL84")!;
    expect(judgeFit(FITTED.EL84!, data).worst).toBeCloseTo(fitTube(data).worst, 2);
  });

  test("a type is added from one point of its sheet", () => {
    const data: SheetData = { type: "6XX6", mu: 10, kgrid: 900, points: [{ va: 200, vg2: 200, vg: -10, ia: 40, ig2: 4, gm: 5 }] };
    const fit = fitTube(data);
    expect(fit.doubts).toEqual([]);
    expect(fit.worst).toBeLessThan(0.05);
  });
  test("points that no tube has are doubted, and none at all refused", () => {
    const odd: SheetData = {
      type: "ODD",
      mu: 20,
      kgrid: 2000,
      points: [
        { va: 100, vg: -2, ia: 10, gm: 2 },
        { va: 300, vg: -2, ia: 1, gm: 9 },
      ],
    };
    expect(fitTube(odd).doubts.length).toBeGreaterThan(0);
    expect(() => fitTube({ ...odd, points: [] })).toThrow(RangeError);
    expect(() => fitTube({ ...odd, points: [{ va: 100, vg: 0, ia: -1 }] })).toThrow(/above zero/);
  });
});

describe("the laws and their derivatives", () => {
  const grid = [-60, -20, -3, -1, -0.3, 0, 0.4, 5];
  test("triode: derivatives against differences, and none vanishes", () => {
    const m = FITTED["12AX7"]!;
    if (m.kind !== "triode") throw new Error();
    const at = (vp: number, vg: number) => {
      const out = new Float64Array(TRIODE_OUT);
      triodeLaw(m, vp, vg, out);
      return out;
    };
    for (const vp of [-50, 0, 1, 30, 250])
      for (const vg of grid) {
        const [ip, , pp, pg, gg] = at(vp, vg);
        const d = 1e-4;
        const scale = Math.max(Math.abs(ip!), 1e-6);
        expect(Math.abs((at(vp + d, vg)[0]! - at(vp - d, vg)[0]!) / (2 * d) - pp!)).toBeLessThan(1e-5 * scale + 1e-9);
        expect(Math.abs((at(vp, vg + d)[0]! - at(vp, vg - d)[0]!) / (2 * d) - pg!)).toBeLessThan(1e-4 * scale + 1e-9);
        expect(Math.abs((at(vp, vg + d)[1]! - at(vp, vg - d)[1]!) / (2 * d) - gg!)).toBeLessThan(1e-6);
        expect(pp).toBeGreaterThan(0);
      }
  });
  test("pentode: derivatives against differences; the screen rises as the plate falls below it", () => {
    const m = FITTED.EL34!;
    if (m.kind !== "pentode") throw new Error();
    const at = (vp: number, vs: number, vg: number) => {
      const out = new Float64Array(PENTODE_OUT);
      pentodeLaw(m, vp, vs, vg, out);
      return out;
    };
    for (const vp of [-20, 0.5, 40, 400])
      for (const vs of [0, 100, 300])
        for (const vg of grid) {
          const here = at(vp, vs, vg);
          const d = 1e-4;
          const steps: [number, number, number, number][] = [
            [d, 0, 0, 0],
            [0, d, 0, 1],
            [0, 0, d, 2],
          ];
          for (const [p, s, g, k] of steps)
            for (const i of [0, 1]) {
              const difference = (at(vp + p, vs + s, vg + g)[i]! - at(vp - p, vs - s, vg - g)[i]!) / (2 * d);
              expect(Math.abs(difference - here[3 + 3 * i + k]!)).toBeLessThan(1e-4 * Math.max(here[0]! + here[1]!, 1e-6) + 1e-9);
            }
        }
    const screen = [400, 200, 100, 50, 20, 5].map((vp) => at(vp, 250, -10)[1]!);
    for (let k = 1; k < screen.length; k++) expect(screen[k]).toBeGreaterThan(screen[k - 1]!);
  });
  test("emission hardly moves with ten percent of heater, and is gone at forty", () => {
    expect(emissionAt(1)).toBe(1);
    expect(emissionAt(0.9)).toBeGreaterThan(0.98);
    expect(emissionAt(0.4)).toBeLessThan(0.05);
  });
});
