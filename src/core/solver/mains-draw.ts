/** What an amp draws from the wall, and what a lamp in series leaves it. Volts and amperes are rms, watts real. */

import { isLineConnected } from "../circuit/mains-connection";
import { envelopeOf, type Circuit } from "../circuit/circuit";
import { operatingPoint, type OperatingPoint } from "./operating-point";
import { instantCurrent, shortedWatts } from "../supply/rectifier";
import { isRectifier } from "../circuit/special-parts";
import { parseQuantity } from "../quantity/parse";
import * as texts from "../texts/solver";

export interface MainsDraw {
  amps: number;
  watts: number;
  /** Volts times amperes: what the fuse and the transformer see. */
  voltAmperes: number;
  heaterWatts: number;
  /** Watts that the rectifiers take from their windings. */
  supplyWatts: number;
}

/** Magnetising volt-amperes of a small mains transformer, relative to what it was made to deliver. Scutum's own figure. */
const MAGNETISING = 0.12;
/** Part of what goes in that small transformers turn to heat in iron and copper. Scutum's own figure. */
const TRANSFORMER_LOSS = 0.1;
const SAMPLES = 720;

/** Watts of the heaters that are in circuit at the rated voltage: tubes, and rectifier tubes. */
export function ratedHeaterWatts(circuit: Circuit): number {
  const envelopes = new Map<string, number>();
  for (const e of circuit.elements) {
    const type = e.tube ?? (e.params.pulled ? undefined : e.rectifierTube);
    if (type && !e.params.cold) envelopes.set(envelopeOf(e.name), type.heater.volts * type.heater.amps);
  }
  return [...envelopes.values()].reduce((a, b) => a + b, 0) + ballastWatts(circuit, envelopes);
}

/** Watts of the ballasts of series strings whose tubes are all in and warm. */
function ballastWatts(circuit: Circuit, warm: ReadonlyMap<string, number>): number {
  return circuit.heaters.reduce((sum, h) => {
    const parsed = h.string && h.ballast !== undefined ? parseQuantity(h.ballast, { unit: "Ω" }) : undefined;
    if (!parsed?.ok || !h.tubes.every((t) => warm.has(t))) return sum;
    const tube = circuit.elements.find((e) => envelopeOf(e.name) === h.tubes[0]);
    const amps = (tube?.tube ?? tube?.rectifierTube)?.heater.amps ?? 0;
    return sum + amps * amps * parsed.quantity.value;
  }, 0);
}

export interface DrawOptions {
  /** Volt-amperes of magnetising, relative to what the transformer was made to deliver; none where the line itself is rectified. */
  magnetising?: number;
  /** Watts that it was made to deliver: of the whole amp, where tubes are out here. */
  madeFor?: number;
}

/** Watts that the transformer of a whole, sound amp delivers at its own mains; undefined where the model does not settle. */
export function madeFor(circuit: Circuit): number | undefined {
  const op = operatingPoint(circuit, { mains: circuit.mains?.volts });
  if (!op.converged || !circuit.mains) return undefined;
  const { heaterWatts, supplyWatts } = mainsDraw(op);
  return heaterWatts + supplyWatts;
}

/**
 * Sums the waveforms over one mains period: heaters in phase, magnetising current in quadrature, rectifier pulses as they are.
 * A heater is taken as a resistance: its watts go with the square of the volts near the rated ones.
 * @param op a converged operating point of a powered network with averaged rectifiers.
 * @throws RangeError without `*@mains`.
 */
