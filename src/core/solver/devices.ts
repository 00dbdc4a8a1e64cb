/**
 * Nonlinear parts as the solver sees them: currents into each terminal and their Jacobian at given terminal voltages.
 * Voltages in volts against ground, currents in amperes, derivatives in siemens.
 */

import { PENTODE_OUT, pentodeLaw, TRIODE_OUT, triodeLaw, type PentodeModel, type TriodeModel } from "../tubes/model";
import { averageCurrent, instantCurrent, type RectifierModel } from "../supply/rectifier";

export interface Device {
  name: string;
  /** Unknown of each terminal, −1 for ground. */
  at: number[];
  /** @param v terminal volts. @param i currents into the terminals. @param g row-major ∂i/∂v. */
  evaluate(v: Float64Array, i: Float64Array, g: Float64Array): void;
  /** Holds the voltages that steer the device near those of the last iteration; true when it had to. */
  limit?(v: Float64Array, last: Float64Array): boolean;
  /** Terminals that pass no direct current: a gate, an amplifier's inputs. */
  isolated?: number[];
}

/** Steering knobs of a tube that faults, mains and tolerance turn. */
export interface TubeState {
  /** Part of full emission; 0 is dead. */
  emission: number;
  /** Plate current scale of tolerance, 1 nominal. */
  spread: number;
  /** Grid current out of the grid at the typical plate current, amperes: gas. */
  gas: number;
  /** Plate current that `gas` refers to, amperes. */
  typicalAmps: number;
}

const clampStep = (v: number, last: number, most: number) => Math.min(last + most, Math.max(last - most, v));

/** Gas current rises with the plate's and levels off at twice the stated figure, so that Newton is not led astray. */
function gasCurrent(state: TubeState, ip: number): [amps: number, slope: number] {
  const x = Math.max(0, ip) + state.typicalAmps;
  return [(state.gas * 2 * Math.max(0, ip)) / x, (state.gas * 2 * state.typicalAmps) / (x * x)];
}

/** Terminals: plate, grid, cathode. */
export function triodeDevice(name: string, at: number[], model: TriodeModel, state: TubeState): Device {
  const out = new Float64Array(TRIODE_OUT);
  return {
    name,
    at,
    evaluate(v, i, g) {
      triodeLaw(model, v[0]! - v[2]!, v[1]! - v[2]!, out);
      const k = state.emission * state.spread;
      const ip = k * out[0]!;
      let ig = state.emission * out[1]!;
      const pp = k * out[2]!;
      const pg = k * out[3]!;
      let gp = 0;
      let gg = state.emission * out[4]!;
      if (state.gas > 0) {
        const [amps, slope] = gasCurrent(state, ip);
        ig -= amps;
        gp -= slope * pp;
        gg -= slope * pg;
      }
      i[0] = ip;
      i[1] = ig;
      i[2] = -ip - ig;
      g[0] = pp;
      g[1] = pg;
      g[2] = -pp - pg;
      g[3] = gp;
      g[4] = gg;
      g[5] = -gp - gg;
      for (let c = 0; c < 3; c++) g[6 + c] = -g[c]! - g[3 + c]!;
    },
    limit: (v, last) => limitGrid(v, last, 1, 2),
  };
}

