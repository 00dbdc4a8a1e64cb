/**
 * Fits the unknowns of a model to figures that are known to be right: least squares with priors in the logarithms of the factors
 * (Gauss-Newton, damped after Levenberg and Marquardt), figures that stand apart from all others left out as misprints.
 * Source: J. Nocedal and S. J. Wright, "Numerical Optimization", 2006, chapter 10; deletion of single figures by their studentised
 * residual: R. D. Cook and S. Weisberg, "Residuals and Influence in Regression", 1982.
 */

import type { Circuit } from "../circuit/circuit";
import { formatVolts } from "../quantity/format";
import { solve } from "../numeric/dense";
import { compile } from "../solver/compile";
import { newton, solveNewton, workspaceOf, type Workspace } from "../solver/newton";
import { readings, solveOperatingPoint, type OperatingPoint } from "../solver/operating-point";
import * as texts from "../texts/settle";
import type { Given, Measured } from "./given";
import { unknownsOf, type Unknown } from "./unknowns";

export interface Fitted {
  part: string;
  what: Unknown["what"];
  key?: string;
  before: number;
  after: number;
  /** One sigma of `after`, relative. */
  sigma: number;
  unit?: Unknown["unit"];
}

export interface SettledPoint {
  point: string;
  mains: number;
  source: Given["source"];
  given: number;
  before: number;
  after: number;
  /** How far the given figure is from the fitted one in sigmas of its own error; above 3 it does not fit. */
  sigmas: number;
}

export interface Settled {
  /** Set when the figures cannot come from this circuit: nothing is fitted then. */
  refused?: string;
  fitted: Fitted[];
  points: SettledPoint[];
  /** Figures that were left out because all others say otherwise. */
  misprints: SettledPoint[];
  /** What the figures do not determine: it stays as it was. */
  undetermined: Pick<Fitted, "part" | "what" | "before" | "unit">[];
}

/** Error of a chart's figure or of a meter, relative; and volts that no reading of small volts is better than. */
const RELATIVE = 0.015;
const LEAST_VOLTS = 0.02;
/** Studentised residual from which a figure is a misprint, and the part of all figures that may be. */
const MISPRINT = 4;
const MOST_MISPRINTS = 0.18;
/** Root mean square of the residuals in sigmas, misprints left out, above which it is another circuit. */
const OTHER_CIRCUIT = 3;
/** A chart's mains over the amp's: beyond it is for another country's amp, or an amp on a variable transformer that nothing is right in. */
const MAINS_APART = [0.7, 1.3] as const;
/** An unknown whose uncertainty is still this part of the prior's was not determined. */
const STILL_UNKNOWN = 0.8;
const STEP = 0.01;
const MOST_STEPS = 25;

/** @param progress told how far it is, 0 to 1; answers false to stop. @throws Error where the circuit does not converge or too little is given. */
export function settle(
  circuit: Circuit,
  given: readonly Given[],
  measured: readonly Measured[] = [],
  progress: (part: number) => boolean = () => true,
): Settled {
  if (given.length < 3) throw new Error(texts.tooFew(given.length));
  const amps = [...new Set(given.map((g) => g.mains))].map((mains) => new Amp(circuit, mains, given));
  for (const amp of amps) if (!amp.op.converged) throw new Error(texts.doesNotConverge(amp.op.unsettled[0] ?? "?"));
  const own = circuit.mains?.volts;
  const far = own === undefined ? undefined : given.find((g) => g.mains / own < MAINS_APART[0] || g.mains / own > MAINS_APART[1]);
  if (far)
    return { refused: texts.otherCircuit(texts.otherMains(far.mains, own!)), fitted: [], points: [], misprints: [], undetermined: [] };
  const all = unknownsOf(circuit, amps[0]!.op).map((u) => knownFrom(u, measured));
  const before = computed(
    amps,
    given,
    all,
    all.map(() => 0),
  )!;

  const left = new Set<number>();
  let unknowns = all;
  let fit = fitTo(amps, given, unknowns, left, progress);
  // One figure at a time, the farthest from what all others say; with each one gone the others are judged anew.
  const most = Math.floor(MOST_MISPRINTS * given.length);
  while (left.size < most) {
    const worst = farthest(fit, given, left);
    if (worst === undefined) break;
    left.add(worst);
    fit = fitTo(amps, given, unknowns, left, progress, fit.theta);
  }
  // One that was left out and fits now was led away by another.
  for (const i of [...left]) {
    if (Math.abs(fit.residual[i]!) > 2) continue;
    left.delete(i);
    fit = fitTo(amps, given, unknowns, left, progress, fit.theta);
  }
  const determined = unknowns.filter((u, k) => Math.sqrt(fit.covariance[k]![k]!) < STILL_UNKNOWN * u.sigma);
  const undetermined = unknowns.filter((u) => !determined.includes(u));
  // What was not determined stands where it stood; the rest is fitted once more to that.
  unknowns = determined;
  fit = fitTo(
    amps,
    given,
    unknowns,
    left,
    progress,
    determined.map((u) => fit.theta[all.indexOf(u)]!),
  );

  const points = given.map((g, i): SettledPoint => ({
    point: g.point,
    mains: g.mains,
    source: g.source,
    given: g.volts,
    before: before[i]!,
    after: fit.values[i]!,
    sigmas: Math.abs(fit.residual[i]!),
  }));
  const misprints = points.filter((_, i) => left.has(i));
  const used = points.filter((_, i) => !left.has(i));
  const rms = Math.sqrt(used.reduce((sum, p) => sum + p.sigmas ** 2, 0) / used.length);
  const answer = {
    points,
    misprints,
    undetermined: undetermined.map((u) => ({ part: u.parts.join(" "), what: u.what, before: u.before, unit: u.unit })),
  };
  if (rms > OTHER_CIRCUIT || (left.size >= most && farthest(fit, given, left) !== undefined)) {
    const worst = [...points].sort((a, b) => b.sigmas - a.sigmas).slice(0, 3);
    return {
      ...answer,
      refused: texts.otherCircuit(worst.map((p) => texts.worstPoint(p.point, formatVolts(p.given), formatVolts(p.after))).join("; ")),
      fitted: [],
    };
  }
  const fitted = unknowns.map((u, k): Fitted => ({
    part: u.parts.join(" "),
    what: u.what,
    key: u.key,
    before: u.before,
    after: u.before * Math.exp(fit.theta[k]!),
    sigma: Math.sqrt(fit.covariance[k]![k]!),
    unit: u.unit,
  }));
  return { ...answer, fitted };
}

