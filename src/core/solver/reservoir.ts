/**
 * Rectifiers with a reservoir too small to hold their voltage steady, or none: the averaged law is corrected so that it gives what the
 * real pulses give. Their pulses are found against the impedance of the rest of the amp; where the rail swings too far for the amp to be
 * taken as linear, or where two diodes drive one capacitor from the winding, by stepping the whole amp through its period.
 */

import { supplyCurve, supplyPoint, type SupplyPoint } from "../supply/supply-curve";
import type { Network, RectifierPart } from "./network";
import { newton, solveNewton } from "./newton";
import type { Workspace } from "./workspace";
import { periodicMean } from "./periodic";
import { curveAtRest } from "./port-at-rest";
import type { Port } from "./port-impedance";
import { caseOf, heldSteady, impulseOfCase, portOfRipple, trainOfCase, voltsAcross, type SupplyCase } from "./pulses";
import * as texts from "../texts/solver";

/** A rail that swings by more than this part of its average is no small disturbance to the tubes on it. */
const LARGE_SWING = 0.45;
/** Part of the winding's peak to which a correction is brought. */
const RELTOL = 2e-5;
/** What is still moving by more than this part when the passes are over is a doubt. */
const ROUGHLY = 2e-4;
const MOST_PASSES = 12;
/** Passes in which a correction may be taken back again. */
const TAKEN_BACK = 4;

export interface Corrected {
  converged: boolean;
  iterations: number;
  /** One sentence for each rectifier whose small reservoir could not be reckoned with (its rail is that of a large one), and for passes that did not end. */
  doubts: string[];
}

/**
 * Begins anew: the averaged law as it is, or shifted as it was in a like amp, which is nearer to the answer. @param known its rectifiers
 */
export function beginCorrections(network: Network, known: readonly RectifierPart[] = []): void {
  network.offset = undefined;
  for (const { correction, device, model } of network.rectifiers) {
    const like = network.supply === "averaged" ? known.find((k) => k.device.name === device.name) : undefined;
    correction.shift = like ? (like.correction.shift * model.peak) / like.model.peak : 0;
    correction.solved = undefined;
  }
}

/** Part of the current by which nothing of the pulses moves. */
const SAME_AMPS = 1e-5;

/**
 * Corrects every rectifier that needs it and solves again, to and fro; `x` is overwritten.
 * @param known rectifiers of an amp solved before that differs in little: the searches begin with theirs.
 */
export function correctRectifiers(network: Network, work: Workspace, x: Float64Array, known: readonly RectifierPart[] = []): Corrected {
  let iterations = 0;
  const large: RectifierPart[] = network.rectifiers.filter((p) => p.cascade && p.model.pulses > 0);
  /** Pulses of a like case, to begin a search from. */
  const startOf = (part: RectifierPart) =>
    (part.correction.solved ?? known.find((k) => k.device.name === part.device.name)?.correction.solved)?.train;
  /** What the pulses leave on average, and how far they swing; undefined where none were found. */
  const pulsesOf = (part: RectifierPart, stands: SupplyCase, port?: Port, ohms?: [number, number]): SupplyPoint | undefined => {
    const { amps, farads } = stands;
    const curve =
      ohms && known.length === 0
        ? curveAtRest(network.circuit, part, ohms)
        : supplyCurve(part.model, { farads, hertz: network.hertz, ohms }, network, () => impulseOfCase(network, part, stands, port));
    const drawn = curve?.at(amps);
    if (drawn) return drawn;
    const own = part.correction.solved;
    if (own && Math.abs(amps / own.amps - 1) < SAME_AMPS) return supplyPoint(own.train);
    const impulse = impulseOfCase(network, part, stands, port);
    // From pass to pass the pulses change little: the search begins at the last answer.
    const train = impulse && trainOfCase(part, stands, impulse, startOf(part));
    if (!train) return undefined;
    part.correction.solved = { amps, train };
    return supplyPoint(train);
  };
  let moved = 0;
  for (let pass = 0; pass < MOST_PASSES; pass++) {
    moved = 0;
    const turn = (part: RectifierPart, shift: number) => {
      const change = Math.abs(shift - part.correction.shift) / part.model.peak;
      // What is already right is left alone: the answer in hand belongs to it.
      if (change > RELTOL) part.correction.shift = shift;
      moved = Math.max(moved, change);
    };
    for (const part of network.rectifiers) {
      if (large.includes(part)) continue;
      const stands = caseOf(network, part, x);
      const port = stands?.sees === "amp" ? portOfRipple(network, work, part, x) : undefined;
      const ohms = port?.(1);
      if (!stands || (ohms && heldSteady(network, part, stands, ohms))) {
        // What a like amp needed this one does not. A correction that takes away its own ground to and fro is left as it stands in the end.
        if (pass < TAKEN_BACK) turn(part, 0);
        continue;
      }
      const pulses = pulsesOf(part, stands, port, ohms);
      // The averaged law gives the current at volts + shift; the pulses give it at their own average.
      if (pulses && pulses.swing <= LARGE_SWING) turn(part, stands.volts + part.correction.shift - pulses.volts);
      else large.push(part);
    }
    if (moved <= RELTOL) break;
    const again = settle(work, x);
    iterations += again.iterations;
    if (!again.converged) return { converged: false, iterations, doubts: [] };
  }
  // Pulses are solved in steps: a correction may end going to and fro between two of them.
  const unsettled = moved > ROUGHLY ? [texts.supplyNotSettled((100 * moved).toPrecision(2))] : [];
  if (large.length === 0) return { converged: true, iterations, doubts: unsettled };
  const mean = periodicMean(network, work, large, x);
  if (!mean)
    return {
      converged: true,
      iterations,
      doubts: [...unsettled, ...large.map((p) => texts.noPeriodicAnswerWas(p.element.name))],
    };
  adopt(network, work, large, mean, x);
  const last = settle(work, x);
  return { converged: last.converged, iterations: iterations + last.iterations, doubts: unsettled };
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
