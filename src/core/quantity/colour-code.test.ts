import { readColours } from "./colour-code";

test.each([
  ["brown black orange", "F", { value: 10e-9 }],
  ["Red, red, yellow, silver, blue", "F", { value: 220e-9, tolerance: 0.1, volts: 600 }],
  ["green brown brown", "F", { value: 510e-12 }],
  ["yellow violet red gold", "Ω", { value: 4700, tolerance: 0.05 }],
  ["brown purple gold", "Ω", { value: 1.7 }],
] as const)("%s", (text, unit, read) => expect(readColours(text, unit)).toEqual(read));

test("what is no code is refused with what is accepted", () => {
  expect(readColours("brown pink red", "F")).toMatch(/pink.*black, brown/);
  expect(readColours("brown black", "F")).toMatch(/2 colours.*three to five/);
  expect(readColours("black black red", "F")).toMatch(/nothing/);
});
