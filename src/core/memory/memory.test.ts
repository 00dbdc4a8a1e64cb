/** What the shop learns from its jobs: by hand-worked cases and through the tape of whole jobs. */

import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { viewJob } from "../job/job-view";
import { handOver } from "../job/hand-over";
import { DEFAULT_SETTINGS } from "../shop/settings";
import { historyFactor, historyOf } from "../suspects/history";
import type { EventDraft } from "../tape/events/event";
import { foldJob } from "../tape/fold";
import { at, tape } from "../tape/tape-for-tests";
import { alike, complaintKinds } from "./complaint";
import { digestOf, type JobDigest } from "./digest";
import { remembered } from "./digest-for-tests";
import { normalHere, shopMemory } from "./shop-memory";
import { similarCases } from "./similar";

const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
const { circuit } = readCircuit(WREN);
const viewOf = (...drafts: EventDraft[]) =>
  viewJob(tape(...drafts.map((d, i): [number, EventDraft] => [i * 60, d])), WREN, DEFAULT_SETTINGS, at(0));
const digest = (...drafts: EventDraft[]) => digestOf(viewOf(...drafts), circuit);
const complaint = (words: string, when: string[] = []): EventDraft => ({ type: "complaint", payload: { words, when } });
const reading = (point: string, value: number, more: object = {}): EventDraft => ({
  type: "reading",
  payload: { point, kind: "dcv", value, conditions: { mains: 230, ...more } },
});
const fitted = (position: string, more: object = {}): EventDraft => ({
  type: "change",
  payload: { position, kind: "replacement", newPart: "new", reversible: true, ...more },
});
const proved: EventDraft = { type: "reproduction", payload: { reproduced: "no", run: "prove" } };

test("complaints are held together by what they are about, not by their words", () => {
  expect(complaintKinds("It plays for ten minutes, then goes hoarse and quiet.")).toEqual(["distortion", "weak", "when hot"]);
  expect(complaintKinds("Hums with nobody near it")).toEqual(["hum"]);
  expect(complaintKinds("the fuse has gone twice", ["now and then"])).toEqual(["blows its fuse", "comes and goes"]);
  expect(complaintKinds("it is lovely")).toEqual([]);
  // Two of three in common.
  expect(alike(["hum", "weak"], ["weak", "hum", "hiss"])).toBeCloseTo(2 / 3, 9);
  expect(alike([], [])).toBe(0);
});

describe("what one job leaves", () => {
  test("its complaint, the points that were out, what cured it, what is normal once it works, how long it took", () => {
    const d = digest(
      complaint("hoarse when warm", ["when hot"]),
      reading("V2.g", 9),
      reading("B1", 275),
      { type: "planned", payload: { position: "C6", what: "renew", phase: "power off", from: "finding", reversible: true } },
      { type: "timer", payload: { turn: "started", planned: 4 } },
      { type: "timer", payload: { turn: "stopped" } },
      fitted("c6", { oldMeasured: "4 µA at 300 V", planned: 4, minutes: 11 }),
      reading("B1", 276),
      reading("V2.k", 8, { without: ["V1"] }),
      proved,
    );
    expect(d).toMatchObject({
      kinds: ["distortion", "when hot"],
      signs: { "V2.g": "high" },
      cured: true,
      proved: true,
      cures: [{ position: "C6", line: 7, series: "paper capacitor" }],
      normal: { B1: { volts: 276, mains: 230 } },
      minutes: { capacitor: [12] },
      worked: 12,
    });
    expect(d.had["paper capacitor"]).toBe(circuit.elements.filter((e) => e.letter === "C" && e.notes.kind === "paper").length);
  });
  test("what was put back or is on trial cured nothing; an amp that is not cured says nothing of what is normal", () => {
    const back = fitted("R9", { kind: "experiment", outcome: "reverted" });
    const d = digest(complaint("hums"), back, fitted("R8", { kind: "experiment", outcome: "open" }), reading("B1", 275));
    expect(d).toMatchObject({ cured: false, cures: [], replaced: [], normal: {} });
  });
  test("an amp that went home with its fault is not how they should be", () => {
    const home: EventDraft = { type: "returned", payload: { to: "x", oldPartsHanded: true } };
    const fault: EventDraft = {
      type: "finding",
      payload: { station: "look", place: "T1", text: "shorted", severity: "fault", brief: "ask" },
    };
    expect(digest(reading("B1", 275), home)).toMatchObject({ cured: true, normal: { B1: { volts: 275 } } });
    for (const wrong of [fault, { type: "reproduction", payload: { reproduced: "yes", run: "prove" } } as EventDraft])
      expect(digest(reading("B1", 275), wrong, home)).toMatchObject({ cured: false, normal: {} });
  });
  test("of three changes that were in, the one that putting back has shown", () => {
    const d = digest(
      complaint("hums"),
      fitted("C1"),
      fitted("C2"),
      fitted("C3"),
      { type: "cure-test", payload: { among: [2, 3, 4], out: [2], result: "still cured" } },
      { type: "cure-test", payload: { among: [2, 3, 4], out: [3], result: "fault is back" } },
      proved,
    );
    expect(d.cures.map((c) => c.position)).toEqual(["C2"]);
    expect(d.proved).toBe(true);
    const untested = digest(complaint("hums"), fitted("C1"), fitted("C2"), proved);
    expect([untested.cures.length, untested.proved]).toEqual([2, false]);
  });
});

