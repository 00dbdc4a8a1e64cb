/**
 * What the amp does in time: TR-BDF2 with a step that follows the error.
 * Source: R. E. Bank, W. M. Coughran et al., "Transient simulation of silicon devices and circuits", IEEE Trans. ED-32, 1985.
 */

import { Lu } from "../numeric/lu";
import { assembleStorage, type Network } from "./network";
import { workspaceOf } from "./workspace";
import * as texts from "../texts/solver";

export interface Drive {
  /** Unknown number of the node that an ideal source drives through a capacitor without reactance. */
  node: number;
  /** Volts added to the node's resting voltage at `t` seconds. */
  volts(t: number): number;
  /** Seconds at which `volts` jumps, in order: the step ends there and begins anew. */
  breaks?: number[];
}

export interface TransientOptions {
  /** Unknowns at time zero: an operating point, or zeros for switch-on. */
  start: Float64Array;
  /** Seconds. */
  stop: number;
  drive?: Drive;
  /** Relative error a step may make; 1e-3 unless given. */
  tolerance?: number;
  /** Longest step, seconds. */
  mostStep?: number;
  /**
   * Steps no longer than this are taken whatever their error, so that a mode far faster than what is watched is damped and not followed;
   * a 20,000th of the whole unless given, of a mains period half that where the supply pulses.
   */
  leastStep?: number;
  /** Unknowns whose course is kept. */
  keep: number[];
  /** Told how far it is, 0 to 1, now and then; answers false to stop. */
  progress?(part: number): boolean;
}

export interface TransientResult {
  t: number[];
  /** One course per kept unknown. */
  v: number[][];
  /** All unknowns at the end. */
  end: Float64Array;
  steps: number;
  /** Step trials whose error or Newton failed. */
  rejected: number;
  /** False when stopped before its time. */
  finished: boolean;
}

/** A step shrank to nothing: names the node that would not follow. */
export class TransientError extends Error {
  constructor(
    readonly node: string,
    readonly seconds: number,
  ) {
    super(texts.transientDoesNotSettle(seconds.toPrecision(4), node));
  }
}

const GAMMA = 2 - Math.SQRT2;
const K = (-3 * GAMMA * GAMMA + 4 * GAMMA - 2) / (12 * (2 - GAMMA));
const VNTOL = 1e-4;
const MOST_ITERATIONS = 12;

