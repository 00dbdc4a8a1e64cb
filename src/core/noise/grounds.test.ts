import { compareSchemes, gaugeArea, judgeBond, liftLeaves, rewired, solveGrounds, wireOhms } from "./grounds";
import type { GroundMapDrawn } from "../tape/events/noise-events";

const wire = (from: string, to: string, area = 0.5, length = 0.1) => ({ from, to, area, length });

test("copper: 1 m of 1 mm² is 17.2 mΩ; AWG 20 is 0.518 mm²; what was measured stands", () => {
  expect(wireOhms(wire("a", "b", 1, 1))).toBeCloseTo(0.01724, 4);
  expect(gaugeArea(20)).toBeCloseTo(0.518, 3);
  expect(gaugeArea(36)).toBeCloseTo(0.01267, 4);
  expect(wireOhms({ ...wire("a", "b"), ohms: 0.3 })).toBe(0.3);
});

/** Input and first stage share a chassis run with the rectifier's return. */
const AS_FOUND: GroundMapDrawn = {
  wires: [wire("input", "preamp", 0.5, 0.2), wire("preamp", "reservoir", 0.5, 0.2), wire("reservoir", "chassis", 1, 0.05)],
  currents: [
    { what: "charging pulses", from: "input", to: "reservoir", amps: 0.3 },
    { what: "speaker", from: "chassis", to: "reservoir", amps: 1 },
  ],
  inputGround: "input",
  stageGround: "preamp",
};

test("hum in series with the signal: amperes times the ohms that they share with it, worked by hand", () => {
  const { humVolts, by, wires, loops, problems } = solveGrounds(AS_FOUND);
  const ohms = (1.7241e-8 * 0.2) / 0.5e-6;
  expect(humVolts).toBeCloseTo(0.3 * ohms, 9);
  expect(by[0]).toMatchObject({ what: "charging pulses" });
  expect(by[1]!.volts).toBe(0);
  expect(wires[0]).toMatchObject({ shared: true, amps: expect.closeTo(0.3, 9) });
  expect(wires[2]).toMatchObject({ shared: false, amps: expect.closeTo(1, 9) });
  expect([loops, problems]).toEqual([[], []]);
});

test("two ways back share the current by their conductance, and are a loop", () => {
  const looped = { ...AS_FOUND, wires: [...AS_FOUND.wires, wire("input", "reservoir", 0.5, 0.4)] };
  const { humVolts, loops } = solveGrounds(looped);
  // Both ways have the same ohms: half the current each.
  expect(humVolts).toBeCloseTo((0.15 * 1.7241e-8 * 0.2) / 0.5e-6, 9);
  expect(loops).toHaveLength(1);
  expect(new Set(loops[0])).toEqual(new Set(["input", "preamp", "reservoir"]));
});

test("star and bus beside as found: of a star the first stage keeps only what its own wires carry", () => {
  const found = solveGrounds(AS_FOUND).humVolts;
  const fixed = {
    ...AS_FOUND,
    currents: [{ ...AS_FOUND.currents[0]!, from: "rectifier" }, AS_FOUND.currents[1]!],
    wires: [...AS_FOUND.wires, wire("rectifier", "input")],
  };
  expect(solveGrounds(rewired(fixed, "star")).humVolts).toBeLessThan(1e-9);
  expect(solveGrounds(rewired(fixed, "bus")).humVolts).toBeLessThan(found);
  expect(rewired(fixed, "as found")).toBe(fixed);
  expect(rewired(fixed, "star").wires.every((w) => w.to === "reservoir")).toBe(true);
});

test("a current without a way back and a point that nothing goes to are named", () => {
  const { problems, humVolts } = solveGrounds({
    ...AS_FOUND,
    currents: [{ what: "heater", from: "pilot", to: "chassis", amps: 3 }],
    wires: [...AS_FOUND.wires, wire("a", "b")],
    stageGround: "a",
  });
  expect(problems.join("; ")).toMatch(/no wire goes to "pilot"/);
  expect(problems.join("; ")).toMatch(/not joined/);
  expect(humVolts).toBe(0);
});

test("what a lift leaves connected: ten ohms lift a loop of 50 mΩ by 46 dB, 100 nF nothing worth at 50 Hz, diodes give way to volts", () => {
  const ten = liftLeaves({ ohms: 10 }, 0.1, 0.05, 50);
  expect(ten.decibels).toBeCloseTo(20 * Math.log10(0.05 / 10.05), 6);
  expect(ten.lifts).toBe(true);
  expect(liftLeaves({ farads: 100e-9 }, 0.1, 0.05, 50).ohms).toBeCloseTo(31_831, 0);
  expect(liftLeaves({ ohms: 10, diodes: true }, 0.1, 0.05, 50).lifts).toBe(true);
  expect(liftLeaves({ ohms: 10, diodes: true }, 1, 0.05, 50)).toMatchObject({ partLeft: 1, lifts: false });
  expect(liftLeaves({}, 1, 0.05, 50)).toMatchObject({ partLeft: 0, lifts: true });
});

test("the safety earth is judged by its bolt and its bond, never waved through", () => {
  expect(judgeBond({}).every((j) => !j.sound)).toBe(true);
  expect(judgeBond({ ownBolt: true, bondOhms: 0.05 }).every((j) => j.sound)).toBe(true);
  expect(judgeBond({ ownBolt: false, bondOhms: 0.4 }).map((j) => j.sound)).toEqual([false, false]);
});

test("the three side by side in decibels; of what hums nothing there are none to say", () => {
  const fixed = {
    ...AS_FOUND,
    currents: [{ ...AS_FOUND.currents[0]!, from: "rectifier" }],
    wires: [...AS_FOUND.wires, wire("rectifier", "input")],
  };
  const [found, star, bus] = compareSchemes(fixed);
  expect(found).toMatchObject({ scheme: "as found", decibels: 0 });
  expect(star).toMatchObject({ scheme: "star", decibels: -Infinity });
  expect(bus!.decibels).toBeCloseTo(20 * Math.log10(bus!.volts / found!.volts), 9);
  expect(compareSchemes({ ...fixed, currents: [] }).every((s) => s.decibels === undefined && s.volts === 0)).toBe(true);
});
