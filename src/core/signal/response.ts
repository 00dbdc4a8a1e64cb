/** What a changed part does to the amp's response, its feedback, its square wave, its hum and its hiss, before it is soldered. */

import { alter } from "../circuit/alter";
import type { Circuit } from "../circuit/circuit";
import { chainOf, feedbackOf, withUnlikePairs, type Chain } from "../noise/chain";
import { operatingPoint, type OperatingPoint } from "../solver/operating-point";
import { pulsesOf, rippleAmp } from "../solver/ripple";
import { magnitude, phaseDegrees, SmallSignal, type Phasor } from "../solver/small-signal";
import * as texts from "../texts/signal";

export interface LoopFeedback {
  resistor: string;
  /** Decibels of feedback at 1 kHz. */
  decibels: number;
  /** How far the loop gain is below one where its phase has come round, decibels; undefined where it does not come round. */
  gainMargin?: number;
  /** Degrees left where the loop gain is one. */
  phaseMargin?: number;
  /** It feeds back in phase: the output transformer is the wrong way round. */
  positive: boolean;
}

export interface Response {
  hertz: number[];
  /** Volts at the speaker for a volt at the input, decibels. */
  gain: number[];
  /** Frequencies at which it is 3 dB below 1 kHz. */
  low?: number;
  high?: number;
  feedback?: LoopFeedback;
  /** A square wave of 1 kHz through the amp, two periods, in parts of its flat top, made of its harmonics. */
  square: number[];
  /** Ripple at the speaker, millivolts rms, input shorted, the output pair six percent unlike; NaN where it cannot be worked out. */
  humMillivolts: number;
  /** Noise of the resistors at the speaker, 20 Hz to 20 kHz, microvolts rms, input shorted; the tubes' own is not in it. */
  noiseMicrovolts: number;
}

const BOLTZMANN = 1.380649e-23;
/** Kelvin inside a warm chassis. */
const WARM = 320;
const POINTS = 72;
const SQUARE_HERTZ = 1000;
const SQUARE_STEPS = 160;
const HARMONICS = 39;
/** From here on a loop gain counts as round the corner: more than this is no phase but a sign. */
const LOOP_FROM = 2;
const LOOP_TO = 1e6;

/** @param changes in the engine's words, as `R17=22k`. @throws AlterError, RangeError for an amp without input or speaker. */
export function responseOf(circuit: Circuit, mains: number | undefined, changes: readonly string[] = []): Response {
  const amp = alter(circuit, changes);
  const chain = chainOf(amp);
  if (!chain.input || !chain.speaker) throw new RangeError(texts.responseWantsInputStage());
  const op = operatingPoint(amp, { mains });
  if (!op.converged) throw new RangeError(texts.ampDoesNotSettle(op.unsettled.join(", ")));
  const signal = new SmallSignal(op);
  const [input, out] = [signal.node(chain.input), signal.node(chain.speaker)];
  const gainAt = (hertz: number): Phasor => signal.drive(input, 1, hertz)[out]!;
  const hertz = Array.from({ length: POINTS }, (_, i) => 10 * 10 ** ((4 * i) / (POINTS - 1)));
  const gain = hertz.map((f) => decibels(magnitude(gainAt(f))));
  const middle = decibels(magnitude(gainAt(1000)));
  return {
    hertz,
    gain,
    low: corner(hertz, gain, middle, -1),
    high: corner(hertz, gain, middle, 1),
    feedback: loopOf(amp, op, signal, feedbackOf(amp, chain)),
    square: squareOf(gainAt),
    ...quiet(amp, chain, mains),
  };
}

const decibels = (x: number) => 20 * Math.log10(Math.max(x, 1e-9));

/** Where the gain is 3 dB under the middle, going down or up from 1 kHz. */
function corner(hertz: readonly number[], gain: readonly number[], middle: number, way: 1 | -1): number | undefined {
  const start = hertz.findIndex((f) => f >= 1000);
  for (let i = start; i + way >= 0 && i + way < hertz.length; i += way) {
    const [a, b] = [gain[i]! - middle + 3, gain[i + way]! - middle + 3];
    if (a >= 0 && b < 0) return hertz[i]! * (hertz[i + way]! / hertz[i]!) ** (a / (a - b));
  }
  return undefined;
}

