import { circuitOf, demoAmp } from "../solver/circuits-for-tests";
import { idealVolts, operatingPoint } from "../solver/operating-point";
import { carryOver, compareCircuits } from "./compare";
import { findElement, type Circuit, type Element } from "./circuit";

const lantern = demoAmp("lantern-15");
const change = (circuit: Circuit, name: string, by: (e: Element) => Element | undefined): Circuit => {
  const target = findElement(circuit, name)!;
  return { ...circuit, elements: circuit.elements.flatMap((e) => (e === target ? [by(e)].filter((x) => x !== undefined) : [e])) };
};
const says = (found: Circuit) => compareCircuits(lantern, found).map((d) => d.says);

test("the same amp has no differences", () => expect(compareCircuits(lantern, demoAmp("lantern-15"))).toEqual([]));

test.each<[string, Circuit, string]>([
  ["a value", change(lantern, "R4", (e) => ({ ...e, value: 150 })), "R4 is 150 Ω, not 250 Ω"],
  ["a part missing", change(lantern, "R30", () => undefined), "R30, 220 kΩ is missing: from B1 to chassis"],
  ["another type", change(lantern, "V1A", (e) => ({ ...e, type: "12AT7" })), "V1A is a 12AT7, not a 12AX7"],
  [
    "a resistor to another rail",
    change(lantern, "R13", (e) => ({ ...e, nodes: ["b3", "p2a"] })),
    "R13 goes from V2A plate to B3, not to B4",
  ],
  [
    "a screen to another rail",
    change(lantern, "V4", (e) => ({ ...e, nodes: ["p4", "b3", "g4", "k45"] })),
    "V4 screen goes to B3, not to the joint of S2A through R5",
  ],
  ["an electrolytic backwards", change(lantern, "C5", (e) => ({ ...e, nodes: ["0", "k45"] })), "C5 is in backwards"],
  ["a switch", change(lantern, "S1", (e) => ({ ...e, params: { state: "open" } })), "S1 has state open, not closed"],
])("%s", (_what, found, wanted) => expect(says(found)).toEqual([wanted]));

test("a part that the drawing does not know", () => {
  const extra = circuitOf("R99 a b 47k", "R0 a 0 1", "R1 b 0 1").elements[0]!;
  expect(says({ ...lantern, elements: [...lantern.elements, { ...extra, nodes: ["b1", "gl"] }] })[0]).toMatch(
    /^R99, 47 kΩ is not in the reference: from B1 to /,
  );
});

test("other names of nodes and parts are no differences; resistors may be written either way round", () => {
  const renamed: Circuit = {
    ...lantern,
    elements: lantern.elements.map((e) => ({
      ...e,
      name: e.name === "R13" ? "R113" : e.name,
      nodes: (e.letter === "R" ? [...e.nodes].reverse() : e.nodes).map((n) => (n === "0" ? n : `n_${n}`)),
    })),
    points: lantern.points.map((p) => ({ ...p, node: `n_${p.node}` })),
  };
  expect(compareCircuits(lantern, renamed)).toEqual([]);
});

test("each difference can be carried into the reference and solved", () => {
  const found = change(
    change(lantern, "R4", (e) => ({ ...e, value: 150 })),
    "R5",
    (e) => ({ ...e, nodes: ["b3", "s4"] }),
  );
  const [value, moved] = compareCircuits(lantern, found);
  const volts = (c: Circuit, node: string) => idealVolts(operatingPoint(c), node);
  expect(volts(carryOver(lantern, value!), "k45")).toBeLessThan(volts(lantern, "k45") - 2);
  expect(volts(carryOver(lantern, moved!), "s4")).toBeLessThan(volts(lantern, "s4") - 20);
});
