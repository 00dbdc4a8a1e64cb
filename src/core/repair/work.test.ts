/** Tasks, their order and their time; what the owner's answers cover. */

import fc from "fast-check";
import "@/fixed-draws-for-tests";
import type { EventDraft } from "../tape/events/event";
import type { WorkPhase } from "../tape/events/words";
import { foldJob } from "../tape/fold";
import { at, tape } from "../tape/tape-for-tests";
import { coverageOf, refusedAsBeyond } from "./covered";
import { byDependency, orderProblems, planSteps } from "./order";
import { proposals } from "./proposals";
import { answerFor, questionsOf } from "./questions";
import { tasksOf } from "./tasks";
import { minutesWorked, runningTimer, spells } from "./time";
import { taskKind, usualMinutes } from "./usual-minutes";

const lines = (...drafts: EventDraft[]) => foldJob(tape(...drafts.map((d, i): [number, EventDraft] => [i * 60, d])));
const planned = (position: string, phase: WorkPhase = "power off", more: object = {}): EventDraft => ({
  type: "planned",
  payload: { position, what: "renew", phase, from: "technician", reversible: true, ...more },
});
const timer = (turn: "started" | "stopped", task?: number): EventDraft => ({
  type: "timer",
  payload: { turn, ...(task ? { planned: task } : {}) },
});

describe("order", () => {
  const task = (root: number, phase: WorkPhase = "power off", more: object = {}) => ({ root, name: `T${root}`, phase, ...more });
  const order = (...tasks: ReturnType<typeof task>[]) => byDependency(tasks).tasks.map((t) => t.root);

  test("dead before live, bias after tubes, the tests last; what a task needs before it", () => {
    expect(order(task(1, "final tests"), task(2, "adjustment"), task(3, "power on"), task(4))).toEqual([4, 3, 2, 1]);
    expect(order(task(1, "power off", { needs: [2] }), task(2), task(3))).toEqual([2, 1, 3]);
    // A part is chosen by a measurement with the power on: that comes first, whatever the rule says.
    expect(order(task(1, "power off", { needs: [2] }), task(2, "power on"))).toEqual([2, 1]);
  });
  test("what lies open first, then what lies behind one cover together", () => {
    const board = { reach: ["board up"] };
    expect(order(task(1, "power off", board), task(2), task(3, "power off", board))).toEqual([2, 1, 3]);
  });
  test("tasks that need each other are named and none is lost", () => {
    const { tasks, problem } = byDependency([task(1, "power off", { needs: [2] }), task(2, "power off", { needs: [1] }), task(3)]);
    expect(tasks.map((t) => t.root)).toEqual([3, 1, 2]);
    expect(problem).toMatch(/need each other in a circle: T1; T2/);
  });
  test("what is wrong with an order that was made by hand", () => {
    expect(
      orderProblems([
        task(1, "final tests"),
        task(2, "adjustment"),
        task(3, "power on"),
        task(4),
        task(5, "power off", { needs: [6] }),
        task(6),
      ]),
    ).toEqual([
      "T1 stands before T4: the tests have to be done again after it",
      "T2 stands before T4: after that it has to be set again",
      "T4 is done with the power off, after T3 which is done with it on: the amp has to be proven dead once more",
      "T5 stands before T6, which it needs done first",
    ]);
    expect(orderProblems([])).toEqual([]);
  });
  test("covers come off once, and are back before power", () => {
    const says = planSteps([
      task(1, "power off", { reach: ["chassis out"] }),
      task(2, "power off", { reach: ["chassis out", "board up"] }),
      task(3),
      task(4, "power on"),
    ]).map((s) => ("says" in s ? s.says : s.task.root));
    expect(says).toEqual([
      "Make safe: prove the amp dead",
      "Open up first: chassis out",
      1,
      "Open up first: board up",
      2,
      3,
      "Close up again: chassis out, board up",
      4,
    ]);
  });
  test("any tasks: none lost, none twice, needs kept, phases in order where nothing is needed", () => {
    const phases: WorkPhase[] = ["power off", "power on", "adjustment", "final tests"];
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ phase: fc.constantFrom(...phases), need: fc.nat({ max: 20 }), reach: fc.constantFrom(undefined, ["a"], ["b"]) }),
          { maxLength: 12 },
        ),
        fc.boolean(),
        (given, needing) => {
          // A need points to an earlier one: no circle.
          const tasks = given.map((g, i) =>
            task(i + 1, g.phase, { reach: g.reach, ...(needing && i > 0 && g.need > 10 ? { needs: [(g.need % i) + 1] } : {}) }),
          );
          const { tasks: out, problem } = byDependency(tasks);
          expect(problem).toBeUndefined();
          expect([...out.map((t) => t.root)].sort((a, b) => a - b)).toEqual(tasks.map((t) => t.root));
          if (!needing) expect(orderProblems(out)).toEqual([]);
          else expect(orderProblems(out).filter((p) => p.includes("needs done first"))).toEqual([]);
        },
      ),
    );
  });
});

