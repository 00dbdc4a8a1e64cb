/** Netlists of a general SPICE, as other programs write them. */

import { solveOnce } from "../expectation/solve-once";
import { foreignKinds, rewriteForeign, wrongMeaning, type ForeignMeaning } from "./foreign";
import { readCircuit } from "./read";

const STAGE = `Two stages
* a netlist as a drawing program writes it
V1 hv 0 300
Vin in 0 SIN(0 0.1 1k) AC 1
XU1 N001 in N002 12AX7_model
R1 hv N001 100k
R2 N002 0
+ 1.5k
C1 N001 N003 22n
R3 N003 0 470k
XU2 hv2 hv2 N003 N004 0 EL84PENT
RL hv hv2 250
R4 N004 0 150
R9 in 0 1Meg
.subckt 12AX7_model A G K params: MU=100
E1 7 0 VALUE={V(A,K)/200}
G1 A K VALUE={PWR(V(7),1.5)/1060}
.ends
.lib tubes.lib
.tran 10m
.end
`;

const meaningsOf = (text: string): Record<string, ForeignMeaning> =>
  Object.fromEntries(foreignKinds(text).map((k) => [k.name.toUpperCase(), k.guess!]));

it("asks once for each kind, with its tube and its pins guessed", () => {
  expect(foreignKinds(STAGE)).toEqual([
    { name: "12AX7_model", calls: ["U1"], nodes: ["A", "G", "K"], guess: { type: "12AX7", pins: ["plate", "grid", "cathode"] } },
    {
      name: "EL84PENT",
      calls: ["U2"],
      nodes: ["1", "2", "3", "4", "5"],
      guess: { type: "EL84", pins: ["plate", "screen", "grid", "cathode", "unused"] },
    },
  ]);
});

it("rewrites the calls, leaves the run of the simulation out, and what comes of it solves", () => {
  const { text, left } = rewriteForeign(STAGE, meaningsOf(STAGE));
  expect(text).toContain("XV1 N001 in N002 12AX7");
  expect(text).toContain("XV2 hv2 hv2 N003 N004 EL84");
  expect(text).toContain("R2 N002 0\n+ 1.5k");
  expect(text).not.toContain("PWR");
  expect(left).toEqual(["Vin in 0 SIN(0 0.1 1k) AC 1", ".lib tubes.lib", ".tran 10m"]);
  const { circuit, errors } = readCircuit(text);
  expect(errors).toEqual([]);
  const solved = solveOnce(circuit, { without: [], set: [] });
  // 12AX7 at 300 V through 100 kΩ over 1.5 kΩ: about 1.1 mA by its published curves (resistance-coupled chart).
  expect(solved.tubes.V1!.plateMilliamps).toBeGreaterThan(0.9);
  expect(solved.tubes.V1!.plateMilliamps).toBeLessThan(1.4);
});

it("another pin order is another wiring", () => {
  const order: ForeignMeaning = { type: "12AX7", pins: ["cathode", "grid", "plate"] };
  expect(rewriteForeign(STAGE, { ...meaningsOf(STAGE), "12AX7_MODEL": order }).text).toContain("XV1 N002 in N001 12AX7");
});

it("a meaning that was given for a name is taken for the next file", () => {
  const known = { "12AX7_MODEL": { type: "12AT7", pins: ["plate", "grid", "cathode"] } satisfies ForeignMeaning };
  expect(foreignKinds(STAGE, known)[0]!.guess).toEqual(known["12AX7_MODEL"]);
});

it("says what is wrong with a meaning", () => {
  expect(wrongMeaning({ type: "12AX7", pins: ["plate", "grid", "cathode"] })).toBeUndefined();
  expect(wrongMeaning({ type: "12AX7", pins: ["plate", "grid", "grid"] })).toBe("12AX7 needs one grid");
  expect(wrongMeaning({ type: "12AX7", pins: ["plate", "screen", "grid", "cathode"] })).toBe("12AX7 has no screen");
  expect(wrongMeaning({ type: "XYZ", pins: ["plate", "grid", "cathode"] })).toContain("no tube of the library");
});

it("asks nothing of a file in its own terms, nor of subcircuits of plain parts", () => {
  const own = "T\nXV1 p g k 12AX7\nR1 b p 100k\nXTS a b c STACK\n.subckt STACK x y z\nR1 x y 100k\nC1 y z 22n\n.ends\n.end";
  expect(foreignKinds(own)).toEqual([]);
});
