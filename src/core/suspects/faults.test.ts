import { alter } from "../circuit/alter";
import { AMPS, circuitOf, demoAmp } from "../solver/circuits-for-tests";
import type { Evidence } from "../diagnosis/evidence";
import { faultsOf } from "./faults";
import { nextMeasurements } from "./next";
import { OBSERVATIONS, observationNamed } from "../diagnosis/observation-names";
import { observationChance } from "./observations";
import { priorOf } from "./priors";
import { rank } from "./rank";
import { FaultTable } from "./table";

const conditions = { mains: 230, without: [], set: [] };
const wren = new FaultTable(demoAmp("wren-5"));

describe("the fault library", () => {
  test.each(AMPS)("%s: every fault at every severity is a change that can be made, under its own name", (amp) => {
    const circuit = demoAmp(amp);
    const faults = faultsOf(circuit);
    for (const f of faults) for (const s of f.grid) expect(() => alter(circuit, f.changes(s))).not.toThrow();
    expect(new Set(faults.map((f) => f.name)).size).toBe(faults.length);
    expect(faults.every((f) => f.prior > 0 && f.refs.length > 0)).toBe(true);
  });
  test("each kind of part has its faults", () => {
    const names = faultsOf(demoAmp("wren-5")).map((f) => f.name);
    expect(names).toEqual(
      expect.arrayContaining([
        ...[
          "R4 open",
          "R4 high",
          "R4 low, or bridged",
          "C6 leaky",
          "C6 shorted or nearly",
          "C1 low: dried out",
          "C1 open",
          "V2 weak",
          "V2 dead",
          "V2 gassy",
        ],
        ...[
          "V2 screen pin open",
          "V1 heater open",
          "V3 half dead",
          "P1 wiper open",
          "T1 primary open",
          "can1 lug lifted",
          "p1b~g2 board leak",
          "V1 is a 12AU7, not a 12AX7",
          "V2 grid–screen leak or short",
          "V2 plate and cathode wires swapped",
          "V3 one side of the winding weak",
          "R7 ten times its value (code misread)",
          "T1 shorted turns",
          "mains higher than entered, or wrong primary tap",
        ],
      ]),
    );
    expect(names).not.toContain("V2 heater open");
    expect(names).not.toContain("V1A screen pin open");
  });
  test("a resistor is high only from twice its tolerance on", () => {
    const grid = (tol: string) => faultsOf(circuitOf(`R1 a 0 1k ;@tol ${tol}`, "V1 a 0 1")).find((f) => f.name === "R1 high")!.grid;
    expect(grid("5%")[0]).toBeCloseTo(1.1, 12);
    expect(grid("20%")[0]).toBeCloseTo(1.4, 12);
    for (const g of [grid("5%"), grid("20%")]) expect([...g].sort((a, b) => a - b)).toEqual(g);
  });
  test("a leak is as bad as what stands around it, and never more than its part survives", () => {
    const faults = faultsOf(demoAmp("wren-5"));
    const grid = (name: string) => faults.find((f) => f.name === name)!.grid;
    // The cathode of the EL84 shows about a hundred ohms: leaks of ten to some thousands matter there.
    expect(Math.min(...grid("C4 leaky"))).toBeLessThan(15);
    expect(Math.max(...grid("C4 leaky"))).toBeGreaterThan(1000);
    // 400 V across a leak in a stiff reservoir: no ohms below some thousands survive.
    const stiff = faultsOf(demoAmp("picture-house")).find((f) => f.name === "C1 leaky")!.grid;
    expect(Math.min(...stiff)).toBeGreaterThan(2000);
    const table = wren.shown(conditions);
    const burnt = wren.hypotheses.filter((h, i) => h.fault.name === "C1 leaky" && table[i]!.impossible);
    for (const h of burnt) expect(267 ** 2 / h.severity).toBeGreaterThan(12);
  });
  test("resistors go high, not low", () => {
    const carbon = demoAmp("wren-5").elements.find((e) => e.name === "R7")!;
    expect(priorOf("resistor high", carbon) / priorOf("resistor low", carbon)).toBeGreaterThan(20);
  });
  test("an open switch and a single capacitor of a can are no faults", () => {
    const names = faultsOf(circuitOf("V1 a 0 1", "XS1 a b SW state=open", "R1 b 0 1k", "C1 a 0 10u ;@kind electrolytic @section can9")).map(
      (f) => f.name,
    );
    expect(names.filter((n) => /S1|can9/.test(n))).toEqual([]);
  });
  test("old paper leaks likelier than new film; mica hardly", () => {
    const c = (notes: string) => circuitOf("V1 a 0 1", `C1 a 0 22n ;${notes}`).elements[1]!;
    const [paper, film, mica] = ["@kind paper @year 1959", "@kind polypropylene @year 2015", "@kind mica @year 1959"].map((n) =>
      priorOf("coupling leaky", c(n)),
    );
    expect(paper! / film!).toBeGreaterThan(20);
    expect(paper! / mica!).toBeGreaterThan(5);
  });
});

