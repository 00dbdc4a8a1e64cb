/** From evidence to a ranked list: which faults explain it, which cannot be told apart, what is not yet testable. */

import { columnOf, type Column } from "./columns";
import type { Evidence } from "./evidence";
import type { Fault } from "./faults";
import { explain, type Explained } from "./likelihood";
import { NOTHING_WRONG_CHANCE, PAIR_CHANCE } from "./priors";
import { FaultTable, HEALTHY, type Hypothesis } from "./table";

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
  /** Nearly nothing fits: the circuit may not be that of this amp. */
  circuitDoubtful: boolean;
  /** Posterior over faults, for what comes next. */
  posterior: Posterior;
}

/** One fault with its best severity and its weight. */
export interface Weighed {
  fault: Fault;
  /** Line of the table nearest to the fitted severity; −1 for a pair. */
  line: number;
  hypothesis: Hypothesis;
  log: number;
  weight: number;
  fitted: number;
  best: Explained;
  mean: Float64Array;
}

export interface Posterior {
  table: FaultTable;
  columns: Column[];
  weighed: Weighed[];
}

/** Faults named in one group. */
const MOST_IN_GROUP = 5;
/** Distance, in sigmas, from which a reading contradicts a prediction; and below which it agrees. */
const CONTRADICTS = 2.7;
const AGREES = 2;
/** From this many sigmas off healthy a fault shows in a reading. */
const SHOWS = 3;
/** Natural-log distance from the best beyond which a fault's severities are not refined. */
const REFINED = 14;
const SUBSTEPS = [0.25, 0.5, 0.75];

/** Ranks the single faults of the table, pairs of the leading ones where no single fault explains all, and "nothing wrong". */
export function rank(table: FaultTable, evidence: readonly Evidence[]): Ranking {
  const columns = evidence.map((e) => columnOf(table, e, e.value));
  const posterior = weigh(table, columns);
  const { weighed } = posterior;
  const untested = notTestable(table, columns, weighed);
  const silent = new Set(untested.map((u) => u.fault));
  // What no reading could have shown is not a suspect with a low figure: it has its own list.
  const suspects = suspectsOf(posterior).filter((s) => s.refs.length === 0 || !silent.has(s.fault));
  const top = weighed[0]!;
  const numeric = columns.filter((c) => !c.chance).length;
  const labels = columns.map(labelOf);
  const gaussian = columns.flatMap((c, i) => (c.chance ? [] : [i]));
  // A slip is one reading; a third of them is another amp.
  const misfits = [...top.best.distance].filter((d, i) => d > CONTRADICTS || top.best.slips.includes(i)).length;
  const recheck = top.best.slips.map((k) => labels[gaussian[k]!]!);
  return {
    suspects,
    notYetTestable: untested,
    recheck,
    circuitDoubtful: numeric >= 5 && misfits >= Math.max(3, numeric / 3),
    posterior,
  };
}

export const labelOf = (c: Column) =>
  c.evidence!.kind === "observe" ? c.evidence!.point : `${c.evidence!.point}${c.evidence!.kind === "dcv" ? "" : ` ${c.evidence!.kind}`}`;

function weigh(table: FaultTable, columns: Column[]): Posterior {
  const gaussian = columns.filter((c) => !c.chance);
  const seen = columns.filter((c) => c.chance);
  const y = Float64Array.from(gaussian, (c) => c.y);
  const slip = Float64Array.from(gaussian, (c) => c.slip);
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
  table.hypotheses.forEach((h, i) => lines.set(h.fault, [...(lines.get(h.fault) ?? []), i]));
  const total = table.faults.reduce((sum, f) => sum + f.prior, 0);
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
    const prior = fault === HEALTHY ? NOTHING_WRONG_CHANCE : ((1 - NOTHING_WRONG_CHANCE - PAIR_CHANCE) * fault.prior) / total;
    return {
      fault,
      line: peak.line,
      hypothesis: table.hypotheses[peak.line]!,
      log: marginal + Math.log(Math.max(prior, 1e-12)),
      weight: 0,
      fitted: peak.severity,
      best: peak.best,
      mean: peak.mean,
    };
  });
  weighed.sort((a, b) => b.log - a.log);
  weighed.push(...pairsOf(table, columns, gaussian, weighed, fit));
  normalise(weighed);
  return { table, columns, weighed };
}

