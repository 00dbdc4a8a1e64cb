import { demoAmp } from "../solver/circuits-for-tests";
import type { EventDraft } from "../tape/events/event";
import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import { evidenceOf } from "./job-evidence";

const wren = demoAmp("wren-5");
const level = (point: string, value: number, more: object = {}): EventDraft => ({
  type: "reading",
  payload: { point, kind: "acv", value, conditions: { mains: 230, toneVolts: 0.01, toneHertz: 1000, ...more } },
});

test("a level with its tone is evidence; behind a control it is one only where the control was noted", () => {
  const state = foldJob(tape([0, level("V1A.p", 0.31)], [5, level("V1B.p", 2.6)], [9, level("V1B.p", 2.6, { controls: "P1=0.5" })]));
  const { evidence, leftOut } = evidenceOf(state, wren);
  expect(evidence.map((e) => [e.point, e.drive?.level, e.conditions.set])).toEqual([
    ["V1A.p", 0.01, []],
    ["V1B.p", 0.01, ["P1=0.5"]],
  ]);
  expect(leftOut).toEqual([{ point: "V1B.p", why: "the level hangs on P1, whose position was not noted" }]);
});

test("alternating volts without a tone are ripple on a rail, and nothing elsewhere", () => {
  const bare = { toneVolts: undefined, toneHertz: undefined };
  const { evidence, leftOut } = evidenceOf(foldJob(tape([0, level("B1", 1.2, bare)], [3, level("V1A.p", 0.3, bare)])), wren);
  expect(evidence.map((e) => e.point)).toEqual(["B1"]);
  expect(leftOut).toHaveLength(1);
});
