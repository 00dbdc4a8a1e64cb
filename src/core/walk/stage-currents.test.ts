import { demoAmp } from "../solver/circuits-for-tests";
import { firstReason } from "./reason";
import { disagree, stageCurrents } from "./stage-currents";

const wren = demoAmp("wren-5");
const tube = (name: string) => wren.elements.find((e) => e.name === name)!;
const reader = (volts: Record<string, number>) => (point: string) => volts[point];

describe("a stage's current read twice", () => {
  test("hand-worked: 98 V across 100 kΩ is 0.98 mA, 1.9 V across 1.5 kΩ is 1.27 mA", () => {
    const c = stageCurrents(wren, tube("V1B"), reader({ B3: 220, "V1B.p": 122, "V1B.k": 1.9 }))!;
    expect(c.byPlate).toBeCloseTo(0.98e-3, 8);
    expect(c.byCathode).toBeCloseTo(1.2667e-3, 7);
    expect(c).toMatchObject({
      plateResistors: ["R6"],
      cathodeResistors: ["R7"],
      points: { plates: ["V1B.p"], supply: "B3", cathode: "V1B.k" },
    });
    expect(disagree(c)).toBe(true);
  });
  test("within the parts' tolerance they go together", () => {
    expect(disagree(stageCurrents(wren, tube("V1B"), reader({ B3: 220, "V1B.p": 140, "V1B.k": 1.25 }))!)).toBe(false);
  });
  test("two triodes on one tail: both plates against the one cathode resistor", () => {
    const drover = demoAmp("drover-40");
    const v4a = drover.elements.find((e) => e.name === "V4A")!;
    const c = stageCurrents(drover, v4a, reader({ B3: 360, "V4A.p": 235, "V4B.p": 235, "V4.k": 84 }))!;
    expect(c.tubes).toEqual(["V4A", "V4B"]);
    expect(c.byPlate).toBeCloseTo((2 * 125) / 47e3, 8);
  });
  test("a pentode, a missing reading or a grounded cathode give none", () => {
    expect(stageCurrents(wren, tube("V2"), reader({ B1: 260, "V2.p": 250, "V2.k": 7.8 }))).toBeUndefined();
    expect(stageCurrents(wren, tube("V1B"), reader({ "V1B.p": 122, "V1B.k": 1.9 }))).toBeUndefined();
    const minor = demoAmp("minor");
    expect(
      stageCurrents(
        minor,
        minor.elements.find((e) => e.name === "V1")!,
        reader({ B2: 100, "V1.p": 50 }),
      ),
    ).toBeUndefined();
  });
});

describe("the first reason by neighbours", () => {
  const point = (name: string) => wren.points.find((p) => p.name === name)!;
  const told = { volts: 140, low: 128, high: 148, basis: "model" as const, note: "" };
  test("a plate somewhat high beside a cathode in band is no dead tube: the two currents are said", () => {
    const said = firstReason(wren, point("V1B.p"), 152, told, reader({ B3: 220, "V1B.p": 152, "V1B.k": 1.18 }))!;
    expect(said).toMatch(/0\.680 mA by R6, 0\.787 mA by R7|they cannot both be right|draws less than usual/);
    const far = firstReason(wren, point("V1B.p"), 165, told, reader({ B3: 220, "V1B.p": 165, "V1B.k": 1.18 }))!;
    expect(far).toContain("0.550 mA by R6, 0.787 mA by R7");
    expect(far).toContain("R7 has gone high, R6 is low or bridged, or a reading is off. Take V1B.p again first.");
    for (const s of [said, far]) expect(s).not.toMatch(/weak or dead|near the supply/i);
  });
  test("a plate at its supply passes nothing", () => {
    expect(firstReason(wren, point("V1B.p"), 219, told, reader({ B3: 220, "V1B.p": 219 }))).toMatch(/^Near the supply/);
  });
  test("nothing else read: where to look next, and what it would mean", () => {
    expect(firstReason(wren, point("V1B.p"), 152, told)).toMatch(/Somewhat high.*Look at V1B\.k next/);
  });
  test("an output cathode low in a wide band is not called weak", () => {
    const wide = { volts: 0.46, low: 0.3, high: 0.5, basis: "model" as const, note: "", wide: true as const };
    const drover = demoAmp("drover-40");
    const said = firstReason(
      drover,
      drover.points.find((p) => p.name === "V5.k")!,
      0.27,
      wide,
    )!;
    expect(said).toMatch(/10 to 25 %/);
    expect(said).not.toMatch(/^Low: weak tube/);
  });
});
