import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { NoiseTable } from "./noise-table";
import type { Evidence } from "../diagnosis/evidence";
import { rank } from "../suspects/rank";
import { FaultTable } from "../suspects/table";
import { together } from "./together";

const { circuit } = readCircuit(readFileSync("demo/amps/wren-5.cir", "utf8"));
const noise = new NoiseTable(circuit, { mains: 230 });
const table = new FaultTable(circuit);
const conditions = { mains: 230, without: [], set: [] };
const volts = (point: string, value: number): Evidence => ({ point, kind: "dcv", value, conditions });
const first = (answers: [string, string][], evidence: Evidence[]) =>
  together(
    noise,
    answers.map(([test, outcome]) => ({ test, outcome })),
    rank(table, evidence),
  ).suspects;
const share = (list: ReturnType<typeof first>, ref: string) =>
  list.filter((s) => s.refs.includes(ref)).reduce((sum, s) => sum + s.probability, 0);

test("readings and noise speak of one list: a crackle alone leaves many, a grid with volts on it points at the coupling capacitor", () => {
  const crackle: [string, string][] = [["sound", "crackle"]];
  const alone = first(crackle, []);
  const grid = table.shown({ ...conditions })[0]!;
  const healthy = (p: string) => grid.volts[table.points.findIndex((x) => x === p)]!;
  const both = first(crackle, [volts("V2.g", healthy("V2.g") + 3), volts("V2.k", 1.12 * healthy("V2.k"))]);
  const leaky = both.find((s) => s.id.endsWith(" leaky"))!;
  expect(both[0]!.id).toBe(leaky.id);
  expect(share(both, leaky.refs[0]!)).toBeGreaterThan(3 * share(alone, leaky.refs[0]!));
  expect(leaky.explains.join()).toContain("V2.g");
});

test("the whole adds up to one, with and without readings", () => {
  for (const evidence of [[], [volts("B1", 200)]]) {
    const list = first([["sound", "hum-mains"]], evidence);
    const sum = list.reduce((total, s) => total + s.probability, 0);
    expect(sum).toBeGreaterThan(0.9);
    expect(sum).toBeLessThan(1.0001);
  }
});

test("a fault that makes no noise stands in the list while the readings shout for it", () => {
  const quiet = first([], [volts("B1", 60), volts("B2", 55)]);
  expect(quiet.some((s) => !noise.causes.some((c) => c.id === s.id))).toBe(true);
});
