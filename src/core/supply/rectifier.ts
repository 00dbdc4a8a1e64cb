/**
 * Rectifiers as the solver sees them: the current of one path at each instant, and its average over a mains period.
 * Volts, amperes, ohms, siemens.
 */

import type { Element } from "../circuit/circuit";

/** Drop of a silicon diode. */
const SILICON_VOLTS = 0.7;
/** One selenium plate stands about 20 V rms and drops about 0.7 V; a stack adds plates with the winding's volts. */
const SELENIUM_PLATE_RMS = 20;
const SELENIUM_PLATE_DROP = 0.7;
/** A leak from the peak to the rail, so that an unloaded rail still has a slope. */
export const RECTIFIER_LEAK = 1e-7;

/** One conducting path: what it passes at `u` volts between the winding's instantaneous voltage and the rail. */
export interface Path {
  /** Ohms in the path: winding and added resistance. */
  rs: number;
  /** Volts dropped whatever the current: silicon or selenium in series. */
  drop: number;
  /** A / V^1.5 of a tube's plate; undefined for solid state. */
  perveance?: number;
}

export interface RectifierModel {
  /** Peak of one half winding (full-wave) or of the whole, at today's mains. */
  peak: number;
  path: Path;
  /** Path of the second half of the period, where it differs from the first: one side of a centre-tapped winding gone weak. */
  second?: Path;
  /** Pulses per mains period into the reservoir: 2, or 1 with a half gone. 0: dead. */
  pulses: 0 | 1 | 2;
  /** Conducts on the other half-wave than its fellow: the second diode of a doubler. */
  opposite?: boolean;
  /** A diode shorted through: the winding lies across the capacitor, behind its resistance, in both directions. */
  through?: boolean;
}

/** One rectifier of a block between two of its nodes. */
export interface RectifierSection {
  /** "" where the block is one rectifier; "upper" and "lower" where it is two. */
  side: "" | "upper" | "lower";
  plus: string;
  minus: string;
  model: RectifierModel;
}

/** Periods of the rectifier's current in one of the mains: 2 where both half-waves are alike. */
export const pulsesAlike = (model: RectifierModel): 1 | 2 => (model.pulses === 2 && !model.second ? 2 : 1);

/** Gauss–Legendre abscissae and weights on [−1, 1], eight nodes. Source: Abramowitz and Stegun, table 25.4. */
export const GAUSS8: readonly (readonly [number, number])[] = [
  [-0.9602898564975363, 0.1012285362903763],
  [-0.7966664774136267, 0.2223810344533745],
  [-0.525532409916329, 0.3137066458778873],
  [-0.1834346424956498, 0.362683783378362],
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
];

/**
 * The rectifiers of a RECT_… or DOUBLER… block. A doubler is two half-wave rectifiers in series about the node where its capacitors
 * meet; a bridge whose centre tap is used is two full-wave ones, each on half the winding.
 * `weak=k` in its parameters multiplies a tube's drop by k (solid state: its resistance); `half=1` leaves one half, `weakside=k` gives one
 * half k times the resistance; `dead=1` leaves none; `upper=dead`, `upper=through`, `lower=…` are about one diode of two.
 * @param mains today's mains over the mains of the circuit. @param emission part of a tube's full emission.
 */
export function rectifierSections(element: Element, mains: number, emission: number): RectifierSection[] {
  const [plus, minus, third] = element.nodes as [string, string, string?];
  const whole = sectionModel(element, mains, emission);
  if (third === undefined) return [{ side: "", plus, minus, model: whole }];
  const bridge = element.type === "RECT_BRIDGE";
  const side = (name: "upper" | "lower", opposite: boolean): RectifierModel => {
    const state = element.params[name];
    const dead = whole.pulses === 0 || state === "dead" || (name === "lower" && element.params.half !== undefined);
    return {
      ...whole,
      path: { ...whole.path },
      ...(bridge ? { peak: whole.peak / 2 } : {}),
      pulses: dead ? 0 : bridge ? 2 : 1,
      ...(opposite ? { opposite } : {}),
      ...(state === "through" ? { through: true, pulses: 1 as const } : {}),
    };
  };
  return [
    { side: "upper", plus, minus: third, model: side("upper", false) },
    { side: "lower", plus: third, minus, model: side("lower", !bridge) },
  ];
}

