import fc from "fast-check";
import { circuitOf, demoAmp } from "../solver/circuits-for-tests";
import { alter } from "../circuit/alter";
import { biasRange, partsForRange, wiperGuard } from "./bias-range";
import { chooseCathodeResistor, figuresWith, modesOf } from "./cathode-resistor";
import { chokeAgainstResistor, chooseDropper } from "./droppers";
import type { Circuit } from "../circuit/circuit";
import { exportSpice } from "../solver/spice-export";
import { figuresIn, hasSpice, runSpice } from "../solver/spice-for-tests";
import { outputStages } from "./output-stage";
import { pairOf } from "./pairs-for-tests";
import { chooseScreenResistor } from "./screen-resistor";

/** Volts at nodes by a general SPICE, from the netlist with these changes in it: what no solver of this project had a hand in. */
function bySpice(circuit: Circuit, changes: readonly string[], nodes: readonly string[]): number[] {
  const changed = alter(circuit, changes);
  const shown = figuresIn(runSpice(exportSpice(changed, changed.mains?.volts), ["op", ...nodes.map((n) => `print v(${n})`)]));
  return nodes.map((n) => shown.get(n)!);
}
const testBySpice = hasSpice() ? test : test.skip;

const drover = demoAmp("drover-40");
const names = ["V5", "V6"];

describe("the range of a bias adjuster", () => {
  test("every position, where the target lies, and an open wiper that takes the tubes far above their rating", () => {
    const range = biasRange(drover, "P9", names, 0.04);
    expect(range.reaches).toBe(true);
    expect(range.open!.ofRating).toBeGreaterThan(2);
    expect(range.steps.map((s) => s.amps)).toEqual([...range.steps.map((s) => s.amps)].sort((a, b) => a - b));
  });
  testBySpice("at the place that is named a general SPICE has the target in the tube, at both ends the currents that are shown", () => {
    const range = biasRange(drover, "P9", ["V5"], 0.04);
    // 10 Ω in each cathode carry plate and screen current; the screen's comes through 470 Ω.
    const plate = (position: number) => {
      const [k, b2, s] = bySpice(drover, [`P9=${position.toFixed(4)}`], ["k5", "b2", "s5"]) as [number, number, number];
      return k / 10 - (b2 - s) / 470;
    };
    expect(plate(range.at!) / 0.04).toBeCloseTo(1, 1);
    for (const end of [range.steps[0]!, range.steps.at(-1)!]) expect(Math.abs(plate(end.position) - end.amps)).toBeLessThan(0.001);
  });
  test("a resistor from wiper to the negative end holds the bias when the wiper lifts", () => {
    const guard = wiperGuard(drover, "P9", names)!;
    expect(guard.with).toBeLessThan(0.5);
  });
  test("where the track does not reach, a part that exists brings the target to its middle", () => {
    // A replaced divider: the coldest end is still too hot for a cool idle.
    const hot = alter(drover, ["R41=33k"]);
    expect(biasRange(hot, "P9", names, 0.03).reaches).toBe(false);
    const [best] = partsForRange(hot, "P9", names, 0.03);
    expect(best!.at).toBeGreaterThan(0.25);
    expect(best!.at).toBeLessThan(0.75);
    if (!hasSpice()) return;
    const [k, b2, s] = bySpice(hot, [`${best!.part}=${best!.to}`, `P9=${best!.at.toFixed(4)}`], ["k5", "b2", "s5"]) as [
      number,
      number,
      number,
    ];
    expect((k / 10 - (b2 - s) / 470) / 0.03).toBeCloseTo(1, 1);
  });
});