const NO_COVARIANCE = new Float64Array(0);
const FAR_OFF: Explained = { log: -Infinity, slips: [], distance: new Float64Array(0) };
/** From this many readings the lines are sifted first, and this many are looked at closely. */
const SIFTED_FROM = 6;
const MOST_LINES = 140;
/** A reading can speak against a line by this much at most in the sifting: it may be a slip. */
const MOST_AGAINST = 6;

/** Lines that are worth a close look: those nearest to the readings, each reading taken for itself. */
function likelyLines(table: FaultTable, columns: Column[]): Set<number> {
  const all = table.hypotheses.map((_, line) => line);
  if (columns.length < SIFTED_FROM || all.length <= MOST_LINES) return new Set(all);
  const against = all.map((line) => {
    let sum = 0;
    for (const c of columns) {
      const mean = c.mean[line]!;
      if (Number.isNaN(mean)) continue;
      const sigma = Math.hypot(c.own(mean), c.sharedSigma(line));
      sum += Math.min(MOST_AGAINST, 0.5 * ((c.y - mean) / sigma) ** 2);
    }
    return { line, sum };
  });
  against.sort((a, b) => a.sum - b.sum);
  return new Set([0, ...against.slice(0, MOST_LINES).map((a) => a.line)]);
}

function normalise(weighed: Weighed[]): void {
  weighed.sort((a, b) => b.log - a.log);
  const top = weighed[0]!.log;
  const sum = weighed.reduce((s, w) => s + Math.exp(w.log - top), 0);
  for (const w of weighed) w.weight = Math.exp(w.log - top) / sum;
}

/** Σ = S·Sᵀ over the shared knobs, and each reading's own variance. */
function covariance(columns: Column[], line: number): Float64Array {
  const n = columns.length;
  const out = new Float64Array(n * n);
  const rows = columns.map((c) => c.shared?.(line));
  for (let i = 0; i < n; i++) {
    const m = columns[i]!.mean[line]!;
    out[i * n + i] = columns[i]!.own(Number.isNaN(m) ? 0 : m) ** 2;
    const a = rows[i];
    if (!a) continue;
    for (let j = 0; j <= i; j++) {
      const b = rows[j];
      if (!b) continue;
      let sum = 0;
      for (let k = 0; k < a.length; k++) sum += a[k]! * b[k]!;
      out[i * n + j]! += sum;
      if (i !== j) out[j * n + i]! += sum;
    }
  }
  return out;
}

/** Singles that take part in pairs, and the least distance that asks for a pair at all. */
const MOST_PAIRED = 8;

/** Pairs are tried when the best single fault leaves a reading unexplained. */
function pairsOf(
  table: FaultTable,
  columns: Column[],
  gaussian: Column[],
  singles: Weighed[],
  fit: (mean: Float64Array, cov: Float64Array) => Explained,
): Weighed[] {
  const best = singles[0]!;
  if (gaussian.length < 3 || gaussian.some((c) => c.evidence?.kind !== "dcv")) return [];
  if (best.best.slips.length === 0 && !best.best.distance.some((d) => d > CONTRADICTS)) return [];
  const leading = singles.filter((s) => s.fault !== HEALTHY).slice(0, MOST_PAIRED);
  // Two faults at once are as many cases as there are pairs of all faults, each weighed by how likely its two are.
  const every = (table.faults.length * (table.faults.length - 1)) / 2;
  const usual = table.faults.reduce((sum, f) => sum + f.prior, 0) / table.faults.length;
  const out: Weighed[] = [];
  for (let i = 0; i < leading.length; i++)
    for (let j = i + 1; j < leading.length; j++) {
      const [a, b] = [leading[i]!, leading[j]!];
      if (a.fault.refs.some((r) => b.fault.refs.includes(r))) continue;
      const changes = [...a.fault.changes(a.fitted), ...b.fault.changes(b.fitted)];
      const mean = pairMean(table, changes, gaussian);
      if (!mean) continue;
      const explained = fit(mean, covariance(gaussian, a.line));
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
        log: explained.log + seen + Math.log((PAIR_CHANCE / every) * Math.max(1e-4, (a.fault.prior * b.fault.prior) / (usual * usual))),
        weight: 0,
        fitted: 1,
        best: explained,
        mean,
      });
    }
  return out;
}