function sectionModel(element: Element, mains: number, emission: number): RectifierModel {
  const { params, type } = element;
  const vac = params.vac as number;
  const weak = typeof params.weak === "number" ? params.weak : 1;
  const kind = String(params.tube ?? "silicon");
  // A bridge has two diodes in a path, unless its centre tap brings the current back.
  const plates = type === "RECT_BRIDGE" && element.nodes.length === 2 ? 2 : 1;
  const drop =
    kind === "silicon"
      ? SILICON_VOLTS * plates
      : kind === "selenium"
        ? SELENIUM_PLATE_DROP * Math.ceil(vac / SELENIUM_PLATE_RMS) * plates
        : 0;
  const tube = element.rectifierTube?.rectifier;
  const perveance = tube && (tube.drop[1] / tube.drop[0] ** 1.5 / weak ** 1.5) * Math.max(emission, 1e-9);
  const rs = Math.max(typeof params.rs === "number" ? params.rs : 0, 0.1) * (perveance === undefined ? weak : 1);
  const full = type === "RECT_FULL" || type === "RECT_BRIDGE";
  const path = { rs, drop, perveance };
  const { weakside } = params;
  return {
    // Half the winding's ampere-turns go into a short: what is left gives about half its volts.
    peak: Math.SQRT2 * vac * mains * (params.shorted ? 0.5 : 1),
    path,
    ...(typeof weakside === "number" ? { second: { ...path, rs: rs * weakside } } : {}),
    pulses: params.dead || (params.shorted && type !== "RECT_FULL") ? 0 : params.shorted ? 1 : full && !params.half ? 2 : 1,
  };
}

/** Amperes and siemens of a path with `u` volts across it (winding instant minus rail): `out[0]`, `out[1]`. */
export function pathCurrent(path: Path, u: number, out: Float64Array): void {
  const over = u - path.drop;
  if (over <= 0) {
    out[0] = 0;
    out[1] = 0;
    return;
  }
  if (path.perveance === undefined) {
    out[0] = over / path.rs;
    out[1] = 1 / path.rs;
    return;
  }
  // over = v + rs·P·v^1.5, solved for the tube's own drop v; convex, so Newton from above never overshoots.
  const k = path.rs * path.perveance;
  let v = Math.min(over, (over / Math.max(k, 1e-12)) ** (2 / 3));
  for (let step = 0; step < 30; step++) {
    const root = Math.sqrt(v);
    const f = v + k * v * root - over;
    const next = v - f / (1 + 1.5 * k * root);
    if (Math.abs(next - v) <= 1e-12 * over) {
      v = next;
      break;
    }
    v = Math.max(next, 0);
  }
  const root = Math.sqrt(v);
  out[0] = path.perveance * v * root;
  const g = 1.5 * path.perveance * root;
  out[1] = g / (1 + path.rs * g);
}

const point = new Float64Array(2);

/**
 * Average current of one path that conducts once a period, against a steady rail of `volts`: out[0] amperes, out[1] dI/dV (negative).
 * With cos θ = (V + drop)/Vp: I = (Vp·sin θ − (V + drop)·θ)/(π·Rs) for a resistive path; a tube path by eight Gauss nodes over 0…θ.
 * Source: conduction-angle analysis as in O. H. Schade, "Analysis of rectifier operation", Proc. IRE 31, 1943.
 */