/** A winding that was measured is known to a percent or two. */
function knownFrom(u: Unknown, measured: readonly Measured[]): Unknown {
  const at = measured.find((m) => u.parts.includes(m.part) && m.key === u.key?.replace("@", ""));
  return at ? { ...u, usual: Math.min(u.most, Math.max(u.least, at.value / u.before)), sigma: 0.015 } : u;
}

/** The amp at one mains, kept compiled from solve to solve. */
class Amp {
  readonly op: OperatingPoint;
  readonly work: Workspace;
  private readonly points;

  constructor(
    circuit: Circuit,
    readonly mains: number,
    given: readonly Given[],
  ) {
    const network = compile(circuit, circuit.mains ? { mains } : {});
    this.work = workspaceOf(network);
    this.op = solveOperatingPoint(network, undefined, this.work);
    this.points = given.flatMap((g, at) => {
      const point = circuit.points.find((p) => p.name === g.point);
      return g.mains === mains && point ? [{ point, at, meterOhms: g.meterOhms }] : [];
    });
  }

  /** What each meter reads, into `out` at the place of its figure; false where it does not converge. @param whole also anew for the rectifiers' pulses. */
  read(out: number[], whole: boolean): boolean {
    let x: Float64Array = this.op.x;
    if (whole) {
      const solved = solveOperatingPoint(this.op.network, x, this.work);
      if (!solved.converged) return false;
      this.op.x.set(solved.x);
      x = this.op.x;
    } else {
      x = x.slice();
      if (!newton(this.work, x).converged && !solveNewton(this.work, x).converged) return false;
    }
    const op = { ...this.op, x };
    for (const ohms of new Set(this.points.map((p) => p.meterOhms))) {
      const here = this.points.filter((p) => p.meterOhms === ohms);
      const read = readings(
        op,
        here.map((p) => p.point),
        ohms,
        this.work,
      );
      for (const { point, at } of here) out[at] = read.get(point.name)!;
    }
    return true;
  }
}

/** What the meters read at factors exp(θ); undefined where an amp does not converge. */
function computed(
  amps: readonly Amp[],
  given: readonly Given[],
  unknowns: readonly Unknown[],
  theta: readonly number[],
  whole = true,
): number[] | undefined {
  const out = new Array<number>(given.length).fill(NaN);
  for (const amp of amps) {
    unknowns.forEach((u, k) => u.turn(amp.op.network, Math.exp(theta[k]!)));
    if (!amp.read(out, whole)) return undefined;
  }
  return out;
}

const errorOf = (g: Given) => Math.hypot(RELATIVE * Math.abs(g.volts), g.step / Math.sqrt(12), LEAST_VOLTS);

interface Fit {
  theta: number[];
  values: number[];
  /** In sigmas of each figure's own error. */
  residual: number[];
  covariance: number[][];
  jacobian: number[][];
}

