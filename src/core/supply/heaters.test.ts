import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { findOpen, heaterLoad, heaterString, judgeHeaterVolts, voltsWithOpen } from "./heaters";

const load = (name: string) => readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8")).circuit;

describe("a series string", () => {
  const minor = load("minor");
  const string = heaterString(minor, minor.heaters[0]!, 117);
  test("hand-worked: 35 + 50 + 12.6 V leave 19.4 V: 129 Ω, 2.9 W, a 7 W part", () => {
    expect(string.sum).toBeCloseTo(97.6, 6);
    expect(string.amps).toBe(0.15);
    expect(string.dropVolts).toBeCloseTo(19.4, 6);
    expect(string.ballastOhms).toBeCloseTo(129.3, 1);
    expect(string.ballastWatts).toBeCloseTo(2.91, 2);
    expect(string.ballastFits).toBe(130);
    expect(string.ballastRating).toBe(7);
    expect(string.fitted).toBe(130);
    expect(string.doubts).toEqual([]);
    // The ballast that is fitted is the one that is wanted, so the string draws what it was made for.
    expect(string.stringAmps).toBeCloseTo(0.15, 3);
    // Cold: a sixth of 97.6/0.15 and the ballast.
    expect(string.coldOhms).toBeCloseTo(97.6 / 0.15 / 6 + 130, 6);
    expect(string.surgeAmps).toBeCloseTo(117 / (97.6 / 0.9 + 130), 6);
  });
  test("on 130 V each heater gets too much, and it is said", () => {
    const high = heaterString(minor, minor.heaters[0]!, 130);
    expect(high.heaterShare).toBeGreaterThan(1.1);
    expect(high.doubts[0]).toContain("too small");
  });
  test("a tube of another current in the string is named", () => {
    const c = readCircuit(
      "t\n*@mains 117 50\n*@heater H1 string=V1,V2\nXV1 p g 0 12SQ7\nXV2 q r 0 12AX7\nR1 p 0 1k\nR2 q 0 1k\nR3 g 0 1k\nR4 r 0 1k",
    ).circuit;
    expect(heaterString(c, c.heaters[0]!, 25.2)).toMatchObject({
      amps: undefined,
      doubts: [expect.stringContaining("different currents")],
    });
  });
  test("where it is open: the highest heater first, then what is left", () => {
    expect(findOpen(string, new Map())).toMatchObject({ next: "V2" });
    expect(findOpen(string, new Map([["V2", 55]]))).toMatchObject({ next: "V3" });
    expect(
      findOpen(
        string,
        new Map([
          ["V2", 55],
          ["V3", Infinity],
        ]),
      ),
    ).toMatchObject({ open: "V3" });
    const all = new Map([
      ["V1", 14],
      ["V2", 55],
      ["V3", 39],
      ["ballast", 130],
    ]);
    expect(findOpen(string, all).says).toContain("between them");
    expect(findOpen(string, new Map(all).set("V3", 400)).says).toContain("poor joint");
    expect([...voltsWithOpen(string, "V3", 117)]).toEqual([
      ["V3", 117],
      ["V2", 0],
      ["V1", 0],
    ]);
  });
});

describe("parallel heaters", () => {
  test("hand-worked: the Halberd's four EL34 take 6 A, 37.8 W", () => {
    const c = load("halberd-120");
    const h = heaterLoad(c, c.heaters[1]!, 5);
    expect(h.amps).toBeCloseTo(6, 6);
    expect(h.watts).toBeCloseTo(37.8, 6);
    expect(h.share).toBeCloseTo(1.2, 6);
    expect(h.doubts[0]).toContain("6.00 A of a winding for 5 A");
    expect(heaterLoad(c, c.heaters[1]!, 8).doubts).toEqual([]);
  });
  test("heater volts", () => {
    expect(judgeHeaterVolts(6.3, 6.4).verdict).toBe("in");
    expect(judgeHeaterVolts(6.3, 6.8)).toMatchObject({ verdict: "watch", why: expect.stringContaining("high") });
    expect(judgeHeaterVolts(6.3, 5.2)).toMatchObject({ verdict: "out", why: expect.stringContaining("low") });
  });
});
