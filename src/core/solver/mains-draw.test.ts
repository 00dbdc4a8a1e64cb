import { alter, without } from "../circuit/alter";
import { circuitOf, demoAmp } from "./circuits-for-tests";
import { compile } from "./compile";
import { idealVolts, operatingPoint } from "./operating-point";
import { startFrom, periodicAverage } from "./steady";
import { sweepMains, sweepPart } from "./sweep";
import { transient } from "./transient";
import { behindLamp, lampAmps, mainsDraw, ratedHeaterWatts } from "./mains-draw";
import { averageCurrent, ripplePeakToPeak } from "../supply/rectifier";

test("heaters add up: ECC83 0.3 A, EL84 0.76 A, EZ80 0.6 A at 6.3 V", () => {
  expect(ratedHeaterWatts(demoAmp("wren-5"))).toBeCloseTo(6.3 * (0.3 + 0.76 + 0.6), 9);
  expect(ratedHeaterWatts(without(demoAmp("wren-5"), ["V2", "V3"]))).toBeCloseTo(6.3 * 0.3, 9);
});
test("the watts at the wall cover what the circuit turns to heat", () => {
  const circuit = circuitOf("*@mains 230 50", "XPS b 0 RECT_BRIDGE vac=230 rs=20", "C1 b 0 470u", "R1 b 0 1k");
  const op = operatingPoint(circuit);
  const watts = idealVolts(op, "b") ** 2 / 1e3;
  const draw = mainsDraw(op);
  expect(draw.heaterWatts).toBe(0);
  // What the load takes, the diodes' 1.4 V and the winding's ohms, times the transformer's own tenth.
  expect(draw.supplyWatts).toBeGreaterThan(watts);
  expect(draw.supplyWatts).toBeLessThan(1.15 * watts);
  expect(draw.watts).toBeCloseTo(1.1 * draw.supplyWatts, 9);
  // Pulses: far more volt-amperes than watts.
  expect(draw.voltAmperes / draw.watts).toBeGreaterThan(1.3);
});
test("a small amp draws what its plate says: the Wren about a third of an ampere at most", () => {
  const { amps, watts } = mainsDraw(operatingPoint(demoAmp("wren-5")));
  expect(watts).toBeGreaterThan(22);
  expect(watts).toBeLessThan(40);
  expect(amps).toBeGreaterThan(0.1);
  expect(amps).toBeLessThan(0.33);
});
test("a lamp of 60 W: current by its power law; an amp runs dim behind it, a short lights it", () => {
  const lamp = { watts: 60, volts: 230 };
  expect(lampAmps(lamp, 230)).toBeCloseTo(60 / 230, 9);
  expect(lampAmps(lamp, 23)).toBeCloseTo((60 / 230) * 0.1 ** 0.54, 9);
  const healthy = behindLamp(demoAmp("wren-5"), lamp, 230);
  expect(healthy.ampVolts + healthy.lampVolts).toBeCloseTo(230, 9);
  expect(mainsDraw(operatingPoint(demoAmp("wren-5"), { mains: healthy.ampVolts })).amps / healthy.amps).toBeCloseTo(1, 1);
  const shorted = behindLamp(alter(demoAmp("wren-5"), ["C1=short"]), lamp, 230);
  expect(shorted.glow).toBeGreaterThan(2 * healthy.glow);
  expect(shorted.ampVolts).toBeLessThan(healthy.ampVolts);
});
test("no mains, nothing to say", () => expect(() => mainsDraw(operatingPoint(circuitOf("V1 a 0 1", "R1 a 0 1")))).toThrow(/\*@mains/));

test.each([
  ["RECT_FULL vac=290 rs=180 tube=EZ80", "32u", "5k"],
  ["RECT_BRIDGE vac=300 rs=40", "50u", "3k"],
  ["RECT_HALF vac=48 rs=1k", "50u", "40k"],
])("ripple of %s on %s against the transient", (rectifier, farads, load) => {
  const circuit = circuitOf("*@mains 230 50", `XPS b 0 ${rectifier}`, `C1 b 0 ${farads}`, `R1 b 0 ${load}`);
  const op = operatingPoint(circuit);
  const volts = idealVolts(op, "b");
  const [{ model }] = op.network.rectifiers as [(typeof op.network.rectifiers)[0]];
  const out = new Float64Array(2);
  averageCurrent(model, volts, out);
  const network = compile(circuit, { supply: "pulsed" });
  let x = startFrom(op, network);
  for (let k = 0; k < 4; k++) x = transient(network, { start: x, stop: 0.5, keep: [] }).end;
  const run = transient(network, { start: x, stop: 0.04, keep: [network.index.get("b")!] });
  const seen = Math.max(...run.v[0]!) - Math.min(...run.v[0]!);
  const farad = circuit.elements.find((e) => e.name === "C1")!.value!;
  // The straight-line estimate of the trade: right to about a tenth.
  expect(Math.abs(ripplePeakToPeak(model, volts, out[0]!, farad, 50) / seen - 1)).toBeLessThan(0.12);
});
test("a doubler's average is that of its pulses", () => {
  const circuit = circuitOf("*@mains 117 60", "XPS b 0 m DOUBLER vac=117 rs=10", "C2 b m 100u", "C3 m 0 100u", "C1 b 0 47u", "R1 b 0 4k");
  expect(Math.abs(idealVolts(operatingPoint(circuit), "b") / periodicAverage(circuit).get("b")! - 1)).toBeLessThan(0.01);
});
test("sweeps: B1 rises with the mains, the cathode with its resistor", () => {
  const b1 = sweepMains(demoAmp("wren-5"), [180, 200, 220, 240]).map((s) => s.points.get("B1")!);
  expect([...b1].sort((a, b) => a - b)).toEqual(b1);
  const k = sweepPart(demoAmp("wren-5"), "R4", [100, 150, 220, 330]).map((s) => s.points.get("V2.k")!);
  expect([...k].sort((a, b) => a - b)).toEqual(k);
});
