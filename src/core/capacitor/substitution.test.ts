import fc from "fast-check";
import { alter } from "../circuit/alter";
import { findElement } from "../circuit/circuit";
import { AMPS, circuitOf, demoAmp } from "../solver/circuits-for-tests";
import { idealVolts, operatingPoint } from "../solver/operating-point";
import { rippleOf } from "../solver/ripple";
import { findTubeType } from "../tubes/library";
import { foldJob } from "../tape/fold";
import { checkResistor, shouldFailOpen, standOff } from "./substitute-resistor";
import { checkOutputTransformer, checkPot, checkPowerTransformer, checkTube, potCurve } from "./substitute-others";
import { checkCan, checkCapacitor, lifeHours, type CapacitorPlaceNeeds } from "./substitute-capacitor";
import { siliconFor } from "./substitute-rectifier";
import { figuresBeside } from "./figures-beside";
import { fittedSet, fromStock, kitRows, kitSet, recapKit } from "./kit";
import { knownCapacitors } from "./known";
import { storedIn } from "./stored";
import { placeNeeds } from "./place-needs";
import { suggestCapacitor } from "./suggest-capacitor";
import { capacitorStresses, tubesOut } from "./stress";
import { toldChecks, worstOf } from "./check";

const EMPTY = foldJob([]);
const verdictOf = (checks: { what: string; verdict: string }[], what: string) => checks.find((c) => c.what === what)?.verdict;

/** Volts across every capacitor straight from the solver, and the winding's own peak by hand: what no code of this room has a hand in. */
function bornAt(name: string, mains: number): Map<string, number> {
  const circuit = demoAmp(name);
  const out = new Map<string, number>();
  for (const amp of [circuit, tubesOut(circuit)]) {
    const op = operatingPoint(amp, { mains });
    for (const c of circuit.elements.filter((e) => e.letter === "C")) {
      const volts = Math.abs(idealVolts(op, c.nodes[0]!) - idealVolts(op, c.nodes[1]!));
      out.set(c.name, Math.max(out.get(c.name) ?? 0, volts));
    }
  }
  return out;
}

describe.each(AMPS)("%s", (name) => {
  const circuit = demoAmp(name);
  const mains = circuit.mains!.volts;
  const stresses = capacitorStresses(circuit, mains);
  const known = knownCapacitors(circuit, EMPTY);
  const suggested = known
    .map((c) => ({ c, place: placeNeeds(circuit, c, stresses.get(c.name)) }))
    .map(({ c, place }) => ({ c, place, is: suggestCapacitor(place) }));

  test("no suggested capacitor is below what it bears, mains ± 10 %, tubes in and out", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.9, max: 1.1, noNaN: true }), (share) => {
        const born = bornAt(name, mains * share);
        for (const { c, is } of suggested) expect(is.offer.volts).toBeGreaterThanOrEqual(born.get(c.name)!);
      }),
      { numRuns: 4, seed: 7, examples: [[0.9], [1], [1.1]] },
    );
    // The first capacitor sees the peak of its winding: √2·vac, by hand.
    const peak = Math.SQRT2 * Number(circuit.elements.find((e) => e.type?.startsWith("RECT"))!.params.vac) * 1.1;
    const rectifier = circuit.elements.find((e) => e.type?.startsWith("RECT"))!;
    const straight = suggested.filter((s) => s.c.element!.nodes.includes("0") && s.c.element!.nodes.includes(rectifier.nodes[0]!));
    for (const { is } of straight) expect(is.offer.volts).toBeGreaterThanOrEqual(peak);
    // The Halberd's are two in series: together they bear it.
    const stacked = suggested.filter((s) => s.place.role === "reservoir");
    if (straight.length === 0) expect(2 * stacked[0]!.is.offer.volts).toBeGreaterThanOrEqual(peak);
  });
  test("what is suggested passes its own checks, and stays under the rectifier's limit", () => {
    for (const { place, is } of suggested) {
      const failed = checkCapacitor(place, is.offer).filter((c) => c.verdict === "out");
      expect({ part: place.name, failed }).toEqual({ part: place.name, failed: [] });
      if (place.firstLimit && place.role === "reservoir") expect(is.offer.farads).toBeLessThanOrEqual(place.firstLimit.farads * 1.0001);
    }
  });
  test("the kit in place is what a solve of the changed circuit says", () => {
    const kit = recapKit(circuit, known, stresses);
    expect(kit.none).toEqual([]);
    const set = kitSet(kit, 2026);
    const beside = figuresBeside(circuit, set, mains);
    const op = operatingPoint(alter(circuit, set), { mains });
    const ripple = rippleOf(op);
    for (const p of beside.then.points) {
      const node = circuit.points.find((x) => x.name === p.point)!.node;
      expect(p.volts).toBeCloseTo(idealVolts(op, node), 6);
      expect(p.ripple).toBeCloseTo(ripple.get(node)!, 9);
    }
    for (const line of kit.lines)
      for (const part of line.parts) expect(findElement(alter(circuit, set), part)!.value! / line.suggested.offer.farads).toBeCloseTo(1, 9);
    expect(findElement(alter(circuit, set), "C1")!.notes).toMatchObject({ year: 2026, kind: expect.any(String) as string });
    expect(kit.lines.reduce((n, l) => n + l.parts.length, 0)).toBe(known.length);
  });
});

