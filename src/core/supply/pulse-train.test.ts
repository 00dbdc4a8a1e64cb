/** Pulses of a rectifier against what charge and energy ask of them, and against steps of time taken by hand. */

import { capacitorImpulse, impulseOf, multiplesOf, pulseTrain, samplesOf, swingOf } from "./pulse-train";
import { instantCurrent, pulsesAlike, type RectifierModel } from "./rectifier";

const tube = { rs: 120, drop: 0, perveance: 0.24 / 24 ** 1.5 };
const MODELS: [string, RectifierModel][] = [
  ["full-wave tube", { peak: 424, path: tube, pulses: 2 }],
  ["full-wave silicon", { peak: 424, path: { rs: 40, drop: 1.4 }, pulses: 2 }],
  ["half-wave tube", { peak: 340, path: tube, pulses: 1 }],
  ["one side weak", { peak: 424, path: tube, second: { ...tube, rs: 900 }, pulses: 2 }],
];

describe.each(MODELS)("%s into a capacitor", (_, model) => {
  const period = 1 / (50 * pulsesAlike(model));
  const farads = 24e-6;
  const amps = 0.08;
  const n = samplesOf(model);
  const train = pulseTrain(model, amps, capacitorImpulse(farads, 1 / period, n), 0.8 * model.peak)!;
  const mean = (v: Float64Array) => v.reduce((s, x) => s + x, 0) / v.length;

  test("as much comes as goes, and the average is that of its course", () => {
    expect(mean(train.current)).toBeCloseTo(amps, 6);
    expect(mean(train.course)).toBeCloseTo(train.volts, 4);
  });

  test("what flows between trough and crest is what the capacitor takes: C·ΔV, the load's share besides", () => {
    const low = train.course.indexOf(Math.min(...train.course));
    const high = train.course.indexOf(Math.max(...train.course));
    const dt = period / n;
    let charge = 0;
    for (let k = low; k !== high; k = (k + 1) % n) charge += ((train.current[k]! + train.current[(k + 1) % n]!) / 2 - amps) * dt;
    expect(charge / (farads * swingOf(train))).toBeCloseTo(1, 1);
  });

  test("steps of time by hand, until the period repeats, give the same average and the same swing", () => {
    const out = new Float64Array(2);
    const steps = 4000;
    const dt = period / steps;
    let v = train.course[0]!;
    let sum = 0;
    let [low, high] = [Infinity, -Infinity];
    for (let turn = 0; turn < 400; turn++) {
      [sum, low, high] = [0, Infinity, -Infinity];
      for (let k = 0; k < steps; k++) {
        const phase = ((2 * Math.PI) / pulsesAlike(model)) * (k / steps - 0.5);
        instantCurrent(model, phase, v, out);
        v += ((out[0]! - amps) * dt) / farads;
        sum += v / steps;
        [low, high] = [Math.min(low, v), Math.max(high, v)];
      }
    }
    expect(Math.abs(sum / train.volts - 1)).toBeLessThan(5e-4);
    expect(Math.abs((high - low) / swingOf(train) - 1)).toBeLessThan(0.02);
  });
});

test("a capacitor is the same by its farads as by its impedance at every multiple", () => {
  const model = MODELS[0]![1];
  const [farads, hertz] = [47e-6, 100];
  const multiples = multiplesOf(model);
  const im = Float64Array.from({ length: multiples }, (_, k) => -1 / (2 * Math.PI * hertz * (k + 1) * farads));
  const byOhms = impulseOf({ re: new Float64Array(multiples), im }, samplesOf(model));
  capacitorImpulse(farads, hertz, samplesOf(model)).forEach((v, k) => expect(v).toBeCloseTo(byOhms[k]!, 9));
});
