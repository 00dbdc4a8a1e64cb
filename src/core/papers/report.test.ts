import { readFileSync } from "node:fs";
import type { EventDraft } from "../tape/events/event";
import { energyOf, viewJob } from "../job/job-view";
import { stationMarks } from "../job/station-marks";
import { composeReport } from "./report";
import { holdsLimit, limitText, safetyTestsFor, testValue } from "../safety/end-of-job-tests";
import { DEFAULT_SETTINGS } from "../shop/settings";
import { at, tape } from "../tape/tape-for-tests";
import { tellEvent } from "../tape/tell";

const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
const reading = (point: string, value: number, conditions = {}): EventDraft => ({
  type: "reading",
  payload: { point, kind: "dcv", value, conditions: { mains: 220, ...conditions } },
});
const change = (position: string, more: object = {}): EventDraft =>
  ({ type: "change", payload: { position, kind: "replacement", newPart: "new", reversible: true, ...more } }) as EventDraft;
const view = (...drafts: EventDraft[]) =>
  viewJob(tape(...drafts.map((d, i): [number, EventDraft] => [i, d])), WREN, DEFAULT_SETTINGS, at(1000));
const report = (...drafts: EventDraft[]) => composeReport(7, view(...drafts), DEFAULT_SETTINGS);
const marks = (...drafts: EventDraft[]) => {
  const v = view(...drafts);
  return stationMarks(v, energyOf(v, at(1000)), DEFAULT_SETTINGS);
};

describe("before and after", () => {
  test("the last reading before the first change, the last after the last, under like conditions", () => {
    const rows = report(
      reading("B1", 200),
      reading("B1", 210),
      change("C1"),
      reading("B1", 250),
      change("C6"),
      reading("B1", 333, { without: ["V2"] }),
      reading("B1", 270),
    ).beforeAfter;
    expect(rows).toEqual([
      {
        point: "B1",
        label: "Reservoir",
        before: { text: "210 V", verdict: "out" },
        after: { text: "270 V", verdict: "in" },
        expected: "230 V to 281 V",
      },
    ]);
  });
  test("with nothing changed there is no after", () => {
    expect(report(reading("B1", 275)).beforeAfter[0]).toMatchObject({ before: { text: "275 V", verdict: "in" }, after: undefined });
  });
  test("a corrected reading counts as corrected", () => {
    const corrected: EventDraft = { ...reading("B1", 275), supersedes: 1, reason: "range" } as EventDraft;
    expect(report(reading("B1", 27.5), corrected).beforeAfter[0]!.before.text).toBe("275 V");
  });
  test("the stairs show the chain as it was and as it is", () => {
    const { stairs } = report(reading("B1", 275), reading("B2", 100), change("R1"), reading("B2", 254));
    expect(stairs!.before.map((s) => s.measured)).toEqual([275, 100, undefined]);
    // B1 was not read after the change: the chart says no more than the table.
    expect(stairs!.after.map((s) => s.measured)).toEqual([undefined, 254, undefined]);
  });
});

test("without a circuit the readings stand by rail and tube, before the work and after it", () => {
  const lines = [
    { type: "tube-seen", payload: { tube: "V4", type: "EL84" } } as EventDraft,
    reading("V4.k", 13.5),
    reading("B1", 318),
    change("C6"),
    reading("V4.k", 10.6),
    reading("V4.p", 312),
  ];
  const bare = viewJob(tape(...lines.map((d, i): [number, EventDraft] => [i, d])), undefined, DEFAULT_SETTINGS, at(1000));
  expect(composeReport(7, bare, DEFAULT_SETTINGS).beforeAfter.map((b) => [b.point, b.label, b.before.text, b.after?.text ?? ""])).toEqual([
    ["B1", "", "318 V", ""],
    ["V4.p", "plate, EL84", "", "312 V"],
    ["V4.k", "cathode, EL84", "13.5 V", "10.6 V"],
  ]);
});

