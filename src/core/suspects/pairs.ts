/** Two faults at once, where no single one explains all that was read. */

import type { Column } from "./columns";
import type { Fault } from "./fault";
import { CONTRADICTS, type Explained } from "./likelihood";
import { PAIR_CHANCE } from "./priors";
import type { Weighed } from "./posterior";
import { HEALTHY, type FaultTable } from "./table";

/** Singles that take part in pairs, and the least distance that asks for a pair at all. */
const MOST_PAIRED = 8;
/** Natural-log distance from the best at which nothing counts any more. */
const NEGLIGIBLE = 9;

/** Natural-log likelihood by which two must explain more than either of them alone. */
const ADDS = 6;

/** Pairs are tried when the best single fault leaves a reading unexplained. */
export function pairsOf(
  table: FaultTable,
  columns: Column[],
  gaussian: Column[],
  singles: Weighed[],
  priors: ReadonlyMap<Fault, number>,
  fit: (mean: Float64Array, line: number) => Explained,
): Weighed[] {
  const best = singles[0]!;
  if (gaussian.length < 3 || gaussian.some((c) => c.evidence?.kind !== "dcv")) return [];
  if (best.best.slips.length === 0 && !best.best.distance.some((d) => d > CONTRADICTS)) return [];
  const leading = singles.filter((s) => s.fault !== HEALTHY).slice(0, MOST_PAIRED);
  // Two faults at once are as many cases as there are pairs of all faults, each weighed by how likely its two are.
  const every = (table.faults.length * (table.faults.length - 1)) / 2;
  const usual = table.faults.reduce((sum, f) => sum + priors.get(f)!, 0) / table.faults.length;
  const y = Float64Array.from(gaussian, (c) => c.y);
  const out: Weighed[] = [];
  for (let i = 0; i < leading.length; i++)
    for (let j = i + 1; j < leading.length; j++) {
      const [a, b] = [leading[i]!, leading[j]!];
      if (a.fault.refs.some((r) => b.fault.refs.includes(r))) continue;
      const prior = Math.log((PAIR_CHANCE / every) * Math.max(1e-4, (priors.get(a.fault)! * priors.get(b.fault)!) / (usual * usual)));
      // A pair that would stay behind even if it explained every reading to the digit need not be solved.
      if (fit(y, a.line).log + prior < best.log - NEGLIGIBLE) continue;
      const changes = [...a.fault.changes(a.fitted), ...b.fault.changes(b.fitted)];
      const mean = pairMean(table, changes, gaussian);
      if (!mean) continue;
      const explained = fit(mean, a.line);
      // A pair that adds nothing that was measured to one of its own two is that one.
      if (explained.log < Math.max(a.best.log, b.best.log) + ADDS) continue;
      const fault: Fault = {
        name: `${a.fault.name} and ${b.fault.name}`,
        refs: [...a.fault.refs, ...b.fault.refs],
        kind: "pair",
        changes: () => changes,
        grid: [1],
        prior: 0,
      };
      const seen = columns
        .filter((c) => c.chance)
        .reduce(
          (s, c) =>
            s + Math.log(c.y ? Math.max(c.chance![a.line]!, c.chance![b.line]!) : 1 - Math.max(c.chance![a.line]!, c.chance![b.line]!)),
          0,
        );
      out.push({
        fault,
        line: -1,
        hypothesis: { fault, severity: 1, changes },
        log: explained.log + seen + prior,
        weight: 0,
        fitted: 1,
        best: explained,
        mean,
      });
    }
  return out;
}

function pairMean(table: FaultTable, changes: string[], columns: Column[]): Float64Array | undefined {
  const out = new Float64Array(columns.length);
  for (const [i, c] of columns.entries()) {
    const { conditions, point } = c.evidence!;
    const volts = table.voltsOf(changes, conditions);
    if (!volts) return undefined;
    out[i] = volts[table.points.findIndex((p) => p.toLowerCase() === point.toLowerCase())]!;
  }
  return out;
}
