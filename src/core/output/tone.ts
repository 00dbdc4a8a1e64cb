/** A tone through the whole amp in time: from the input to the load, as a generator and a dummy load on the bench. */

import type { Circuit } from "../circuit/circuit";
import { alter } from "../circuit/alter";
import { chainOf, channelsOf } from "../noise/chain";
import { solveIdle } from "./idle";
import type { OperatingPoint } from "../solver/operating-point";
import { magnitude, SmallSignal } from "../solver/small-signal";
import { sine, transient, type Drive } from "../solver/transient";
import * as texts from "../texts/output";
import type { OutputStage } from "./output-stage";
import { waveFigures, type WaveFigures } from "./wave-figures";

export const TONE_HERTZ = 1000;
/** Samples that a period is told in. */
export const PERIOD_SAMPLES = 200;
/** Periods that pass before one is kept, and the steps of a period. */
const SETTLING_PERIODS = 4;
const STEPS = 125;

/** Less than this is what creeps past an open part by stray capacitance. */
const LEAST_GAIN = 0.01;

export interface ToneAmp {
  op: OperatingPoint;
  input: number;
  speaker: number;
  /** Ohms of the load. */
  load: number;
  /** Small-signal gain from input to load at 1 kHz. */
  gain: number;
}

/**
 * The amp ready for a tone: controls on its way at least half open, the load on.
 * @throws RangeError where no input leads to the stage, no load hangs on it or no signal passes.
 */
export function toneAmp(circuit: Circuit, stage: OutputStage, mains?: number): ToneAmp {
  const channel = channelsOf(chainOf(circuit)).find((c) => c.speaker === stage.speaker) ?? chainOf(circuit);
  if (!channel.input || !stage.load) throw new RangeError(texts.toneWantsInputAndLoad());
  const closed = channel.stages.flatMap((s) => {
    const pot = circuit.elements.find((e) => e.name === s.control && e.type === "POT");
    return pot && typeof pot.params.pos === "number" && pot.params.pos < 0.5 ? [`${pot.name}=0.5`] : [];
  });
  const { op } = solveIdle(alter(circuit, closed), mains);
  const [input, speaker] = [op.network.index.get(channel.input)!, op.network.index.get(stage.speaker)!];
  const gain = magnitude(new SmallSignal(op).drive(input, 1, TONE_HERTZ)[speaker]!);
  if (!(gain > LEAST_GAIN)) throw new RangeError(texts.noSignalPasses());
  return { op, input, speaker, load: stage.load.ohms, gain };
}

/** One period of each kept unknown, evenly spaced, once the tone has settled. @param peak volts at the input. */
export function onePeriod(
  amp: ToneAmp,
  peak: number,
  keep: readonly number[],
  hertz = TONE_HERTZ,
  settling = SETTLING_PERIODS,
  steps = STEPS,
): number[][] {
  const period = 1 / hertz;
  const from = settling * period;
  const run = transient(amp.op.network, {
    start: amp.op.x,
    stop: from + period,
    drive: sine(amp.input, peak, hertz),
    keep: [...keep],
    mostStep: period / steps,
    tolerance: 3e-4,
  });
  return run.v.map((v) => {
    // What has not settled yet drifts over the period: taken off, so that the wave closes on itself.
    const wave = resample(run.t, v, from, (period * (PERIOD_SAMPLES + 1)) / PERIOD_SAMPLES, PERIOD_SAMPLES + 1);
    const drift = (wave.at(-1)! - wave[0]!) / PERIOD_SAMPLES;
    return wave.slice(0, -1).map((x, i) => x - drift * i);
  });
}

/** Values at evenly spaced times by straight lines between the steps. `t` rises. */
export function resample(t: readonly number[], v: readonly number[], from: number, length: number, samples: number): number[] {
  let k = 0;
  return Array.from({ length: samples }, (_, i) => {
    const at = from + (length * i) / samples;
    while (k < t.length - 2 && t[k + 1]! < at) k++;
    const part = Math.min(1, Math.max(0, (at - t[k]!) / (t[k + 1]! - t[k]! || 1)));
    return v[k]! + (v[k + 1]! - v[k]!) * part;
  });
}

