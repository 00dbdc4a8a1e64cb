import { editsBetween, nearestNames } from "../circuit/nearest-name";
import { readCircuit } from "../circuit/read";
import { parseQuantity } from "./parse";

test.each([
  ["20mfd", 20e-6, "F"],
  ["250mmf", 250e-12, "F"],
  ["100mmfd", 100e-12, "F"],
  ["47uuf", 47e-12, "F"],
  ["1.2meg", 1.2e6, undefined],
  ["2.2 megohm", 2.2e6, "Ω"],
  ["R47", 0.47, "Ω"],
])("%s as old drawings have it", (typed, value, unit) => {
  const parsed = parseQuantity(typed);
  expect(parsed.ok && parsed.quantity).toMatchObject({ value: expect.closeTo(value, 14) as number, ...(unit ? { unit } : {}) });
});
test("1.2meg where farads are wanted, R47 where volts are", () => {
  expect(parseQuantity("20mfd", { unit: "Ω" }).ok).toBe(false);
  expect(parseQuantity("R47", { unit: "V" }).ok).toBe(false);
  expect(parseQuantity("1.2meg", { unit: "Ω" })).toMatchObject({ ok: true, quantity: { value: 1.2e6 } });
});

test("an unknown type names the nearest", () => {
  const { errors } = readCircuit("t\nXV1 p s g k 6L6\nR1 p 0 1k\n");
  expect(errors[0]).toMatchObject({ found: "type 6L6", expected: expect.stringMatching(/^6L6GC\?/) as string });
  expect(nearestNames("12AX8", ["12AX7", "EL84", "12AT7"])[0]).toBe("12AX7");
  expect(nearestNames("ZZZ", ["12AX7"])).toEqual([]);
  expect(editsBetween("6SN7", "6SL7GT")).toBe(3);
});

test("a rectifier tube of one's own", () => {
  const file = (line: string) =>
    readCircuit(`t\n*@mains 230 50\n${line}\nXPS b 0 RECT_FULL vac=250 rs=100 tube=5X9\nC1 b 0 10u\nR1 b 0 5k\n`);
  const { circuit, errors } = file("*@tube 5X9 kind=rectifier drop=44 at=225m heater=5 amps=2 firstcap=10u");
  expect(errors).toEqual([]);
  expect(circuit.elements[0]!.rectifierTube).toMatchObject({ rectifier: { drop: [44, 0.225], largestFirstCapacitor: 10e-6 } });
  expect(file("*@tube 5X9 kind=rectifier drop=44").errors[0]).toMatchObject({ found: "5X9 without at=" });
});