/** Terminals: plate, screen, grid, cathode. */
export function pentodeDevice(name: string, at: number[], model: PentodeModel, state: TubeState): Device {
  const out = new Float64Array(PENTODE_OUT);
  return {
    name,
    at,
    evaluate(v, i, g) {
      pentodeLaw(model, v[0]! - v[3]!, v[1]! - v[3]!, v[2]! - v[3]!, out);
      const k = state.emission * state.spread;
      const ip = k * out[0]!;
      const is = k * out[1]!;
      let ig = state.emission * out[2]!;
      for (let c = 0; c < 3; c++) {
        g[c] = k * out[3 + c]!;
        g[4 + c] = k * out[6 + c]!;
        g[8 + c] = 0;
      }
      g[10] = state.emission * out[9]!;
      if (state.gas > 0) {
        const [amps, slope] = gasCurrent(state, ip);
        ig -= amps;
        for (let c = 0; c < 3; c++) g[8 + c]! -= slope * g[c]!;
      }
      i[0] = ip;
      i[1] = is;
      i[2] = ig;
      i[3] = -ip - is - ig;
      for (let r = 0; r < 3; r++) g[4 * r + 3] = -g[4 * r]! - g[4 * r + 1]! - g[4 * r + 2]!;
      for (let c = 0; c < 4; c++) g[12 + c] = -g[c]! - g[4 + c]! - g[8 + c]!;
    },
    limit: (v, last) => limitGrid(v, last, 2, 3),
  };
}

/** A grid may not jump by more than a few volts an iteration: beyond zero the law is far from what it was. */
function limitGrid(v: Float64Array, last: Float64Array, grid: number, cathode: number): boolean {
  const before = last[grid]! - last[cathode]!;
  const now = v[grid]! - v[cathode]!;
  const held = clampStep(now, before, 5 + 0.5 * Math.abs(before));
  if (held === now) return false;
  v[grid] = v[cathode]! + held;
  return true;
}

/** Thermal voltage at 300 K. */
const VT = 0.02585;

/** Shockley's diode: anode, cathode. @param is saturation amperes. @param n emission coefficient. */
export function diodeDevice(name: string, at: number[], is: number, n: number): Device {
  const vt = n * VT;
  // Above this the exponential goes on as its tangent, so that no trial overflows.
  const knee = vt * Math.log(10 / is);
  return {
    name,
    at,
    evaluate(v, i, g) {
      const x = v[0]! - v[1]!;
      const e = Math.exp(Math.min(x, knee) / vt);
      const slope = (is * e) / vt + 1e-12;
      const amps = is * (e - 1) + 1e-12 * x + (x > knee ? ((is * e) / vt) * (x - knee) : 0);
      setTwo(i, g, amps, slope);
    },
    limit(v, last) {
      const before = last[0]! - last[1]!;
      const now = v[0]! - v[1]!;
      const held = now > 0.5 ? Math.min(now, Math.max(before, 0.5) + 2 * vt) : now;
      if (held === now) return false;
      v[0] = v[1]! + held;
      return true;
    },
  };
}

/** Zener: forward like silicon, breaking down at `vz` with a slope of 1/rz. Terminals: anode, cathode. */
export function zenerDevice(name: string, at: number[], vz: number, rz: number): Device {
  const w = 0.05;
  const soft = (x: number) => (x > 40 * w ? x : w * Math.log1p(Math.exp(x / w)));
  const step = (x: number) => 1 / (1 + Math.exp(-x / w));
  return {
    name,
    at,
    evaluate(v, i, g) {
      const x = v[0]! - v[1]!;
      const amps = soft(x - 0.65) / 1 - soft(-x - vz) / rz + 1e-9 * x;
      setTwo(i, g, amps, step(x - 0.65) + step(-x - vz) / rz + 1e-9);
    },
  };
}

/** A rectifier's average current into its reservoir: DC+, DC−. `shift` is the correction of a small or missing reservoir. */
export function rectifierDevice(name: string, at: number[], model: RectifierModel, correction: { shift: number }): Device {
  const out = new Float64Array(2);
  return {
    name,
    at,
    evaluate(v, i, g) {
      averageCurrent(model, v[0]! - v[1]! + correction.shift, out);
      setTwo(i, g, -out[0]!, -out[1]!);
    },
  };
}

/** The same rectifier pulse by pulse. @param clock the phase of the mains now, radians. */
export function pulsedRectifierDevice(name: string, at: number[], model: RectifierModel, clock: { phase: number }): Device {
  const out = new Float64Array(2);
  return {
    name,
    at,
    evaluate(v, i, g) {
      instantCurrent(model, clock.phase, v[0]! - v[1]!, out);
      setTwo(i, g, -out[0]!, -out[1]!);
    },
  };
}

