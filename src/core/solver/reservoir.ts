/**
 * Rectifiers with a reservoir too small to hold their voltage steady, or none: the averaged law is corrected so that it gives what the
 * real pulses give. Their pulses are found against the impedance of the rest of the amp; where the rail swings too far for the amp to be
 * taken as linear, or where two diodes drive one capacitor from the winding, by stepping the whole amp through its period.
 */

import { averageCurrent, pulsesAlike } from "../supply/rectifier";
import { capacitorImpedances, multiplesOf, pulseTrain, type Impedances, type PulseTrain } from "../supply/pulse-train";
import type { Network, RectifierPart } from "./network";
import { newton, solveNewton, type Workspace } from "./newton";
import { periodicMean } from "./periodic";
import { portImpedances } from "./port-impedance";
import * as texts from "../texts/solver";

/** ωCR, times the pulses of a period, from which the averaged law is good to a fifth of a percent and nothing is corrected. */
const STEADY = 200;
/** From here on a capacitor straight across the rectifier is all that the ripple sees. */
const CAPACITOR_ALONE = 60;
/** A rail that swings by more than this part of its average is no small disturbance to the tubes on it. */
const LARGE_SWING = 0.45;
/** Part of the winding's peak to which a correction is brought. */
const RELTOL = 2e-4;
const MOST_PASSES = 12;

export interface Corrected {
  converged: boolean;
  iterations: number;
  /** One sentence for each rectifier whose small reservoir could not be reckoned with: its rail is that of a large one. */
  doubts: string[];
}

/** Takes all corrections back: the averaged law as it is. */
export function uncorrect(network: Network): void {
  network.offset = undefined;
  for (const { correction } of network.rectifiers) Object.assign(correction, { shift: 0, amps: undefined, farads: undefined });
}

/** Current may differ by this part from a case that is known, for its correction to be carried over with the square of the current. */
const ALIKE = 0.12;

/** The correction of a known, nearly equal case: the same rectifier, its capacitor, and about its current. */
function carriedOver(part: RectifierPart, amps: number, farads: number, known: readonly RectifierPart[]): number | undefined {
  const like = known.find((k) => k.device.name === part.device.name);
  const from = like?.correction;
  if (!like || from?.amps === undefined || from.farads !== farads || Math.abs(amps / from.amps - 1) > ALIKE) return undefined;
  if (JSON.stringify(like.model) !== JSON.stringify(part.model)) return undefined;
  return from.shift * (amps / from.amps) ** 2;
}

/**
 * Corrects every rectifier that needs it and solves again, to and fro; `x` is overwritten.
 * @param known rectifiers of an amp solved before that differs in little: where a case is nearly one of theirs, theirs is taken.
 */
export function correctRectifiers(network: Network, work: Workspace, x: Float64Array, known: readonly RectifierPart[] = []): Corrected {
  let iterations = 0;
  const large: RectifierPart[] = network.rectifiers.filter((p) => p.cascade && p.model.pulses > 0);
  // From pass to pass the pulses change little: the next search begins at the last answer.
  const last = new Map<RectifierPart, PulseTrain>();
  for (let pass = 0; pass < MOST_PASSES; pass++) {
    let moved = 0;
    for (const part of network.rectifiers) {
      if (large.includes(part)) continue;
      const { amps, farads } = caseOf(network, part, x);
      const same = carriedOver(part, amps, farads, known);
      if (same !== undefined) {
        moved = Math.max(moved, Math.abs(same - part.correction.shift) / part.model.peak);
        part.correction.shift = same;
        continue;
      }
      const train = trainOf(network, work, part, x, { from: last.get(part) });
      if (train === undefined) continue;
      if (train !== "none found") last.set(part, train);
      if (train === "none found" || swing(train) > LARGE_SWING * train.volts) {
        large.push(part);
        continue;
      }
      // The averaged law gives the current at volts + shift; the pulses give it at their own average.
      const next = voltsAcross(part, x) + part.correction.shift - train.volts;
      const change = Math.abs(next - part.correction.shift) / part.model.peak;
      // What is already right is left alone: the answer in hand belongs to it.
      if (change > RELTOL) part.correction.shift = next;
      Object.assign(part.correction, { amps, farads });
      moved = Math.max(moved, change);
    }
    if (moved <= RELTOL) break;
    const solved = settle(work, x);
    iterations += solved.iterations;
    if (!solved.converged) return { converged: false, iterations, doubts: [] };
  }
  if (large.length === 0) return { converged: true, iterations, doubts: [] };
  const mean = periodicMean(network, work, large, x);
  if (!mean)
    return {
      converged: true,
      iterations,
      doubts: large.map((p) => texts.noPeriodicAnswerWas(p.element.name)),
    };
  adopt(network, work, large, mean, x);
  const solved = settle(work, x);
  return { converged: solved.converged, iterations: iterations + solved.iterations, doubts: [] };
}

