/** The weight of every fault: how well it explains the evidence, at the severity that fits, times its chance beforehand. */

import { covariance, type Column } from "./columns";
import type { Fault } from "./fault";
import { explainWith, prepare, SLIP, type Explained, type Prepared } from "./likelihood";
import { pairsOf } from "./pairs";
import type { Posterior, Weighed } from "./posterior";
import { NOTHING_WRONG_CHANCE, PAIR_CHANCE, UNKNOWN_CHANCE } from "./priors";
import { likelyLines } from "./sift";
import { HEALTHY, UNKNOWN, type FaultTable } from "./table";

/** Natural-log distance from the best beyond which a fault's severities are not refined. */
const REFINED = 9;
const SUBSTEPS = [0.25, 0.5, 0.75];
/** Chance that a slip is made a second time in the same way, the display showing the same. */
const SLIP_AGAIN = 0.03;
/** Chance that something unknown moves a reading, and the least volts (or units of its scale) that it moves it by. */
const UNKNOWN_MOVES = 0.12;
const LEAST_MOVED = 0.5;
/** Variance of a point that nothing holds: it neither speaks for nor against. */
const FLOATING = 2e4;
const NO_ANSWER = -1e6;

/** Lines of the table by fault: the same for every ranking. */
const linesByFault = new WeakMap<FaultTable, Map<Fault, number[]>>();

function linesOf(table: FaultTable): Map<Fault, number[]> {
  let lines = linesByFault.get(table);
  if (!lines) {
    lines = new Map();
    for (const [i, h] of table.hypotheses.entries()) lines.set(h.fault, [...(lines.get(h.fault) ?? []), i]);
    linesByFault.set(table, lines);
  }
  return lines;
}

interface Fit {
  line: number;
  mean: Float64Array;
  best: Explained;
  log: number;
  severity: number;
}