function loopOf(amp: Circuit, op: OperatingPoint, signal: SmallSignal, name: string | undefined): LoopFeedback | undefined {
  const part = name === undefined ? undefined : amp.elements.find((e) => e.name === name);
  if (!part?.value) return undefined;
  const at = (n: string) => (n === "0" ? -1 : (op.network.index.get(n) ?? -1));
  const ends = part.nodes.map(at) as [number, number];
  const impedance = (k: number) => (k < 0 ? 0 : magnitude(signal.inject(k, -1, 1000)[k]!));
  const [drive, other] = impedance(ends[0]) <= impedance(ends[1]) && ends[0] >= 0 ? ends : [ends[1], ends[0]];
  const loop = (f: number) => signal.loopGain(drive, other, 1 / part.value!, f);
  const one = loop(1000);
  const shown = decibels(magnitude({ re: 1 + one.re, im: one.im }));
  // The phase is followed from 1 kHz both ways, so that it does not jump by a turn.
  const steps = 60;
  const margins = ([LOOP_FROM, LOOP_TO] as const).map((end) => {
    let before = { size: magnitude(one), phase: phaseDegrees(one) };
    let turned = before.phase;
    const found: { gain?: number; phase?: number } = {};
    for (let i = 1; i <= steps; i++) {
      const t = loop(1000 * (end / 1000) ** (i / steps));
      const now = { size: magnitude(t), phase: phaseDegrees(t) };
      const step = ((now.phase - before.phase + 540) % 360) - 180;
      const next = turned + step;
      if (found.gain === undefined && Math.abs(turned) < 180 && Math.abs(next) >= 180) found.gain = -decibels(now.size);
      if (found.phase === undefined && before.size >= 1 && now.size < 1) found.phase = 180 - Math.abs(next);
      [before, turned] = [now, next];
    }
    return found;
  });
  const least = (values: (number | undefined)[]) => {
    const known = values.filter((v) => v !== undefined);
    return known.length > 0 ? Math.min(...known) : undefined;
  };
  return {
    resistor: part.name,
    decibels: shown,
    gainMargin: least(margins.map((m) => m.gain)),
    phaseMargin: least(margins.map((m) => m.phase)),
    // In phase it adds, however much: the loop's own sign says it, not what is left of the gain.
    positive: one.re < 0 && Math.abs(one.re) > Math.abs(one.im) && magnitude(one) > 0.05,
  };
}

function squareOf(gainAt: (hertz: number) => Phasor): number[] {
  const middle = magnitude(gainAt(SQUARE_HERTZ)) || 1;
  const parts = Array.from({ length: HARMONICS }, (_, i) => 2 * i + 1).map((n) => ({ n, g: gainAt(n * SQUARE_HERTZ) }));
  const sign = parts[0]!.g.re < 0 ? -1 : 1;
  return Array.from({ length: SQUARE_STEPS }, (_, k) => {
    const angle = (4 * Math.PI * k) / SQUARE_STEPS;
    // Lanczos' factors take the ripple of a cut series away: what rings then is the amp.
    return parts.reduce((sum, { n, g }) => {
      const x = (Math.PI * n) / (2 * HARMONICS + 2);
      return sum + (sign * (4 / Math.PI) * (Math.sin(x) / x) * (g.re * Math.sin(n * angle) + g.im * Math.cos(n * angle))) / (n * middle);
    }, 0);
  });
}

/** Hum and noise at the speaker with the input shorted, as a jack without a plug leaves it, and an output pair as pairs come. */
function quiet(amp: Circuit, chain: Chain, mains: number | undefined): Pick<Response, "humMillivolts" | "noiseMicrovolts"> {
  const shorted = alter(withUnlikePairs(amp, chain), [`${chain.input}~0=1`]);
  const op = operatingPoint(shorted, { mains });
  if (!op.converged) return { humMillivolts: NaN, noiseMicrovolts: NaN };
  const out = op.network.index.get(chain.speaker!)!;
  return { humMillivolts: 1e3 * humAt(op, out), noiseMicrovolts: 1e6 * noiseOf(shorted, new SmallSignal(op), out) };
}

/** Volts rms of ripple at one unknown. */
export function humAt(op: OperatingPoint, out: number): number {
  const pulses = pulsesOf(op);
  const amp = rippleAmp(op, pulses);
  let sum = 0;
  for (const p of pulses)
    p.harmonics.slice(0, 3).forEach((i, h) => {
      const v = amp.inject(p.into, p.from, (h + 1) * p.hertz)[out]!;
      sum += ((v.re ** 2 + v.im ** 2) * (i.re ** 2 + i.im ** 2)) / 2;
    });
  return Math.sqrt(sum);
}

/** Resistors' own noise, 4kTR, sent to the output by the adjoint. Source: H. Nyquist, Phys. Rev. 32, 1928. */
function noiseOf(amp: Circuit, signal: SmallSignal, out: number): number {
  const index = signal.network.index;
  const resistors = amp.elements.filter((e) => e.letter === "R" && e.value && e.value > 0);
  const bands = Array.from({ length: 12 }, (_, i) => 20 * 10 ** ((3 * (i + 0.5)) / 12));
  let sum = 0;
  for (const f of bands) {
    const shown = signal.toOutput(out, f);
    const width = f * (10 ** (1.5 / 12) - 10 ** (-1.5 / 12));
    for (const r of resistors) {
      const z = (n: string) => (n === "0" ? { re: 0, im: 0 } : (shown[index.get(n) ?? -1] ?? { re: 0, im: 0 }));
      const [a, b] = [z(r.nodes[0]!), z(r.nodes[1]!)];
      sum += ((4 * BOLTZMANN * WARM) / r.value!) * width * ((a.re - b.re) ** 2 + (a.im - b.im) ** 2);
    }
  }
  return Math.sqrt(sum);
}
