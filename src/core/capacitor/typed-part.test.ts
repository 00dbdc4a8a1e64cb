/** Parts as they are written down: read, checked in their place, put into the circuit. */

import { alter } from "../circuit/alter";
import { findElement } from "../circuit/circuit";
import { demoAmp } from "../solver/circuits-for-tests";
import { bornBy } from "./born";
import { knownCapacitors } from "./known";
import { capacitorStresses } from "./stress";
import { checkTypedPart, readTypedPart, typedSet } from "./typed-part";
import { foldJob } from "../tape/fold";

const offer = (letter: "C" | "R", text: string, decimal: "." | "," = ".") => {
  const read = readTypedPart(letter, text, decimal);
  return read.ok ? read.part.offer : read.why;
};

test.each([
  ["22 nF 630 V polypropylene", { farads: 22e-9, volts: 630, kind: "polypropylene" }],
  ["22n 630V film", { farads: 22e-9, volts: 630, kind: "film" }],
  ["47 µF 500 V 105 °C 5000 h electrolytic", { farads: 47e-6, volts: 500, celsius: 105, hours: 5000, kind: "electrolytic" }],
  ["0.047u 600 V paper", { farads: 47e-9, volts: 600, kind: "paper" }],
])("%s", (text, wanted) => {
  const read = offer("C", text) as { farads: number };
  expect(read).toEqual({ ...wanted, farads: expect.closeTo(wanted.farads, 15) });
});

test.each([
  ["56 kΩ 2 W metal-oxide", { ohms: 56e3, watts: 2, kind: "metal-oxide" }],
  ["4k7 0.5W metal film", { ohms: 4700, watts: 0.5, kind: "metal-film" }],
  ["270 5 W wirewound", { ohms: 270, watts: 5, kind: "wirewound" }],
])("%s", (text, wanted) => expect(offer("R", text)).toEqual(wanted));

test("with the shop's comma", () =>
  expect(offer("R", "4,7k 0,5 W carbon-film", ",")).toEqual({ ohms: 4700, watts: 0.5, kind: "carbon-film" }));

test("what cannot be checked says what is missing", () => {
  expect(offer("C", "a good one")).toMatch(/value cannot be read/);
  expect(offer("C", "22 nF film")).toMatch(/volts that it is rated for are not named/);
  expect(offer("C", "22 nF 630 V")).toMatch(/its kind is not named/);
  expect(offer("R", "56k metal-oxide")).toMatch(/watts that it is rated for are not named/);
  expect(offer("R", "56k 2 W")).toMatch(/its kind is not named/);
});

test("in its place: a capacitor below what it sees with the tubes out may not stand, the right one may; the circuit takes it", () => {
  const circuit = demoAmp("lantern-15");
  const c1 = findElement(circuit, "C1")!;
  const known = knownCapacitors(circuit, foldJob([])).find((c) => c.name === "C1")!;
  const stress = capacitorStresses(circuit, 230).get("C1");
  const verdict = (text: string) => {
    const read = readTypedPart("C", text, ".");
    if (!read.ok) throw new Error(read.why);
    return checkTypedPart(circuit, c1, read.part, { known, stress })!.find((c) => c.what === "volts")!.verdict;
  };
  // Tubes out it sees 382 V and a tenth more: 420 V.
  expect([verdict("32 µF 350 V 105 °C electrolytic"), verdict("32 µF 500 V 105 °C electrolytic")]).toEqual(["out", "in"]);
  const read = readTypedPart("C", "47 µF 500 V electrolytic", ".");
  const altered = read.ok ? alter(circuit, typedSet("C1", read.part, 2026)) : undefined;
  expect(findElement(altered!, "C1")).toMatchObject({ value: expect.closeTo(47e-6, 12), notes: { volts: 500, year: 2026 } });
});

test("a resistor by the watts in it; nothing is said before it is solved", () => {
  const circuit = demoAmp("lantern-15");
  const r4 = findElement(circuit, "R4")!;
  const born = bornBy(circuit, 230).find((b) => b.part === "R4")!;
  const verdict = (text: string) => {
    const read = readTypedPart("R", text, ".");
    if (!read.ok) throw new Error(read.why);
    return checkTypedPart(circuit, r4, read.part, { born })!.find((c) => c.what === "watts")!.verdict;
  };
  // 250 Ω under about 20 V and a tenth: nearly two watts in it.
  expect([verdict("250 1 W wirewound"), verdict("250 3 W wirewound"), verdict("250 5 W wirewound")]).toEqual(["out", "watch", "in"]);
  const read = readTypedPart("R", "250 5 W wirewound", ".");
  expect(read.ok && checkTypedPart(circuit, r4, read.part, {})).toBeUndefined();
});
