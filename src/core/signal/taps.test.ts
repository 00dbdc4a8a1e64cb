import { cornerHertz, electronicBalanced, feedbackShelf, tapLoading, transformerBalanced } from "./taps";

test("corners: 22 nF into 1 MΩ is 7.2 Hz; nothing below zero", () => {
  expect(cornerHertz(1e6, 22e-9)).toBeCloseTo(7.234, 3);
  expect(() => cornerHertz(0, 1e-6)).toThrow("above zero");
});

test("a capacitor across the feedback resistor: 15 kΩ over 4.7 kΩ with 100 pF begins at 106 kHz and ends 12.4 dB higher", () => {
  const shelf = feedbackShelf(15e3, 4.7e3, 100e-12, "series");
  expect(shelf.from).toBeCloseTo(106_103, 0);
  expect(shelf.decibels).toBeCloseTo(20 * Math.log10(19.7 / 4.7), 9);
  expect(shelf.to).toBeGreaterThan(shelf.from);
  expect(feedbackShelf(15e3, 4.7e3, 100e-9, "shunt").from).toBeCloseTo(444.7, 1);
});

test("a tap of 47 kΩ into 47 kΩ loses half, and 500 pF of lead takes its highs from 13.5 kHz", () => {
  expect(tapLoading(47e3, 47e3).decibels).toBeCloseTo(-6.02, 2);
  expect(tapLoading(47e3, 47e3, 500e-12).corner).toBeCloseTo(13_545, 0);
  expect(tapLoading(0, 10e3, 1e-9)).toEqual({ decibels: 0 });
  expect(() => tapLoading(-1, 10)).toThrow("read −1");
});

test("balanced: a transformer of 1 : 1 from 600 Ω, resistors of 1 % into 10 kΩ", () => {
  const t = transformerBalanced(1, 600, 50, 10e3, 200e-12, 50);
  expect(t.outputOhms).toBe(650);
  expect(t.decibels).toBeCloseTo(20 * Math.log10(10 / 10.65), 6);
  expect(t.rejection).toBeLessThan(-90);
  const e = electronicBalanced(47, 0.02, 10e3, true);
  expect(e.outputOhms).toBeCloseTo(94, 9);
  expect(e.decibels).toBeCloseTo(20 * Math.log10((2 * 10e3) / 10_047), 6);
  // 0.94 Ω of difference in 10 kΩ.
  expect(e.rejection).toBeCloseTo(20 * Math.log10(0.94 / 10e3), 0);
  expect(electronicBalanced(47, 0, 10e3, false).rejection).toBe(-Infinity);
});
