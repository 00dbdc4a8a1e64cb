import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { bucketOf } from "./ohm-outcome";
import { isolate, type Answer } from "../diagnosis/isolate";
import { IsolationTable } from "./fuse-isolation-table";

const load = (name: string) => readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8")).circuit;

/** Answers as the cause most likely makes them, always taking the first test that is proposed. */
function procedure(table: IsolationTable, truth: string, most = 25) {
  const k = table.causes.findIndex((c) => c.id === truth);
  const answers: Answer[] = [];
  let state = isolate(table, answers);
  while (!state.found && state.next.length > 0 && answers.length < most) {
    const test = state.next[0]!;
    const outcome = test.outcomes.reduce((a, b) => (table.chance(test.id, k, b) > table.chance(test.id, k, a) ? b : a));
    answers.push({ test: test.id, outcome });
    state = isolate(table, answers);
  }
  return { state, answers };
}

describe("isolating what blew a fuse", () => {
  const lantern = new IsolationTable(load("lantern-15"), { wall: 230, lamp: 100 });

  test.each(["lantern-15", "halberd-120", "minor", "wren-5"])("%s: every cause is found by its own answers", (name) => {
    const table = name === "lantern-15" ? lantern : new IsolationTable(load(name), { wall: name === "minor" ? 117 : 230, lamp: 100 });
    const missed = table.causes.filter((c) => procedure(table, c.id).state.found?.id !== c.id).map((c) => c.id);
    expect(missed).toEqual([]);
    const steps = table.causes.map((c) => procedure(table, c.id).answers.length).sort((a, b) => a - b);
    // Testing the causes one by one would take half of them on average.
    expect(steps[Math.floor(steps.length / 2)]!).toBeLessThanOrEqual(Math.ceil(table.causes.length / 2));
  });

  test("the Lantern with a shorted winding half: bright with every tube out, and the halves unlike", () => {
    const { state, answers } = procedure(lantern, "winding:V6");
    expect(state.found!.says).toBe("high-tension winding: one half has shorted turns");
    expect(answers).toEqual(expect.arrayContaining([{ test: "halves:HT", outcome: "unlike" }]));
    // The log reads as a proof: each line names what it ruled out, and nothing is ruled out twice.
    const ruled = state.proof.flatMap((p) => p.ruledOut);
    expect(new Set(ruled).size).toBe(ruled.length);
    expect(state.proof.find((p) => p.outcome === "bright")!.ruledOut.length).toBeGreaterThan(0);
  });

  test("with nothing answered the cheap and safe reading comes first, before any power", () => {
    const { next } = isolate(lantern, []);
    expect(next[0]!.id).toBe("ohm:b1:0");
    expect(next[0]!.expectedOhms).toBeCloseTo(220e3, -4);
  });

  test("one wrong answer does not carry it off: the true cause is found still", () => {
    const right = procedure(lantern, "capacitor:C1").answers;
    const slip = right.map((a, i) => (i === 0 ? { ...a, outcome: a.outcome === "a short" ? "low" : a.outcome } : a));
    let state = isolate(lantern, slip);
    expect(slip).toContainEqual({ test: "ohm:b1:0", outcome: "low" });
    const k = lantern.causes.findIndex((c) => c.id === "capacitor:C1");
    const answers = [...slip];
    while ((!state.found || state.recheck.length > 0) && answers.length < 25) {
      // What the best cause does not explain is done again; else the next test.
      const t = state.next.length > 0 && !state.found ? state.next[0]! : state.recheck[0];
      if (!t) break;
      answers.push({ test: t.id, outcome: t.outcomes.reduce((a, b) => (lantern.chance(t.id, k, b) > lantern.chance(t.id, k, a) ? b : a)) });
      state = isolate(lantern, answers);
    }
    expect(state.found?.id).toBe("capacitor:C1");
  });

  test("answers that no cause explains together are called doubtful", () => {
    const state = isolate(lantern, [
      { test: "power:no-tubes", outcome: "bright" },
      { test: "power:rectifier", outcome: "dark" },
      { test: "power:small", outcome: "dark" },
      { test: "ohm:b1:0", outcome: "a short" },
      { test: "alone:capacitor:C1", outcome: "sound" },
      { test: "alone:mains-side", outcome: "sound" },
    ]);
    expect(state.doubtful).toBe(true);
  });

  test("with a fuse alone a power test costs more, so that resistances come first", () => {
    const table = new IsolationTable(load("wren-5"), { wall: 230, lamp: 0, fuse: 0.315 });
    const { next } = isolate(table, []);
    expect(next[0]!.id.startsWith("power")).toBe(false);
    expect(table.tests.find((t) => t.id === "power:no-tubes")!.outcomes).toEqual(["holds", "blows"]);
    expect(procedure(table, "tube:V2").state.found?.id).toBe("tube:V2");
  });

  test("ohms are told apart against a sound amp's", () => {
    expect([0.4, 30e3, 200e3, 1e9].map((r) => bucketOf(r, 220e3))).toEqual(["a short", "low", "as it should be", "open"]);
    expect(bucketOf(180, 190)).toBe("as it should be");
    expect(bucketOf(Infinity, Infinity)).toBe("as it should be");
  });
});
