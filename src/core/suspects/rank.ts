/** From evidence to a ranked list: which faults explain it, which cannot be told apart, what is not yet testable. */

import { columnOf, covariance, type Column } from "./columns";
import type { Evidence } from "./evidence";
import type { Fault } from "./faults";
import { historyFactor, type PartHistory } from "./history";
import { CONTRADICTS, explain, type Explained } from "./likelihood";
import { pairsOf } from "./pairs";
import type { Posterior, Weighed } from "./posterior";
import { NOTHING_WRONG_CHANCE, PAIR_CHANCE } from "./priors";
import { FaultTable, HEALTHY } from "./table";
import { notTestable } from "./untested";

export interface Suspect {
  fault: string;
  refs: string[];
  /** Names of the faults that this evidence cannot tell from it, itself first; at most five. */
  group: string[];
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
  /** Read twice alike and still not explained: no slip, but the rest may be of another time. */
  standsAlone: string[];
  /** Nearly nothing fits: the circuit may not be that of this amp. */
  circuitDoubtful: boolean;
  /** Posterior over faults, for what comes next. */
  posterior: Posterior;
}

/** Faults named in one group. */
const MOST_IN_GROUP = 5;
/** A fault that holds this much is shown by the readings together, whatever each of them shows alone. */
const SHOWN_TOGETHER = 0.05;
/** Sigmas below which a reading agrees with a prediction. */
const AGREES = 2;
/** Natural-log distance from the best beyond which a fault's severities are not refined. */
const REFINED = 14;
const SUBSTEPS = [0.25, 0.5, 0.75];

/** Ranks the single faults of the table, pairs of the leading ones where no single fault explains all, and "nothing wrong". */
export function rank(table: FaultTable, evidence: readonly Evidence[], history?: PartHistory): Ranking {
  const columns = evidence.map((e) => columnOf(table, e, e.value));
  const priors = new Map(table.faults.map((f) => [f, f.prior * historyFactor(f, history)]));
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
    standsAlone: slipped.filter(again).map(labelOf),
    circuitDoubtful: numeric >= 5 && misfits >= Math.max(3, numeric / 3),
    posterior,
  };
}

export const labelOf = (c: Column) =>
  c.evidence!.kind === "observe" ? c.evidence!.point : `${c.evidence!.point}${c.evidence!.kind === "dcv" ? "" : ` ${c.evidence!.kind}`}`;

function weigh(table: FaultTable, columns: Column[], priors: ReadonlyMap<Fault, number>): Posterior {
  const gaussian = columns.filter((c) => !c.chance);
  const seen = columns.filter((c) => c.chance);
  const y = Float64Array.from(gaussian, (c) => c.y);
  const slip = Float64Array.from(gaussian, (c) => c.slip * SLIP_AGAIN ** ((c.evidence?.times ?? 1) - 1));
  const mostSlips = y.length < 2 ? 0 : Math.min(4, Math.max(1, Math.floor(y.length / 4)));
  const observed = (line: number) => seen.reduce((sum, c) => sum + Math.log(c.y ? c.chance![line]! : 1 - c.chance![line]!), 0);
  const fit = (mean: Float64Array, cov: Float64Array): Explained => {
    // What a floating point shows nobody can say: it neither speaks for nor against.
    const filled = mean.map((m, i) => (Number.isNaN(m) ? y[i]! : m));
    const padded = cov.slice();
    mean.forEach((m, i) => {
      if (Number.isNaN(m)) padded[i * mean.length + i]! += 2e4;
    });
    return explain(y, filled, padded, slip, mostSlips);
  };
  const meanOf = (line: number) => Float64Array.from(gaussian, (c) => c.mean[line]!);
  const covOf = (line: number) => covariance(gaussian, line);

  const likely = likelyLines(table, gaussian);
  const lines = new Map<Fault, number[]>();
  table.hypotheses.forEach((h, i) => lines.get(h.fault)?.push(i) ?? lines.set(h.fault, [i]));
  const total = table.faults.reduce((sum, f) => sum + priors.get(f)!, 0);
  const coarse = [...lines].map(([fault, at]) => {
    const fits = at.map((line) => {
      const mean = meanOf(line);
      if (!likely.has(line))
        return { line, mean, cov: NO_COVARIANCE, best: FAR_OFF, log: -Infinity, severity: table.hypotheses[line]!.severity };
      const converged = !gaussian.some((c) => c.evidence?.kind === "dcv" && !table.shown(c.evidence.conditions)[line]!.converged);
      const cov = covOf(line);
      const best = converged ? fit(mean, cov) : { log: -1e6, slips: [], distance: new Float64Array(y.length) };
      return { line, mean, cov, best, log: best.log + observed(line), severity: table.hypotheses[line]!.severity };
    });
    return { fault, fits };
  });
  // What was passed over counts as far behind the worst that was looked at closely.
  const worst = Math.min(...coarse.flatMap((c) => c.fits.map((f) => f.log)).filter(Number.isFinite));
  for (const c of coarse) for (const f of c.fits) if (f.log === -Infinity) f.log = worst - 5;
  const highest = Math.max(...coarse.flatMap((c) => c.fits.map((f) => f.log)));
  const weighed = coarse.map(({ fault, fits }): Weighed => {
    const all = [...fits];
    if (fits.length > 1 && Math.max(...fits.map((f) => f.log)) > highest - REFINED) {
      for (let k = 1; k < fits.length; k++) {
        const [a, b] = [fits[k - 1]!, fits[k]!];
        if (!likely.has(a.line) || !likely.has(b.line)) continue;
        for (const t of SUBSTEPS) {
          const mean = a.mean.map((m, i) => m + t * (b.mean[i]! - m));
          const near = t < 0.5 ? a : b;
          const best = fit(mean, near.cov);
          all.push({ ...near, mean, best, log: best.log + observed(near.line), severity: a.severity * (b.severity / a.severity) ** t });
        }
      }
    }
    const peak = all.reduce((x, f) => (f.log > x.log ? f : x));
    // Severity is not known beforehand: its likelihood is the average over the range, on a log scale.
    const marginal = peak.log + Math.log(all.reduce((sum, f) => sum + Math.exp(f.log - peak.log), 0) / all.length);
    const prior = fault === HEALTHY ? NOTHING_WRONG_CHANCE : ((1 - NOTHING_WRONG_CHANCE - PAIR_CHANCE) * priors.get(fault)!) / total;
    return {
      fault,
      line: peak.line,
      hypothesis: table.hypotheses[peak.line]!,
      log: marginal + Math.log(Math.max(prior, 1e-12)),
      marginal,
      weight: 0,
      fitted: peak.severity,
      best: peak.best,
      mean: peak.mean,
    };
  });
  weighed.sort((a, b) => b.log - a.log);
  weighed.push(...pairsOf(table, columns, gaussian, weighed, priors, fit));
  normalise(weighed);
  return { table, columns, weighed };
}

