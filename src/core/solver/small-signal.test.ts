import { circuitOf, demoAmp } from "./circuits-for-tests";
import { operatingPoint } from "./operating-point";
import { magnitude, phaseDegrees, SmallSignal } from "./small-signal";

const around = (...lines: string[]) => new SmallSignal(operatingPoint(circuitOf(...lines)));

test("an RC: corner and phase", () => {
  const s = around("R0 in 0 1MEG", "R1 in a 10k", "C1 a 0 10n");
  const corner = 1 / (2 * Math.PI * 10e3 * 10e-9);
  const v = s.drive(s.node("in"), 1, corner)[s.node("a")]!;
  expect(magnitude(v)).toBeCloseTo(Math.SQRT1_2, 9);
  expect(phaseDegrees(v)).toBeCloseTo(-45, 6);
});
test("a transformer: ratio, reflected load and leakage", () => {
  const s = around("R0 in 0 1MEG", "XT1 in 0 out 0 OPT_SE zp=5000 load=8 dcr=1 dcrsec=0.001 lp=50 ll=10u", "R1 out 0 8");
  const v = s.drive(s.node("in"), 10, 1000);
  expect(magnitude(v[s.node("out")]!)).toBeCloseTo(10 * Math.sqrt(8 / 5000), 3);
});
test("gain of a bypassed triode stage is gm·(rp ∥ load)", () => {
  const op = operatingPoint(
    circuitOf("VB b 0 300", "R1 b p 100k", "XV1 p g k 12AX7", "R2 k 0 1.5k", "C2 k 0 1000u", "R3 g 0 1MEG", "C1 p n 1", "R4 n 0 220k"),
  );
  const s = new SmallSignal(op);
  const gain = magnitude(s.drive(s.node("g"), 1, 300)[s.node("p")]!);
  expect(gain).toBeGreaterThan(50);
  expect(gain).toBeLessThan(62);
});
test("loop gain: an amplifier of 1000 with a tenth fed back", () => {
  const lines = ["R0 in 0 1MEG", "XA1 in fb o OPAMP gain=1000 vmax=100", "RL o 0 1k", "R1 o fb 9k", "R2 fb 0 1k"];
  const s = around(...lines);
  // The amplifier's own 50 Ω stand before its 1 kΩ load and the 10 kΩ of the divider.
  const load = 1 / (1 / 1e3 + 1 / 10e3);
  const t = s.loopGain(s.node("o"), s.node("fb"), 1 / 9e3, 100);
  expect(magnitude(t)).toBeCloseTo((1000 * 0.1 * load) / (load + 50), 1);
  const closed = magnitude(s.drive(s.node("in"), 0.001, 100)[s.node("o")]!) / 0.001;
  const open = around(...lines.filter((l) => !l.startsWith("R1")), "R1 o 0 10k", "R9 fb 0 1k");
  const forward = magnitude(open.drive(open.node("in"), 0.001, 100)[open.node("o")]!) / 0.001;
  expect(closed).toBeCloseTo(forward / (1 + magnitude(t)), 1);
});
test("the Drover's feedback: turning it off gives back what its loop gain says", () => {
  const circuit = demoAmp("drover-40");
  const gain = (c: typeof circuit) => {
    const s = new SmallSignal(operatingPoint(c));
    return magnitude(s.drive(s.node("g4a"), 0.01, 800)[s.node("out")]!);
  };
  const s = new SmallSignal(operatingPoint(circuit));
  const t = s.loopGain(s.node("out"), s.node("fb"), 1 / circuit.elements.find((e) => e.name === "R17")!.value!, 800);
  // The feedback enters at the pair's other grid: with R17 off, what loads fb stays nearly the same.
  const without = { ...circuit, elements: circuit.elements.filter((e) => e.name !== "R17") };
  expect(gain(without) / gain(circuit) / Math.hypot(1 + t.re, t.im)).toBeCloseTo(1, 1);
});
test("a node that is not there is named", () => {
  expect(() => around("R1 a 0 1k").node("zz")).toThrow(/no node zz/);
});