describe("cathode resistors", () => {
  const twoModes = () => {
    const lantern = demoAmp("lantern-15");
    const [stage] = outputStages(lantern);
    return { lantern, stage: stage! };
  };
  test("both positions of the pentode and triode switch, its two poles as one, are modes; tremolo is none", () => {
    const { lantern, stage } = twoModes();
    expect(modesOf(lantern, stage).map((m) => m.name)).toEqual(["S2 1", "S2 2"]);
  });
  test("five that exist, one resistor before two, watts twice the worst, none with a mode above the limit", () => {
    const { lantern, stage } = twoModes();
    const { choices, part } = chooseCathodeResistor(lantern, stage, { aim: 0.8, limit: 1 });
    expect(part).toBe("R4");
    expect(choices).toHaveLength(5);
    for (const c of choices) {
      for (const f of c.figures) expect(Math.max(f.ofRating, f.ofScreenRating)).toBeLessThanOrEqual(1);
      const worst =
        Math.max(...c.figures.map((f) => f.watts)) * (c.made.b === undefined ? 1 : Math.max(c.made.a, c.made.b) / (c.made.a + c.made.b));
      expect(c.rating).toBeGreaterThanOrEqual((c.made.together === "parallel" ? 1 : 2) * worst - 1e-9);
    }
  });
  testBySpice("the watts of a suggested resistor, and of the plates over it, are those of a general SPICE", () => {
    const { lantern, stage } = twoModes();
    const { choices, modes } = chooseCathodeResistor(lantern, stage, { aim: 0.8, limit: 1 });
    const c = choices[0]!;
    const own = c.figures.find((f) => f.mode === modes[0]!.name && f.share === 1)!;
    const [k, p4, b1, s4, sf4] = bySpice(lantern, [...modes[0]!.set, `R4=${c.ohms}`], ["k45", "p4", "b1", "s4", "sf4"]) as number[];
    expect(Math.abs(own.watts / (k! ** 2 / c.ohms) - 1)).toBeLessThan(0.02);
    // Plate current of V4: through its half of the primary, 180 Ω. 12 W are a 6V6GT's rating by its published data sheet.
    const watts = (p4! - k!) * ((b1! - p4!) / 180);
    expect(s4!).toBeLessThan(sf4!);
    expect(Math.abs(own.ofRating / (watts / 12) - 1)).toBeLessThan(0.1);
  });
  test("never one above a limit, over random pairs", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("6V6GT", "EL84", "6L6GC"),
        fc.integer({ min: 230, max: 400 }),
        fc.double({ min: 0.5, max: 1.2, noNaN: true }),
        (type, volts, limit) => {
          const circuit = pairOf({ type, plate: volts, screen: Math.min(volts, 300), grid: 0, zpp: 8000, cathode: 180 });
          const [stage] = outputStages(circuit);
          const { choices } = chooseCathodeResistor(circuit, stage!, { aim: limit, limit });
          for (const c of choices)
            for (const f of figuresWith(circuit, stage!, "R3", c.ohms, [{ name: "", set: [] }]))
              expect(f.ofRating).toBeLessThanOrEqual(limit);
        },
      ),
      { numRuns: 6, seed: 3 },
    );
  });
  test("a stage that its supply biases has none to choose", () => {
    const [stage] = outputStages(
      circuitOf(...["VA b 0 300", "VG g 0 -20", "XT1 b p out 0 OPT_SE zp=5000 load=8", "XV1 p b g1 0 6V6GT", "R1 g1 g 1k"]),
    );
    expect(() => chooseCathodeResistor(circuitOf("VA b 0 300"), stage!, { aim: 0.8, limit: 1 })).toThrow("no cathode resistor");
  });
});

test("screen resistors: more ohms, less power and cooler screens; the present one is shown whatever it does", () => {
  const lantern = demoAmp("wren-5");
  const { choices, parts } = chooseScreenResistor(lantern, outputStages(lantern)[0]!);
  expect(parts).toEqual(["R3"]);
  expect(choices.filter((c) => c.present)).toHaveLength(1);
  for (const c of choices) if (!c.present) expect(Math.max(c.ofScreenRating!, c.ofPlateRating!)).toBeLessThanOrEqual(1);
  const byOhms = [...choices].sort((a, b) => a.ohms - b.ohms);
  expect(byOhms.at(-1)!.clipScreen).toBeLessThan(byOhms[0]!.clipScreen);
});

describe("supply droppers", () => {
  test("values that bring a node into its window, and what they do to every later one", () => {
    const { choices, part } = chooseDropper(drover, "B4", { low: 250, high: 262 });
    expect(part).toBe("R2");
    expect(choices.length).toBeGreaterThan(0);
    for (const c of choices) {
      expect(c.volts).toBeGreaterThanOrEqual(250);
      expect(c.volts).toBeLessThanOrEqual(262);
      expect(c.nodes.map((n) => n.point)).toEqual(["B1", "B2", "B3", "B4"]);
    }
  });
  testBySpice("the volts of a suggested dropper are those of a general SPICE", () => {
    const [c] = chooseDropper(drover, "B4", { low: 250, high: 262 }).choices;
    expect(Math.abs(c!.volts / bySpice(drover, [`R2=${c!.ohms}`], ["b4"])[0]! - 1)).toBeLessThan(0.01);
  });
  test("a window out of reach says how far it goes; one that is none is refused", () => {
    expect(chooseDropper(drover, "B4", { low: 500, high: 510 }).reaches![1]).toBeLessThan(500);
    expect(() => chooseDropper(drover, "B4", { low: 300, high: 200 })).toThrow("window");
    expect(() => chooseDropper(drover, "B1", { low: 300, high: 310 })).toThrow("no resistor or choke");
  });
  test("a choke drops less, sags less and ripples less than a resistor of ten times its ohms", () => {
    const [choke, resistor] = chokeAgainstResistor(drover, "B2", { henries: 5, dcr: 100, ohms: 1000 });
    expect(choke!.volts).toBeGreaterThan(resistor!.volts);
    expect(choke!.sag).toBeLessThan(resistor!.sag);
    expect(choke!.ripple).toBeLessThan(resistor!.ripple);
    // By hand: 50 mA more through 1 kΩ less 100 Ω sags 45 V more, but for the stage drawing less at lower screens.
    expect(resistor!.sag - choke!.sag).toBeGreaterThan(25);
    expect(resistor!.sag - choke!.sag).toBeLessThan(50);
  });
});