const RESERVOIR: CapacitorPlaceNeeds = {
  name: "C1",
  role: "reservoir",
  farads: 32e-6,
  worst: 420,
  ripple: 0.12,
  firstLimit: { farads: 60e-6, tube: "GZ34" },
  inside: 55,
  hoursYear: 300,
  years: 20,
};
const CAN = { farads: 47e-6, volts: 500, kind: "electrolytic", celsius: 105, hours: 5000, ripple: 0.3 };

test("hand-worked: life by the 10 °C rule", () => {
  // 2000 h at 85 °C, 55 °C beside it: three doublings.
  expect(lifeHours(2000, 85, 55)).toBe(16000);
  const place = { ...RESERVOIR, hoursYear: 1000, years: 20 };
  expect(verdictOf(checkCapacitor(place, { ...CAN, celsius: 85, hours: 2000 }), "life")).toBe("watch");
  expect(verdictOf(checkCapacitor(place, { ...CAN, celsius: 85, hours: 1000 }), "life")).toBe("out");
  expect(verdictOf(checkCapacitor(place, CAN), "life")).toBe("in");
});

test("a capacitor in a reservoir's place: each thing that can be wrong is said by name", () => {
  const one = (offer: object, place: object = {}) => checkCapacitor({ ...RESERVOIR, ...place }, { ...CAN, ...offer });
  expect(worstOf(one({}))).toBe("in");
  expect(verdictOf(one({ volts: 400 }), "volts")).toBe("out");
  expect(verdictOf(one({ volts: 430 }), "volts")).toBe("watch");
  expect(verdictOf(one({ farads: 100e-6 }), "first capacitor")).toBe("out");
  expect(verdictOf(one({ farads: 10e-6 }), "capacitance")).toBe("out");
  // A coupling capacitor of 22 nF: 20 % less and 25 % more are its window, twice and half beyond that are out.
  const coupling = (farads: number) =>
    verdictOf(one({ farads, kind: "film" }, { role: "coupling", farads: 22e-9, firstLimit: undefined }), "capacitance");
  expect([8e-9, 10e-9, 18e-9, 27e-9, 33e-9, 54e-9, 56e-9].map(coupling)).toEqual(["out", "watch", "in", "in", "watch", "watch", "out"]);
  expect(verdictOf(one({ ripple: 0.1 }), "ripple current")).toBe("out");
  expect(verdictOf(one({ ripple: undefined }), "ripple current")).toBe("none");
  expect(verdictOf(one({ celsius: 70 }), "temperature")).toBe("watch");
  expect(verdictOf(one({ diameter: 40 }, { diameter: 35 }), "diameter")).toBe("out");
  expect(verdictOf(one({ diameter: 30 }, { diameter: 35 }), "diameter")).toBe("in");
  expect(verdictOf(one({ mounting: "radial" }, { mounting: "clamp" }), "mounting")).toBe("watch");
  expect(verdictOf(one({ caseLead: "plus" }, { caseLead: "minus" }), "case")).toBe("out");
  expect(verdictOf(one({ caseLead: "minus" }, { caseLead: "unknown" }), "case")).toBe("none");
  expect(verdictOf(one({ kind: "electrolytic" }, { role: "coupling" }), "kind")).toBe("out");
  expect(toldChecks(one({ volts: 400 }))[0]).toMatch(/^checked: capacitance/);
});

test("a can section by section: what is of the case comes once; a section of no part is refused", () => {
  const places = new Map([
    ["C1", RESERVOIR],
    ["C2", { ...RESERVOIR, name: "C2", role: "filter" as const, ripple: 0.01 }],
  ]);
  const checked = checkCan(places, [
    { part: "C1", lug: "square", offer: CAN },
    { part: "C2", lug: "half-round", offer: { ...CAN, volts: 350 } },
  ]);
  expect(checked.map((c) => worstOf(c.checks))).toEqual(["in", "out"]);
  expect(checked[1]!.checks.some((c) => c.what === "life")).toBe(false);
  expect(() => checkCan(places, [{ part: "C9", offer: CAN }])).toThrow(/no capacitor C9/);
});