function pairMean(table: FaultTable, changes: string[], columns: Column[]): Float64Array | undefined {
  const solved = new Map<string, Float64Array>();
  const out = new Float64Array(columns.length);
  for (const [i, c] of columns.entries()) {
    const { conditions, point } = c.evidence!;
    const key = JSON.stringify(conditions);
    let volts = solved.get(key);
    if (!volts) {
      try {
        const shown = table.showOf(changes, conditions);
        if (!shown.converged) return undefined;
        volts = shown.volts;
      } catch {
        // Two changes of one part that do not go together.
        return undefined;
      }
      solved.set(key, volts);
    }
    out[i] = volts[table.points.findIndex((p) => p.toLowerCase() === point.toLowerCase())]!;
  }
  return out;
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

/** Faults that none of the readings could have shown, with what would show them. */
function notTestable(table: FaultTable, columns: Column[], weighed: Weighed[]): { fault: string; test: string }[] {
  const gaussian = columns.filter((c) => !c.chance);
  const cov = covariance(gaussian, 0);
  const out: { fault: string; test: string }[] = [];
  // What a voltage would show is looked up where voltages were taken: an ohmmeter's conditions would be a table of their own.
  const live = columns.find((c) => c.evidence?.kind === "dcv")?.evidence?.conditions;
  const base = table.shown(live ?? { mains: table.circuit.mains?.volts, without: [], set: [] });
  for (const w of weighed) {
    if (w.fault === HEALTHY || w.fault.kind === "pair") continue;
    const lines = table.hypotheses.flatMap((h, i) => (h.fault === w.fault ? [i] : []));
    const shows = lines.some((line) =>
      gaussian.some((c, i) => Math.abs(c.mean[line]! - c.mean[0]!) > SHOWS * Math.sqrt(cov[i * gaussian.length + i]!)),
    );
    if (shows) continue;
    out.push({ fault: w.fault.name, test: testFor(table, lines, base) ?? otherTest(w.fault) });
  }
  return out;
}

/** The point that moves most, where one does. */
function testFor(table: FaultTable, lines: number[], shown: ReturnType<FaultTable["shown"]>): string | undefined {
  let best: string | undefined;
  let most = SHOWS;
  table.points.forEach((p, i) => {
    const healthy = shown[0]!.volts[i]!;
    const row = shown[0]!.spread.subarray(i * table.knobCount, (i + 1) * table.knobCount);
    const sigma = Math.hypot(0.01 * healthy, 0.03, Math.sqrt(row.reduce((s, v) => s + v * v, 0)));
    for (const line of lines) {
      const moved = Math.abs(shown[line]!.volts[i]! - healthy) / sigma;
      if (moved > most) {
        most = moved;
        best = `DC volts at ${p}`;
      }
    }
  });
  return best;
}

function otherTest(fault: Fault): string {
  const [ref = ""] = fault.refs;
  if (fault.kind === "coupling open") return `a tone through ${ref}: the level on both of its sides`;
  if (fault.kind === "coupling leaky") return `one leg of ${ref} lifted, volts at it`;
  if (fault.kind === "electrolytic open" || fault.kind === "can lifted")
    return `AC volts across ${ref}, or another capacitor held across it`;
  if (fault.kind === "electrolytic leaky") return `${ref} out of circuit at its working voltage`;
  if (fault.kind.startsWith("resistor")) return `ohms of ${ref}, power off`;
  if (fault.kind.startsWith("tube") || fault.kind === "pin open" || fault.kind === "heater-cathode leak")
    return `${ref} in a tube tester, or a known good one in its place`;
  return `ohms at ${ref}, power off; or a signal through it`;
}