/** Chance that a slip is made a second time in the same way, the display showing the same. */
const SLIP_AGAIN = 0.03;
const NO_COVARIANCE = new Float64Array(0);
const FAR_OFF: Explained = { log: -Infinity, slips: [], distance: new Float64Array(0) };
/** From this many readings the lines are sifted first, and this many are looked at closely. */
const SIFTED_FROM = 6;
const MOST_LINES = 140;
/** A reading can speak against a line by this much at most in the sifting: it may be a slip. */
const MOST_AGAINST = 6;

/** From so many sigmas on a reading does not help to find how far the wall is off. */
const OUTLYING = 4;

/** Lines that are worth a close look: those nearest to the readings once the mains, which moves them all together, is allowed for. */
function likelyLines(table: FaultTable, columns: Column[]): Set<number> {
  const all = table.hypotheses.map((_, line) => line);
  if (columns.length < SIFTED_FROM || all.length <= MOST_LINES) return new Set(all);
  const against = all.map((line) => ({ line, sum: distanceOf(columns, line, table.mainsKnob) }));
  against.sort((a, b) => a.sum - b.sum);
  return new Set([0, ...against.slice(0, MOST_LINES).map((a) => a.line)]);
}

/** Half the squared distance of the readings from a line, each capped, with the mains where it fits best. */
function distanceOf(columns: Column[], line: number, mainsKnob: number | undefined): number {
  let top = 0;
  let bottom = 1;
  let sum = 0;
  // Twice over the readings: first the mains that fits best, then what is left.
  for (const round of [1, 2] as const) {
    const mains = round === 1 ? 0 : top / bottom;
    sum = 0.5 * mains ** 2;
    for (const c of columns) {
      const mean = c.mean[line]!;
      if (Number.isNaN(mean)) continue;
      const { place } = c;
      const byMains = place && mainsKnob !== undefined ? place.shown[line]!.spread[place.at * place.knobs + mainsKnob]! : 0;
      const own = c.own(mean);
      const whole = own * own + c.sharedSigma(line) ** 2;
      const alone = Math.max(1e-12, whole - byMains * byMains);
      const off = c.y - mean;
      if (round === 2) sum += Math.min(MOST_AGAINST, (0.5 * (off - mains * byMains) ** 2) / alone);
      else if (off * off <= OUTLYING * OUTLYING * whole) {
        top += (off * byMains) / alone;
        bottom += (byMains * byMains) / alone;
      }
    }
  }
  return sum;
}

function normalise(weighed: Weighed[]): void {
  weighed.sort((a, b) => b.log - a.log);
  const top = weighed[0]!.log;
  const sum = weighed.reduce((s, w) => s + Math.exp(w.log - top), 0);
  for (const w of weighed) w.weight = Math.exp(w.log - top) / sum;
}

function suspectsOf({ columns, weighed }: Posterior): Suspect[] {
  const gaussian = columns.filter((c) => !c.chance);
  const healthy = weighed.find((w) => w.fault === HEALTHY)!;
  /** One sigma of a reading under a hypothesis; a pair spreads like the first of its two. */
  const sigma = (c: Column, line: number) => {
    const mean = c.mean[Math.max(0, line)]!;
    return Math.hypot(c.own(Number.isNaN(mean) ? 0 : mean), c.sharedSigma(Math.max(0, line)));
  };
  const base = covariance(gaussian, 0);
  const grouped = new Set<Weighed>();
  const out: Suspect[] = [];
  for (const w of weighed) {
    if (grouped.has(w) || out.length >= 25) continue;
    const alike = weighed.filter(
      (o) =>
        o !== w &&
        !grouped.has(o) &&
        o.fault !== HEALTHY &&
        w.fault !== HEALTHY &&
        o.weight > 0.02 * w.weight &&
        indistinct(w, o, gaussian, base),
    );
    const group = [w, ...alike.slice(0, MOST_IN_GROUP - 1)];
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

/** The same predictions for everything that was measured, within the noise. */
function indistinct(a: Weighed, b: Weighed, columns: Column[], cov: Float64Array): boolean {
  const n = columns.length;
  for (let i = 0; i < n; i++) {
    const [x, y] = [a.mean[i]!, b.mean[i]!];
    if (Number.isNaN(x) || Number.isNaN(y)) continue;
    if (Math.abs(x - y) > 1.5 * Math.sqrt(cov[i * n + i]!)) return false;
  }
  return n > 0;
}
