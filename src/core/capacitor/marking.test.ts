import { readMarking } from "./marking";

test.each([
  ["32u", "450", 32e-6, 450],
  ["16u 450V", "", 16e-6, 450],
  ["16 uF 450 V", "", 16e-6, 450],
  ["0.022 MFD", "", 22e-9, undefined],
  ["22n", "", 22e-9, undefined],
])("%s, %s", (size, rated, farads, volts) => {
  const read = readMarking(size, rated, ".");
  expect(read.ok && [Number(read.farads.toPrecision(6)), read.volts]).toEqual([farads, volts]);
});

test("with a comma for the decimal sign", () => {
  expect(readMarking("0,1u 630", "", ",")).toEqual({ ok: true, farads: 1e-7, volts: 630 });
});

test.each([
  ["1k", "", /Size: /],
  ["soup", "450", /Size: .*accepted: 32u/],
  ["32u", "high", /Rated volts: .*accepted: 450/],
  ["32u", "0", /Rated volts: read 0 V; accepted: 1 to/],
  ["5", "x", /Rated volts|Size/],
])("refused, with what is accepted: %s, %s", (size, rated, why) => {
  const read = readMarking(size, rated, ".");
  expect(read.ok ? "" : read.why).toMatch(why);
});
