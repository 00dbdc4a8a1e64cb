import { explanations, holds, judgeRuns, tellExplanation, type Condition, type Explanation, type Run } from "./conditions";

const named = (n: number): Condition[] => Array.from({ length: n }, (_, i) => ({ name: `c${i}`, settings: ["off", "on"] }));

/** Runs until one explanation is left, as a true one answers. */
function hunt(conditions: Condition[], truth: Explanation): { runs: Run[]; left: Explanation[] } {
  const runs: Run[] = [];
  for (;;) {
    const { left, next } = judgeRuns(conditions, runs);
    if (!next || runs.length > 20) return { runs, left };
    runs.push({ settings: next.settings, bad: holds(truth, next.settings) ? "bad" : "none" });
  }
}

/** Worst case of the best plan there is, by trying every plan: an independent look, without the planner's shortcuts. */
function fewest(conditions: Condition[]): number {
  const all = explanations(conditions);
  const settings = Array.from({ length: 2 ** conditions.length }, (_, k) =>
    Object.fromEntries(conditions.map((c, i) => [c.name, c.settings[(k >> i) & 1]!])),
  );
  const enough = (set: Explanation[], runs: number): boolean => {
    if (set.length <= 1) return true;
    if (runs === 0 || set.length > 2 ** runs) return false;
    return settings.some((s) => {
      const [yes, no] = [set.filter((e) => holds(e, s)), set.filter((e) => !holds(e, s))];
      return yes.length > 0 && no.length > 0 && enough(yes, runs - 1) && enough(no, runs - 1);
    });
  };
  let runs = 0;
  while (!enough(all, runs)) runs++;
  return runs;
}

test.each([1, 2, 3])("with %i conditions every explanation is found, in no more runs than the best plan needs", (n) => {
  const conditions = named(n);
  const best = fewest(conditions);
  for (const truth of explanations(conditions)) {
    const { runs, left } = hunt(conditions, truth);
    expect(left).toEqual([truth]);
    expect(runs.length).toBeLessThanOrEqual(best);
  }
});

test("with six conditions a pair is found in at most three runs more than any plan could hope for", () => {
  const conditions = named(6);
  const all = explanations(conditions);
  const hope = Math.ceil(Math.log2(all.length));
  const lengths = all.map((truth) => {
    const { runs, left } = hunt(conditions, truth);
    expect(left).toEqual([truth]);
    return runs.length;
  });
  expect(Math.max(...lengths)).toBeLessThanOrEqual(hope + 3);
  expect(lengths.reduce((a, b) => a + b, 0) / lengths.length).toBeLessThanOrEqual(hope + 1);
});

test("three settings of a condition", () => {
  const conditions: Condition[] = [
    { name: "lead", settings: ["none", "short", "long"] },
    { name: "boost", settings: ["off", "on"] },
  ];
  const { left } = hunt(conditions, [
    { name: "lead", setting: "long" },
    { name: "boost", setting: "on" },
  ]);
  expect(left.map(tellExplanation)).toEqual(["lead long together with boost on"]);
});

test("what is ruled out says by which run; contradictions are named", () => {
  const conditions = named(2);
  const run = (c0: string, c1: string, bad: Run["bad"]): Run => ({ settings: { c0, c1 }, bad });
  const answer = judgeRuns(conditions, [run("on", "on", "bad"), run("on", "off", "none")]);
  expect(
    answer.ruledOut.find((r) => r.explanation.length === 1 && r.explanation[0]!.name === "c0" && r.explanation[0]!.setting === "on")!.by,
  ).toBe(1);
  expect(answer.left.map(tellExplanation)).toEqual(["c1 on", "c0 on together with c1 on"]);
  const twice = judgeRuns(conditions, [run("on", "on", "bad"), run("on", "on", "none")]);
  expect(twice.contradictions[0]!.says).toContain("runs 1 and 2 had the same settings");
  const odd = judgeRuns(conditions, [run("on", "on", "bad"), run("off", "off", "bad"), run("on", "off", "none"), run("off", "on", "none")]);
  expect(odd.left).toEqual([]);
  expect(odd.contradictions[0]!.says).toContain("no single condition and no pair");
  expect(judgeRuns(named(1), []).next).toBeDefined();
});
