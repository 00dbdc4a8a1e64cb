/** From evidence to a ranked list: which faults explain it, which cannot be told apart, what is not yet testable. */

import { columnOf, covariance, type Column } from "./columns";
import type { Evidence } from "../diagnosis/evidence";
import type { Fault } from "./fault";
import { historyFactor, type PartHistory } from "./history";
import { CONTRADICTS, prepare } from "./likelihood";
import { MAINS_DOUBT, type MainsKnown } from "./mains-known";
import type { Posterior, Weighed } from "./posterior";
import { slipWords } from "./slips";
import { HEALTHY, UNKNOWN, type FaultTable } from "./table";
import { notTestable } from "./untested";
import { weigh } from "./weigh";

export interface Suspect {
  fault: string;
  refs: string[];
  /** Names of the faults that this evidence cannot tell from it, itself first: other ways in which its part fails, and those of at most four other parts. */
  group: string[];
  /** The parts of each of them. */
  groupRefs: string[][];
  /** It stands for all that is not on the list: nothing known explains what was read. */
  unknown?: true;
  probability: number;
  /** Of the whole group. */
  groupProbability: number;
  /** The severity that fits best, in the fault's own unit. */
  fitted?: number;
  unit?: Fault["severityUnit"];
  /** Evidence that a sound amp would not show and this fault does; and what it does not explain. */
  explains: string[];
  against: string[];
  /** What it predicts for each piece of evidence, in the order given; NaN where it predicts nothing. */
  predicted: number[];
}

export interface Ranking {
  suspects: Suspect[];
  notYetTestable: { fault: string; test: string }[];
  /** Readings that nothing likely explains: to be taken again before anything else. */
  recheck: string[];
  /** Of those by name: which slip of the hand would give just this figure, where one does. */
  slips: Record<string, string>;
  /** Read twice alike and still not explained: no slip, but the rest may be of another time. */
  standsAlone: string[];
  /** Nearly nothing fits: the circuit may not be that of this amp. */
  circuitDoubtful: boolean;
  /** Posterior over faults, for what comes next. */
  posterior: Posterior;
}

/** Suspects on the list, and the chance below which none is on it. */
const MOST_SHOWN = 25;
const LEAST_SHOWN = 1e-5;
/** Parts named in one group. */
const MOST_IN_GROUP = 5;
/** A fault that holds this much is shown by the readings together, whatever each of them shows alone. */
const SHOWN_TOGETHER = 0.05;
/** Sigmas below which a reading agrees with a prediction. */
const AGREES = 2;

export interface RankOptions {
  /** How the mains of the readings is known; as typed in once unless given. */
  mains?: MainsKnown;
}

/** Ranks the single faults of the table, pairs of the leading ones where no single fault explains all, and "nothing wrong". */
export function rank(
  table: FaultTable,
  evidence: readonly Evidence[],
  history?: PartHistory,
  { mains = "entered" }: RankOptions = {},
): Ranking {
  const doubt = MAINS_DOUBT[mains];
  const columns = evidence.map((e) => columnOf(table, e, e.value));
  for (const c of columns) if (c.place) c.place.mains = doubt.sigma;
  const priors = new Map(table.faults.map((f) => [f, f.prior * historyFactor(f, history) * (f.kind === "mains" ? doubt.prior : 1)]));
  const posterior = weigh(table, columns, priors);
  const { weighed } = posterior;
  // All readings together may show what none of them shows alone.
  const shown = new Set(weighed.filter((w) => w.weight > SHOWN_TOGETHER).map((w) => w.fault.name));
  const untested = notTestable(table, columns, weighed).filter((u) => !shown.has(u.fault));
  const silent = new Set(untested.map((u) => u.fault));
  // What no reading could have shown is not a suspect with a low figure: it has its own list.
  const suspects = suspectsOf(posterior).filter((s) => s.refs.length === 0 || !silent.has(s.fault));
  const top = weighed[0]!;
  const numeric = columns.filter((c) => !c.chance).length;
  const gaussian = columns.flatMap((c, i) => (c.chance ? [] : [i]));
  // A slip is one reading; a third of them is another amp.
  const misfits = [...top.best.distance].filter((d, i) => d > CONTRADICTS || top.best.slips.includes(i)).length;
  const slipped = top.best.slips.map((k) => columns[gaussian[k]!]!);
  const again = (c: Column) => (c.evidence!.times ?? 1) > 1;
  return {
    suspects,
    notYetTestable: untested,
    recheck: slipped.filter((c) => !again(c)).map(labelOf),
    slips: Object.fromEntries(
      top.best.slips.flatMap((k) => {
        const why = slipWords(table, top, columns[gaussian[k]!]!, k);
        return why === undefined ? [] : [[labelOf(columns[gaussian[k]!]!), why]];
      }),
    ),
    standsAlone: slipped.filter(again).map(labelOf),
    circuitDoubtful: numeric >= 5 && misfits >= Math.max(3, numeric / 3),
    posterior,
  };
}

export const labelOf = (c: Column) =>
  c.evidence!.kind === "observe" ? c.evidence!.point : `${c.evidence!.point}${c.evidence!.kind === "dcv" ? "" : ` ${c.evidence!.kind}`}`;

