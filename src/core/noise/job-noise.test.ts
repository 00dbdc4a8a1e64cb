import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import type { Conditions } from "../tape/events/measuring-events";
import type { EventDraft } from "../tape/events/event";
import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import { conditionRuns } from "../intermittent/condition-runs";
import { noiseOf } from "./job-noise";

const { circuit } = readCircuit(readFileSync("demo/amps/wren-5.cir", "utf8"));
const state = (...drafts: EventDraft[]) => foldJob(tape(...drafts.map((d, i): [number, EventDraft] => [i, d])));
const ac = (point: string, value: number, conditions: Conditions = { mains: 229 }): EventDraft => ({
  type: "reading",
  payload: { point, kind: "acv", value, conditions },
});
const answer: EventDraft = { type: "noise-test", payload: { test: "sound", what: "What?", outcome: "buzz" } };
const run: EventDraft = { type: "conditions-run", payload: { settings: [{ name: "lead", setting: "long" }], bad: "some" } };
const fitted: EventDraft = { type: "change", payload: { position: "C2", kind: "replacement", newPart: "new", reversible: true } };

test("AC volts on a rail by its point or its node; a grid's, one behind a lamp and one with a tube out are no ripple of the amp", () => {
  const { rails } = noiseOf(
    state(ac("b1", 2.9), ac("B2", 0.06), ac("V2.g", 3), ac("B3", 1, { limiter: "lamp" }), ac("B3", 1, { without: ["V2"] })),
    circuit,
  );
  expect(rails).toEqual([
    { node: "b1", volts: 2.9, mains: 229 },
    { node: "b2", volts: 0.06, mains: 229 },
  ]);
});

test("what was answered and tried before the last change was another amp", () => {
  const before = state(answer, run, ac("B1", 9));
  expect(noiseOf(before, circuit).answers).toEqual([{ test: "sound", outcome: "buzz" }]);
  expect(conditionRuns(before)).toEqual([{ seq: 2, settings: { lead: "long" }, bad: "some" }]);
  const after = state(answer, run, ac("B1", 9), fitted);
  expect(noiseOf(after, circuit)).toEqual({ answers: [], rails: [] });
  expect(conditionRuns(after)).toEqual([]);
});
