import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { solve, symmetricEigen } from "../numeric/dense";
import { dischargePlan, storedEnergy } from "./stored-energy";
import { decayOf, reservoirsOf } from "./reservoirs";

const circuit = (body: string) => readCircuit(`t\n${body}`).circuit;

describe("dense algebra", () => {
  test("solves and names a singular row", () => {
    const x = solve([2, 1, 1, 1, 3, 2, 1, 0, 0], [4, 5, 6]);
    [6, 15, -23].forEach((expected, i) => expect(x[i]).toBeCloseTo(expected, 10));
    expect(() => solve([1, 2, 2, 4], [1, 1])).toThrow(/singular at row 1/);
  });
  test("eigenpairs give the matrix back", () => {
    const a = [4, 1, 2, 1, 3, 0, 2, 0, 1];
    const { values, vectors } = symmetricEigen(a, 3);
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 3; j++)
        expect(values.reduce((s, l, k) => s + l * vectors[k]![i]! * vectors[k]![j]!, 0)).toBeCloseTo(a[i * 3 + j]!, 10);
  });
});

describe("discharging", () => {
  test("hand-worked: 100 µF at 400 V through 2.2 kΩ to 10 V", () => {
    const plan = dischargePlan(100e-6, 400, 2200, 10);
    expect(plan.timeConstant).toBeCloseTo(0.22);
    expect(plan.joules).toBeCloseTo(8);
    expect(plan.peakAmps).toBeCloseTo(0.1818, 4);
    expect(plan.peakWatts).toBeCloseTo(72.7, 1);
    expect(plan.seconds).toBeCloseTo(0.22 * Math.log(40), 6);
    expect(plan.averageWatts).toBeCloseTo((8 - 0.005) / plan.seconds, 6);
    expect(() => dischargePlan(1e-6, 100, 0, 10)).toThrow(/ohms above zero/);
  });
});

describe("reservoirs of a circuit", () => {
  test("bypass capacitors are not reservoirs; sections on one node are one", () => {
    const c = circuit(
      "C1 b1 0 32u ;@volts 450\nC2 b1 0 16u ;@volts 350\nC3 k 0 25u ;@volts 25\nC4 b1 x 22n\nR1 b1 0 1k\nR2 k 0 1k\nR3 x 0 1k",
    );
    expect(reservoirsOf(c)).toEqual([expect.objectContaining({ name: "C1", parts: ["C1", "C2"], ratedVolts: 350 })]);
    expect(reservoirsOf(c)[0]!.farads).toBeCloseTo(48e-6, 12);
  });
  test("the Drover's bias reservoir counts too", () => {
    const names = reservoirsOf(readCircuit(readFileSync("demo/amps/drover-40.cir", "utf8")).circuit).map((r) => r.name);
    expect(names).toEqual(["C20", "C21", "C1", "C2", "C3", "C4"]);
  });
});

describe("decay", () => {
  test("one bleeder is a plain exponential", () => {
    const c = circuit("C1 b1 0 50u ;@volts 450\nR1 b1 0 220k");
    const decay = decayOf(c, reservoirsOf(c), [400]);
    expect(decay.voltsAt(11)[0]).toBeCloseTo(400 / Math.E, 3);
    expect(decay.secondsTo(10)).toBeCloseTo(11 * Math.log(40), 2);
    expect(decay.joulesAt(0)).toBeCloseTo(storedEnergy(50e-6, 400));
  });
  test("nothing bleeds: it stays", () => {
    const c = circuit("C1 b1 0 50u ;@volts 450\nR1 b1 b2 1k\nC2 b2 0 50u ;@volts 450\nR9 x 0 1k\nR8 x 0 1k");
    const decay = decayOf(c, reservoirsOf(c), [400, 300]);
    expect(decay.secondsTo(10)).toBe(Infinity);
    // Charge is shared through R1 and none is lost: both end at the mean.
    expect(decay.voltsAt(10)[0]).toBeCloseTo(350, 1);
  });
  test("two sections agree with a small-step integration", () => {
    const c = circuit("C1 a 0 40u ;@volts 450\nR1 a b 10k\nC2 b 0 20u ;@volts 450\nR2 b 0 100k");
    const decay = decayOf(c, reservoirsOf(c), [300, 100]);
    let [a, b] = [300, 100];
    const dt = 1e-5;
    for (let t = 0; t < 2; t += dt) {
      const i = (a - b) / 10e3;
      [a, b] = [a - (i * dt) / 40e-6, b + ((i - b / 100e3) * dt) / 20e-6];
    }
    const [va, vb] = decay.voltsAt(2);
    expect(va).toBeCloseTo(a, 1);
    expect(vb).toBeCloseTo(b, 1);
  });
  test("reservoirs named by hand, with no circuit, are taken to hold their charge", () => {
    const decay = decayOf(undefined, [{ node: "c1", returnNode: "0", farads: 32e-6 }], [350]);
    expect(decay.voltsAt(3600)).toEqual([350]);
    expect(decay.secondsTo(10)).toBe(Infinity);
  });
});