describe("what the report says of the work", () => {
  test("an experiment counts as a part only when it was kept", () => {
    const tried = (outcome: string) => change("C7", { kind: "experiment", outcome });
    expect(report(tried("reverted")).parts).toEqual([]);
    expect(report(tried("reverted")).experiments).toEqual([{ position: "C7", what: "new", outcome: "put back" }]);
    expect(report(tried("kept")).parts).toHaveLength(1);
  });
  test("old parts, declined work, open questions, the bill to the penny", () => {
    const r = report(
      change("C6", { oldPart: "22 nF paper", oldWent: "bag for the owner" }),
      change("R1", { oldWent: "scrapped" }),
      { type: "approval", payload: { what: "new cord", answer: "asked" } },
      { type: "approval", payload: { what: "new cord", answer: "no", asks: 3 } },
      { type: "approval", payload: { what: "new tubes", answer: "asked" } },
      ...[0.1, 0.2, 19.99].map((amount): EventDraft => ({ type: "bill-line", payload: { text: "x", amount, kind: "parts" } })),
    );
    expect(r).toMatchObject({ oldParts: ["C6: 22 nF paper"], declined: ["new cord"], unanswered: ["new tubes"] });
    expect(r.bills[0]!.sum.total).toBe(20.29);
  });
  test("a fault found at C12 stays on the first page though C1 was renewed; one at C1 is told with its part", () => {
    const found = (place: string): EventDraft => ({
      type: "finding",
      payload: { station: "look", place, text: "burst", severity: "fault", action: "", brief: "allowed" },
    });
    const { front } = report(found("C12"), found("near C1"), change("C1", { reason: "burst" }));
    expect(front.was.join(" ")).toContain("C12");
    expect(front.was.join(" ")).not.toContain("near C1");
  });
  test("a safety test that was not done is said not to be", () => {
    const r = report({ type: "safety-test", payload: { test: "leakage", value: 0.7e-3, limit: 0.5e-3, passed: false } });
    expect(r.safety.map((s) => s.verdict)).toEqual(["not done", "not done", "failed", "not done", "not done", "not done"]);
    expect(r.safety[2]).toMatchObject({ result: "0.7 mA", limit: "at most 0.5 mA" });
    expect(r.safetyNote).toMatch(/Local codes decide/);
  });
});

describe("safety limits", () => {
  const [bond, insulation] = safetyTestsFor(DEFAULT_SETTINGS) as [
    ReturnType<typeof safetyTestsFor>[0],
    ReturnType<typeof safetyTestsFor>[0],
  ];
  test("hold on the right side", () => {
    expect([0.05, 0.1, 0.11].map((v) => holdsLimit(bond, v))).toEqual([true, true, false]);
    expect([1e6, 2e6, 5e7].map((v) => holdsLimit(insulation, v))).toEqual([false, true, true]);
    expect(holdsLimit({}, 1)).toBe(true);
  });
  test("read as the trade says them", () => {
    expect(limitText(bond)).toBe("at most 0.1 Ω");
    expect(limitText(insulation)).toBe("at least 2.00 MΩ");
    expect(testValue(0.21e-3, "A")).toBe("0.21 mA");
  });
});

describe("the rail", () => {
  test("says what is open at each station", () => {
    expect(marks().intake).toMatchObject({ open: 3, says: "still open: complaint, brief, reproduce the complaint" });
    expect(marks({ type: "removed", payload: { what: "screws" } }).prove).toMatchObject({
      open: 7,
      warning: true,
      says: "0 of 6 safety tests passed, 1 not put back",
    });
    expect(marks({ type: "power", payload: { state: "on" } })["make-safe"]).toMatchObject({ warning: true, says: "the amp is live" });
    expect(marks(reading("B1", 10)).walk).toMatchObject({ open: 1, warning: true, says: "1 of 11 points read, 1 out" });
    expect(
      marks(
        { type: "finding", payload: { station: "look", place: "C6", text: "leaks", severity: "fault", brief: "allowed" } },
        { type: "finding-closed", payload: { finding: 1, how: "replaced" } },
      ).look,
    ).toMatchObject({ open: 0, done: true });
    expect(marks({ type: "returned", payload: { to: "the owner", oldPartsHanded: true } }).return).toMatchObject({ done: true });
  });
});

describe("the tape in words", () => {
  test.each<[EventDraft, string]>([
    [reading("B1", 318), "B1 318 V"],
    [{ type: "reading", payload: { point: "R7", kind: "ohm", value: 118e3, digits: 3, conditions: {} } }, "R7 118 kΩ"],
    [{ type: "reading", payload: { point: "R4", kind: "ma", value: 38, digits: 2, conditions: {} } }, "R4 38 mA"],
    [{ type: "power", payload: { state: "on", through: "lamp", without: ["V4", "V5"] } }, "POWER ON through lamp, without V4, V5"],
    [{ type: "power", payload: { state: "off", plug: "in" } }, "Switched off, plug still in"],
    [{ type: "discharge-reading", payload: { reservoir: "C1", volts: 0.4 } }, "C1 0.400 V, power off"],
    [{ type: "safety-test", payload: { test: "cord", passed: false } }, "Safety, cord: FAILED"],
    [{ type: "undo", supersedes: 4, reason: "wrong pin", payload: {} }, "Undone: line 4, wrong pin"],
  ])("%j", (draft, words) => expect(tellEvent(tape([0, draft])[0]!)).toBe(words));
});

