/**
 * Fits the unknowns of a model to figures that are known to be right: least squares with priors in the logarithms of the factors
 * (Gauss-Newton, damped after Levenberg and Marquardt), figures that stand apart from all others left out as misprints.
 * Source: J. Nocedal and S. J. Wright, "Numerical Optimization", 2006, chapter 10; deletion of single figures by their studentised
 * residual: R. D. Cook and S. Weisberg, "Residuals and Influence in Regression", 1982.
 */

import type { Circuit } from "../circuit/circuit";
import { formatVolts } from "../quantity/format";
import * as texts from "../texts/settle";
import { Amp, computed } from "./amp-at-mains";
import { farthest, fitTo } from "./fit";
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

/** Part of all figures that may be misprints. */
const MOST_MISPRINTS = 0.18;
/** Root mean square of the residuals in sigmas, misprints left out, above which it is another circuit. */
const OTHER_CIRCUIT = 3;
/** A chart's mains over the amp's: beyond it is for another country's amp, or an amp on a variable transformer that nothing is right in. */
const MAINS_APART = [0.7, 1.3] as const;
/** An unknown whose uncertainty is still this part of the prior's was not determined. */
const STILL_UNKNOWN = 0.8;

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
  const determined = unknowns.filter((u, k) => u.measured === true || Math.sqrt(fit.covariance[k]![k]!) < STILL_UNKNOWN * u.sigma);
  const undetermined = unknowns.filter((u) => !determined.includes(u));
  // What was not determined stands as the file has it; the rest is fitted once more to that.
  for (const u of undetermined) for (const amp of amps) u.turn(amp.op.network, 1);
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
  return at ? { ...u, usual: Math.min(u.most, Math.max(u.least, at.value / u.before)), sigma: 0.015, measured: true } : u;
}
