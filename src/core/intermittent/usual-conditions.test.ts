import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { usualConditions } from "./usual-conditions";

const amp = (name: string) => readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8")).circuit;
const accessories = (...all: [name: string, state: "here" | "left at home"][]) => ({
  accessories: all.map(([name, state]) => ({ name, state })) as never,
});
const EVERY = ["cabinet", "warm", "mains"];
const names = (...of: Parameters<typeof usualConditions>) => usualConditions(...of).map((c) => c.name);

it("of an amp without leads, footswitch or circuit: what every amp has", () => {
  expect(names(accessories(), undefined)).toEqual(EVERY);
});

it("a footswitch that came with two leads is the lead's length; one alone is in or out; one at home is neither", () => {
  expect(usualConditions(accessories(["reverb footswitch, short and long lead", "here"]), undefined)[0]).toEqual({
    name: "footswitch lead",
    settings: ["short", "long"],
  });
  expect(usualConditions(accessories(["foot-switch", "here"]), undefined)[0]).toEqual({
    name: "footswitch",
    settings: ["out", "plugged in"],
  });
  expect(names(accessories(["footswitch", "left at home"], ["speaker lead", "here"]), undefined)).toEqual(EVERY);
});

it("the switches of its circuit, each once, those of the supply left out", () => {
  // By hand from the file: S1 is the tremolo's footswitch, S2A and S2B one lever for pentode and triode.
  expect(names(accessories(), amp("lantern-15"))).toEqual(["S1", "S2", ...EVERY]);
  const standby = readCircuit(
    ["standby", "XV3 b1 0 RECT_FULL vac=300 rs=60 tube=GZ34", "XS1 b1 b2 SW state=closed", "C1 b2 0 16u", "R1 b2 0 100k"].join("\n"),
  ).circuit;
  expect(names(accessories(), standby)).toEqual(EVERY);
});
