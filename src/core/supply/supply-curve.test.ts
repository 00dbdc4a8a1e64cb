/** The curve of a supply against its own pulses, over kinds of rectifiers, capacitors and currents. */

import { capacitorImpulse, pulseTrain, samplesOf } from "./pulse-train";
import { pulsesAlike, type RectifierModel } from "./rectifier";
import { supplyCurve, SupplyCurve } from "./supply-curve";

const tube = { rs: 120, drop: 0, perveance: 0.24 / 24 ** 1.5 };
const silicon = { rs: 40, drop: 1.4 };
const MODELS: Record<string, RectifierModel> = {
  "full-wave tube": { peak: 424, path: tube, pulses: 2 },
  "full-wave silicon": { peak: 424, path: silicon, pulses: 2 },
  "half-wave tube": { peak: 340, path: tube, pulses: 1 },
  "one side weak": { peak: 424, path: tube, second: { ...tube, rs: 900 }, pulses: 2 },
};
const impulseOf = (model: RectifierModel, farads: number) => capacitorImpulse(farads, 50 * pulsesAlike(model), samplesOf(model));

describe.each(Object.entries(MODELS))("%s", (_, model) => {
  test.each([8e-6, 32e-6, 100e-6])("into %p F: the pulses' own average, to a part in 20,000 of the winding's peak", (farads) => {
    const impulse = impulseOf(model, farads);
    const curve = new SupplyCurve(model, impulse);
    let drawn = 0;
    let before = Infinity;
    for (let amps = 0.01; amps < 0.4; amps *= 1.17) {
      const point = curve.at(amps);
      const train = pulseTrain(model, amps, impulse, 0.8 * model.peak);
      if (!point || !train) continue;
      drawn++;
      expect(Math.abs(point.volts - train.volts)).toBeLessThan(5e-5 * model.peak);
      // More current, fewer volts.
      expect(point.volts).toBeLessThan(before);
      before = point.volts;
    }
    expect(drawn).toBeGreaterThan(12);
  });
});

test("near a short the curve is not drawn", () => {
  const model = MODELS["half-wave tube"]!;
  expect(new SupplyCurve(model, impulseOf(model, 8e-6)).at(2)).toBeUndefined();
});

test("the same to the last digit whatever was asked before", () => {
  const model = MODELS["full-wave tube"]!;
  const impulse = impulseOf(model, 32e-6);
  const [up, down] = [new SupplyCurve(model, impulse), new SupplyCurve(model, impulse)];
  const amps = [0.02, 0.05, 0.051, 0.09, 0.2];
  const rising = amps.map((a) => up.at(a)?.volts);
  const falling = [...amps].reverse().map((a) => down.at(a)?.volts);
  expect(falling.reverse()).toEqual(rising);
});

test("what more than a capacitor hangs on is drawn once two amps have asked for it, seen by their ripple alike", () => {
  const model = { ...MODELS["full-wave tube"]!, peak: 431 };
  const impulse = impulseOf(model, 20e-6);
  const [one, other] = [{}, {}];
  const ask = (asker: object, re: number) => supplyCurve(model, { farads: 0, hertz: 50, ohms: [re, -80] }, asker, () => impulse);
  expect(ask(one, 1)).toBeUndefined();
  expect(ask(one, 1)).toBeUndefined();
  expect(ask(other, 1.05)).toBeInstanceOf(SupplyCurve);
  expect(ask(one, 1)).toBe(ask(other, 1.05));
  // Another impedance is another supply.
  expect(ask(other, 5)).toBeUndefined();
  expect(supplyCurve(model, { farads: 20e-6, hertz: 50 }, one, () => impulse)).toBeInstanceOf(SupplyCurve);
});