export function mainsDraw(op: OperatingPoint, { magnetising = MAGNETISING, madeFor }: DrawOptions = {}): MainsDraw {
  const { network, x } = op;
  const rated = network.circuit.mains;
  if (!rated) throw new RangeError(texts.circuitHasNoMains());
  const ratio = network.mainsRatio;
  const volts = rated.volts * ratio;
  const heaterWatts = ratedHeaterWatts(network.circuit) * ratio ** 2;
  const across = (a: number, b: number) => (a < 0 ? 0 : x[a]!) - (b < 0 ? 0 : x[b]!);
  const out = new Float64Array(2);
  let supplyWatts = 0;
  const pulses = new Float64Array(SAMPLES);
  for (const { model, a, b, correction } of network.rectifiers) {
    // The rail is steady within a pulse; the correction keeps the average what the solve found.
    const rail = across(a, b) + correction.shift;
    for (let k = 0; k < SAMPLES; k++) {
      const phase = (2 * Math.PI * k) / SAMPLES;
      instantCurrent(model, phase, rail, out);
      const sign = Math.cos(phase) >= 0 ? 1 : -1;
      const amps = Math.max(0, out[0]!);
      const winding = model.peak * Math.abs(Math.cos(phase));
      // Ampere-turns: what the winding delivers, the primary takes in proportion of the volts.
      pulses[k]! += (sign * amps * model.peak) / (Math.SQRT2 * volts);
      supplyWatts += (amps * winding) / SAMPLES;
    }
  }
  const direct = isLineConnected(network.circuit);
  const losses = direct ? 1 : 1 + TRANSFORMER_LOSS;
  const shorted = network.circuit.elements.reduce((sum, e) => sum + (isRectifier(e.type) ? shortedWatts(e, ratio) : 0), 0);
  const idle = direct
    ? 0
    : (magnetising * (madeFor ?? ratedHeaterWatts(network.circuit) + supplyWatts / Math.max(ratio, 0.3) ** 2) * ratio) / rated.volts;
  let square = 0;
  for (let k = 0; k < SAMPLES; k++) {
    const phase = (2 * Math.PI * k) / SAMPLES;
    const heater = (Math.SQRT2 * (heaterWatts + shorted) * Math.cos(phase)) / volts;
    const amps = (heater + pulses[k]!) * losses + Math.SQRT2 * idle * Math.sin(phase);
    square += (amps * amps) / SAMPLES;
  }
  const amps = Math.sqrt(square);
  return { amps, watts: (heaterWatts + supplyWatts + shorted) * losses, voltAmperes: amps * volts, heaterWatts, supplyWatts };
}

export interface Lamp {
  watts: number;
  volts: number;
}

/** Current of a tungsten lamp goes with about the 0.54th power of its volts. Source: IES Lighting Handbook, lamp characteristics. */
const LAMP_EXPONENT = 0.54;

/** Amperes through an incandescent lamp at `volts`. */
export function lampAmps(lamp: Lamp, volts: number): number {
  return (lamp.watts / lamp.volts) * (Math.max(0, volts) / lamp.volts) ** LAMP_EXPONENT;
}

export interface BehindLamp {
  /** Volts that the amp gets, and that the lamp keeps. */
  ampVolts: number;
  lampVolts: number;
  amps: number;
  /** Part of its rated watts that the lamp burns: under 0.05 it is dark, over 0.5 bright. */
  glow: number;
  op: OperatingPoint;
}

/**
 * The amp behind a series lamp: the volts at which both carry the same current, by bisection; warmed up, not at switch-on.
 * Currents are added as if in phase, which errs to the dim side by a few percent.
 */
export function behindLamp(circuit: Circuit, lamp: Lamp, wallVolts: number, options: DrawOptions = {}): BehindLamp {
  const at = (volts: number) => {
    const op = operatingPoint(circuit, { mains: volts });
    return { op, amps: mainsDraw(op, options).amps };
  };
  let low = 0.02 * wallVolts;
  let high = wallVolts;
  let answer = at(high);
  for (let step = 0; step < 40 && high - low > 1e-3 * wallVolts; step++) {
    const middle = (low + high) / 2;
    answer = at(middle);
    if (answer.amps > lampAmps(lamp, wallVolts - middle)) high = middle;
    else low = middle;
  }
  const ampVolts = (low + high) / 2;
  const lampVolts = wallVolts - ampVolts;
  const amps = lampAmps(lamp, lampVolts);
  return { ampVolts, lampVolts, amps, glow: (lampVolts * amps) / lamp.watts, op: answer.op };
}