export interface Played {
  /** Volts peak at the input. */
  peak: number;
  watts: number;
  wave: number[];
  figures: WaveFigures;
}

export const wattsOf = (rms: number, load: number) => rms ** 2 / load;

export function play(amp: ToneAmp, peak: number): Played {
  const [wave] = onePeriod(amp, peak, [amp.speaker]) as [number[]];
  const figures = waveFigures(wave);
  return { peak, watts: wattsOf(figures.rms, amp.load), wave, figures };
}

/** The drive that gives a power into the load, found in a few runs; a stage biased cold gains more as it is driven harder. @param start a drive to begin from. */
export function playAtWatts(amp: ToneAmp, watts: number, start?: number): Played {
  const wanted = Math.sqrt(watts * amp.load);
  let peak = start ?? (Math.SQRT2 * wanted) / amp.gain;
  let played = play(amp, peak);
  // In logarithms the level goes nearly straight with the drive: the slope of the last two runs says how far to go.
  let slope = 1;
  for (let i = 0; i < 8 && Math.abs(played.figures.rms / wanted - 1) > 0.02; i++) {
    const before = { peak, rms: played.figures.rms };
    peak *= Math.exp(Math.max(-2, Math.min(1.5, Math.log(wanted / played.figures.rms) / slope)));
    played = play(amp, peak);
    slope = Math.min(4, Math.max(0.3, Math.log(played.figures.rms / before.rms) / Math.log(peak / before.peak)));
  }
  return played;
}

/** A drive clips where this much more of it raises the peak that grows least by less than half as much. */
const MORE = 1.08;
const GROWS = 0.5;

/** A quick look at a drive: fewer periods and steps than a wave that is shown. */
function peaksAt(amp: ToneAmp, peak: number): { top: number; bottom: number } {
  const [wave] = onePeriod(amp, peak, [amp.speaker], TONE_HERTZ, 3, 64) as [number[]];
  const mean = wave.reduce((a, b) => a + b, 0) / wave.length;
  return { top: Math.max(...wave) - mean, bottom: mean - Math.min(...wave) };
}

function clipsAt(amp: ToneAmp, peak: number): boolean {
  const [a, b] = [peaksAt(amp, peak / MORE), peaksAt(amp, peak)];
  return Math.min(Math.log(b.top / a.top), Math.log(b.bottom / a.bottom)) < GROWS * Math.log(MORE);
}

export interface Clip extends Played {
  /** Which half of the wave is cut first, at a third more drive. */
  first: "top" | "bottom" | "both";
}

/**
 * The most power before a peak is flattened: where a little more drive raises it by less than half as much, as is seen on a screen.
 * @param start a drive to begin from, where one is known.
 */
export function playAtClip(amp: ToneAmp, { start, progress }: { start?: number; progress?: (part: number) => void } = {}): Clip {
  let low: number | undefined;
  let high: number | undefined;
  let peak = start ?? 2 / amp.gain;
  for (let i = 0; i < 16 && !(low && high && high / low < 1.06); i++) {
    progress?.(i / 18);
    if (clipsAt(amp, peak)) high = peak;
    else low = peak;
    const step = start ? 1.3 : 2;
    peak = low && high ? Math.sqrt(low * high) : high ? high / step : low! * step;
  }
  const clip = play(amp, low ?? peak);
  const over = play(amp, clip.peak * 1.33).figures;
  const [top, bottom] = [over.top, -over.bottom];
  return { ...clip, first: Math.abs(top - bottom) < 0.02 * (top + bottom) ? "both" : top < bottom ? "top" : "bottom" };
}

/** A tone for a while and then nothing. */
export function burst(node: number, peak: number, hertz: number, seconds: number): Drive {
  const whole = Math.round(seconds * hertz) / hertz;
  return { node, breaks: [whole], volts: (t) => (t < whole ? peak * Math.sin(2 * Math.PI * hertz * t) : 0) };
}
