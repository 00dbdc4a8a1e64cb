/**
 * Ripple everywhere in the amp: the rectifier's own pulses in their periodic steady state, as harmonics sent through the linear amp.
 * The pulses by time stepping agree (see the tests); this takes milliseconds, so that every fault can have its own.
 */

import { averageCurrent, pulsesAlike } from "../supply/rectifier";
import type { RectifierPart } from "./network";
import type { OperatingPoint } from "./operating-point";
import { workspaceOf } from "./workspace";
import { trainOf } from "./pulses";
import { SmallSignal, type Phasor } from "./small-signal";

/** Multiples of the ripple's own frequency that are kept. */
const HARMONICS = 6;

/** One rectifier's current as it repeats. */
export interface Pulses {
  /** Which rectifier of the network it is. */
  rectifier: number;
  /** Unknown numbers of its terminals; −1 is ground. */
  into: number;
  from: number;
  /** Hertz of the first harmonic: twice the mains full-wave, the mains half-wave. */
  hertz: number;
  /** Amperes, peak, of each harmonic from the first on. */
  harmonics: Phasor[];
  /** Amperes: the highest instant of all paths together, their rms and their mean. */
  peak: number;
  rms: number;
  mean: number;
  /** What the averaged law holds as the rectifier's conductance, siemens. */
  siemens: number;
}

/** @returns the pulses of each rectifier that carries current; those that no steady state is found for are left out. */
export function pulsesOf(op: OperatingPoint): Pulses[] {
  return op.network.rectifiers.flatMap((part, rectifier) => {
    const found = pulsesOfOne(op, part);
    return found ? [{ rectifier, ...found }] : [];
  });
}

function pulsesOfOne(op: OperatingPoint, part: RectifierPart): Omit<Pulses, "rectifier"> | undefined {
  const { network, x } = op;
  const { model } = part;
  if (model.pulses === 0 || model.through || part.cascade) return undefined;
  const volts = (part.a < 0 ? 0 : x[part.a]!) - (part.b < 0 ? 0 : x[part.b]!);
  const out = new Float64Array(2);
  averageCurrent(model, volts + part.correction.shift, out);
  const [amps, slope] = [out[0]!, out[1]!];
  if (amps < 1e-6) return undefined;
  const hertz = network.hertz * pulsesAlike(model);
  const pulse = trainOf(network, workspaceOf(network), part, x);
  if (!pulse) return undefined;
  const n = pulse.current.length;
  const harmonics = Array.from({ length: HARMONICS }, (_, h): Phasor => {
    let [re, im] = [0, 0];
    pulse.current.forEach((i, k) => {
      const angle = (2 * Math.PI * (h + 1) * (k + 1)) / n;
      re += (2 / n) * i * Math.cos(angle);
      im -= (2 / n) * i * Math.sin(angle);
    });
    return { re, im };
  });
  return {
    into: part.a,
    from: part.b,
    hertz,
    harmonics,
    peak: Math.max(...pulse.current),
    rms: Math.sqrt(pulse.current.reduce((s, i) => s + i * i, 0) / n),
    mean: pulse.current.reduce((s, i) => s + i, 0) / n,
    siemens: -slope,
  };
}

/** The linear amp with its rectifiers taken out: what their currents are sent through. @throws RangeError */
export function rippleAmp(op: OperatingPoint, pulses: readonly Pulses[]): SmallSignal {
  const amp = new SmallSignal(op);
  for (const p of pulses) amp.takeOut(p.into, p.from, p.siemens);
  return amp;
}

/** Volts rms of ripple at every node by name. @throws RangeError for an operating point that is none. */
export function rippleOf(op: OperatingPoint): Map<string, number> {
  const pulses = pulsesOf(op);
  const amp = rippleAmp(op, pulses);
  const square = new Float64Array(op.network.nodes.length);
  for (const p of pulses)
    p.harmonics.forEach((i, h) => {
      const size = Math.hypot(i.re, i.im);
      const shown = amp.inject(p.into, p.from, (h + 1) * p.hertz);
      square.forEach((_, k) => (square[k]! += (size * size * (shown[k]!.re ** 2 + shown[k]!.im ** 2)) / 2));
    });
  return new Map(op.network.nodes.map((name, k) => [name, Math.sqrt(square[k]!)]));
}