function fitTo(
  amps: readonly Amp[],
  given: readonly Given[],
  unknowns: readonly Unknown[],
  left: ReadonlySet<number>,
  progress: (part: number) => boolean,
  start?: readonly number[],
): Fit {
  const prior = unknowns.map((u) => Math.log(u.usual));
  const bound = (theta: number[]) => theta.map((t, k) => Math.min(Math.log(unknowns[k]!.most), Math.max(Math.log(unknowns[k]!.least), t)));
  const costOf = (theta: readonly number[], values: readonly number[]) =>
    given.reduce((sum, g, i) => (left.has(i) ? sum : sum + robust((values[i]! - g.volts) / errorOf(g))), 0) +
    unknowns.reduce((sum, u, k) => sum + ((theta[k]! - prior[k]!) / u.sigma) ** 2, 0);
  let theta = start ? [...start] : bound(prior);
  let values = computed(amps, given, unknowns, theta);
  if (!values) {
    theta = unknowns.map(() => 0);
    values = computed(amps, given, unknowns, theta)!;
  }
  let cost = costOf(theta, values);
  let damping = 1e-3;
  let jacobian = jacobianOf(amps, given, unknowns, theta);
  for (let step = 0; step < MOST_STEPS; step++) {
    if (!progress(step / MOST_STEPS)) throw new Error("cancelled");
    const { normal, gradient } = normalOf(given, unknowns, left, jacobian, values, theta, prior);
    const damped = normal.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) : v)));
    const delta = unknowns.length === 0 ? [] : solve(damped.flat(), gradient);
    const next = bound(theta.map((t, k) => t + delta[k]!));
    const there = computed(amps, given, unknowns, next);
    const its = there ? costOf(next, there) : Infinity;
    if (its <= cost) {
      const moved = cost - its;
      [theta, values, cost] = [next, there!, its];
      damping = Math.max(1e-6, damping / 5);
      if (moved < 1e-4 * (1 + cost)) break;
      jacobian = jacobianOf(amps, given, unknowns, theta);
    } else {
      damping *= 10;
      if (damping > 1e6) break;
    }
  }
  // The networks stand at the answer again.
  computed(amps, given, unknowns, theta);
  const { normal } = normalOf(given, unknowns, left, jacobian, values, theta, prior, true);
  const covariance = inverse(normal);
  return { theta, values, residual: values.map((v, i) => (given[i]!.volts - v) / errorOf(given[i]!)), covariance, jacobian };
}

/** Huber's: a figure that is far off pulls no harder than one at two sigmas. */
const BEND = 2;
const robust = (r: number) => (Math.abs(r) <= BEND ? r * r : 2 * BEND * Math.abs(r) - BEND * BEND);
const weight = (r: number) => (Math.abs(r) <= BEND ? 1 : BEND / Math.abs(r));

/** dV/dθ by differences: rows in the order of the figures. */
function jacobianOf(amps: readonly Amp[], given: readonly Given[], unknowns: readonly Unknown[], theta: readonly number[]): number[][] {
  const rows = given.map(() => new Array<number>(unknowns.length).fill(0));
  const base = computed(amps, given, unknowns, theta, false);
  if (!base) return rows;
  unknowns.forEach((u, k) => {
    for (const amp of amps) u.turn(amp.op.network, Math.exp(theta[k]! + STEP));
    const out = new Array<number>(given.length).fill(NaN);
    const ok = amps.every((amp) => amp.read(out, false));
    for (const amp of amps) u.turn(amp.op.network, Math.exp(theta[k]!));
    if (ok) given.forEach((_, i) => (rows[i]![k] = (out[i]! - base[i]!) / STEP));
  });
  return rows;
}

function normalOf(
  given: readonly Given[],
  unknowns: readonly Unknown[],
  left: ReadonlySet<number>,
  jacobian: number[][],
  values: readonly number[],
  theta: readonly number[],
  prior: readonly number[],
  plain = false,
) {
  const n = unknowns.length;
  const normal = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  const gradient = new Array<number>(n).fill(0);
  given.forEach((g, i) => {
    if (left.has(i)) return;
    const sigma = errorOf(g);
    const r = (g.volts - values[i]!) / sigma;
    const w = plain ? 1 : weight(r);
    for (let a = 0; a < n; a++) {
      const ja = jacobian[i]![a]! / sigma;
      gradient[a]! += w * ja * r;
      for (let b = 0; b < n; b++) normal[a]![b]! += (w * ja * jacobian[i]![b]!) / sigma;
    }
  });
  unknowns.forEach((u, k) => {
    normal[k]![k]! += 1 / u.sigma ** 2;
    gradient[k]! += (prior[k]! - theta[k]!) / u.sigma ** 2;
  });
  return { normal, gradient };
}

function inverse(matrix: number[][]): number[][] {
  const flat = matrix.flat();
  const columns = matrix.map((_, k) =>
    solve(
      flat,
      matrix.map((__, i) => (i === k ? 1 : 0)),
    ),
  );
  return matrix.map((_, i) => columns.map((c) => c[i]!));
}

/** The figure that is farthest from what all others say, where that is far enough to be a misprint. */
function farthest(fit: Fit, given: readonly Given[], left: ReadonlySet<number>): number | undefined {
  let worst: number | undefined;
  let most = MISPRINT;
  given.forEach((g, i) => {
    if (left.has(i)) return;
    const sigma = errorOf(g);
    const j = fit.jacobian[i]!.map((v) => v / sigma);
    // How much of the figure's own variance the fit has taken up.
    const leverage = Math.min(
      0.999,
      j.reduce((sum, a, k) => sum + a * j.reduce((s, b, m) => s + b * fit.covariance[k]![m]!, 0), 0),
    );
    const t = Math.abs(fit.residual[i]!) / Math.sqrt(1 - leverage);
    if (t <= most) return;
    most = t;
    worst = i;
  });
  return worst;
}