describe("the table", () => {
  test("its healthy line is the amp, its fault lines are the altered amps", () => {
    const shown = wren.shown(conditions);
    const at = wren.points.indexOf("V2.k");
    expect(shown[0]!.volts[at]).toBeCloseTo(7.89, 1);
    const dead = wren.hypotheses.findIndex((h) => h.fault.name === "V2 dead");
    expect(Math.abs(shown[dead]!.volts[at]!)).toBeLessThan(0.01);
    expect(shown[dead]!.tubeWatts.get("V2")).toBeLessThan(1e-3);
  });
  test("a part that a fault takes out has no spread of its own left", () => {
    const open = wren.hypotheses.findIndex((h) => h.fault.name === "R8 open");
    const [k, at] = [wren.knobCount, wren.points.indexOf("V1A.p")];
    expect(
      wren
        .shown(conditions)
        [open]!.sensitivities.subarray(at * k, (at + 1) * k)
        .every(Number.isFinite),
    ).toBe(true);
    expect(wren.shown(conditions)[open]!.sigma[at]).toBeLessThan(wren.shown(conditions)[0]!.sigma[at]!);
  });
  test("it is solved once for equal conditions, and can be stopped", () => {
    expect(wren.shown({ set: [], without: [], mains: 230 })).toBe(wren.shown(conditions));
    const fresh = new FaultTable(demoAmp("wren-5"));
    expect(() => fresh.shown(conditions, (part) => part < 0.2)).toThrow();
    expect(fresh.has(conditions)).toBe(false);
  });
  test("resistances do not call for a table of voltages without mains", () => {
    const ohm: Evidence = { point: "R8", kind: "ohm", value: 101e3, conditions: { without: [], set: [] } };
    rank(wren, [ohm, { point: "B1", kind: "dcv", value: 268, conditions }]);
    expect(wren.has({ without: [], set: [] })).toBe(false);
  });
});

describe("observations", () => {
  const line = (name: string) => wren.hypotheses.findIndex((h) => h.fault.name === name);
  const chance = (text: string, fault: string) => observationChance(wren, text, conditions)[line(fault)]!;
  test("names are read in any case, with and without a tube", () => {
    expect(observationNamed(" v2  COLD ")).toMatchObject({ tube: "V2", type: { name: "cold" } });
    expect(observationNamed("limiter bright")).toMatchObject({ type: { about: "amp" } });
    expect(observationNamed("V4 red")).toMatchObject({ tube: "V4", type: { name: "plate glows" } });
    expect(observationNamed("no sound")).toMatchObject({ type: { name: "dead quiet" } });
    for (const bad of ["red", "cold", "V2 limiter bright", "V2 sings", ""]) expect(observationNamed(bad)).toBeUndefined();
    expect(OBSERVATIONS.length).toBeGreaterThanOrEqual(12);
  });
  test.each([
    ["V2 cold", "V2 dead", "nothing wrong"],
    ["V1 dark", "V1 heater open", "V1A dead"],
    ["limiter bright", "C1 shorted or nearly", "nothing wrong"],
    ["hum", "C1 open", "R4 open"],
    ["no signal", "V1A dead", "nothing wrong"],
    ["V2 blue glow", "V2 gassy", "V2 weak"],
    ["dead quiet", "V3 dead", "V1A weak"],
  ])("%s speaks for %s rather than %s", (text, fault, other) => expect(chance(text, fault)).toBeGreaterThan(3 * chance(text, other)));
  test("what is not known is named with what is", () => {
    expect(() => observationChance(wren, "V2 sings", conditions)).toThrow(/known are V1 cold/);
    expect(() => observationChance(wren, "V9 cold", conditions)).toThrow(/no tube V9/);
  });
});

