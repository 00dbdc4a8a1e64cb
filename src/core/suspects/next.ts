/** The next measurement: the one that is expected to tell most about what is left, for its effort and risk. */

import { formatQuantity, formatVolts } from "../quantity/format";
import type { SolveConditions } from "../expectation/modelled";
import { columnOf, type Column } from "./columns";
import { sameMeasurement, type Observable } from "../diagnosis/evidence";
import { MAINS_DOUBT, type MainsKnown } from "./mains-known";
import type { Posterior, Weighed } from "./posterior";
import { roleOf } from "../anatomy/points";
import type { FaultTable } from "./table";
import * as texts from "../texts/suspects";

export interface NextMeasurement {
  point: string;
  kind: Observable["kind"] | "mains";
  gainBits: number;
  cost: number;
  why: string;
}

/** An exposed node 1, cathodes cheaper than plates, pulling a tube 3, lifting a leg 4, power off and back on 2. */
const COST = { rail: 1, bias: 0.9, cathode: 0.8, grid: 0.9, screen: 1.1, plate: 1.2, other: 1, ohm: 2, leak: 4, gm: 3 } as const;
/** Faults that the expectation is taken over. */
const MOST = 40;
const BINS = 96;

/** Reading the wall is the cheapest of all. */
const MAINS_COST = 0.3;
const MAINS_METER = 0.006;

/**
 * Measurements not taken yet, the best for its cost first.
 * @param most how many are given. @param mains how the mains is known: as long as it was not measured, that is one of them.
 */
export function nextMeasurements(
  posterior: Posterior,
  conditions: SolveConditions,
  most = 5,
  mains: MainsKnown = "measured",
): NextMeasurement[] {
  const { table, columns, weighed } = posterior;
  const left = weighed.filter((w) => w.line >= 0 && w.weight > 1e-4).slice(0, MOST);
  const total = left.reduce((s, w) => s + w.weight, 0);
  const lines = new Set(left.flatMap((w) => [w.line, beyond(w, table)?.line ?? w.line]));
  const out: NextMeasurement[] = [];
  const consider = (o: Observable, cost: number) => {
    if (columns.some((c) => sameMeasurement(c.evidence!, o))) return;
    let column: Column;
    try {
      column = columnOf(table, o, NaN, lines);
    } catch (error) {
      // What this circuit does not have cannot be measured on it.
      if (error instanceof RangeError) return;
      throw error;
    }
    const gainBits = informationGain(left, total, column, table);
    if (gainBits > 0.005) out.push({ point: o.point, kind: o.kind, gainBits, cost, why: whyOf(left, column, o, table) });
  };
  for (const p of table.circuit.points) consider({ point: p.name, kind: "dcv", conditions }, COST[roleOf(table.circuit, p)]);
  // Parts that lead the list can be measured on their own.
  const refs = new Set(left.slice(0, 8).flatMap((w) => w.fault.refs));
  for (const ref of refs) {
    const e = table.circuit.elements.find((x) => x.name === ref);
    if (e?.letter === "R") consider({ point: ref, kind: "ohm", conditions: { without: [], set: [] } }, COST.ohm);
    if (e?.letter === "C" && (e.value ?? 0) < 1e-6) consider({ point: ref, kind: "leak", conditions }, COST.leak);
    if (e?.tube) consider({ point: ref, kind: "gm", conditions: { without: [], set: [] } }, COST.gm);
  }
  if (mains !== "measured" && conditions.mains !== undefined && columns.length > 0) {
    const column = mainsColumn(posterior, conditions.mains, MAINS_DOUBT[mains].sigma / 100);
    const gainBits = informationGain(left, total, column, table);
    if (gainBits > 0.005)
      out.push({
        point: "mains",
        kind: "mains",
        gainBits,
        cost: MAINS_COST,
        why: whyOf(left, column, { point: "mains", kind: "dcv", conditions }, table),
      });
  }
  return out.sort((a, b) => b.gainBits / b.cost - a.gainBits / a.cost).slice(0, most);
}

/** What the amp's own mains would read: as entered, but for the faults that say otherwise. */
function mainsColumn({ table }: Posterior, entered: number, doubt: number): Column {
  return {
    y: NaN,
    mean: Float64Array.from(table.hypotheses, (h) => entered * (h.fault.kind === "mains" ? h.severity : 1)),
    own: (mean) => Math.hypot(MAINS_METER, doubt) * mean,
    sharedSigma: () => 0,
    slip: 1,
  };
}

type Beyond = { line: number; part: number } | undefined;
const besides = new WeakMap<Weighed, { beyond: Beyond }>();

