/** The kinds of sound, each with how sure it is, from the figures of a recording. */

import { median } from "d3-array";
import { logistic } from "../numeric/logistic";
import type { SoundKind } from "../tape/events/words";
import type { Impulses } from "./impulses";
import { inStep } from "./impulses";
import { combPower, isFamily, isHeard, type MainsFamily } from "./mains-family";
import { bandPower, decibelsFull, lineAt, type Spectrum } from "./spectrum";
import type { ToneTrack } from "./tracks";
import type { SubAudio } from "./sub-audio";
import type { Recording } from "./wav";

export interface NamedSound {
  /** A kind of fault's sound; or what somebody else plays. */
  kind: SoundKind | "speech or music";
  /** 0 to 1. */
  confidence: number;
}

export interface Tone {
  hertz: number;
  /** Relative to a sine of full scale. */
  db: number;
}

export interface SteadyTone extends Tone {
  /** Decibels that the steady part is below the average: 0 for a tone that never changes. */
  wavers: number;
}

/** 0 to 1 as x passes `at`, by a logistic of that spread. */
export const rises = (x: number, at: number, spread: number) => logistic((x - at) / spread);
/** A kind is named from this confidence on. */
export const NAMED = 0.5;
export const QUIET = -90;
const STANDS = 12;

export function humKinds(family: MainsFamily, total: number, programme: number): NamedSound[] {
  const line = (k: number) => (isHeard(family, k) ? family.lines[k - 1]!.power : 0);
  const [one, two] = [line(1), line(2)];
  const odd = combPower(family, (k) => k % 2 === 1 && k > 1 && k < 5);
  const upper = combPower(family, (k) => k >= 5);
  const heard = family.lines.filter((l) => l.order >= 5 && isHeard(family, l.order)).length;
  const whole = one + two + odd + upper + 1e-20;
  const share = (p: number) => 10 * Math.log10((p + 1e-20) / (total + 1e-20));
  const of = (p: number) => 10 * Math.log10((p + 1e-20) / whole);
  const sure = (p: number, k: number) =>
    rises(family.lines[k - 1]?.above ?? -20, STANDS, 2) * rises(share(p), -30, 3) * rises(decibelsFull(p), QUIET, 3);
  // What is played has multiples too, here and there; a comb has them all.
  const buzz =
    rises(of(upper), -12, 1.2) *
    rises(heard, programme > 0.6 ? 10 : 5, 1) *
    rises(share(upper), -30, 3) *
    rises(decibelsFull(upper), QUIET, 3);
  // The name that says more goes first.
  const less = buzz > NAMED ? 0.75 : 1;
  return [
    { kind: "hum-mains", confidence: sure(one + odd, one > odd ? 1 : 3) * rises(of(one + odd), -9, 1.5) * less },
    { kind: "hum-double", confidence: sure(two, 2) * rises(of(two), -9, 1.5) * less },
    { kind: "buzz", confidence: buzz },
  ];
}

/** Tracks of other notes that make a melody of it. */
const NOTES = 4;

/** A tone that stays, by the whole recording; or one followed through a part of it, unless it is one note of many. */
export function squealKind(steady: SteadyTone[], totaldB: number, tracks: readonly ToneTrack[], played: boolean): NamedSound[] {
  const stays = Math.max(
    0,
    ...steady.map((t) => rises(t.db - totaldB, -22, 2.5) * rises(-t.wavers, -3.2, 0.6) * rises(t.db, QUIET + 5, 3)),
  );
  const others = (t: ToneTrack) => tracks.filter((o) => Math.abs(Math.log2(o.hertz / t.hertz)) > 0.06 && o.db > t.db - 25).length;
  const followed = Math.max(
    0,
    ...tracks.map(
      (t) =>
        rises(t.seconds, 0.33, 0.04) *
        rises(t.share, -12, 1.5) *
        rises(t.db, QUIET + 14, 3) *
        (others(t) >= NOTES || (played && t.seconds < 2) ? 0.3 : 1),
    ),
  );
  return [{ kind: "squeal", confidence: Math.max(stays, followed) }];
}

/** A beat of ten a second has multiples where the mains has its own: they are the beat's while their neighbours are as strong. */
export function beatsMains(beat: number, line: number, spectrum: Spectrum): boolean {
  const order = Math.round(line / beat);
  if (Math.abs(order * beat - line) > 0.25 * beat) return false;
  const at = (hertz: number) => lineAt(spectrum, spectrum.steady, hertz).power;
  return Math.max(at((order - 1) * beat), at((order + 1) * beat)) > 0.1 * at(line);
}