describe("other kinds of evidence", () => {
  const volts = (point: string, value: number): Evidence => ({ point, kind: "dcv", value, conditions });
  const chanceOf = (fault: string, ...evidence: Evidence[]) =>
    rank(wren, evidence).suspects.find((s) => s.group.includes(fault))?.groupProbability ?? 0;
  test("ohms of the part itself settle what a voltage leaves open", () => {
    const low = [volts("V1A.p", 90), volts("V1A.k", 0.8)];
    const ohm: Evidence = { point: "R8", kind: "ohm", value: 230e3, conditions: { without: [], set: [] } };
    expect(chanceOf("R8 high", ...low, ohm)).toBeGreaterThan(chanceOf("R8 high", ...low));
    expect(chanceOf("R8 high", ...low, { ...ohm, value: 99e3 })).toBeLessThan(0.05);
  });
  test("a lifted leg tells a leak from gas", () => {
    const high = [volts("V2.g", 4), volts("V2.k", 9.9)];
    const leg = (value: number): Evidence => ({ point: "C6", kind: "leak", value, conditions });
    const best = (value: number) => rank(wren, [...high, leg(value)]).suspects[0]!;
    // 140 V through 15 MΩ into a meter of 10 MΩ: 56 V.
    expect(best(54).fault).toBe("C6 leaky");
    expect(best(0.2).group).not.toContain("C6 leaky");
  });
  test("a tube test of 30 percent speaks for a weak tube, of 95 against", () => {
    const gm = (value: number): Evidence => ({ point: "V2", kind: "gm", value, conditions });
    expect(chanceOf("V2 weak", volts("V2.k", 5), gm(30))).toBeGreaterThan(0.8);
    expect(chanceOf("V2 weak", volts("V2.k", 5), gm(95))).toBeLessThan(0.2);
  });
  test("a tone that does not come through speaks for an open coupling capacitor", () => {
    const acv: Evidence = { point: "V1B.p", kind: "acv", value: 0.001, conditions, drive: { input: "in", hertz: 400, level: 0.01 } };
    expect(chanceOf("C5 open", ...["B1", "V1A.p", "V1A.k"].map((p, i) => volts(p, [268, 140, 1.18][i]!)), acv)).toBeGreaterThan(0.05);
    expect(chanceOf("C5 open", volts("B1", 268))).toBeLessThan(0.02);
  });
  test("what the circuit does not have is refused", () => {
    for (const e of [
      volts("Z1", 1),
      { ...volts("R1", 1), kind: "leak" },
      { ...volts("R1", 1), kind: "gm" },
      { ...volts("V2.k", 1), kind: "acv" },
    ] as Evidence[])
      expect(() => rank(wren, [e])).toThrow(RangeError);
  });
});

test("the next measurement is never one that was taken, and tells apart what is left", () => {
  const taken: Evidence[] = [{ point: "B1", kind: "dcv", value: 290, conditions }];
  const next = nextMeasurements(rank(wren, taken).posterior, conditions, 30);
  expect(next.map((n) => n.point + n.kind)).not.toContain("B1dcv");
  for (const n of next) {
    expect(n.gainBits).toBeGreaterThan(0);
    expect(n.gainBits).toBeLessThan(8);
  }
  const worth = next.map((n) => n.gainBits / n.cost);
  expect([...worth].sort((a, b) => b - a)).toEqual(worth);
});
