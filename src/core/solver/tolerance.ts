/** What is normal for this circuit: parts and tubes drawn within their tolerances, and how much each of them matters. */

import type { Circuit, Element } from "../circuit/circuit";
import { ascending, deviation, mean, quantileSorted } from "d3-array";
import { normalDraws } from "../numeric/random";
import type { Device } from "./devices";
import { IDLE_SIGMA, idlingAboveSheet, USUAL_IDLE } from "./idle";
import { compile } from "./compile";
import type { Conductor, Network, NetworkOptions } from "./network";
import { newton, solveNewton } from "./newton";
import { workspaceOf } from "./workspace";
import { factorAt, readings, solveOperatingPoint, type OperatingPoint } from "./operating-point";
import * as texts from "../texts/solver";

/** One thing that varies from amp to amp. */
export interface Knob {
  name: string;
  kind: "resistor" | "control" | "tube current" | "amplification factor" | "rectifier" | "mains";
  /** One sigma, relative. */
  sigma: number;
  /** Middle of what is usual, in nominal values; 1 unless given. */
  usual?: number;
  /** Sets it to `factor` times its nominal value. */
  turn(factor: number): void;
  /** What its turning changes: these conductances, or the currents of these devices. */
  conductors?: { siemens: number; part: Conductor }[];
  devices?: Device[];
}

/** Tolerance of a part that names none, and of one that was only assumed: nobody has seen its value. */
const UNMARKED = 0.2;
const ASSUMED = 0.3;
/** One sigma. Tube figures: spread of new tubes about their sheet. */
const TUBE_CURRENT = 0.15;
const AMPLIFICATION = 0.05;
const MAINS = 0.01;
const WINDING = 0.1;

/** The tolerance that a part is taken to have: a fraction, as marked. */
export function toleranceOf(element: Element): number {
  const marked = element.notes.tol ?? UNMARKED;
  return element.notes.prov === "assumed" ? Math.max(marked, ASSUMED) : marked;
}

/**
 * Everything in a network that varies. A uniform spread of ± tolerance has one sigma of tolerance/√3.
 * @param aboveSheet output tubes that idle where their sheet says little.
 */
export function knobsOf(network: Network, aboveSheet: ReadonlySet<string> = new Set()): Knob[] {
  const knobs: Knob[] = [];
  const byName = new Map(network.circuit.elements.map((e) => [e.name, e]));
  const grouped = new Map<string, { siemens: number; part: Network["conductors"][number] }[]>();
  for (const part of network.conductors) {
    const e = byName.get(part.name);
    if (!e || !(e.letter === "R" || e.type === "POT")) continue;
    grouped.set(part.name, [...(grouped.get(part.name) ?? []), { siemens: part.siemens, part }]);
  }
  for (const [name, parts] of grouped) {
    const e = byName.get(name)!;
    knobs.push({
      name,
      kind: e.letter === "R" ? "resistor" : "control",
      sigma: toleranceOf(e) / Math.sqrt(3),
      turn: (factor) => parts.forEach(({ siemens, part }) => (part.siemens = siemens / factor)),
      conductors: parts,
    });
  }
  for (const { element, state, model, device } of network.tubes) {
    const mu = model.mu;
    const { spread } = state;
    const { name } = element;
    const devices = [device];
    knobs.push({
      name,
      kind: "tube current",
      ...(aboveSheet.has(name) ? { sigma: IDLE_SIGMA, usual: USUAL_IDLE } : { sigma: TUBE_CURRENT }),
      turn: (f) => void (state.spread = spread * f),
      devices,
    });
    knobs.push({ name, kind: "amplification factor", sigma: AMPLIFICATION, turn: (f) => void (model.mu = mu * f), devices });
  }
  const peaks = network.rectifiers.map(({ model }) => model.peak);
  network.rectifiers.forEach(({ model, device }) => {
    const { rs, perveance } = model.path;
    knobs.push({
      name: device.name,
      kind: "rectifier",
      sigma: WINDING,
      // A tube's own drop spreads as the winding's does.
      turn: (f) => void Object.assign(model.path, { rs: rs * f, perveance: perveance && perveance / f }),
      devices: [device],
    });
  });
  if (peaks.length > 0)
    knobs.push({
      name: "mains",
      kind: "mains",
      sigma: MAINS,
      turn: (f) => network.rectifiers.forEach(({ model }, i) => (model.peak = peaks[i]! * f)),
      devices: network.rectifiers.map((r) => r.device),
    });
  return knobs;
}

export interface Band {
  /** With every part at its nominal value. */
  nominal: number;
  mean: number;
  sigma: number;
  /** 2.5 % and 97.5 % of the draws. */
  low: number;
  high: number;
}