describe("time", () => {
  test("a timer by task, one at a time; minutes by hand come on top", () => {
    const state = lines(planned("C6"), planned("C7"), timer("started", 1), timer("started", 2), timer("stopped"), {
      type: "time",
      payload: { minutes: 15, planned: 1 },
    });
    expect([...minutesWorked(state, at(0))]).toEqual([
      [1, 16],
      [2, 1],
    ]);
    expect(runningTimer(state, at(0))).toBeUndefined();
  });
  test("one that runs goes on while the page is closed, and is called forgotten after a night", () => {
    const state = lines(planned("C6"), timer("started", 1));
    expect(runningTimer(state, at(60 + 1800))).toMatchObject({ task: 1, minutes: 30 });
    expect(runningTimer(state, at(60 + 12 * 3600))!.problem).toMatch(/run for 12 hours/);
  });
  test("the task keeps its time when it is corrected", () => {
    const state = lines(planned("C6"), timer("started", 1), timer("stopped"), {
      ...planned("C6", "power off", { minutes: 40 }),
      supersedes: 1,
      reason: "longer",
    } as EventDraft);
    expect(tasksOf(state, at(0))).toMatchObject([{ root: 1, seq: 4, worked: 1, estimate: 40, said: true }]);
  });
  test("clocks that differ between benches: time does not run backwards, and it is said", () => {
    const events = tape([100, planned("C6")], [500, timer("started", 1)], [200, timer("stopped")]);
    events[2]!.who = "A.B.";
    const state = foldJob(events);
    expect(spells(state, at(600))).toMatchObject([
      { minutes: 0, problem: expect.stringMatching(/J\.M\., A\.B\.\): the clocks of two benches differ/) },
    ]);
    expect(minutesWorked(state, at(600)).get(1)).toBe(0);
  });
  test("what a task usually takes, and the shop's own figure once there are three", () => {
    const kind = (position: string, what: string) => taskKind({ position, what, phase: "power off", from: "technician" });
    expect([
      kind("C6", "renew"),
      kind("C1", "new can"),
      kind("V4", "new tube"),
      kind("volume pot", "clean it"),
      kind("mains cord", "renew"),
    ]).toEqual(["capacitor", "can capacitor", "tube", "cleaning", "mains cord"]);
    const c6 = { position: "C6", what: "renew", phase: "power off", from: "finding" } as const;
    expect([
      usualMinutes(c6),
      usualMinutes(c6, { capacitor: { minutes: 33, count: 2 } }),
      usualMinutes(c6, { capacitor: { minutes: 33, count: 3 } }),
    ]).toEqual([20, 20, 33]);
  });
});

