import { readFileSync } from "node:fs";
import { alter, AlterError, without } from "./alter";
import { findElement } from "./circuit";
import { readCircuit } from "./read";
import { circuitOf } from "../solver/circuits-for-tests";

const circuit = circuitOf(
  "VB b 0 300",
  "R7 b p 100k",
  "XV1A p g k 12AX7",
  "XV1B b g2 k2 12AX7",
  "R2 k 0 1.5k",
  "R3 g 0 1MEG",
  "R4 g2 0 1MEG",
  "R5 k2 0 1k",
  "C3 p g2 22n",
  "XP1 0 w g POT value=1MEG pos=0.5",
  "R6 w 0 1MEG",
  "XS1 b x SW state=closed",
  "XS2 x y z SW2 state=1",
  "R8 y 0 1k",
  "R9 z 0 1k",
);
const names = (c: typeof circuit) => c.elements.map((e) => e.name);

test("resistors and capacitors: open, short, another value, a leak beside it", () => {
  expect(names(alter(circuit, ["R7=open"]))).not.toContain("R7");
  expect(findElement(alter(circuit, ["r7=150k"]), "R7")!.value).toBe(150e3);
  expect(findElement(alter(circuit, ["R7=short"]), "R7")!.value).toBeLessThan(1);
  expect(findElement(alter(circuit, ["C3=10n"]), "C3")!.value).toBe(10e-9);
  const leaky = alter(circuit, ["C3=leak:5M"]);
  expect(leaky.elements.find((e) => e.nodes.join() === "p,g2" && e.letter === "R")!.value).toBe(5e6);
  expect(names(leaky)).toContain("C3");
});
test("tubes: a half by its name, the envelope takes both; pins come off", () => {
  expect(findElement(alter(circuit, ["V1A=weak:0.4"]), "V1A")!.params.emission).toBe(0.4);
  expect(findElement(alter(circuit, ["V1A=weak:0.4"]), "V1B")!.params.emission).toBeUndefined();
  const dead = alter(circuit, ["V1=dead"]);
  expect([findElement(dead, "V1A")!.params.emission, findElement(dead, "XV1B")!.params.emission]).toEqual([0, 0]);
  expect(findElement(alter(circuit, ["V1A.k=open"]), "V1A")!.nodes[2]).toMatch(/open/);
  expect(alter(circuit, ["V1A=short:gk"]).elements.some((e) => e.letter === "R" && e.nodes.join() === "g,k")).toBe(true);
  expect(names(without(circuit, ["V1"]))).not.toEqual(expect.arrayContaining(["V1A"]));
  expect(names(without(circuit, ["v1a"]))).not.toEqual(expect.arrayContaining(["V1B"]));
});
test("controls, switches and board leaks", () => {
  expect(findElement(alter(circuit, ["P1=0.7"]), "P1")!.params.pos).toBe(0.7);
  expect(findElement(alter(circuit, ["P1=wiper-open"]), "P1")!.params.wiper).toBe("open");
  expect(findElement(alter(circuit, ["S1=open"]), "S1")!.params.state).toBe("open");
  expect(findElement(alter(circuit, ["S2=2"]), "S2")!.params.state).toBe(2);
  expect(alter(circuit, ["B~g=20M"]).elements.at(-1)).toMatchObject({ nodes: ["b", "g"], value: 20e6 });
});
test("the circuit itself stays as it was", () => {
  const before = JSON.stringify(circuit);
  alter(circuit, ["R7=open", "V1=dead", "P1=0", "b~g=1M"]);
  expect(JSON.stringify(circuit)).toBe(before);
});
test.each([
  ["R7", /NAME=CHANGE/],
  ["R7=", /open, short/],
  ["R7=-5", /above zero/],
  ["R99=open", /there is no R99/],
  ["C3=leak:", /leak:OHMS/],
  ["V1A=weak:2", /weak:0.4/],
  ["V1A=short:gx", /short:gk/],
  ["V1A.x=open", /p, s, g or k/],
  ["P1=1.5", /position from 0 to 1/],
  ["S1=half", /open or closed/],
  ["b~nowhere=1M", /there is no nowhere/],
])("%s is refused with what is accepted", (change, wanted) => {
  expect(() => alter(circuit, [change])).toThrow(AlterError);
  expect(() => alter(circuit, [change])).toThrow(wanted);
});
test("a tube that is not there", () => expect(() => without(circuit, ["V9"])).toThrow(/one of V1/));

test("an open heater puts out its own envelope, or the whole of a series string with the rectifier", () => {
  const lantern = readCircuit(readFileSync("demo/amps/lantern-15.cir", "utf8")).circuit;
  const cold = (c: typeof lantern) => c.elements.filter((e) => e.params.cold).map((e) => e.name);
  expect(cold(alter(lantern, ["V3=heater-open"]))).toEqual(["V3A", "V3B"]);
  expect(cold(alter(lantern, ["V6=heater-open"]))).toEqual(["V6"]);
  const minor = readCircuit(readFileSync("demo/amps/minor.cir", "utf8")).circuit;
  expect(cold(alter(minor, ["V1=heater-open"])).sort()).toEqual(["V1", "V2", "V3"]);
  expect(() => alter(lantern, ["V6=melted"])).toThrow(/winding-short or heater-open/);
});
