import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { demoAmp } from "../solver/circuits-for-tests";
import type { EventDraft } from "../tape/events/event";
import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import { workList } from "../repair/work-list";
import { warmingSeconds } from "../anatomy/warm-up";
import { fuseGone, isolationAnswers, isolationOpen } from "./fuse-isolation-state";
import { nextStage } from "./next-stage";
import { wallVolts } from "../circuit/mains-connection";
import { settlingRuns } from "./settle";
import { stageReadings, stageResult } from "./stage-state";
import { railLimits } from "./unloaded-stage";
import { judgeStageReading, stageVolts } from "./stage-reading";

const halberd = readCircuit(readFileSync("demo/amps/halberd-120.cir", "utf8")).circuit;
const state = (...lines: EventDraft[]) => foldJob(tape(...lines.map((l, i): [number, EventDraft] => [i, l])));
const stage = (stage: string, result: "passed" | "stopped" | "skipped" | "open again"): EventDraft => ({
  type: "stage",
  payload: { stage, result },
});
const step = (test: string, outcome: string): EventDraft => ({ type: "isolation-step", payload: { test, what: test, outcome } });
const blown: EventDraft = { type: "observation", payload: { name: "fuse blows", conditions: {} } };
const fitted = (position: string): EventDraft => ({
  type: "change",
  payload: { position, kind: "replacement", newPart: "new", reversible: true },
});

describe("where an isolation stands", () => {
  test("open from the blown fuse on, closed by the repair; a step taken back is gone", () => {
    expect(isolationOpen(state())).toBe(false);
    expect(isolationOpen(state(blown))).toBe(true);
    const answered = state(blown, step("power:no-tubes", "bright"));
    expect(isolationAnswers(answered).map((a) => a.outcome)).toEqual(["bright"]);
    expect(
      isolationAnswers(state(blown, step("power:no-tubes", "bright"), { type: "undo", supersedes: 2, reason: "slip", payload: {} })),
    ).toEqual([]);
    const mended = state(blown, step("power:no-tubes", "bright"), fitted("mains transformer"));
    expect([fuseGone(mended), isolationOpen(mended)]).toEqual([false, false]);
  });
});

describe("the stage that is next", () => {
  test("none before the first answer; then the first powered one that is neither passed nor skipped", () => {
    expect(nextStage(halberd, state())).toBeUndefined();
    expect(nextStage(halberd, state(stage("no-tubes", "passed")))).toMatchObject({ id: "bias" });
    expect(nextStage(halberd, state(stage("no-tubes", "passed"), stage("bias", "passed")))).toMatchObject({ id: "small" });
    expect(nextStage(halberd, state(stage("no-tubes", "passed"), stage("no-tubes", "open again")))).toMatchObject({ id: "no-tubes" });
    // After work it is brought up anew; the isolation transformer stands where it stood.
    expect(nextStage(halberd, state(stage("no-tubes", "passed"), stage("bias", "passed"), fitted("C20")))).toMatchObject({
      id: "no-tubes",
    });
    const minor = state(stage("isolation", "passed"), stage("output", "passed"), fitted("V2"));
    expect(stageResult(minor, { id: "isolation", powered: false })).toBe("passed");
    expect(stageResult(minor, { id: "output", powered: true })).toBeUndefined();
    // After a blown fuse the output tubes go in one at a time.
    const one = state(blown, ...["no-tubes", "bias", "small"].map((s) => stage(s, "passed")));
    expect(nextStage(halberd, one)).toMatchObject({ id: "output:V4", without: ["V5", "V6", "V7"] });
  });
});

describe("a reading of a stage", () => {
  const steps = [
    { mains: 115, amps: 0, low: 0, high: 0, volts: { B1: 150, "V4.g": 0 } },
    { mains: 230, amps: 0, low: 0, high: 0, volts: { B1: 320, "V4.g": 0 } },
  ];
  test("at any volts of the dial, straight between the steps and down to nothing", () => {
    expect(stageVolts("B1", steps, 172.5)).toBeCloseTo(235, 9);
    expect(stageVolts("B1", steps, 57.5)).toBeCloseTo(75, 9);
    expect(stageVolts("B1", steps, undefined)).toBe(320);
    expect(stageVolts("B2", steps, 115)).toBeUndefined();
  });
  test("in, watch, out; a grid that should have nothing", () => {
    expect(judgeStageReading("B1", 310, steps, 230)!.verdict).toBe("in");
    expect(judgeStageReading("B1", 262, steps, 230)).toMatchObject({ verdict: "watch", why: "320 V expected at 230 V" });
    expect(judgeStageReading("B1", 40, steps, 230)!.verdict).toBe("out");
    expect(judgeStageReading("V4.g", 0.1, steps, 230)!.verdict).toBe("in");
    expect(judgeStageReading("V4.g", 4, steps, 230)).toMatchObject({ verdict: "out", why: expect.stringContaining("leaky coupling") });
  });
});