const part = (position: string, series?: string) => ({ position, says: "leaked", line: 9, ...(series ? { series } : {}) });

describe("what the shop knows of a model", () => {
  const jobs = [
    remembered(1, {
      kinds: ["hum"],
      cured: true,
      cures: [part("C6")],
      replaced: [part("C6", "paper capacitor"), part("C6")],
      had: { "paper capacitor": 3 },
      normal: { B1: { volts: 230, mains: 230 } },
      minutes: { capacitor: [10, 30] },
    }),
    remembered(2, {
      kinds: ["hiss"],
      cured: true,
      cures: [part("C6")],
      replaced: [part("C6", "paper capacitor")],
      had: { "paper capacitor": 3 },
      normal: { B1: { volts: 253, mains: 230 } },
      minutes: { capacitor: [20] },
    }),
    remembered(3, { kinds: ["hum"], cured: false, replaced: [part("R9")], normal: {} }),
    remembered(
      4,
      { kinds: ["hum"], cured: true, cures: [part("R1")], replaced: [part("C9", "paper capacitor")], had: { "paper capacitor": 5 } },
      false,
    ),
  ];
  const memory = shopMemory(jobs, ["hum"]);

  test("a part counts once a job; what cured the like, by the model; makings over all amps", () => {
    expect(memory).toMatchObject({
      jobs: 3,
      replaced: { C6: 2, R9: 1 },
      like: { jobs: 1, cured: { C6: 1 }, cases: { C6: [{ job: 1, line: 9 }] } },
      series: { "paper capacitor": { had: 11, failed: 3 } },
      minutes: { capacitor: { minutes: 20, count: 3 } },
    });
    expect(memory.cases!.C6!.map((c) => c.job)).toEqual([1, 2]);
    expect(memory.like!.cured.R1).toBeUndefined();
  });
  test("what is normal scales with the mains", () => {
    // 1.0 and 1.1 volts a volt: at 220 V between 220 and 242, in the middle 231.
    expect(normalHere(memory, "B1", 220)).toMatchObject({ volts: 231, count: 2, jobs: [1, 2] });
    expect(normalHere(memory, "B9", 220)).toBeUndefined();
    expect(normalHere(memory, "B1", undefined)).toBeUndefined();
  });
  test("the second job of a model profits from the first: its cure leads among suspects that readings cannot part", () => {
    const factor = (history: ReturnType<typeof shopMemory>, ref: string) =>
      historyFactor({ refs: [ref] }, historyOf(foldJob([]), circuit, history));
    const first = shopMemory([remembered(1, { kinds: ["hum"], cured: true, cures: [part("C6")], replaced: [part("C6")] })], ["hum"]);
    // (1 + 2)/(0.05 + 2) against (0 + 2)/(0.05 + 2).
    expect(factor(first, "C6") / factor(first, "C2")).toBeCloseTo(1.5, 9);
    expect(factor(shopMemory([], ["hum"]), "C6")).toBe(1);
  });
});