export function beatKind(beat: SubAudio | undefined, total: number, seconds: number): NamedSound[] {
  if (!beat) return [];
  const share = 10 * Math.log10(beat.power / (total + beat.power));
  const beats = beat.hertz * seconds;
  return [
    {
      kind: "motorboating",
      confidence:
        rises(beat.alike, beat.swells ? 0.8 : 0.6, 0.05) *
        rises(share, -17, 2) *
        rises(beats, 2.2, 0.4) *
        rises(decibelsFull(beat.power), QUIET + 10, 3),
    },
  ];
}

/** @param gated how much the noise comes in bursts with the mains: then it is no hiss but buzz. */
export function hissKind(noise: Broadband, total: number, spectrum: Spectrum, gated: number): NamedSound[] {
  const bursts = rises(gated, 0.9, 0.08);
  const share = 10 * Math.log10((noise.power + 1e-20) / (total + 1e-20));
  const upper = 10 * Math.log10((noise.power + 1e-20) / (bandPower(spectrum, 1000, Infinity) + 1e-20));
  const broad =
    rises(share, -17, 2) * rises(noise.tilt, -11, 1.5) * rises(noise.aboveBits, 8, 1.5) * rises(decibelsFull(noise.power), -72, 2.5);
  // Bursts are gone from the steady part: of them the loudness above 1 kHz tells.
  const high = bandPower(spectrum, 1000, Infinity);
  const loud = rises(10 * Math.log10((high + 1e-20) / (total + 1e-20)), -14, 2) * rises(decibelsFull(high), -72, 2.5);
  return [
    { kind: "hiss", confidence: broad * rises(upper, -9, 1.5) * (1 - bursts) },
    { kind: "buzz", confidence: bursts * loud },
  ];
}

export function crackleKind(impulses: Impulses, family: MainsFamily, beat: number | undefined): NamedSound[] {
  if (impulses.at.length < 2) return [];
  // Two events of a recording are hardly a rate, but two clicks are two clicks.
  const enough = rises(impulses.at.length, 2.6, 0.5);
  const step = Math.max(
    isFamily(family) ? inStep(impulses, family.hertz) : 0,
    inStep(impulses, 2 * family.hertz),
    beat ? inStep(impulses, beat) : 0,
  );
  const chance = rises(impulses.irregular, 0.3, 0.05) * (impulses.at.length < 6 ? 1 : rises(-step, -0.72, 0.05));
  return [{ kind: "crackle", confidence: enough * chance }];
}

export interface Broadband {
  /** Mean square above 1 kHz. */
  power: number;
  /** Decibels that a hertz at 3 kHz has above one at 300 Hz. */
  tilt: number;
  /** Decibels above what the recorder's own bits make. */
  aboveBits: number;
}

/** The noise between the lines, band by band: the steady part, so that what is played does not count. */
export function broadband(spectrum: Spectrum, recording: Recording): Broadband {
  const { step } = spectrum;
  const top = 0.45 * recording.rate;
  // The lower third of frames of noise lies at −ln(1 − 0.3) of its mean. A bin's power is an exponential variate.
  const source = spectrum.frames >= 4 ? spectrum.steady : spectrum.power;
  const toMean = spectrum.frames >= 4 ? 1 / -Math.log(1 - 0.3) : 1 / Math.LN2;
  const density = (from: number, to: number) => {
    const bins = source.subarray(Math.ceil(from / step), Math.min(source.length, Math.floor(to / step)));
    return ((median(bins) ?? 0) * toMean) / step;
  };
  let power = 0;
  for (let from = 1000; from < Math.min(top, 16_000); from *= 1.26) {
    const to = Math.min(from * 1.26, top);
    power += density(from, to) * (to - from);
  }
  const high = Math.min(3000, 0.7 * top);
  const tilt = 10 * Math.log10((density(0.8 * high, 1.25 * high) + 1e-22) / (density(240, 380) + 1e-22));
  const step8 = 2 / 2 ** (recording.float ? 24 : recording.bits);
  const bits = ((step8 * step8) / 12) * ((Math.min(top, 16_000) - 1000) / (recording.rate / 2));
  return { power, tilt, aboveBits: 10 * Math.log10((power + 1e-22) / Math.max(bits, 1e-22)) };
}
