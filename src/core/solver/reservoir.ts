/**
 * Rectifiers with a reservoir too small to hold their voltage steady, or none: the averaged law is corrected by the periodic
 * steady state of the real pulses into what the rest of the amp looks like at the ripple's frequency.
 */

import { ComplexLu } from "../numeric/lu";
import { instantCurrent, averageCurrent, type RectifierModel } from "../supply/rectifier";
import { assembleStorage, type Network, type RectifierPart } from "./network";
import { newton, type Workspace } from "./newton";

/** ωCR from which the averaged law is good to 1 %. */
const STEADY = 30;
const STEPS = 240;
/** What wiring and windings leave where there is no capacitor at all. */
const STRAY_FARADS = 2e-9;

/** Corrects every rectifier that needs it and solves again, to and fro; `x` is overwritten. */
export function correctRectifiers(network: Network, work: Workspace, x: Float64Array): { converged: boolean; rounds: number } {
  let rounds = 0;
  for (const part of network.rectifiers) part.correction.shift = 0;
  const small = network.rectifiers.filter((part) => needsCorrection(network, work, part, x));
  for (let pass = 0; pass < 12 && small.length > 0; pass++) {
    let moved = 0;
    for (const part of small) {
      const next = shiftOf(network, work, part, x);
      if (next === undefined) continue;
      const change = Math.abs(next - part.correction.shift) / part.model.peak;
      // What is already right is left alone: the answer in hand belongs to it.
      if (change > 2e-4) part.correction.shift = next;
      moved = Math.max(moved, change);
    }
    if (moved <= 2e-4) break;
    const solved = newton(work, x);
    rounds += solved.rounds;
    if (!solved.converged) return { converged: false, rounds };
  }
  return { converged: true, rounds };
}

function voltsAcross(part: RectifierPart, x: Float64Array): number {
  return (part.a < 0 ? 0 : x[part.a]!) - (part.b < 0 ? 0 : x[part.b]!);
}

/** Farads straight across the rectifier, and the average current it gives now. */
function needsCorrection(network: Network, work: Workspace, part: RectifierPart, x: Float64Array): boolean {
  if (part.model.pulses === 0 || part.model.type === "DOUBLER") return false;
  const volts = voltsAcross(part, x);
  const out = new Float64Array(2);
  averageCurrent(part.model, volts + part.correction.shift, out);
  const amps = out[0]!;
  // Microamperes leave any capacitor full; a short has no ripple to speak of.
  if (amps < 2e-5 || volts < 0.02 * part.model.peak) return false;
  const farads = network.capacitors
    .filter((c) => (c.a === part.a && c.b === part.b) || (c.a === part.b && c.b === part.a))
    .reduce((sum, c) => sum + c.farads, 0);
  const steady = STEADY / (2 * Math.PI * network.hertz * (volts / amps));
  if (farads >= steady) return false;
  // Capacitors in series, or behind a small resistance, hold the rail as well.
  const ripple = network.hertz * part.model.pulses;
  const seen = admittanceAcross(network, work, part, x, ripple);
  if (!seen) return false;
  return seen[1] / (2 * Math.PI * ripple) < steady;
}

/** Admittance of everything but the rectifier between its terminals at the ripple's frequency: siemens, real and imaginary. */
export function admittanceAcross(
  network: Network,
  work: Workspace,
  part: RectifierPart,
  x: Float64Array,
  hertz: number,
): [number, number] | undefined {
  const n = network.size;
  work.assemble();
  work.lu.a.set(work.linear);
  work.b.fill(0);
  work.stamp(x, false);
  const lu = new ComplexLu(n);
  const { re, im } = lu;
  re.set(work.lu.a);
  const out = new Float64Array(2);
  averageCurrent(part.model, voltsAcross(part, x) + part.correction.shift, out);
  const own = -out[1]!;
  for (const [r, c, sign] of [
    [part.a, part.a, 1],
    [part.b, part.b, 1],
    [part.a, part.b, -1],
    [part.b, part.a, -1],
  ] as const)
    if (r >= 0 && c >= 0) re[r * n + c]! -= sign * own;
  assembleStorage(network, im);
  const w = 2 * Math.PI * hertz;
  for (let k = 0; k < im.length; k++) im[k]! *= w;
  const bRe = new Float64Array(n);
  const bIm = new Float64Array(n);
  if (part.a >= 0) bRe[part.a] = 1;
  if (part.b >= 0) bRe[part.b] = -1;
  // A network without an answer here is left to the averaged law: no correction is better than one made up.
  if (lu.solve(bRe, bIm) >= 0) return undefined;
  const zr = (part.a >= 0 ? bRe[part.a]! : 0) - (part.b >= 0 ? bRe[part.b]! : 0);
  const zi = (part.a >= 0 ? bIm[part.a]! : 0) - (part.b >= 0 ? bIm[part.b]! : 0);
  const size = zr * zr + zi * zi;
  return size > 0 ? [zr / size, -zi / size] : undefined;
}

/** Volts that must be added to the rail in the averaged law so that it passes what the real pulses pass. */
function shiftOf(network: Network, work: Workspace, part: RectifierPart, x: Float64Array): number | undefined {
  const volts = voltsAcross(part, x);
  const out = new Float64Array(2);
  averageCurrent(part.model, volts + part.correction.shift, out);
  const amps = out[0]!;
  const ripple = network.hertz * part.model.pulses;
  const seen = admittanceAcross(network, work, part, x, ripple);
  if (!seen) return undefined;
  const [siemens, susceptance] = seen;
  const w = 2 * Math.PI * ripple;
  const g = Math.max(0, siemens);
  const steady =
    susceptance < 0
      ? chokeInputVolts(part.model, amps, -1 / (w * susceptance), g, network.hertz)
      : steadyVolts(part.model, amps, Math.max(susceptance / w, STRAY_FARADS), g, network.hertz, volts);
  if (steady === undefined) return undefined;
  // The averaged law gives `amps` at volts + shift; the pulses give it at `steady`.
  return volts + part.correction.shift - steady;
}