export interface MonteCarloOptions extends NetworkOptions {
  draws?: number;
  seed?: number;
  meterOhms?: number;
  /** Told how far it is, 0 to 1; answers false to stop. */
  progress?(part: number): boolean;
}

export interface MonteCarloResult {
  op: OperatingPoint;
  /** By point name, as the meter reads it. */
  bands: Map<string, Band>;
  draws: number;
  /** Draws that did not converge; left out of the bands. */
  failed: number;
}

/** Draws every knob at once and reads every point each time. The first solve is the nominal one. */
export function monteCarlo(circuit: Circuit, options: MonteCarloOptions = {}): MonteCarloResult {
  const { draws = 400, seed = 1, meterOhms = 10e6, progress } = options;
  const network = compile(circuit, options);
  const work = workspaceOf(network);
  const op = solveOperatingPoint(network, undefined, work);
  const nominal = readings(op, circuit.points, meterOhms, work);
  const samples = new Map(circuit.points.map((p) => [p.name, [] as number[]]));
  const knobs = knobsOf(network, idlingAboveSheet(op));
  const normal = normalDraws(seed);
  let done = 0;
  let failed = 0;
  for (let draw = 0; draw < draws && op.converged; draw++) {
    // Three sigma at most: beyond it a part would have been rejected before it was fitted.
    for (const knob of knobs) knob.turn((knob.usual ?? 1) * (1 + knob.sigma * Math.max(-3, Math.min(3, normal()))));
    const x = op.x.slice();
    const solved = newton(work, x).converged || solveNewton(work, x).converged;
    if (!solved) failed++;
    else {
      const read = readings({ ...op, x }, circuit.points, meterOhms, work);
      for (const [name, volts] of read) if (Number.isFinite(volts)) samples.get(name)!.push(volts);
    }
    done = draw + 1;
    if (progress && done % 20 === 0 && !progress(done / draws)) break;
  }
  for (const knob of knobs) knob.turn(1);
  const bands = new Map<string, Band>();
  for (const [name, values] of samples) {
    const sorted = values.sort(ascending);
    bands.set(name, {
      nominal: nominal.get(name)!,
      mean: mean(sorted) ?? NaN,
      sigma: deviation(sorted) ?? 0,
      low: quantileSorted(sorted, 0.025) ?? NaN,
      high: quantileSorted(sorted, 0.975) ?? NaN,
    });
  }
  return { op, bands, draws: done, failed };
}

/**
 * How much each node moves for a relative change of each knob, by the adjoint method: one transposed solve a node serves
 * all knobs. dx/dp = −J⁻¹·∂F/∂p. Source: L. O. Chua and P.-M. Lin, "Computer-aided analysis of electronic circuits", 1975.
 * @returns volts per unit relative change: rows in the order of `nodes`, columns in that of `knobs`.
 */
export function sensitivities(
  op: Pick<OperatingPoint, "network" | "x">,
  nodes: readonly string[],
  knobs: readonly Knob[],
  work = workspaceOf(op.network),
): number[][] {
  const { network, x } = op;
  const n = network.size;
  const slopes = knobs.map((knob) => slopeOf(knob, x));
  if (!factorAt(work, x)) throw new RangeError(texts.operatingPointHasNo());
  return nodes.map((node) => {
    const k = network.index.get(node);
    if (k === undefined) return knobs.map(() => 0);
    const adjoint = new Float64Array(n);
    adjoint[k] = 1;
    work.lu.solveTransposed(adjoint);
    return slopes.map((slope) => {
      let sum = 0;
      for (const [row, amps] of slope) sum -= amps * adjoint[row]!;
      return sum;
    });
  });
}

const STEP = 1e-4;

/** ∂F/∂p of a knob at its nominal setting: how much more current leaves each node for a relative change, [row, amperes]. */
function slopeOf(knob: Knob, x: Float64Array): [number, number][] {
  const out: [number, number][] = [];
  const volts = (k: number) => (k < 0 ? 0 : x[k]!);
  for (const { siemens, part } of knob.conductors ?? []) {
    // A resistance that grows lets less through: d(g/f)/df = −g at f = 1.
    const amps = -siemens * (volts(part.a) - volts(part.b));
    if (part.a >= 0) out.push([part.a, amps]);
    if (part.b >= 0) out.push([part.b, -amps]);
  }
  const i = new Float64Array(4);
  const g = new Float64Array(16);
  for (const device of knob.devices ?? []) {
    const v = Float64Array.from(device.at, volts);
    knob.turn(1 + STEP);
    device.evaluate(v, i, g);
    const up = i.slice();
    knob.turn(1 - STEP);
    device.evaluate(v, i, g);
    knob.turn(1);
    device.at.forEach((row, k) => row >= 0 && out.push([row, (up[k]! - i[k]!) / (2 * STEP)]));
  }
  return out;
}