function suspectsOf({ columns, weighed }: Posterior): Suspect[] {
  const gaussian = columns.filter((c) => !c.chance);
  const healthy = weighed.find((w) => w.fault === HEALTHY)!;
  /** One sigma of a reading under a hypothesis; a pair spreads like the first of its two. */
  const sigma = (c: Column, line: number) => {
    const mean = c.mean[Math.max(0, line)]!;
    return Math.hypot(c.own(Number.isNaN(mean) ? 0 : mean), c.sharedSigma(Math.max(0, line)));
  };
  const spread = covariance(gaussian, 0);
  const sigmas = Float64Array.from(gaussian, (_, i) => Math.sqrt(spread[i * gaussian.length + i]!));
  const prepared = prepare(spread);
  const base = prepared && { inverse: prepared.inverse, sigmas };
  const grouped = new Set<Weighed>();
  const out: Suspect[] = [];
  for (const w of weighed) {
    if (grouped.has(w) || (w.fault !== HEALTHY && (out.length >= MOST_SHOWN || w.weight < LEAST_SHOWN))) continue;
    const group = [w, ...alikeOf(w, weighed, grouped, base)];
    for (const g of group) grouped.add(g);
    const explains: string[] = [];
    const against: string[] = [];
    gaussian.forEach((c, i) => {
      const off = Math.abs(c.y - healthy.mean[i]!) / sigma(c, 0);
      const here = Math.abs(c.y - w.mean[i]!) / sigma(c, w.line);
      if (off > CONTRADICTS && here < AGREES) explains.push(labelOf(c));
      else if (w.best.slips.includes(i) || (here > CONTRADICTS && (w.best.distance[i] ?? Infinity) > CONTRADICTS)) against.push(labelOf(c));
    });
    for (const c of columns.filter((x) => x.chance)) {
      const p = w.line < 0 ? 0.5 : c.chance![w.line]!;
      const said = c.y ? p : 1 - p;
      if (said > 0.5 && (c.y ? c.chance![0]! : 1 - c.chance![0]!) < 0.5) explains.push(labelOf(c));
      else if (said < 0.2) against.push(labelOf(c));
    }
    let next = 0;
    out.push({
      fault: w.fault.name,
      refs: w.fault.refs,
      group: group.map((g) => g.fault.name),
      groupRefs: group.map((g) => g.fault.refs),
      ...(w.fault === UNKNOWN ? { unknown: true as const } : {}),
      probability: w.weight,
      groupProbability: group.reduce((s, g) => s + g.weight, 0),
      ...(w.fault.severityUnit ? { fitted: w.fitted, unit: w.fault.severityUnit } : {}),
      explains,
      against,
      predicted: columns.map((c) => (c.chance ? NaN : unscaled(c, w.mean[next++]!))),
    });
  }
  return out.sort((a, b) => b.groupProbability - a.groupProbability);
}

/** Back from the scale of the judgement to volts, ohms, milliamperes. */
function unscaled(c: Column, mean: number): number {
  return c.evidence?.kind === "ohm" || c.evidence?.kind === "acv" ? Math.exp(mean) : mean;
}

/**
 * What cannot be told from `w` by what was measured: other ways in which its part fails, and the faults of up to four other parts that
 * predict the same.
 */
function alikeOf(w: Weighed, weighed: readonly Weighed[], taken: ReadonlySet<Weighed>, base: Base | undefined): Weighed[] {
  const single = (o: Weighed) => o.fault !== HEALTHY && o.fault !== UNKNOWN;
  if (!single(w)) return [];
  const part = (o: Weighed) => o.fault.refs.join();
  const parts = new Set([part(w)]);
  return weighed.filter((o) => {
    if (o === w || taken.has(o) || !single(o) || o.weight < COUNTS * w.weight) return false;
    if (parts.has(part(o))) return part(o) === part(w) || indistinct(w, o, base);
    if (parts.size >= MOST_IN_GROUP || !indistinct(w, o, base)) return false;
    parts.add(part(o));
    return true;
  });
}

/** Part of the leading one's weight below which a fault is not named beside it. */
const COUNTS = 0.02;
/** Sigmas, over all readings together, below which two predictions are the same. */
const SAME = 2;

/** How the readings of a sound amp spread: the inverse of their covariance, and one sigma of each. */
interface Base {
  inverse: Float64Array;
  sigmas: Float64Array;
}

/** The same predictions for everything that was measured, within the noise that the readings share and have of their own. */
function indistinct(a: Weighed, b: Weighed, base: Base | undefined): boolean {
  const n = a.mean.length;
  if (n === 0 || !base) return false;
  const apart = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const d = a.mean[i]! - b.mean[i]!;
    if (Number.isNaN(d)) continue;
    // All readings together are never less apart than one of them.
    if (Math.abs(d) >= SAME * base.sigmas[i]!) return false;
    apart[i] = d;
  }
  let square = 0;
  for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) square += apart[i]! * base.inverse[i * n + j]! * apart[j]!;
  return square < SAME * SAME;
}
