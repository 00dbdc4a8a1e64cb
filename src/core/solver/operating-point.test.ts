import { alter, without } from "../circuit/alter";
import { AMPS, circuitOf, demoAmp } from "./circuits-for-tests";
import { idealVolts, operatingPoint, readings, tubesAtWork } from "./operating-point";
import { powerBalance } from "./power-balance";
import { stresses } from "./stress";

const close = (got: number, wanted: number, part: number) => expect(Math.abs(got - wanted)).toBeLessThanOrEqual(part * Math.abs(wanted));

describe("linear networks, exact to 1e-9", () => {
  test("divider, ladder and bridge", () => {
    const op = operatingPoint(circuitOf("V1 in 0 100", "R1 in a 1k", "R2 a 0 3k", "R3 a b 1MEG", "R4 b 0 1MEG"));
    const a = 100 / (1 + 1e3 * (1 / 3e3 + 1 / 2e6));
    close(idealVolts(op, "a"), a, 1e-9);
    close(idealVolts(op, "b"), a / 2, 1e-9);
    const bridge = operatingPoint(circuitOf("V1 in 0 12", "R1 in a 1k", "R2 in b 2k", "R3 a b 5k", "R4 a 0 3k", "R5 b 0 4k"));
    // Two node equations by hand: 1.5333a − 0.2b = 12, −0.2a + 0.95b = 6 (in mA and kΩ).
    const det = (1 + 1 / 5 + 1 / 3) * (1 / 2 + 1 / 5 + 1 / 4) - 0.04;
    close(idealVolts(bridge, "a"), (12 * 0.95 + 0.2 * 6) / det, 1e-9);
    close(idealVolts(bridge, "b"), ((1 + 1 / 5 + 1 / 3) * 6 + 0.2 * 12) / det, 1e-9);
  });
  test("a current source, a choke as a short, a control at a third", () => {
    const op = operatingPoint(circuitOf("I1 0 a 2m", "L1 a b 5 ;@dcr 100", "XP1 0 w b POT value=9k taper=linear pos=0.3333333333333333"));
    close(idealVolts(op, "b"), 18, 1e-9);
    close(idealVolts(op, "w"), 6, 1e-9);
    close(idealVolts(op, "a"), 18.2, 1e-9);
  });
});

describe("tubes in circuits", () => {
  const stage = (...more: string[]) =>
    circuitOf(
      "VB b 0 300",
      "R1 b p 100k",
      "XV1 p g k 12AX7",
      "R2 k 0 1.5k",
      "R3 g 0 1MEG",
      "*@point K node=k",
      "*@point P node=p",
      ...more,
    );
  test("a resistance-coupled stage stands where the trade expects it", () => {
    const op = operatingPoint(stage());
    expect(idealVolts(op, "p")).toBeGreaterThan(185);
    expect(idealVolts(op, "p")).toBeLessThan(220);
    expect(idealVolts(op, "k")).toBeGreaterThan(1.2);
    expect(idealVolts(op, "k")).toBeLessThan(1.7);
  });
  test("a meter loads the point that it is on, and that point alone", () => {
    const op = operatingPoint(
      circuitOf("V1 a 0 100", "R1 a b 1MEG", "R2 b 0 1MEG", "R3 b c 1MEG", "R4 c 0 1MEG", "*@point B node=b", "*@point C node=c"),
    );
    const read = readings(op, op.network.circuit.points, 10e6);
    // Behind b stand 1 MΩ, 1 MΩ and 2 MΩ: 400 kΩ. Behind c: 1 MΩ and (1 MΩ + 500 kΩ): 600 kΩ.
    close(read.get("B")!, (40 * 10) / 10.4, 1e-9);
    close(read.get("C")!, (20 * 10) / 10.6, 1e-9);
  });
  test("an open cathode resistor: the meter is the only way to ground, and the node is undetermined without it", () => {
    const op = operatingPoint(alter(stage(), ["R2=open"]));
    expect(op.converged).toBe(true);
    expect(op.undetermined).toContain("k");
    const read = readings(op, op.network.circuit.points);
    expect(read.get("K")).toBeGreaterThan(2);
    expect(read.get("K")).toBeLessThan(8);
    expect(read.get("P")).toBeGreaterThan(290);
  });
  test("an open grid leak is undetermined; the stage still has an answer", () => {
    const op = operatingPoint(alter(stage(), ["R3=open"]));
    expect(op.converged).toBe(true);
    expect(op.undetermined).toEqual(["g"]);
  });
  test("gas current through the grid leak makes the grid positive; a dead tube leaves the plate at the supply", () => {
    close(idealVolts(operatingPoint(alter(stage(), ["V1=dead"])), "p"), 300, 1e-6);
    const gassy = operatingPoint(alter(stage(), ["V1=gassy:0.5u"]));
    expect(idealVolts(gassy, "g")).toBeGreaterThan(0.2);
    expect(idealVolts(gassy, "p")).toBeLessThan(idealVolts(operatingPoint(stage()), "p"));
  });

  const cathodyne = circuitOf(
    "VB b 0 300",
    "R1 b p 56k",
    "XV1 p g k 12AX7",
    "R2 k t 1.5k",
    "R3 t 0 56k",
    "R4 g t 1MEG",
    "C1 g 0 22n",
    "*@point P node=p",
    "*@point K node=k",
    "*@point T node=t",
    "*@point G node=g",
  );
  const pair = circuitOf(
    "VB b 0 330",
    "R1 b p1 47k",
    "R2 b p2 47k",
    "XV1A p1 g1 k 12AU7",
    "XV1B p2 g2 k 12AU7",
    "R3 k t 820",
    "R4 t 0 15k",
    "R5 g1 t 1MEG",
    "R6 g2 t 1MEG",
    "*@point P1 node=p1",
    "*@point P2 node=p2",
    "*@point K node=k",
    "*@point T node=t",
  );
  const read = (c: typeof pair) => Object.fromEntries(readings(operatingPoint(c), c.points));

  test("a cathodyne: what the plate loses the cathode gains", () => {
    const op = operatingPoint(cathodyne);
    close(300 - idealVolts(op, "p"), idealVolts(op, "t"), 1e-3);
    expect(idealVolts(op, "k") - idealVolts(op, "t")).toBeGreaterThan(0.8);
  });
  test.each([
    ["R3=open", { P: [295, 300], K: [100, 300] }],
    ["R2=open", { P: [290, 300], T: [0, 3] }],
    ["R1=open", { P: [-1, 5], T: [0, 6] }],
    ["R4=open", { P: [150, 300] }],
  ] as [string, Record<string, [number, number]>][])("a cathodyne with %s", (change, wanted) => {
    const got = read(alter(cathodyne, [change]));
    for (const [point, [low, high]] of Object.entries(wanted)) {
      expect(got[point]).toBeGreaterThanOrEqual(low);
      expect(got[point]).toBeLessThanOrEqual(high);
    }
  });
  test("a long-tailed pair shares its tail evenly, and unevenly when a plate or a grid opens", () => {
    const healthy = read(pair);
    close(healthy.P1!, healthy.P2!, 1e-6);
    const tail = read(alter(pair, ["R4=open"]));
    expect(tail.P1).toBeGreaterThan(320);
    const plate = read(alter(pair, ["R1=open"]));
    expect(plate.P1).toBeLessThan(plate.K! + 30);
    expect(plate.P2).toBeLessThan(healthy.P2!);
    const grid = read(alter(pair, ["R5=open"]));
    expect(Number.isFinite(grid.P1)).toBe(true);
    expect(grid.P2).toBeGreaterThan(healthy.P2!);
  });
});

