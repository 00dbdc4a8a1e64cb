import { demoAmp } from "../solver/circuits-for-tests";
import { solveExpected } from "./solve-expected";
import { modelled, settingsIn, solveConditions, solveKey, type Solved } from "./modelled";

const lantern = demoAmp("lantern-15");
const point = (name: string) => lantern.points.find((p) => p.name === name)!;
const answers = new Map<string, Solved>();
const source = modelled(lantern, (c) => {
  if (!answers.has(solveKey(c))) answers.set(solveKey(c), solveExpected(lantern, c));
  return answers.get(solveKey(c));
});
const expectation = (name: string, conditions: Parameters<typeof source.expect>[1]) => {
  const e = source.expect(point(name), conditions);
  if ("none" in e) throw new Error(e.none);
  return e;
};

test("a solved expectation, the chart beside it", () => {
  const b1 = expectation("B1", { mains: 230 });
  expect(b1).toMatchObject({ basis: "model", chart: { disagrees: false } });
  expect(b1.low).toBeLessThan(b1.volts);
  expect(b1.high).toBeGreaterThan(b1.volts);
});
test("the one misprint of the chart is named, the rest is not", () => {
  const disagreeing = lantern.points.filter((p) => expectation(p.name, { mains: 230 }).chart?.disagrees);
  expect(disagreeing.map((p) => p.name)).toEqual(["V3B.p"]);
});
test("tubes out and low mains are solved, where the chart has nothing to say", () => {
  const unloaded = expectation("B1", { mains: 230, without: ["V4", "V5"] });
  expect(unloaded.basis).toBe("model");
  expect(unloaded.chart).toBeUndefined();
  expect(expectation("B1", { mains: 230, without: ["V4", "V5"] }).volts).toBeGreaterThan(expectation("B1", { mains: 230 }).volts + 20);
  expect(expectation("V4.k", { mains: 100 }).volts).toBeLessThan(3);
});
test("a tremolo that runs is given as its mean and its swing", () => {
  const swinging = expectation("V3B.p", { mains: 230, switches: "S1 open" });
  expect(swinging.note).toMatch(/mean of a swing of 1\d\d V/);
  expect(swinging.volts).toBeGreaterThan(expectation("V3B.p", { mains: 230 }).volts);
});
test("a grid at zero allows what a meter shows of nothing; a cathode of millivolts does not", () => {
  const grid = expectation("V4.g", { mains: 230 });
  expect([grid.low, grid.high].map((v) => Number(v.toFixed(2)))).toEqual([-0.3, 0.3]);
});
test("behind a lamp nothing is expected; before the answer is there the chart stands in", () => {
  expect(source.expect(point("B1"), { mains: 230, limiter: "lamp" })).toHaveProperty("none");
  const waiting = modelled(lantern, () => undefined).expect(point("B1"), { mains: 230 });
  expect(waiting).toMatchObject({ basis: "chart", note: expect.stringContaining("being solved") });
});
test("an answer that failed says why and falls back to the chart", () => {
  const failed: Solved = { points: {}, converged: false, unsettled: ["b1"], undetermined: [], violent: false };
  expect(modelled(lantern, () => failed).expect(point("B1"), { mains: 230 })).toMatchObject({
    basis: "chart",
    note: expect.stringContaining("does not settle at node b1"),
  });
});
test("switches and controls are read by name; other words say nothing", () => {
  expect(settingsIn(lantern, "tremolo off, S1 open", "P1=0.7, volume at zero")).toEqual(["P1=0.7", "S1=open"]);
  expect(settingsIn(lantern, "P1 0,7")).toEqual(["P1=0.7"]);
  expect(settingsIn(lantern, "R7 open", "P9 0.3", "P1 loud")).toEqual([]);
  expect(solveKey(solveConditions(lantern, { mains: 230.04, without: ["V5", "V4"] }))).toBe(
    solveKey(solveConditions(lantern, { mains: 230, without: ["V4", "V5"] })),
  );
});