/** @param priors of each fault, relative to each other. */
export function weigh(table: FaultTable, columns: Column[], priors: ReadonlyMap<Fault, number>): Posterior {
  const gaussian = columns.filter((c) => !c.chance);
  const seen = columns.filter((c) => c.chance);
  const y = Float64Array.from(gaussian, (c) => c.y);
  const slip = Float64Array.from(gaussian, (c) => c.slip * SLIP_AGAIN ** ((c.evidence?.times ?? 1) - 1));
  const mostSlips = y.length < 2 ? 0 : Math.min(4, Math.max(1, Math.floor(y.length / 4)));
  const observed = (line: number) => seen.reduce((sum, c) => sum + Math.log(c.y ? c.chance![line]! : 1 - c.chance![line]!), 0);
  const known = new Map<number, Prepared>();
  const preparedOf = (line: number): Prepared => {
    let p = known.get(line);
    if (!p) {
      const cov = covariance(gaussian, line);
      gaussian.forEach((c, i) => {
        if (Number.isNaN(c.mean[line]!)) cov[i * gaussian.length + i]! += FLOATING;
      });
      known.set(line, (p = prepare(cov)));
    }
    return p;
  };
  // What a floating point shows nobody can say.
  const fitTo = (mean: Float64Array, prepared: Prepared, slips = mostSlips, density = slip) => {
    const shown = mean.slice();
    for (let i = 0; i < shown.length; i++) if (Number.isNaN(shown[i]!)) shown[i] = y[i]!;
    return explainWith(prepared, y, shown, density, slips);
  };
  const meanOf = (line: number) => {
    const mean = new Float64Array(gaussian.length);
    for (let i = 0; i < mean.length; i++) mean[i] = gaussian[i]!.mean[line]!;
    return mean;
  };

  const likely = likelyLines(table, gaussian);
  const total = table.faults.reduce((sum, f) => sum + priors.get(f)!, 0);
  const settled = (line: number) =>
    !gaussian.some((c) => {
      const shown = c.place?.shown[line];
      return shown && (!shown.converged || shown.impossible);
    });
  const coarse: { fault: Fault; fits: Fit[] }[] = [];
  for (const [fault, at] of linesOf(table)) {
    const fits = at.flatMap((line): Fit[] => {
      if (!likely.has(line)) return [];
      const mean = meanOf(line);
      const severity = table.hypotheses[line]!.severity;
      if (!settled(line)) return [];
      const best = fitTo(mean, preparedOf(line));
      return [{ line, mean, best, log: best.log + observed(line), severity }];
    });
    coarse.push({ fault, fits });
  }
  const highest = Math.max(...coarse.flatMap((c) => c.fits.map((f) => f.log)));
  const lowest = Math.min(...coarse.flatMap((c) => c.fits.map((f) => f.log)));
  const none = (line: number): Fit => ({
    line,
    mean: meanOf(line),
    best: { log: NO_ANSWER, slips: [], distance: new Float64Array(y.length).fill(Infinity) },
    // What was passed over counts as far behind the worst that was looked at closely.
    log: (Number.isFinite(lowest) ? lowest : NO_ANSWER) - 5,
    severity: table.hypotheses[line]!.severity,
  });
  const weighed = coarse.map(({ fault, fits }): Weighed => {
    const lines = linesOf(table).get(fault)!;
    const all = fits.length > 0 ? [...fits] : [none(lines[0]!)];
    if (fits.length > 1 && Math.max(...fits.map((f) => f.log)) > highest - REFINED)
      for (let k = 1; k < fits.length; k++) {
        const [a, b] = [fits[k - 1]!, fits[k]!];
        if (b.line !== a.line + 1) continue;
        for (const t of SUBSTEPS) {
          const mean = a.mean.slice();
          for (let i = 0; i < mean.length; i++) mean[i]! += t * (b.mean[i]! - mean[i]!);
          const near = t < 0.5 ? a : b;
          const best = fitTo(mean, preparedOf(near.line));
          all.push({
            line: near.line,
            mean,
            best,
            log: best.log + observed(near.line),
            severity: a.severity * (b.severity / a.severity) ** t,
          });
        }
      }
    const peak = all.reduce((x, f) => (f.log > x.log ? f : x));
    // Severity is not known beforehand: its likelihood is the average over the range on a log scale, what was passed over as nothing.
    const whole = Math.max(all.length, lines.length);
    const marginal =
      peak.log === -Infinity ? -Infinity : peak.log + Math.log(all.reduce((sum, f) => sum + Math.exp(f.log - peak.log), 0) / whole);
    const rest = 1 - NOTHING_WRONG_CHANCE - PAIR_CHANCE - UNKNOWN_CHANCE;
    const prior = fault === HEALTHY ? NOTHING_WRONG_CHANCE : (rest * priors.get(fault)!) / total;
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
  weighed.push(...pairsOf(table, columns, gaussian, weighed, priors, (mean, line) => fitTo(mean, preparedOf(line))));
  const outside = unknown(table, gaussian, observed, (mean) => {
    // It may put a reading anywhere within twice what it is or should be; an ohmmeter's and ripple's scale is a logarithm.
    const reach = (i: number) => Math.max(Math.abs(y[i]!), Math.abs(mean[i]!) || 0, LEAST_MOVED);
    const density = slip.map((s, i) => (gaussian[i]!.place ? UNKNOWN_MOVES / SLIP / (2 * reach(i)) : s));
    return fitTo(mean, preparedOf(0), y.length, density);
  });
  if (outside) weighed.push(outside);
  normalise(weighed);
  return { table, columns, weighed };
}

/** All that is not on the list: a sound amp of which something unknown moves as many readings as are off. */
function unknown(
  table: FaultTable,
  gaussian: Column[],
  observed: (line: number) => number,
  fit: (mean: Float64Array) => Explained,
): Weighed | undefined {
  if (gaussian.length < 2) return undefined;
  const mean = Float64Array.from(gaussian, (c) => c.mean[0]!);
  const best = fit(mean);
  return {
    fault: UNKNOWN,
    line: -1,
    hypothesis: { fault: UNKNOWN, severity: 1, changes: [] },
    log: best.log + observed(0) + Math.log(UNKNOWN_CHANCE),
    weight: 0,
    fitted: 1,
    best,
    mean,
  };
}

/** @throws Error that names the fault whose weight is no number: it would spoil all the others. */
function normalise(weighed: Weighed[]): void {
  for (const w of weighed)
    if (Number.isNaN(w.log) || w.log === Infinity) throw new Error(`the weight of “${w.fault.name}” is ${w.log}, which is no number`);
  weighed.sort((a, b) => b.log - a.log);
  const top = weighed[0]!.log;
  if (top === -Infinity) throw new Error("no fault of the table has a weight: none explains any of the readings");
  const sum = weighed.reduce((s, w) => s + Math.exp(w.log - top), 0);
  for (const w of weighed) w.weight = Math.exp(w.log - top) / sum;
}
