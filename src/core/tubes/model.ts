/**
 * Currents of a tube from its electrode voltages, with their derivatives.
 *
 * Source: N. Koren, "Improved vacuum-tube models for SPICE simulations", Glass Audio 8 no. 5, 1996, with these changes:
 * the plate and the screen share one cathode current, so the screen takes what the plate leaves below the knee; the plate voltage passes
 * through a smooth positive part; a contact potential adds to the grid's; grid current sets in softly below zero. Voltages are relative to the cathode, in volts; currents in
 * amperes, into the electrode.
 */

import { logistic } from "../numeric/logistic";

export interface TriodeModel {
  kind: "triode";
  /** Amplification factor. */
  mu: number;
  /** Exponent of the space-charge law, 1.5 in theory. */
  ex: number;
  /** Current scale: Ip = 2·E1^ex / kg1. */
  kg1: number;
  /** How sharply the current ends at cut-off. */
  kp: number;
  /** Square volts: bends the law at low plate voltage. */
  kvb: number;
  /** Contact potential: volts added to the grid's, since the space charge begins before 0 V. */
  vct: number;
  /** Grid current scale: about V^1.5 / kgrid amperes. */
  kgrid: number;
}

export interface PentodeModel extends Omit<TriodeModel, "kind"> {
  kind: "pentode";
  /** Plate volts where it takes 71 % of its share of the cathode current. */
  knee: number;
  /** Part of the cathode current that the plate takes well above the knee. */
  share: number;
  /** Rise of the plate current per plate volt above the knee, 1/V: 1/(Ia·rp) about. */
  lambda: number;
}

export type TubeModel = TriodeModel | PentodeModel;

/**
 * Volts over which plate and screen come to take current: below zero it ends exponentially, as the electrons' own speeds
 * let it, so that a plate left floating rests a few volts below its cathode.
 */
export const SMOOTH_VOLTS = 0.25;
/** Insulation of socket and base from plate to cathode, siemens: keeps a derivative where the tube is far beyond cut-off. */
export const LEAK_SIEMENS = 1e-12;
/** Grid volts around which grid current sets in, and the width of the onset. */
export const GRID_ONSET = -0.2;
export const GRID_WIDTH = 0.15;

const softplus = (x: number) => (x > 30 ? x : x < -700 ? 0 : Math.log1p(Math.exp(x)));
/** Below this the power law would underflow and the leak is all that is left. */
const LEAST_DRIVE = 1e-60;

/** Grid current: out[0] amperes, out[1] siemens. */
function gridLaw(kgrid: number, vg: number, out: Float64Array, at: number, slope: number): void {
  const x = (vg - GRID_ONSET) / GRID_WIDTH;
  const e = GRID_WIDTH * softplus(x);
  if (e < LEAST_DRIVE) {
    out[at] = 0;
    out[slope] = 0;
    return;
  }
  const root = Math.sqrt(e);
  out[at] = (e * root) / kgrid;
  out[slope] = (1.5 * root * logistic(x)) / kgrid;
}

/** Offsets in the result of `triodeLaw`. */
export const TRIODE_OUT = 5;

/** @param out [Ip, Ig, ∂Ip/∂Vp, ∂Ip/∂Vg, ∂Ig/∂Vg]. */
export function triodeLaw(m: TriodeModel, vp: number, vg: number, out: Float64Array): void {
  const p = SMOOTH_VOLTS * softplus(vp / SMOOTH_VOLTS);
  const dp = logistic(vp / SMOOTH_VOLTS);
  const r = Math.sqrt(m.kvb + p * p);
  const drive = vg + m.vct;
  const x = m.kp * (1 / m.mu + drive / r);
  const l = softplus(x);
  const s = logistic(x);
  const e = (p * l) / m.kp;
  gridLaw(m.kgrid, vg, out, 1, 4);
  if (e < LEAST_DRIVE) {
    out[0] = LEAK_SIEMENS * vp;
    out[2] = LEAK_SIEMENS;
    out[3] = 0;
    return;
  }
  const i = (2 * e ** m.ex) / m.kg1;
  const di = (m.ex * i) / e;
  out[0] = i + LEAK_SIEMENS * vp;
  out[2] = di * (l / m.kp - (s * p * drive * p) / (r * r * r)) * dp + LEAK_SIEMENS;
  out[3] = (di * p * s) / r;
}

/** Offsets in the result of `pentodeLaw`. */
export const PENTODE_OUT = 10;

/** @param out [Ip, Ig2, Ig, ∂Ip/∂Vp, ∂Ip/∂Vg2, ∂Ip/∂Vg, ∂Ig2/∂Vp, ∂Ig2/∂Vg2, ∂Ig2/∂Vg, ∂Ig/∂Vg]. */
export function pentodeLaw(m: PentodeModel, vp: number, vs: number, vg: number, out: Float64Array): void {
  const p = SMOOTH_VOLTS * softplus(vp / SMOOTH_VOLTS);
  const dp = logistic(vp / SMOOTH_VOLTS);
  const q = SMOOTH_VOLTS * softplus(vs / SMOOTH_VOLTS);
  const dq = logistic(vs / SMOOTH_VOLTS);
  gridLaw(m.kgrid, vg, out, 2, 9);

  const r = Math.sqrt(m.kvb + q * q);
  const drive = vg + m.vct;
  const x = m.kp * (1 / m.mu + drive / r);
  const l = softplus(x);
  const s = logistic(x);
  const e = (q * l) / m.kp;
  if (e < LEAST_DRIVE) {
    out.fill(0, 3, 9);
    out[0] = LEAK_SIEMENS * vp;
    out[1] = LEAK_SIEMENS * vs;
    out[3] = LEAK_SIEMENS;
    out[7] = LEAK_SIEMENS;
    return;
  }
  const ik = (2 * e ** m.ex) / m.kg1;
  const dik = (m.ex * ik) / e;
  const ikS = dik * (l / m.kp - (s * q * drive * q) / (r * r * r)) * dq;
  const ikG = (dik * q * s) / r;

  const hyp = Math.sqrt(p * p + m.knee * m.knee);
  const h = (m.share * p) / hyp;
  const hP = ((m.share * m.knee * m.knee) / (hyp * hyp * hyp)) * dp;
  const rise = 1 + m.lambda * p;
  out[0] = ik * h * rise + LEAK_SIEMENS * vp;
  out[1] = ik * (1 - h) + LEAK_SIEMENS * vs;
  out[3] = ik * (hP * rise + h * m.lambda * dp) + LEAK_SIEMENS;
  out[4] = ikS * h * rise;
  out[5] = ikG * h * rise;
  out[6] = -ik * hP;
  out[7] = ikS * (1 - h) + LEAK_SIEMENS;
  out[8] = ikG * (1 - h);
}

/**
 * Part of full emission at `ratio` of the rated heater voltage: flat near 1, half at about 0.62, nothing to speak of at 0.4.
 * A space-charge-limited cathode hardly notices 10 %; below about 75 % its temperature limits the current. Scutum's own curve.
 */
export function emissionAt(ratio: number): number {
  return logistic((ratio - 0.62) / 0.055) / logistic((1 - 0.62) / 0.055);
}
