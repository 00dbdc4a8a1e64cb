import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { reservoirsOf } from "../supply/reservoirs";
import { liveCheck } from "./live-check";

const circuitOf = (name: string) => readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8")).circuit;
const none = { removed: [] };

test("the leads are held against the highest volts that the amp can have", () => {
  const halberd = circuitOf("halberd-120");
  expect(liveCheck(halberd, reservoirsOf(halberd), none)).toContain("Probe leads are rated above 600 V");
  expect(liveCheck(undefined, [], none)).toContain("Probe leads are rated above the highest rail");
});

test("a line-connected chassis asks for the isolation transformer, others do not", () => {
  const asks = (name: string) => liveCheck(circuitOf(name), [], none).some((q) => q.startsWith("ISOLATION TRANSFORMER"));
  expect(asks("minor")).toBe(true);
  expect(asks("wren-5")).toBe(false);
});

test("what is off the amp is asked about until it is back", () => {
  const removed = [
    { what: "rear screws", seq: 1, at: "", who: "" },
    { what: "V1", seq: 2, at: "", who: "", back: 5 },
  ];
  expect(liveCheck(undefined, [], { removed }).at(-1)).toBe("Left off the amp on purpose: rear screws");
});