describe("the shipped amps", () => {
  test.each(AMPS)("%s: believable to a technician", (name) => {
    const circuit = demoAmp(name);
    const op = operatingPoint(circuit);
    expect(op).toMatchObject({ converged: true, undetermined: [] });
    const { delivered, dissipated } = powerBalance(op);
    close(dissipated, delivered, 1e-6);
    for (const s of stresses(op)) if (s.share !== undefined) expect([s.part, s.kind, s.share <= 1]).toEqual([s.part, s.kind, true]);
    for (const [tube, work] of tubesAtWork(op)) {
      const e = circuit.elements.find((x) => x.name === tube)!;
      const rated = e.tube!.ratings!.plateWatts;
      if (rated >= 4) {
        expect(work.plateWatts / rated).toBeGreaterThan(0.4);
        expect(work.plateWatts / rated).toBeLessThan(1.05);
      }
      const load = circuit.elements.find((x) => x.letter === "R" && x.nodes.includes(e.nodes[0]!) && x.value! > 20e3);
      if (!load || rated >= 4 || e.type === "EF86") continue;
      // Resistance-coupled: half to three quarters of what the stage has, a raised cathode counted off.
      const cathode = idealVolts(op, e.nodes.at(-1)!);
      const supply = idealVolts(
        op,
        load.nodes.find((n) => n !== e.nodes[0])!,
      );
      if (cathode < 10) expect(work.plateVolts / (supply - cathode)).toBeGreaterThan(0.5);
      if (cathode < 10 && load.value! >= 100e3) expect(work.plateVolts / (supply - cathode)).toBeLessThan(0.75);
    }
  });
  test.each(AMPS)("%s: the chart is the model's at its own mains, but for one plain misprint", (name) => {
    const circuit = demoAmp(name);
    const { chart } = circuit;
    const op = operatingPoint(circuit, { mains: chart!.mains });
    const wrong = circuit.points.filter((p) => {
      if (p.chart === undefined || p.chart === 0) return false;
      const range = [10, 50, 250, 500, 1000].find((r) => r >= Math.abs(idealVolts(op, p.node)))!;
      const meter = chart!.meterOhmsPerVolt ? chart!.meterOhmsPerVolt * range : 10e6;
      return Math.abs(readings(op, [p], meter).get(p.name)! / p.chart - 1) > 0.1;
    });
    expect(wrong).toHaveLength(1);
  });
  test("mains scales the rails; low heaters end it; tubes out let the rails rise", () => {
    const wren = demoAmp("wren-5");
    const b1 = (c: typeof wren, mains: number) => idealVolts(operatingPoint(c, { mains }), "b1");
    close(b1(wren, 253) / b1(wren, 230), 1.1, 0.02);
    const idle = (mains: number) => tubesAtWork(operatingPoint(wren, { mains })).get("V2")!.plateMilliamps;
    expect(idle(90)).toBeLessThan(0.05 * idle(230));
    expect(b1(without(wren, ["V2"]), 230)).toBeGreaterThan(300);
    expect(() => operatingPoint({ ...wren, mains: undefined }, { mains: 230 })).toThrow(/\*@mains/);
  });
});
