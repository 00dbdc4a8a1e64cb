/** Whatever was read, and at however few points: every chance is a number, and together they are one. */

import { readFileSync } from "node:fs";
import fc from "fast-check";
import { readCircuit } from "../circuit/read";
import type { Evidence } from "../diagnosis/evidence";
import { draws } from "../numeric/draws-for-tests";
import { demoAmp } from "../solver/circuits-for-tests";
import { rank } from "./rank";
import { FaultTable } from "./table";

const pair = readCircuit(readFileSync("src/core/suspects/bed/corvell-for-tests.cir", "utf8")).circuit;
const tables = [new FaultTable(demoAmp("wren-5")), new FaultTable(pair)];

function sumsToOne(table: FaultTable, readings: readonly [string, number][], mains = table.circuit.mains!.volts) {
  const conditions = { mains, without: [], set: [] };
  const evidence = readings.map(([point, value]): Evidence => ({ point, kind: "dcv", value, conditions }));
  const { posterior, suspects } = rank(table, evidence);
  const weights = posterior.weighed.map((w) => w.weight);
  expect(weights.filter((w) => !(w >= 0 && w <= 1))).toEqual([]);
  expect(weights.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
  for (const s of suspects) expect(Number.isFinite(s.probability)).toBe(true);
  return suspects;
}

test("a push-pull pair put together from usual parts, one coupling capacitor leaky, seven points read: it is named", () => {
  const [first] = sumsToOne(
    tables[1]!,
    [
      ["V4.g", -17.5],
      ["V5.g", -41.5],
      ["V4.k", 1.7],
      ["V5.k", 0.332],
      ["B1", 392],
      ["V3A.p", 208],
      ["V3B.p", 228],
    ],
    231,
  );
  expect(first!.group).toContain("C20 leaky");
});

test("faults of the table at subsets of points, and volts that no fault gives", () => {
  fc.assert(
    fc.property(
      fc.nat(tables.length - 1),
      fc.nat(10_000),
      fc.array(fc.record({ point: fc.nat(100), off: fc.constantFrom(1, 1, 1, 1.02, 0.5, -1, 30) }), { minLength: 1, maxLength: 14 }),
      (which, fault, picked) => {
        const table = tables[which]!;
        const conditions = { mains: table.circuit.mains!.volts, without: [], set: [] };
        const shown = table.shown(conditions)[fault % table.hypotheses.length]!;
        const seen = new Map<string, number>();
        for (const { point, off } of picked) {
          const i = point % table.points.length;
          const volts = shown.volts[i]!;
          if (Number.isFinite(volts)) seen.set(table.points[i]!, volts * off);
        }
        if (seen.size > 0) sumsToOne(table, [...seen]);
      },
    ),
    { numRuns: draws(12, 600) },
  );
});