/**
 * Average voltage of a reservoir that the real rectifier charges and that `amps` (average) leave, with `siemens` to the
 * ripple: periodic steady state by shooting. @param about a first guess of it. @returns undefined when no periodic answer was found.
 */
export function steadyVolts(
  model: RectifierModel,
  amps: number,
  farads: number,
  siemens: number,
  hertz: number,
  about: number,
): number | undefined {
  return steadyPulse(model, amps, farads, siemens, hertz, about)?.volts;
}

/** The same with the rectifier's current over one period of the ripple, in equal steps. */
export function steadyPulse(
  model: RectifierModel,
  amps: number,
  farads: number,
  siemens: number,
  hertz: number,
  about: number,
): { volts: number; current: Float64Array } | undefined {
  const current = new Float64Array(STEPS);
  const period = 1 / (hertz * Math.max(1, model.pulses));
  const angle = (2 * Math.PI) / Math.max(1, model.pulses);
  const h = period / STEPS;
  const out = new Float64Array(2);
  /** One period from `v0` about `centre`: end voltage and average. */
  const run = (v0: number, centre: number) => {
    let v = v0;
    let sum = 0;
    for (let k = 1; k <= STEPS; k++) {
      const phase = (angle * k) / STEPS - angle / 2;
      const before = v;
      // Backward Euler: a pulse may begin or end within any step, and the smallest reservoirs are stiff.
      for (let round = 0; round < 12; round++) {
        instantCurrent(model, phase, v, out);
        const f = (farads * (v - before)) / h - out[0]! + amps + siemens * (v - centre);
        const step = f / (farads / h - out[1]! + siemens);
        v -= step;
        if (Math.abs(step) < 1e-6) break;
      }
      sum += v;
      current[k - 1] = out[0]!;
    }
    return { end: v, average: sum / STEPS };
  };
  let centre = about;
  let v0 = about;
  /** Settles v0 for this centre and gives the average's distance from it. */
  const miss = () => {
    let average = centre;
    for (let inner = 0; inner < 30; inner++) {
      const here = run(v0, centre);
      average = here.average;
      const over = here.end - v0;
      if (Math.abs(over) < 1e-5 * model.peak) break;
      const d = 1e-3 * model.peak;
      const slope = (run(v0 + d, centre).end - (v0 + d) - over) / d;
      const step = slope < -1e-9 ? over / slope : -over;
      v0 -= Math.max(-0.5 * model.peak, Math.min(0.5 * model.peak, step));
    }
    return average - centre;
  };
  // The load's pull on the ripple must be about the average itself: a secant search for where it is.
  let before = centre;
  let missBefore = miss();
  centre += missBefore;
  for (let outer = 0; outer < 30; outer++) {
    const missNow = miss();
    if (Math.abs(missNow) < 5e-5 * model.peak) return { volts: centre + missNow, current };
    const slope = (missNow - missBefore) / (centre - before);
    const step = Number.isFinite(slope) && slope < -1e-6 ? -missNow / slope : missNow;
    before = centre;
    missBefore = missNow;
    centre += Math.max(-0.3 * model.peak, Math.min(0.3 * model.peak, step));
  }
  return undefined;
}

/** Periods that the choke's current is given to settle, and by how much it may still move then, relative to the load's. */
const MOST_PERIODS = 400;
const CALM = 1e-5;

/**
 * The same where the rest of the amp is a choke to the ripple: with little current the choke lifts the rail between the pulses.
 * L·dj/dt = v − centre, j being what the choke carries beyond its share of `amps`; the centre is right when j is zero on average.
 */
function chokeInputVolts(model: RectifierModel, amps: number, henries: number, siemens: number, hertz: number): number | undefined {
  const pulses = Math.max(1, model.pulses);
  const angle = (2 * Math.PI) / pulses;
  const h = 1 / (hertz * pulses * STEPS);
  const out = new Float64Array(2);
  let v = 0.7 * model.peak;
  let j = 0;
  const meanOfChoke = (centre: number): number => {
    let mean = 0;
    for (let period = 0; period < MOST_PERIODS; period++) {
      const start = j;
      let sum = 0;
      for (let k = 1; k <= STEPS; k++) {
        const phase = (angle * k) / STEPS - angle / 2;
        const [vBefore, jBefore] = [v, j];
        for (let round = 0; round < 20; round++) {
          instantCurrent(model, phase, v, out);
          const choke = jBefore + (h / henries) * (v - centre);
          const f = (STRAY_FARADS * (v - vBefore)) / h - out[0]! + amps + choke + siemens * (v - centre);
          const step = f / (STRAY_FARADS / h - out[1]! + siemens + h / henries);
          v -= step;
          if (Math.abs(step) < 1e-6) break;
        }
        j = jBefore + (h / henries) * (v - centre);
        sum += j;
      }
      mean = sum / STEPS;
      if (Math.abs(j - start) < CALM * amps) break;
    }
    return mean;
  };
  // The higher the centre, the less the choke carries: bisection between rails that no supply leaves.
  let low = 0.3 * model.peak;
  let high = model.peak;
  if (meanOfChoke(low) < 0 || meanOfChoke(high) > 0) return undefined;
  for (let step = 0; step < 30 && high - low > 5e-5 * model.peak; step++) {
    const middle = (low + high) / 2;
    if (meanOfChoke(middle) > 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