describe("the owner's answers", () => {
  const brief: EventDraft = { type: "brief", payload: { order: ["originality", "cost"], mustNotChange: "the speaker" } };
  const ask = (what: string, more: object = {}): EventDraft => ({ type: "approval", payload: { what, answer: "asked", ...more } });
  const answer = (asks: number, how: "yes" | "no" | "part" | "revoked", more: object = {}): EventDraft => ({
    type: "approval",
    payload: { what: "x", answer: how, asks, ...more },
  });
  const change = (position: string, more: object = {}) => ({
    position,
    kind: "replacement" as const,
    newPart: "new",
    reversible: true,
    ...more,
  });
  const covered = (state: ReturnType<typeof lines>, position: string, more: object = {}) =>
    coverageOf(state, change(position, more)).covered;

  test("beyond the brief only with a yes, or a reason; a trial that can be put back asks nobody, keeping it does", () => {
    const state = lines(brief);
    expect(covered(state, "C6")).toBe(false);
    expect(refusedAsBeyond(state, change("C6"))).toMatch(
      /C6 goes beyond what the owner agreed to .* Ask the owner, or log it with a reason/,
    );
    expect(refusedAsBeyond(state, change("C6", { unagreed: "it smoked" }))).toBeUndefined();
    expect(covered(state, "C6", { kind: "experiment", outcome: "open" })).toBe(true);
    expect(covered(state, "C6", { kind: "experiment", outcome: "kept" })).toBe(false);
    expect(covered(state, "C6", { kind: "experiment", reversible: false })).toBe(false);
    expect(covered(state, "C6", { outcome: "reverted" })).toBe(true);
    expect(covered(state, "pilot lamp", { kind: "repair", newPart: "resoldered" })).toBe(true);
    expect(covered(lines(), "C6")).toBe(true);
    expect(covered(lines({ type: "brief", payload: { order: ["cost"] } }), "C6")).toBe(true);
  });
  test("danger to life is dealt with, except what the owner forbade by name", () => {
    const danger = (place: string): EventDraft => ({
      type: "finding",
      payload: { station: "look", place, text: "can kill", severity: "danger", brief: "allowed" },
    });
    expect(covered(lines(brief, danger("speaker")), "speaker")).toBe(false);
    const state = lines(brief, danger("C20"));
    expect([covered(state, "C20"), covered(state, "C2")]).toEqual([true, false]);
    // Once it is dealt with, what was done for it stays covered; a second time it is not.
    const closed = lines(
      brief,
      danger("C20"),
      { type: "note", payload: { text: "x" } },
      { type: "finding-closed", payload: { finding: 2, how: "done" } },
    );
    expect([coverageOf(closed, change("C20"), 3).covered, covered(closed, "C20")]).toEqual([true, false]);
  });
  test("a yes by position, a no, a part, a yes that is taken back; the last answer stands", () => {
    const asked = [brief, ask("C6: renew it")];
    expect(covered(lines(...asked), "C6")).toBe(false);
    expect(covered(lines(...asked, answer(2, "yes")), "C6")).toBe(true);
    expect(covered(lines(...asked, answer(2, "yes")), "C60")).toBe(false);
    expect(covered(lines(...asked, answer(2, "yes"), answer(2, "revoked")), "C6")).toBe(false);
    expect(covered(lines(...asked, answer(2, "no"), answer(2, "yes")), "C6")).toBe(true);
    // What the brief covers is still not done against a no.
    expect(covered(lines({ type: "brief", payload: { order: ["cost"] } }, ask("C6: renew it"), answer(2, "no")), "C6")).toBe(false);
  });
  test("in part: by tasks, and by lines of a quote", () => {
    const state = lines(brief, planned("C6"), planned("C7"), ask("both", { planned: [2, 3] }), answer(4, "part", { declined: [3] }));
    expect([covered(state, "C6", { planned: 2 }), covered(state, "C7", { planned: 3 })]).toEqual([true, false]);
    // What was declined is not done under another name.
    expect([covered(state, "c6"), covered(state, "c7")]).toEqual([true, false]);
    const sum = { net: 2, taxes: [], included: true, rounding: 0, total: 2 };
    const line = (task: number) => ({ text: "x", kind: "labour" as const, pieces: 1, price: 1, amount: 1, planned: task });
    const quote: EventDraft = {
      type: "quote",
      payload: {
        options: [
          { name: "a", lines: [line(2)], sum },
          { name: "b", lines: [line(2), line(3)], sum },
        ],
      },
    };
    const quoted = lines(brief, planned("C6"), planned("C7"), quote, answer(4, "part", { option: 1, declined: [0] }));
    expect(questionsOf(quoted)).toMatchObject([{ kind: "quote", stands: "part", agreed: [3], declined: [2], cost: 2 }]);
    expect(answerFor(questionsOf(quoted), 3)?.line).toBe(4);
  });
  test("an answer that came after the change does not cover it", () => {
    const state = lines(brief, ask("C6: renew it"), answer(2, "yes"));
    expect([coverageOf(state, change("C6"), 3).covered, coverageOf(state, change("C6"), 4).covered]).toEqual([false, true]);
  });
});

describe("tasks", () => {
  test("done by a change that stands; open again when that is put back", () => {
    const fit: EventDraft = {
      type: "change",
      payload: { position: "C6", kind: "replacement", newPart: "new", reversible: true, planned: 1 },
    };
    expect(tasksOf(lines(planned("C6"), fit), at(0))[0]).toMatchObject({ state: "done", doneBy: 2 });
    const back = { ...fit, supersedes: 2, reason: "no better", payload: { ...fit.payload, outcome: "reverted" } } as EventDraft;
    expect(tasksOf(lines(planned("C6"), fit, back), at(0))[0]).toMatchObject({ state: "open" });
  });
  test("in the order that was given; a task that came after it stands last", () => {
    const state = lines(planned("C6"), planned("C7"), { type: "plan-order", payload: { order: [2, 1] } }, planned("C8"));
    expect(tasksOf(state, at(0)).map((t) => t.position)).toEqual(["C7", "C6", "C8"]);
  });
  test("proposed from findings once, with the bias where tubes come and the tests at the end", () => {
    const find = (place: string, action: string): EventDraft => ({
      type: "finding",
      payload: { station: "look", place, text: "bad", action, severity: "fault", brief: "allowed" },
    });
    const what = (state: ReturnType<typeof lines>) => proposals(state, undefined).map((p) => [p.planned.position, p.planned.phase]);
    expect(what(lines(find("C6", "renew it"), find("output tubes", "fit a new pair")))).toEqual([
      ["C6", "power off"],
      ["output tubes", "power off"],
      ["output stage", "adjustment"],
      ["whole amp", "final tests"],
    ]);
    expect(what(lines(find("C6", "renew it"), planned("C6", "power off", { source: 1 }), planned("whole amp", "final tests")))).toEqual([]);
    expect(what(lines())).toEqual([]);
  });
});
