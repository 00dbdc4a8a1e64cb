import { readFileSync } from "node:fs";
import { foldJob } from "../job/fold";
import { tape } from "../job/tape-for-tests";
import type { EventDraft } from "../job/events/event";
import { experimentsIn, netlistInUse } from "./in-use";
import { readCircuit } from "./read";

const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
const trial = (outcome: "open" | "kept" | "reverted", set: string[]): EventDraft => ({
  type: "change",
  payload: { position: "R8", kind: "experiment", newPart: "trial", reversible: true, outcome, set },
});
const ohms = (netlist: string, name: string) => readCircuit(netlist).circuit.elements.find((e) => e.name === name)!.value;

test("experiments that are open or kept are in the circuit in use; one that was put back is not", () => {
  const state = foldJob(tape([0, trial("open", ["R8=220k"])], [1, trial("kept", ["R9=2.2k"])], [2, trial("reverted", ["R7=1k"])]));
  const changes = experimentsIn(state);
  expect(changes).toEqual(["R8=220k", "R9=2.2k"]);
  const { netlist } = netlistInUse(WREN, changes);
  expect(ohms(netlist, "R8")).toBe(220e3);
  expect(ohms(netlist, "R9")).toBe(2200);
  expect(ohms(netlist, "R7")).toBe(ohms(WREN, "R7"));
  // Points and notes are those of the model.
  expect(readCircuit(netlist).circuit.points).toHaveLength(readCircuit(WREN).circuit.points.length);
});

test("without experiments the model's own text stands; a change that cannot be made leaves it alone and says so", () => {
  expect(netlistInUse(WREN, [])).toEqual({ netlist: WREN });
  const { netlist, refused } = netlistInUse(WREN, ["R99=1k"]);
  expect(netlist).toBe(WREN);
  expect(refused).toContain("there is no R99");
});