/** The line on the other side of the severity that fits: what it predicts lies between the two. Asked once for each place that can be read. */
function beyond(w: Weighed, table: FaultTable): Beyond {
  let known = besides.get(w);
  if (!known) besides.set(w, (known = { beyond: besideOf(w, table) }));
  return known.beyond;
}

function besideOf(w: Weighed, table: FaultTable): Beyond {
  const here = w.hypothesis.severity;
  const part = (line: number) => {
    const h = table.hypotheses[line];
    return h?.fault === w.fault ? Math.log(w.fitted / here) / Math.log(h.severity / here) : NaN;
  };
  for (const line of [w.line - 1, w.line + 1]) if (part(line) > 0 && part(line) <= 1) return { line, part: part(line) };
  return undefined;
}

/** Mean and sigma of a prediction, at the severity that fits. */
function predicted(w: Weighed, c: Column, table: FaultTable): [number, number] {
  const other = beyond(w, table);
  let mean = c.mean[w.line]!;
  if (other && !Number.isNaN(c.mean[other.line]!)) mean += other.part * (c.mean[other.line]! - mean);
  return Number.isNaN(mean) ? [0, 150] : [mean, Math.hypot(c.own(mean), c.sharedSigma(w.line))];
}

/** Where a law is cut into bins, in sigmas, and beyond which nothing of it is left. */
const CUTS = [-4, -2.5, -1.5, -0.8, -0.3, 0.3, 0.8, 1.5, 2.5, 4];
const ENDS = 6;

/** Bits: entropy of the mixture less the mean entropy of its parts, on a grid over all that can be read. */
function informationGain(left: Weighed[], total: number, c: Column, table: FaultTable): number {
  const count = left.length;
  const mean = new Float64Array(count);
  const sigma = new Float64Array(count);
  let [low, high] = [Infinity, -Infinity];
  left.forEach((w, k) => {
    [mean[k], sigma[k]] = predicted(w, c, table);
    low = Math.min(low, mean[k]! - 4 * sigma[k]!);
    high = Math.max(high, mean[k]! + 4 * sigma[k]!);
  });
  if (!(high > low)) return 0;
  // Bins are finer than the sharpest law, near where the laws are: the sorted quantiles of all of them.
  const edges = new Float64Array(count * CUTS.length);
  for (let k = 0; k < count; k++) for (let j = 0; j < CUTS.length; j++) edges[k * CUTS.length + j] = mean[k]! + CUTS[j]! * sigma[k]!;
  edges.sort();
  const stride = Math.max(1, Math.floor(edges.length / BINS));
  let gain = 0;
  const last = new Float64Array(count);
  const parts = new Float64Array(count);
  for (let i = 0; i < edges.length + stride; i += stride) {
    const edge = i < edges.length ? edges[i]! : Infinity;
    let mixed = 0;
    for (let k = 0; k < count; k++) {
      const z = (edge - mean[k]!) / sigma[k]!;
      const cdf = z >= ENDS ? 1 : z <= -ENDS ? 0 : normalCdf(z);
      const p = Math.max(0, cdf - last[k]!);
      last[k] = cdf;
      parts[k] = p;
      mixed += (left[k]!.weight / total) * p;
    }
    if (mixed < 1e-12) continue;
    for (let k = 0; k < count; k++) {
      const p = parts[k]!;
      if (p > 1e-12) gain += (left[k]!.weight / total) * p * Math.log2(p / mixed);
    }
  }
  return gain;
}

/** Source: Abramowitz and Stegun 26.2.17, error below 7.5e-8. */
function normalCdf(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const tail =
    Math.exp((-x * x) / 2) *
    0.3989422804014327 *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x >= 0 ? 1 - tail : tail;
}

function whyOf(left: Weighed[], c: Column, o: Observable, table: FaultTable): string {
  const laws = left.slice(0, 6).map((w) => ({ name: w.fault.name, law: predicted(w, c, table), weight: w.weight }));
  const [first] = laws;
  const other =
    laws.find((l) => Math.abs(l.law[0] - first!.law[0]) > 2 * (l.law[1] + first!.law[1])) ??
    laws.find((l) => Math.abs(l.law[0] - first!.law[0]) > l.law[1] + first!.law[1]);
  if (!first || !other) return texts.separatesRemainingSuspectsBest();
  const show = (m: number) =>
    o.kind === "ohm"
      ? formatQuantity(Math.exp(m), "Ω", 3)
      : o.kind === "gm"
        ? `${Math.round(m)} %`
        : o.kind === "temp"
          ? `${Math.round(m)} °C`
          : formatVolts(m);
  return texts.wouldGiveAbout(first.name, show(first.law[0]), other.name, show(other.law[0]));
}
