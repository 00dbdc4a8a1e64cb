/** What owners say must not be changed, each with what a careful technician would take it for. */

import { briefAllows } from "./brief-allows";
import { readMustNotChange, sayMustNotChange, withoutKind } from "./brief-places";

test.each([
  ["C6", ["C6"], [], false, []],
  ["the capacitors", [], ["capacitors"], false, []],
  ["the resistors", [], ["resistors"], false, []],
  ["original tubes", [], ["tubes"], false, []],
  ["the output transformer", [], ["transformers"], false, []],
  ["Don't touch the valves", [], ["tubes"], false, []],
  ["Don’t touch the valves", [], ["tubes"], false, []],
  ["keep it all original", [], [], true, []],
  ["Nothing may be changed", [], [], true, []],
  ["no caps, no pots; C12 and V4 stay", ["C12", "V4"], ["capacitors", "controls"], false, []],
  ["the iron and the knobs", [], ["transformers", "controls"], false, []],
  ["the condensers and the OPT", [], ["capacitors", "transformers"], false, []],
  ["the sound", [], [], false, ["sound"]],
  ["the brown things near the back", [], [], false, ["brown", "things", "near", "back"]],
] as const)("%s", (text, parts, kinds, everything, unread) => {
  const read = readMustNotChange(text);
  expect({ ...read, kinds: [...read.kinds].sort() }).toEqual({ parts, kinds: [...kinds].sort(), everything, unread });
});

test.each([
  // What the owner said, what is to be done, and what it is.
  ["C6", "replace with 22 nF", "C6", "ask"],
  ["C6", "replace with 22 nF", "C7", "allowed"],
  ["the capacitors", "replace with 22 nF 630 V", "C6", "ask"],
  ["the resistors", "replace with 100k", "R7", "ask"],
  ["the resistors", "replace with 22 nF", "C7", "allowed"],
  ["original tubes", "replace with new EL84", "V4", "ask"],
  ["Don't touch the valves", "replace with new EL84", "V4", "ask"],
  ["V4", "replace with new 12AX7", "V4A", "ask"],
  ["the output transformer", "replace with another", "T2", "ask"],
  ["keep it all original", "replace with 22 nF", "C6", "ask"],
  ["the sound", "replace with 22 nF", "C6", "ask"],
  ["the sound", "clean it", "V4 socket", "allowed"],
  ["the rectifier stays", "replace with 22 nF", "C6", "ask"],
  ["leave it", "replace with 22 nF", "C6", "ask"],
  ["the knobs", "replace with 22 nF", "C6", "allowed"],
  ["", "replace with 22 nF", "C6", "allowed"],
])("must not change “%s”: %s at %s is %s", (mustNotChange, action, place, answer) => {
  expect(briefAllows({ order: ["reliability"], mustNotChange }, action, place, "fault").brief).toBe(answer);
});

test("danger covers making safe and says so; a brief that names the part is asked about all the same", () => {
  const brief = (mustNotChange: string) => briefAllows({ order: ["originality"], mustNotChange }, "replace with class Y", "C1", "danger");
  expect(brief("the sound")).toMatchObject({ brief: "allowed", why: expect.stringContaining("made safe") });
  expect(brief("C1").brief).toBe("ask");
});

test("it is shown back as it was understood, and what was not", () => {
  expect(sayMustNotChange("the caps")).toBe("Understood: capacitors.");
  expect(sayMustNotChange("C6 and the glorp")).toMatch(/^Understood: C6. Not understood: glorp; .*owner is asked/);
  expect(sayMustNotChange(" ")).toBe("");
});

test("a kind is taken out of it, by whatever word it was named", () => {
  expect(withoutKind("the caps and V4", "capacitors")).toBe("V4");
  expect(withoutKind("V4, the iron; the glorp", "tubes")).toBe("V4, transformers, glorp");
  expect(withoutKind("capacitors", "capacitors")).toBe("");
});