test("seconds of warming up are whole and never negative", () => {
  const at = new Date(0).toISOString();
  expect(warmingSeconds({ state: "on", at }, 4_200)).toBe(21);
  expect(warmingSeconds({ state: "on", at }, 90_000)).toBe(0);
  expect(warmingSeconds({ state: "off", at }, 1000)).toBe(0);
  expect(warmingSeconds(undefined, 1000)).toBe(0);
});

test("the work list: dangers first, what waits for the owner told from what the brief allows", () => {
  const finding = (place: string, severity: "watch" | "danger", brief: "allowed" | "ask", action = "replace it"): EventDraft => ({
    type: "finding",
    payload: { station: "look", place, text: "bad", severity, brief, action },
  });
  const list = workList(
    state(
      finding("C6", "watch", "ask"),
      finding("cord", "danger", "allowed"),
      finding("C7", "watch", "ask"),
      { type: "approval", payload: { what: "C7: replace it", answer: "asked" } },
      finding("C8", "watch", "ask"),
      { type: "approval", payload: { what: "C8: replace it", answer: "no" } },
      finding("C9", "watch", "allowed"),
      { type: "finding-closed", payload: { finding: 7, how: "done" } },
    ),
  );
  expect(list.map((i) => [i.place, i.stands])).toEqual([
    ["cord", "allowed"],
    ["C6", "to be asked"],
    ["C7", "asked"],
    ["C8", "no"],
  ]);
});

describe("the readings of a stage", () => {
  const on = (without: string[] = []): EventDraft => ({ type: "power", payload: { state: "on", plug: "in", without } });
  const off: EventDraft = { type: "power", payload: { state: "off", plug: "out" } };
  const read = (point: string, value: number): EventDraft => ({ type: "reading", payload: { point, kind: "dcv", value, conditions: {} } });
  const of = (s: ReturnType<typeof state>, id = "small") =>
    [...stageReadings(s, { id, powered: true, without: [] }, demoAmp("wren-5"))].map(([k, r]) => [k, r.value]);
  test("those since the last power-on, off or not; an earlier power-on's are another stage's", () => {
    expect(of(state(on(), read("B1", 300), off, on(), read("B1", 320), read("B2", 310), off))).toEqual([
      ["dcv b1", 320],
      ["dcv b2", 310],
    ]);
    expect(of(state(read("B1", 300)))).toEqual([]);
  });
  test("none of a power-on that had other tubes in: the rails of a loaded amp say nothing of the unloaded one", () => {
    const noTubes = { id: "no-tubes", powered: true, without: ["V1", "V2", "V3"] };
    const of = (...lines: EventDraft[]) => [...stageReadings(state(...lines), noTubes, demoAmp("wren-5")).values()].map((r) => r.value);
    expect(of(on(), read("B1", 260))).toEqual([]);
    expect(of(on(["V1"]), read("B1", 300))).toEqual([]);
    expect(of(on(["V1", "v2", "V3"]), read("B1", 340))).toEqual([340]);
    expect(of(on(["V1", "V2", "V3"]), read("B1", 340), off, on(), read("B1", 260))).toEqual([]);
  });
  test("of a stage that was passed, those that led to it; after a change none", () => {
    const passed = [on(), read("B1", 320), stage("small", "passed"), off, on(), read("B1", 280)] as const;
    expect(of(state(...passed))).toEqual([["dcv b1", 320]]);
    expect(of(state(...passed), "output")).toEqual([["dcv b1", 280]]);
  });
  test("a run is of the last power-on, in minutes from it", () => {
    const events = tape([0, on()], [60, read("BIAS", -60)], [100, off], [120, on()], [180, read("bias", -58)], [720, read("BIAS", -57)]);
    expect(settlingRuns(foldJob(events), ["BIAS", "B1"]).map((r) => r.points)).toEqual([
      [
        { minutes: 1, volts: -58 },
        { minutes: 10, volts: -57 },
      ],
      [],
    ]);
  });
});

describe("rails that nothing loads", () => {
  test("only with a rectifier in and every output tube out; how far the dial may go", () => {
    expect(railLimits(halberd, ["V1", "V2", "V3", "V4", "V5", "V6", "V7"], 230).map((r) => [r.capacitor, r.turnTo])).toEqual([
      ["C4", 211],
      ["C5", 190],
    ]);
    // One output tube in draws from them: they are not unloaded any more.
    expect(railLimits(halberd, ["V5", "V6", "V7"], 230)).toEqual([]);
  });
  test("the wall of a line-connected set is its own", () => {
    const minor = readCircuit(readFileSync("demo/amps/minor.cir", "utf8")).circuit;
    expect([wallVolts(minor, 230), wallVolts(halberd, 230), wallVolts(undefined, 230)]).toEqual([117, 230, 230]);
  });
});