describe("noise in the report", () => {
  const recording = (when: "before" | "after", totaldB: number, kind: "hum-double" | "clean"): EventDraft => ({
    type: "recording",
    payload: {
      hash: "a".repeat(64),
      name: "x.wav",
      when,
      seconds: 5,
      sounds: [{ kind, confidence: 0.9 }],
      f1dB: -60,
      f2dB: totaldB,
      hissdB: -80,
      totaldB,
      curve: [totaldB],
    },
  });
  const run = (lead: string, boost: string, bad: "none" | "bad"): EventDraft => ({
    type: "conditions-run",
    payload: {
      settings: [
        { name: "lead", setting: lead },
        { name: "boost", setting: boost },
      ],
      bad,
    },
  });

  test("nothing about noise on the tape, nothing about it in the report", () => {
    expect(report(reading("B1", 200)).noise).toBeUndefined();
  });

  test("before and after in the owner's words, what was asked, what it needed", () => {
    const { noise } = report(
      recording("before", -20, "hum-double"),
      { type: "noise-test", payload: { test: "sound", what: "What does it sound like?", outcome: "hum-double" } },
      {
        type: "conditions",
        payload: {
          conditions: [
            { name: "lead", settings: ["short", "long"] },
            { name: "boost", settings: ["off", "on"] },
          ],
        },
      },
      run("long", "on", "bad"),
      run("long", "off", "none"),
      run("short", "on", "none"),
      recording("after", -52, "clean"),
    );
    expect(noise!.says[0]).toBe("Before the work: hum at twice the mains frequency. After it: nothing unusual, 32 dB quieter altogether.");
    expect(noise!.says[1]).toBe("In 3 runs it needed lead long together with boost on.");
    expect(noise!.tests).toEqual([{ what: "What does it sound like?", outcome: "hum at twice the mains frequency" }]);
    expect([noise!.before!.curve, noise!.after!.curve]).toEqual([[-20], [-52]]);
  });

  test("no fault found is said as it is, with what was done", () => {
    const { noise } = report(
      { type: "soak-begun", payload: { fault: "cuts out", failures: 1, hours: 3, onsetMinutes: 0, confidence: 0.9 } },
      { type: "soak-ended", payload: { soak: 1, outcome: "no fault found", done: "every joint of the output stage resoldered" } },
    );
    expect(noise!.says[0]).toMatch(/^No fault was found in 0\.0 h\. It may come back\. Done: every joint/);
  });
});

test("a soak that runs is open at Noise; one that ended cured is done", () => {
  const begun: EventDraft = { type: "soak-begun", payload: { fault: "cuts out", failures: 1, hours: 3, onsetMinutes: 0, confidence: 0.9 } };
  expect(marks(begun).noise).toMatchObject({ open: 1, done: false, says: "a soak test is running, nothing open" });
  expect(marks(begun, { type: "soak-ended", payload: { soak: 1, outcome: "cured" } }).noise).toMatchObject({ open: 0, done: true });
  expect(marks(begun, { type: "soak-ended", payload: { soak: 1, outcome: "broken off" } }).noise).toMatchObject({ open: 0, done: false });
});

test("the tape tells noise in words", () => {
  const told = (draft: EventDraft) => tellEvent(tape([0, draft])[0]!);
  expect(
    told({ type: "provoked", payload: { place: "V2 socket", by: "tap", tool: "a pencil", response: "strong", ohmsFrom: 0.1, ohmsTo: 40 } }),
  ).toBe("Tapped V2 socket with a pencil: strong, 100 mΩ to 40.0 Ω");
  expect(told({ type: "occurrence", payload: { what: "cuts out", warmMinutes: 41.6 } })).toBe("FAULT SHOWED: cuts out, after 42 min");
  expect(told({ type: "conditions-run", payload: { settings: [{ name: "lead", setting: "long" }], bad: "some" } })).toBe(
    "Run: lead long: some",
  );
});