test("safety: only a class-Y part from the line to the chassis; Y may stand in for X", () => {
  const place = { ...RESERVOIR, role: "line to chassis" as const, safety: "Y" as const, farads: 10e-9, worst: 250, ripple: 0 };
  const film = { farads: 4.7e-9, volts: 275, kind: "film" };
  expect(verdictOf(checkCapacitor(place, film), "safety class")).toBe("out");
  expect(verdictOf(checkCapacitor(place, { ...film, safetyClass: "X" }), "safety class")).toBe("out");
  expect(verdictOf(checkCapacitor(place, { ...film, safetyClass: "Y" }), "safety class")).toBe("in");
  expect(verdictOf(checkCapacitor({ ...place, role: "across the line", safety: "X" }, { ...film, safetyClass: "Y" }), "safety class")).toBe(
    "in",
  );
  expect(suggestCapacitor(place).offer).toMatchObject({ safetyClass: "Y", farads: 4.7e-9 });
});

test("no single capacitor for the volts: two in series, each with its resistor", () => {
  const is = suggestCapacitor({ ...RESERVOIR, worst: 720, firstLimit: undefined, farads: 47e-6 });
  expect(is).toMatchObject({ inSeries: 2, offer: { volts: 800 } });
  expect(is.balance).toBeGreaterThan(50e3);
  expect(() => suggestCapacitor({ ...RESERVOIR, worst: 1400 })).toThrow(/no two electrolytics/);
});

test("hand-worked: a resistor's watts, volts, what it does when it fails", () => {
  // 0.6 W in it: twice that is 1.2 W, the next rating is 2 W.
  const needs = { name: "R2", ohms: 10e3, tol: 0.1, watts: 0.6, volts: 78, failOpen: true };
  expect(checkResistor(needs, { ohms: 10e3, watts: 2, kind: "metal-oxide" }).filter((c) => c.verdict !== "in")).toMatchObject([
    { what: "off the board", needs: expect.stringContaining("3 mm") as string },
  ]);
  expect(verdictOf(checkResistor(needs, { ohms: 10e3, watts: 1, kind: "carbon" }), "watts")).toBe("watch");
  expect(verdictOf(checkResistor(needs, { ohms: 10e3, watts: 0.5, kind: "carbon" }), "watts")).toBe("out");
  expect(verdictOf(checkResistor(needs, { ohms: 10e3, watts: 2, kind: "carbon" }), "flameproof")).toBe("watch");
  expect(verdictOf(checkResistor(needs, { ohms: 15e3, watts: 2, kind: "metal-oxide" }), "ohms")).toBe("out");
  expect(verdictOf(checkResistor({ ...needs, volts: 400 }, { ohms: 10e3, watts: 0.5, kind: "carbon" }), "volts")).toBe("out");
  expect([standOff(0.3), standOff(1), standOff(9)]).toEqual([0, 5, 25]);
  const drover = demoAmp("drover-40");
  const open = (name: string) => shouldFailOpen(drover, findElement(drover, name)!);
  expect(["R1", "R6", "R22", "R23"].map(open)).toEqual([true, true, false, false]);
});

test("silicon for a tube rectifier: the resistance brings the rail back within 1 %, and capacitors over their rating are named", () => {
  const lantern = demoAmp("lantern-15");
  const found = siliconFor(lantern, "V6", 230, { surge: 30, inverse: 1600 });
  expect(found.bare).toBeGreaterThan(found.before + 5);
  const op = operatingPoint(alter(lantern, found.set), { mains: 230 });
  expect(idealVolts(op, "b1") / found.before).toBeCloseTo(1, 2);
  expect(verdictOf(found.checks, "inverse volts")).toBe("in");
  // By hand: 2·√2·270·1.1 = 840 V inverse.
  expect(found.inverse).toBeCloseTo(840, 0);
  const low = alter(lantern, ["C3.volts=350", "C4.volts=350"]);
  expect(siliconFor(low, "V6", 230).over.map((o) => o.part)).toEqual(expect.arrayContaining(["C3", "C4"]));
  expect(() => siliconFor(lantern, "R1", 230)).toThrow(/no rectifier/);
});