/**
 * Makes the averaged solve give the averages of the stepped period: each rectifier passes at its average voltage what the rest of the amp
 * takes there, and what the averages of curved currents differ from the currents at the averages goes to the right-hand side.
 */
function adopt(network: Network, work: Workspace, parts: readonly RectifierPart[], mean: Float64Array, x: Float64Array): void {
  for (const part of parts) part.correction.shift += voltsAcross(part, x) - voltsAcross(part, mean);
  work.assemble();
  const n = network.size;
  const residual = new Float64Array(n);
  work.addCurrents(mean, residual);
  for (let r = 0; r < n; r++) {
    residual[r]! -= work.rhs[r]!;
    for (let c = 0; c < n; c++) residual[r]! += work.linear[r * n + c]! * mean[c]!;
  }
  network.offset = residual;
  x.set(mean);
}

/** Newton from where the amp stands; with all its aids where that fails. */
function settle(work: Workspace, x: Float64Array): { converged: boolean; iterations: number } {
  const before = x.slice();
  const direct = newton(work, x);
  if (direct.converged) return direct;
  x.set(before);
  const aided = solveNewton(work, x);
  return { converged: aided.converged, iterations: direct.iterations + aided.iterations };
}

const voltsAcross = (part: RectifierPart, x: Float64Array) => (part.a < 0 ? 0 : x[part.a]!) - (part.b < 0 ? 0 : x[part.b]!);

/** Average current of a rectifier now, and the capacitance straight across it. */
function caseOf(network: Network, part: RectifierPart, x: Float64Array): { amps: number; farads: number } {
  const out = new Float64Array(2);
  averageCurrent(part.model, voltsAcross(part, x) + part.correction.shift, out);
  const farads = network.capacitors
    .filter((c) => (c.a === part.a && c.b === part.b) || (c.a === part.b && c.b === part.a))
    .reduce((sum, c) => sum + c.farads, 0);
  return { amps: out[0]!, farads };
}

function swing(train: PulseTrain): number {
  let [low, high] = [Infinity, -Infinity];
  for (const v of train.course) [low, high] = [Math.min(low, v), Math.max(high, v)];
  return high - low;
}

/** Microamperes leave any capacitor full; a short has no ripple to speak of. */
const LEAST_AMPS = 2e-5;
const LEAST_PART = 0.02;

/**
 * The rectifier's pulses at this operating point. @param options `always`: also where the averaged law is good as it is; `from`: pulses
 * of a like case, to begin the search from.
 * @returns undefined where it carries next to nothing or needs no correction.
 */
export function trainOf(
  network: Network,
  work: Workspace,
  part: RectifierPart,
  x: Float64Array,
  { always = false, from }: { always?: boolean; from?: PulseTrain } = {},
): PulseTrain | undefined | "none found" {
  const { model } = part;
  const volts = voltsAcross(part, x);
  const { amps, farads } = caseOf(network, part, x);
  if (model.pulses === 0 || model.through || amps < (always ? 1e-6 : LEAST_AMPS) || volts < LEAST_PART * model.peak) return undefined;
  const hertz = network.hertz * pulsesAlike(model);
  const multiples = multiplesOf(model);
  const steady = (c: number) => (2 * Math.PI * hertz * c * volts) / amps;
  if (steady(farads) > STEADY && !always) return undefined;
  const found = (z: Impedances) => (from && pulseTrain(model, amps, z, from)) ?? pulseTrain(model, amps, z, volts) ?? "none found";
  if (steady(farads) > CAPACITOR_ALONE) return found(capacitorImpedances(farads, hertz, multiples));
  const z = portImpedances(network, work, part, x, hertz, multiples);
  if (!z) return "none found";
  // Capacitors in series, or behind a small resistance, hold the rail as well.
  const [re, im] = [z.re[0]!, z.im[0]!];
  if (!always && im < 0 && steady(-im / (re * re + im * im) / (2 * Math.PI * hertz)) > STEADY) return undefined;
  return found(z);
}
