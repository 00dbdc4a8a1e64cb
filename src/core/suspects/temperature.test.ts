import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import { findTubeType } from "../tubes/library";
import { evidenceOf } from "./job-evidence";
import { rank } from "./rank";
import { FaultTable } from "./table";
import { bulbCelsius, celsiusOf } from "./temperature";

const lantern = readCircuit(readFileSync("demo/amps/lantern-15.cir", "utf8")).circuit;

describe("temperatures as evidence", () => {
  test("a power tube at full dissipation is near its published bulb limit, one with an open heater is cold", () => {
    const el34 = findTubeType("EL34")!;
    expect(bulbCelsius(el34, 33, 1)).toBeCloseTo(220, 0);
    expect(bulbCelsius(el34, 0, 0)).toBe(25);
    expect(bulbCelsius(el34, 0, 1)).toBeGreaterThan(60);
    expect(celsiusOf({ touch: "cold" })).toBe(27);
    expect(celsiusOf({})).toBeUndefined();
  });
  test("a cold output tube, its fellow hot with the current of both, names the cold one", () => {
    const state = foldJob(
      tape(
        [0, { type: "mains", payload: { volts: 230 } }],
        [1, { type: "temperature", payload: { place: "V4", celsius: 240, warmMinutes: 15 } }],
        [2, { type: "temperature", payload: { place: "V5", touch: "cold", warmMinutes: 15 } }],
        [3, { type: "temperature", payload: { place: "C1", celsius: 60, warmMinutes: 15 } }],
        [4, { type: "temperature", payload: { place: "V1", celsius: 30, warmMinutes: 1 } }],
      ),
    );
    const { evidence, leftOut } = evidenceOf(state, lantern);
    expect(evidence.map((e) => [e.point, e.kind, e.value])).toEqual([
      ["V4", "temp", 240],
      ["V5", "temp", 27],
    ]);
    expect(leftOut.map((l) => l.point)).toEqual(["C1", "V1"]);
    const { suspects } = rank(new FaultTable(lantern), evidence);
    expect(suspects[0]!.refs).toContain("V5");
  });
});