test("controls, transformers and tubes", () => {
  // An unloaded linear control at half a turn halves the volts: −6.02 dB.
  expect(potCurve(1e6, "linear")[10]!.decibels).toBeCloseTo(-6.02, 2);
  // Into its own ohms: 0.5 ∥ 1 = 1/3 of 1 M, over 1/2 + 1/3: 0.4, −7.96 dB.
  expect(potCurve(1e6, "linear", 1e6)[10]!.decibels).toBeCloseTo(-7.96, 2);
  expect(verdictOf(checkPot({ ohms: 1e6, taper: "audio" }, 0.01, { ohms: 1e6, taper: "linear" }), "taper")).toBe("out");
  const was = { primaryOhms: 8000, loadOhms: 8, single: true };
  // 4 kΩ for 4 Ω is the same ratio.
  expect(
    verdictOf(
      checkOutputTransformer(was, { watts: 12, milliamps: 45 }, { primaryOhms: 4000, loadOhms: 4, watts: 15, milliamps: 60 }),
      "impedance",
    ),
  ).toBe("in");
  expect(
    verdictOf(checkOutputTransformer(was, { watts: 12, milliamps: 45 }, { primaryOhms: 5000, loadOhms: 8, milliamps: 30 }), "impedance"),
  ).toBe("out");
  expect(
    verdictOf(
      checkOutputTransformer(was, { watts: 12, milliamps: 45 }, { primaryOhms: 8000, loadOhms: 8, milliamps: 30 }),
      "direct current",
    ),
  ).toBe("out");
  const power = checkPowerTransformer(
    { vac: 270 },
    { amps: 0.11, heaters: [{ volts: 6.3, amps: 2.1 }] },
    { vac: 275, amps: 0.12, heaters: [{ volts: 6.3, amps: 2 }] },
  );
  expect(power.map((c) => c.verdict)).toEqual(["in", "in", "out"]);
  const tube = (a: string, b: string) =>
    checkTube(findTubeType(a)!, findTubeType(b)!, { plateVolts: 350, plateWatts: 11, screenWatts: 1.5 }, "cathode");
  expect(verdictOf(tube("6V6GT", "6L6GC"), "heater current")).toBe("watch");
  expect(verdictOf(tube("6V6GT", "EL84"), "basing")).toBe("out");
  expect(verdictOf(tube("EL84", "EL84"), "plate volts")).toBe("out");
});

test("a kit with stock: what lies in the drawer and is good is taken, with its price; nothing that is too low", () => {
  const circuit = demoAmp("lantern-15");
  const stresses = capacitorStresses(circuit, 230);
  const known = knownCapacitors(circuit, EMPTY).filter((c) => ["C1", "C2", "C6"].includes(c.name));
  const stock = [
    {
      number: 1,
      letter: "C" as const,
      value: 33e-6,
      rating: 350,
      kind: "electrolytic",
      celsius: 105,
      hours: 5000,
      ripple: 0.4,
      price: 2,
      pieces: 9,
    },
    {
      number: 2,
      letter: "C" as const,
      value: 33e-6,
      rating: 500,
      kind: "electrolytic",
      celsius: 105,
      hours: 5000,
      ripple: 0.4,
      price: 4.5,
      pieces: 9,
      place: "drawer 4",
    },
  ];
  const kit = recapKit(circuit, known, stresses, stock);
  expect(kit.lines.map((l) => [l.parts, l.stock?.number, l.pieces])).toEqual([
    [["C1", "C2"], 2, 2],
    [["C6"], undefined, 1],
  ]);
  expect(kit).toMatchObject({ total: 9, unpriced: 1 });
  const rows = kitRows(kit, "kr");
  expect(rows[0]).toContain("price_kr");
  expect(rows[1]!.slice(0, 2)).toEqual(["C1 C2", 2]);
  const place = placeNeeds(circuit, known[0]!, stresses.get("C1"));
  expect(fromStock(place, stock)!.number).toBe(2);
  expect(fromStock(place, [stock[0]!])).toBeUndefined();
  // One of which the ripple current and the hours were never noted is offered last, and says so.
  const { ripple: _r, hours: _h, ...bare } = { ...stock[1]!, number: 3 };
  expect(fromStock(place, [bare, ...stock])!.number).toBe(2);
  const only = recapKit(circuit, known.slice(0, 1), stresses, [bare]).lines[0]!;
  expect(only.stock).toMatchObject({ number: 3, unknown: ["ripple current", "life"] });
  expect(kit.lines[0]!.stock!.unknown).toBeUndefined();
});

test("hand-worked: energy before and after", () => {
  const circuit = circuitOf(
    "*@mains 230 50",
    "XPS b 0 RECT_BRIDGE vac=200 rs=50 tube=silicon",
    "C1 b 0 50u ;@volts 450 @kind electrolytic",
    "R1 b 0 100k",
  );
  const at = (c: typeof circuit) => storedIn(c, capacitorStresses(c, 230), 10);
  const now = at(circuit);
  // √2·200·1.1 = 311 V: ½·50 µF·311² = 2.42 J; 5 s·ln 31.1 = 17.2 s; a tenth comes back in an electrolytic.
  expect(now.joules).toBeCloseTo(2.42, 1);
  expect(now.seconds).toBeCloseTo(17.2, 0);
  expect(now.rebound).toBeCloseTo(31.1, 0);
  const then = at(alter(circuit, fittedSet("C1", { farads: 100e-6, volts: 450, kind: "electrolytic" }, 2026)));
  expect(then.joules / now.joules).toBeCloseTo(2, 2);
});