/** The volts of a winding behind `ohms` as a current that its conductance is beside: hot end, return. Nothing while the clock stands. */
export function windingDevice(name: string, at: number[], peak: number, ohms: number, clock: { phase: number; running: boolean }): Device {
  return {
    name,
    at,
    evaluate(_v, i, g) {
      setTwo(i, g, clock.running ? (-peak * Math.cos(clock.phase)) / ohms : 0, 0);
    },
  };
}

function setTwo(i: Float64Array, g: Float64Array, amps: number, slope: number): void {
  i[0] = amps;
  i[1] = -amps;
  g[0] = slope;
  g[1] = -slope;
  g[2] = -slope;
  g[3] = slope;
}

/**
 * Enhancement field-effect transistor: drain, gate, source. Square law with a soft threshold,
 * Id = kp/2·Vov²·(1 + λ·Vds) in saturation. Source: W. Shockley's gradual-channel law as in SPICE level 1, smoothed.
 */
export function mosDevice(name: string, at: number[], vto: number, kp: number, lambda: number): Device {
  const w = 0.05;
  const soft = (x: number) => (x > 30 * w ? x : w * Math.log1p(Math.exp(x / w)));
  const step = (x: number) => 1 / (1 + Math.exp(-x / w));
  return {
    name,
    at,
    isolated: [1],
    evaluate(v, i, g) {
      const [vd, vg, vs] = [v[0]!, v[1]!, v[2]!];
      const reverse = vd < vs;
      const ds = Math.abs(vd - vs);
      const gs = vg - (reverse ? vd : vs) - vto;
      const on = soft(gs);
      const off = soft(gs - ds);
      const channel = 1 + lambda * ds;
      const amps = (kp / 2) * (on * on - off * off) * channel + 1e-12 * ds;
      const dg = kp * (on * step(gs) - off * step(gs - ds)) * channel;
      const dds = kp * off * step(gs - ds) * channel + (kp / 2) * (on * on - off * off) * lambda + 1e-12;
      const sign = reverse ? -1 : 1;
      const high = reverse ? 2 : 0;
      const low = reverse ? 0 : 2;
      i[0] = sign * amps;
      i[1] = 0;
      i[2] = -sign * amps;
      g.fill(0, 0, 9);
      g[3 * high + high] = dds;
      g[3 * high + 1] = dg;
      g[3 * high + low] = -dds - dg;
      for (let c = 0; c < 3; c++) g[3 * low + c] = -g[3 * high + c]!;
    },
    limit: (v, last) => limitGrid(v, last, 1, 2),
  };
}

/**
 * Input stage of an operational amplifier: in+, in−, inner node. A limited transconductance into 1 kΩ, so that the output
 * stage after it never asks for more than `vmax`.
 */
export function opampDevice(name: string, at: number[], gain: number, vmax: number): Device {
  return {
    name,
    at,
    isolated: [0, 1],
    evaluate(v, i, g) {
      const x = (gain * (v[0]! - v[1]!)) / vmax;
      const t = Math.tanh(x);
      const slope = (gain * (1 - t * t)) / 1e3 + 1e-12;
      i[0] = 0;
      i[1] = 0;
      i[2] = (-vmax * t) / 1e3;
      g.fill(0, 0, 9);
      g[6] = -slope;
      g[7] = slope;
    },
    limit(v, last) {
      // Beyond the rails the law is flat: an iteration may cross at most its linear part.
      const width = (4 * vmax) / gain;
      const before = last[0]! - last[1]!;
      const now = v[0]! - v[1]!;
      if (Math.abs(now) < width || Math.abs(now - before) < width) return false;
      v[0] = v[1]! + clampStep(now, Math.max(-width, Math.min(width, before)), width);
      return true;
    },
  };
}
