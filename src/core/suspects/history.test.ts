import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import { historyCases, historyFactor, historyOf, historyWords, type PartHistory } from "./history";
import { rank } from "./rank";
import { FaultTable } from "./table";

const { circuit } = readCircuit(readFileSync("demo/amps/wren-5.cir", "utf8"));
const none: PartHistory = { renewed: [], looked: {}, named: {}, series: {} };
const c6 = { refs: ["C6"] };

test("what the shop replaced counts by how many amps it has seen", () => {
  const shop = (jobs: number, C6: number): PartHistory => ({ ...none, shop: { jobs, replaced: { C6 } } });
  // By hand: (3 + 2)/(0.05·4 + 2), (0 + 2)/(0.05·10 + 2).
  expect(historyFactor(c6, shop(4, 3))).toBeCloseTo(5 / 2.2, 9);
  expect(historyFactor(c6, shop(10, 0))).toBeCloseTo(2 / 2.5, 9);
  expect(historyFactor(c6, shop(0, 0))).toBe(1);
  expect(historyFactor({ refs: ["R1"] }, shop(4, 3))).toBeCloseTo(2 / 2.2, 9);
  expect(historyFactor(c6, undefined)).toBe(1);
});

test("what cured complaints like this one counts by how many there were; a making that fails, by how many there were of it", () => {
  const cases = (n: number) => Array.from({ length: n }, (_, i) => ({ job: 1001 + i, line: 9, says: "leaked" }));
  const like = { jobs: 4, cured: { C6: 3 }, cases: { C6: cases(3) } };
  // Replaced in 3 of 20 amps: 5/3. But of 4 with this complaint it cured 3: 5/2.2 is more.
  const shop = { jobs: 20, replaced: { C6: 3 }, like };
  expect(historyFactor(c6, { ...none, shop })).toBeCloseTo(5 / 2.2, 9);
  expect(historyWords(["C6"], { ...none, shop })).toContain("C6 cured a like complaint in 3 of 4 amps of this model here");
  // Nine of thirty paper capacitors: (9 + 2)/(0.05·30 + 2); of twelve all twelve would be more than four times.
  const making = (had: number, failed: number): PartHistory => ({
    ...none,
    shop: { jobs: 0, replaced: {}, series: { "paper capacitor": { had, failed, cases: cases(1) } } },
    series: { C6: "paper capacitor" },
  });
  expect(historyFactor(c6, making(30, 9))).toBeCloseTo(11 / 3.5, 9);
  expect(historyFactor(c6, making(12, 12))).toBe(4);
  expect(historyFactor({ refs: ["R1"] }, making(30, 9))).toBe(1);
  expect(historyCases(["C6"], { ...none, shop, series: {} }).map((c) => c.job)).toEqual([1001, 1002, 1003]);
  expect(historyWords(["C6"], making(30, 9))).toBe("paper capacitor: 9 of 30 seen here had failed");
});

test("a new part is seldom the worn one; both halves of a replaced tube are new", () => {
  expect(historyFactor(c6, { ...none, renewed: ["C6"] })).toBe(0.25);
  expect(historyFactor({ refs: ["V1A"] }, { ...none, renewed: ["V1"] })).toBe(0.25);
  expect(historyFactor({ refs: ["R1"] }, { ...none, renewed: ["C6"] })).toBe(1);
});

test("history of a job: changes that stand, findings that are open, parts of this circuit only", () => {
  const change = (position: string, kind: "replacement" | "experiment", outcome?: "kept" | "reverted") =>
    ({ type: "change", payload: { position, kind, newPart: "new", reversible: true, ...(outcome ? { outcome } : {}) } }) as const;
  const finding = (place: string, severity: "watch" | "fault" | "note") =>
    ({ type: "finding", payload: { station: "look", place, text: "seen", severity, brief: "allowed" } }) as never;
  const state = foldJob(
    tape(
      [1, change("r8", "replacement")],
      [2, change("C7", "experiment", "reverted")],
      [3, change("C8", "experiment", "kept")],
      [4, change("mains cord", "replacement")],
      [5, finding("C6, by the board's edge", "fault")],
      [6, finding("V1 and V2", "watch")],
      [7, finding("C5", "fault")],
      [8, { type: "finding-closed", payload: { finding: 7, how: "wiped" } }],
    ),
  );
  expect(historyOf(state, circuit)).toEqual({ renewed: ["R8", "C8"], named: {}, series: {}, looked: { C6: 2, V1: 1, V2: 1 } });
});

test("in words", () => {
  const history: PartHistory = {
    shop: { jobs: 6, replaced: { C6: 2 } },
    renewed: ["V1"],
    looked: { C6: 2 },
    named: { R9: { times: 3, does: "drifts high" } },
    series: {},
  };
  expect(historyWords(["C6"], history)).toBe("C6 was noted at Look; C6 replaced here in 2 of 6 others of this model");
  expect(historyWords(["V1A"], history)).toBe("V1A was replaced in this job");
  expect(historyWords(["R1"], history)).toBe("");
  expect(historyWords(["R9"], history)).toBe("R9 is of a kind with a bad name in this shop: drifts high");
  expect(historyFactor({ refs: ["R9"] }, { ...none, named: history.named })).toBe(3);
});

test("of two faults that the readings cannot tell apart, the one that the eye saw leads", () => {
  const table = new FaultTable(circuit);
  const conditions = { mains: 230, without: [], set: [] };
  const at = table.hypotheses.findIndex((h) => h.fault.name === "C6 leaky" && h.severity < 2e7);
  const evidence = ["B1", "V2.k", "V2.g"].map((point) => ({
    point,
    kind: "dcv" as const,
    value: table.shown(conditions)[at]!.volts[table.points.indexOf(point)]!,
    conditions,
  }));
  const chance = (history: PartHistory | undefined, name: string) => {
    const { weighed } = rank(table, evidence, history).posterior;
    return weighed.find((w) => w.fault.name === name)!.weight;
  };
  const plain = chance(undefined, "C6 leaky") / chance(undefined, "p1b~g2 board leak");
  const seen = { ...none, looked: { C6: 2 } };
  expect(chance(seen, "C6 leaky") / chance(seen, "p1b~g2 board leak")).toBeCloseTo(4 * plain, 3);
  const renewed = { ...none, renewed: ["C6"] };
  expect(chance(renewed, "C6 leaky") / chance(renewed, "p1b~g2 board leak")).toBeCloseTo(plain / 4, 3);
});