describe("similar old cases", () => {
  const old = (job: number, more: Partial<JobDigest>, sameModel = false) => ({
    ...remembered(job, more, sameModel),
    amp: "Wren 5",
    owner: "x",
  });
  const here = { complaint: "hums and goes hoarse", kinds: ["hum", "distortion"], signs: { "V2.g": "high" as const } };
  test("the same pattern and the same complaint lead; what has nothing in common is not shown", () => {
    const found = similarCases(here, [
      old(1, { complaint: "the fuse goes", kinds: ["blows its fuse"] }),
      old(2, { complaint: "hums", kinds: ["hum"] }),
      old(3, {
        complaint: "hoarse, with a hum",
        kinds: ["hum", "distortion"],
        signs: { "V2.g": "high" },
        cured: true,
        cures: [part("C6")],
        proved: true,
      }),
      old(4, { complaint: "hums", kinds: ["hum"], signs: { "V2.g": "low" } }),
    ]);
    expect(found.map((f) => f.job)).toEqual([3, 4, 2]);
    expect(found[0]).toMatchObject({
      cures: ["C6: leaked"],
      proved: true,
      why: ["both: hum, distortion", "the same points out the same way: V2.g"],
    });
  });
  test("the same model breaks a tie; words alone can be enough where no kind is named", () => {
    const alikeTwo = [old(1, { kinds: ["hum", "distortion"] }), old(2, { kinds: ["hum", "distortion"] }, true)];
    expect(similarCases(here, alikeTwo).map((f) => f.job)).toEqual([2, 1]);
    const odd = similarCases({ complaint: "smells of gherkins", kinds: [], signs: {} }, [
      old(5, { complaint: "a whiff of gherkins" }),
      old(6, { complaint: "nothing of the kind" }),
    ]);
    expect(odd).toMatchObject([{ job: 5, why: ["same words: gherkins"] }]);
    expect(similarCases({ complaint: "", kinds: [], signs: {} }, [old(5, { complaint: "hums" })])).toEqual([]);
  });
});

test("the state of a job in a paragraph: what can hurt first, no fact twice, one stop a sentence", () => {
  const says = handOver(
    viewOf(
      { type: "job-opened", payload: { owner: "Osric Venn", amp: "Wren 5" } },
      complaint("Hums."),
      { type: "brief", payload: { order: ["cost"], dueDate: "2026-03-09" } },
      { type: "finding", payload: { station: "look", place: "V2 socket", text: "loose pin.", severity: "fault", brief: "allowed" } },
      fitted("C6", { reason: "leaked" }),
      fitted("R9", { kind: "experiment", outcome: "open" }),
      { type: "removed", payload: { what: "two screws" } },
      { type: "approval", payload: { what: "a new cord?", answer: "asked" } },
      {
        type: "planned",
        payload: { position: "V2", what: "new socket", phase: "power off", from: "finding", minutes: 60, reversible: true },
      },
    ),
    "live",
    DEFAULT_SETTINGS,
    at(0),
  );
  expect(says).toBe(
    "Wren 5 of Osric Venn. It is logged as LIVE. Complaint: “Hums”. Found: V2 socket, loose pin. Done: C6 new (leaked). On trial in it: R9 new. Off the amp: two screws. The owner has not answered: a new cord. Planned: V2: new socket (1 h). Promised for 2026-03-09. Next: Work: decide on the experiment at R9: keep it or put it back.",
  );
});