/** Runs the network from `start`. The averaged supply is taken unless the network was compiled with a pulsed one. */
export function transient(network: Network, options: TransientOptions): TransientResult {
  const n = network.size;
  const nodes = network.nodes.length;
  const { stop, drive, keep, tolerance = 1e-3 } = options;
  const pulsed = network.supply === "pulsed" && network.rectifiers.length > 0;
  const mostStep = Math.min(options.mostStep ?? stop / 50, pulsed ? 1 / network.hertz / 100 : Infinity);
  const leastStep = options.leastStep ?? Math.min(stop / 20_000, pulsed ? 1 / network.hertz / 10_000 : Infinity);
  const work = workspaceOf(network);
  const storage = new Float64Array(n * n);
  assembleStorage(network, storage);
  // Entries that are not zero, listed once: most are.
  const stored: [number, number, number][] = [];
  for (let r = 0; r < n; r++) for (let c = 0; c < n; c++) if (storage[r * n + c]) stored.push([r, c, storage[r * n + c]!]);
  const dynamic = new Uint8Array(n);
  for (const [r] of stored) dynamic[r] = 1;
  work.assemble();
  const { linear, rhs } = work;
  const lu: Lu = work.lu;
  const base = new Float64Array(n * n);
  let baseStep = -1;

  const x = options.start.slice();
  const rest = drive ? x[drive.node]! : 0;
  const setClock = (t: number) => {
    if (pulsed) network.clock.phase = 2 * Math.PI * network.hertz * t - Math.PI / 2;
  };
  /** Row of F(x) = G·x + i(x) − s: out[r] is minus what M·dx/dt must be. */
  const residual = (at: Float64Array, t: number, out: Float64Array) => {
    setClock(t);
    for (let r = 0; r < n; r++) {
      let sum = -rhs[r]!;
      const row = r * n;
      for (let c = 0; c < n; c++) {
        const entry = linear[row + c]!;
        if (entry !== 0) sum += entry * at[c]!;
      }
      out[r] = sum;
    }
    work.addCurrents(at, out);
    if (drive) out[drive.node] = at[drive.node]! - rest - drive.volts(t);
  };

  /** Solves M·(y − known)/(half) + F(y) = −carry for one stage; false when Newton did not end. */
  const known = new Float64Array(n);
  const carry = new Float64Array(n);
  let stuck = 0;
  const solveStage = (y: Float64Array, t: number, half: number): boolean => {
    setClock(t);
    if (baseStep !== half) {
      base.set(linear);
      for (const [r, c, value] of stored) base[r * n + c]! += value / half;
      baseStep = half;
    }
    const b = work.b;
    work.hold(y);
    for (let iteration = 0; iteration < MOST_ITERATIONS; iteration++) {
      lu.a.set(base);
      for (let r = 0; r < n; r++) b[r] = rhs[r]! - carry[r]!;
      for (const [r, c, value] of stored) b[r]! += (value / half) * known[c]!;
      const heldBack = work.stamp(y, true);
      if (drive) {
        lu.a.fill(0, drive.node * n, drive.node * n + n);
        lu.a[drive.node * n + drive.node] = 1;
        b[drive.node] = rest + drive.volts(t);
      }
      if (lu.factor() >= 0) return false;
      lu.solve(b);
      let worst = 0;
      for (let k = 0; k < n; k++) {
        const change = Math.abs(b[k]! - y[k]!) / (k < nodes ? 1e-5 + 1e-6 * Math.abs(b[k]!) : 1e-7 + 1e-6 * Math.abs(b[k]!));
        if (!(change <= worst)) {
          worst = change;
          stuck = k;
        }
        y[k] = b[k]!;
      }
      if (!Number.isFinite(worst)) return false;
      if (worst <= 1 && !heldBack) return true;
    }
    return false;
  };

  const result: TransientResult = { t: [0], v: keep.map((k) => [x[k]!]), end: options.start, steps: 0, rejected: 0, finished: true };
  const breaks = [...(drive?.breaks ?? []), stop].filter((t) => t > 0);
  let nextBreak = 0;
  let t = 0;
  let h = Math.min(mostStep, stop / 1000);
  let restart = true;
  const f0 = new Float64Array(n);
  const f1 = new Float64Array(n);
  const f2 = new Float64Array(n);
  const x1 = new Float64Array(n);
  const x2 = new Float64Array(n);
  const correction = new Float64Array(n);
  let sinceProgress = 0;

  while (t < stop * (1 - 1e-12)) {
    while (breaks[nextBreak]! <= t * (1 + 1e-12)) nextBreak++;
    const room = breaks[nextBreak]! - t;
    if (h > room * 0.999) h = room;
    const half = (GAMMA * h) / 2;
    let ok: boolean;
    if (restart) {
      // After a jump the old slope means nothing: one backward Euler step, short enough not to be seen.
      h = Math.min(h, Math.max(room * 1e-3, 1e-9));
      known.set(x);
      carry.fill(0);
      x2.set(x);
      ok = solveStage(x2, t + h, h);
    } else {
      residual(x, t, f0);
      for (let r = 0; r < n; r++) carry[r] = dynamic[r] ? f0[r]! : 0;
      known.set(x);
      x1.set(x);
      ok = solveStage(x1, t + GAMMA * h, half);
      if (ok) {
        const a = 1 / (GAMMA * (2 - GAMMA));
        const c = (1 - GAMMA) ** 2 / (GAMMA * (2 - GAMMA));
        for (let k = 0; k < n; k++) known[k] = a * x1[k]! - c * x[k]!;
        carry.fill(0);
        for (let k = 0; k < n; k++) x2[k] = x1[k]! + ((x1[k]! - x[k]!) * (1 - GAMMA)) / GAMMA;
        ok = solveStage(x2, t + h, half);
      }
    }
    let error = 0;
    if (ok && !restart) {
      residual(x1, t + GAMMA * h, f1);
      residual(x2, t + h, f2);
      // M·error = 2K·h·(F0/γ − F1/(γ(1−γ)) + F2/(1−γ)), filtered through the step's own matrix.
      const b = work.b;
      for (let r = 0; r < n; r++)
        b[r] = dynamic[r] ? (2 * K * h * (f0[r]! / GAMMA - f1[r]! / (GAMMA * (1 - GAMMA)) + f2[r]! / (1 - GAMMA))) / half : 0;
      if (drive) b[drive.node] = 0;
      lu.solve(b);
      for (let k = 0; k < nodes; k++) {
        const e = Math.abs(b[k]!) / (VNTOL + tolerance * Math.max(Math.abs(x[k]! - options.start[k]!), Math.abs(x2[k]!) * 0.1));
        if (e > error) {
          error = e;
          stuck = k;
        }
      }
    }
    if (!ok || (error > 1 && h > leastStep)) {
      result.rejected++;
      h = ok ? Math.max(leastStep, h * Math.max(0.2, 0.9 * error ** (-1 / 3))) : h * 0.25;
      if (h < 1e-13 * Math.max(stop, 1e-3)) throw new TransientError(network.nodes[stuck] ?? texts.ofAWinding(), t);
      continue;
    }
    t = h === room ? breaks[nextBreak]! : t + h;
    if (restart) x.set(x2);
    else {
      // The estimate is good enough to be taken off, once it has been filtered again: stiff parts would swing on it.
      correction.fill(0);
      for (const [r, c, value] of stored) correction[r]! += (value / half) * work.b[c]!;
      if (drive) correction[drive.node] = 0;
      lu.solve(correction);
      for (let k = 0; k < n; k++) x[k] = x2[k]! - correction[k]!;
    }
    result.steps++;
    result.t.push(t);
    keep.forEach((k, i) => result.v[i]!.push(x[k]!));
    const grow = restart ? 4 : Math.min(3, 0.9 * Math.max(error, 1e-6) ** (-1 / 3));
    restart = h === room && nextBreak < breaks.length - 1;
    h = Math.min(mostStep, h * grow);
    if (options.progress && ++sinceProgress >= 50) {
      sinceProgress = 0;
      if (!options.progress(t / stop)) {
        result.finished = false;
        break;
      }
    }
  }
  result.end = x;
  return result;
}

/** A sine of `peak` volts. */
export function sine(node: number, peak: number, hertz: number): Drive {
  return { node, volts: (t) => peak * Math.sin(2 * Math.PI * hertz * t) };
}

/** A square wave of `peak` volts up to `stop` seconds. */
export function square(node: number, peak: number, hertz: number, stop: number): Drive {
  const half = 0.5 / hertz;
  const breaks = Array.from({ length: Math.floor(stop / half) }, (_, i) => (i + 1) * half);
  return { node, breaks: [0, ...breaks], volts: (t) => (Math.floor(t / half + 1e-9) % 2 === 0 ? peak : -peak) };
}
