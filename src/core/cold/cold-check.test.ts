import { readFileSync } from "node:fs";
import { alter } from "../circuit/alter";
import { readCircuit } from "../circuit/read";
import { coldList } from "./cold-list";
import { ohmmeter } from "../solver/ohmmeter";
import { judgeCold, judgeHalves } from "./cold-check";

const lantern = readCircuit(readFileSync("demo/amps/lantern-15.cir", "utf8")).circuit;

describe("resistances of the cold amp", () => {
  const list = coldList(lantern);
  const of = (point: string) => list.find((c) => c.point === point)!;

  test("hand-worked: R11 reads its own 56 kΩ, the reservoir its bleeder", () => {
    expect(of("R11").expected).toBeCloseTo(56e3, -1);
    expect(of("b1:0").expected).toBeCloseTo(220e3, -2);
  });
  test("hand-worked: a resistor with another across it", () => {
    const plain = readCircuit("t\nR1 a 0 100k ;@tol 5%\nR2 a b 47k ;@tol 5%\nR3 b 0 53k ;@tol 5%").circuit;
    const r1 = coldList(plain).find((x) => x.point === "R1")!;
    expect(r1.expected).toBeCloseTo(50e3, 0);
    expect(r1.marked).toBe(100e3);
    expect(r1.beside).toEqual(["R2"]);
    expect(r1.low).toBeGreaterThan(46e3);
    expect(r1.high).toBeLessThan(54e3);
  });
  test("windings, halves and heaters are on the list", () => {
    expect(of("b1:p4")).toMatchObject({ group: "windings", marked: 180 });
    expect(of("b1:p5").marked).toBe(195);
    expect(of("HT.1").expected).toBe(60);
    // 6.3 V at 0.45 A is 14 Ω hot, a sixth of it cold.
    expect(of("V4.heater").expected).toBeCloseTo(14 / 6, 6);
  });
  test("a sound amp's readings are all in, and each single fault that an ohmmeter can see is out", () => {
    const read = (circuit: typeof lantern, point: string) => {
      const part = circuit.elements.find((e) => e.name === point);
      const original = lantern.elements.find((e) => e.name === point);
      const [a, b] = point.includes(":")
        ? (point.split(":") as [string, string])
        : [(part ?? original)!.nodes[0]!, (part ?? original)!.nodes[1]!];
      return ohmmeter(circuit, a, b, { seconds: 0 }).settled;
    };
    const readable = list.filter((c) => c.point.includes(":") || lantern.elements.some((e) => e.name === c.point));
    for (const c of readable) expect([c.point, judgeCold(c, read(lantern, c.point)).verdict]).toEqual([c.point, "in"]);
    for (const [fault, point] of [
      ["R9=148k", "R9"],
      ["R4=open", "R4"],
      ["C2=short", "b2:0"],
      ["R14=500", "R14"],
      ["T1=open:2", "b1:p5"],
    ] as const)
      expect([fault, judgeCold(of(point), read(alter(lantern, [fault]), point)).verdict]).toEqual([fault, "out"]);
  });
  test("verdicts in words", () => {
    expect(judgeCold(of("R9"), 1e9).why).toContain("open");
    expect(judgeCold(of("b1:0"), 30).why).toContain("no power before it is found");
    expect(judgeCold(of("V4.heater"), Infinity)).toMatchObject({ verdict: "out", why: "open" });
  });
  test("halves against each other, as they were made", () => {
    expect(judgeHalves(180, 195, 180 / 195).verdict).toBe("in");
    expect(judgeHalves(60, 58).verdict).toBe("in");
    expect(judgeHalves(12, 60)).toMatchObject({ verdict: "out", why: "the first half reads 80 % low against the other: shorted turns" });
    expect(judgeHalves(60, Infinity).verdict).toBe("out");
  });
});