export function averageOfPath(path: Path, peak: number, volts: number, out: Float64Array): void {
  const cos = Math.min(1, Math.max(-1, (volts + path.drop) / peak));
  const theta = Math.acos(cos);
  if (path.perveance === undefined) {
    out[0] = (peak * Math.sin(theta) - (volts + path.drop) * theta) / (Math.PI * path.rs);
    out[1] = -theta / (Math.PI * path.rs);
    return;
  }
  let sum = 0;
  let slope = 0;
  for (const [x, w] of GAUSS8) {
    const phi = (theta * (1 + x)) / 2;
    pathCurrent(path, peak * Math.cos(phi) - volts, point);
    sum += w * point[0]!;
    slope += w * point[1]!;
  }
  out[0] = (sum * theta) / 2 / Math.PI;
  out[1] = (-slope * theta) / 2 / Math.PI;
}

/** Average current into the rail at `volts` across it, and its slope; the leak included. */
export function averageCurrent(model: RectifierModel, volts: number, out: Float64Array): void {
  if (model.pulses === 0) {
    out[0] = -1e-12 * volts;
    out[1] = -1e-12;
    return;
  }
  if (model.through) {
    out[0] = -volts / model.path.rs;
    out[1] = -1 / model.path.rs;
    return;
  }
  averageOfPath(model.path, model.peak, volts, out);
  if (model.second) {
    const [amps, slope] = [out[0]!, out[1]!];
    averageOfPath(model.second, model.peak, volts, out);
    out[0] = (out[0]! + amps) / model.pulses;
    out[1] = (out[1]! + slope) / model.pulses;
  }
  out[0] = out[0]! * model.pulses + RECTIFIER_LEAK * (model.peak - volts);
  out[1] = out[1]! * model.pulses - RECTIFIER_LEAK;
}

/** Current at an instant of the mains, `phase` in radians of the mains period; for steady state and transient. */
export function instantCurrent(model: RectifierModel, phase: number, volts: number, out: Float64Array): void {
  const wave = (model.opposite ? -model.peak : model.peak) * Math.cos(phase);
  if (model.through) {
    out[0] = (wave - volts) / model.path.rs;
    out[1] = -1 / model.path.rs;
    return;
  }
  let amps = RECTIFIER_LEAK * ((model.pulses === 0 ? 0 : model.peak) - volts);
  let slope = -RECTIFIER_LEAK;
  if (model.pulses > 0) {
    pathCurrent(model.path, wave - volts, point);
    amps += point[0]!;
    slope -= point[1]!;
  }
  if (model.pulses === 2) {
    pathCurrent(model.second ?? model.path, -wave - volts, point);
    amps += point[0]!;
    slope -= point[1]!;
  }
  out[0] = amps;
  out[1] = slope;
}

/**
 * Ripple of a reservoir, volts peak to peak: I/(f_r·C)·(1 − 2θ/π) full-wave with f_r = 2f, I/(f·C)·(1 − θ/π) half-wave,
 * cos θ = (V + drop)/Vp: the charge that leaves while no path conducts.
 * @param amps average current out of it.
 */
export function ripplePeakToPeak(model: RectifierModel, volts: number, amps: number, farads: number, hertz: number): number {
  const theta = Math.acos(Math.min(1, Math.max(-1, (volts + model.path.drop) / model.peak)));
  return model.pulses === 2
    ? (amps / (2 * hertz * farads)) * (1 - (2 * theta) / Math.PI)
    : (amps / (hertz * farads)) * (1 - theta / Math.PI);
}

/**
 * Watts that a shorted winding half or a diode that is shorted through takes from the core, at today's mains over the circuit's.
 * A shorted half burns vac²/Rs in its own copper and the primary's; a shorted diode puts the winding's volts across the reservoir, which
 * lets through about half of that. Rough by nature: it decides whether a fuse blows, not by how much.
 */
export function shortedWatts(element: Element, mains: number): number {
  const { vac, rs, shorted, through, pulled } = element.params;
  if (typeof vac !== "number" || !(shorted || (through && !pulled))) return 0;
  return ((vac * mains) ** 2 / Math.max(typeof rs === "number" ? rs : 0, 10)) * (shorted ? 1 : 0.5);
}
