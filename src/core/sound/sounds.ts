/** What a recording holds, named as a technician would name it, with the figures it is named by and how sure that is. */

import { fixed } from "../language/language";
import { combPower, isFamily, lineDecibels, mainsFamily, type MainsFamily } from "./mains-family";
import { impulsesOf } from "./impulses";
import { bandPower, decibelsFull, floorAround, LINE_BINS, peakHertz, spectrumOf, type Spectrum } from "./spectrum";
import {
  beatKind,
  beatsMains,
  broadband,
  crackleKind,
  hissKind,
  humKinds,
  NAMED,
  rises,
  squealKind,
  type NamedSound,
  type SteadyTone,
  type Tone,
} from "./sound-kinds";
import { gatedBy } from "./gated";
import { subAudioOf } from "./sub-audio";
import { tracksOf, type ToneTrack } from "./tracks";
import type { Recording } from "./wav";
import * as texts from "../texts/sound";

/** What a screen is given of a recording: its spectrum as the few figures of a curve. */
export interface Analysed extends Omit<Sounds, "spectrum"> {
  curve: number[];
}

export interface Sounds {
  /** All that is heard, the surest first; never empty. */
  named: NamedSound[];
  mains: { hertz: number; f1dB: number; f2dB: number; oddCombdB: number; evenCombdB: number };
  tones: Tone[];
  subAudioHz?: number;
  crackleRate?: number;
  /** Broadband from 1 kHz on, relative to a sine of full scale. */
  hissdB: number;
  /** Everything above 20 Hz. */
  totaldB: number;
  peakdB: number;
  seconds: number;
  /** Something like speech or music: syllables and notes that come and go. 0 to 1. */
  programme: number;
  /** Bursts of high frequency on the peaks of something slower. 0 to 1. */
  burstsOnPeaks: number;
  notes: string[];
  spectrum: Spectrum;
}

/** The figures without the spectrum, rounded, under the names of the headless door: one JSON document. */
export function tellSounds(s: Sounds) {
  const db = (x: number) => Number(x.toFixed(1));
  return {
    kind: s.named[0]!.kind,
    confidence: Number(s.named[0]!.confidence.toFixed(2)),
    kinds: s.named.map(({ kind, confidence }) => ({ kind, confidence: Number(confidence.toFixed(2)) })),
    mains: {
      hz: Number(s.mains.hertz.toFixed(2)),
      f1dB: db(s.mains.f1dB),
      f2dB: db(s.mains.f2dB),
      oddCombdB: db(s.mains.oddCombdB),
      evenCombdB: db(s.mains.evenCombdB),
    },
    tones: s.tones.map((t) => ({ hz: Number(t.hertz.toFixed(1)), db: db(t.db) })),
    ...(s.subAudioHz === undefined ? {} : { subAudioHz: Number(s.subAudioHz.toFixed(2)) }),
    ...(s.crackleRate === undefined ? {} : { crackleRate: Number(s.crackleRate.toFixed(1)) }),
    hissdB: db(s.hissdB),
    totaldB: db(s.totaldB),
    seconds: Number(s.seconds.toFixed(2)),
    notes: s.notes,
  };
}

const LEAST_TONE_HERTZ = 38;
const MOST_TONES = 8;

/** @param mains its nominal frequency where it is known. @param progress told 0 to 1. @throws RangeError for less than a tenth of a second. */
export function soundsOf(recording: Recording, mains?: number, progress?: (part: number) => void): Sounds {
  const { rate } = recording;
  const x = loudest(recording.channels);
  if (x.length < 0.1 * rate) throw new RangeError(texts.recordingHasMsSecond(fixed((x.length / rate) * 1000, 0)));
  const notes = [...recording.notes];
  const seconds = x.length / rate;
  if (seconds < 2) notes.push(texts.onlyLongSlowThings(fixed(seconds, 1)));
  const { peak, clipped, offset } = extremes(x);
  if (clipped > 0) notes.push(texts.clippedTimesRecordLower(clipped));
  if (Math.abs(offset) > 0.02) notes.push(texts.zeroOffFullScale(fixed(100 * offset, 0)));
  const spectrum = spectrumOf(x, rate, (part) => progress?.(0.7 * part));
  const nyquist = rate / 2;
  const total = bandPower(spectrum, 20, nyquist);
  const [family, otherMains] = familyOf(spectrum, mains);
  if (otherMains !== undefined) notes.push(texts.hzNotHzAnother(Math.round(otherMains), mains));
  const totaldB = decibelsFull(total);
  const base = {
    mains: {
      // Without a line of it nobody heard the mains: its nominal figure stands.
      hertz: isFamily(family) ? family.hertz : (mains ?? (family.hertz > 55 ? 60 : 50)),
      f1dB: lineDecibels(family, 1),
      f2dB: lineDecibels(family, 2),
      oddCombdB: decibelsFull(combPower(family, (k) => k % 2 === 1 && k > 1)),
      evenCombdB: decibelsFull(combPower(family, (k) => k % 2 === 0 && k > 2)),
    },
    peakdB: 20 * Math.log10(Math.max(peak, 1e-6)),
    seconds,
    spectrum,
  };
  if (peak < 2e-5) {
    notes.push(texts.silentNothingButZeros());
    return {
      ...base,
      named: [{ kind: "clean", confidence: 0.3 }],
      tones: [],
      hissdB: -120,
      totaldB,
      programme: 0,
      burstsOnPeaks: 0,
      notes,
    };
  }
  const tracks = tracksOf(x, rate).filter((t) => !ofTheMains(t.hertz, family));
  const steady = tonesOf(spectrum, family, total);
  const programme = programmeOf(spectrum, total);
  // What is played has tones by the dozen: they are its notes, not the amp's.
  const played = programme > PLAYED && tracks.length > MOST_OF_AN_AMP;
  const tones = [
    ...steady.filter((t) => !played || t.wavers < STAYS),
    ...(played ? [] : tracks).filter((t) => !steady.some((s) => Math.abs(s.hertz - t.hertz) < Math.max(12, 0.02 * t.hertz))).map(toneOf),
  ]
    .sort((a, b) => b.db - a.db)
    .slice(0, MOST_TONES);
  const impulses = impulsesOf(x, rate, recording.float ? 24 : recording.bits, clipped > 0);
  progress?.(0.85);
  const beat = subAudioOf(x, rate, family.hertz);
  progress?.(0.95);
  const noise = broadband(spectrum, recording);
  const burstsOnPeaks = burstsOf(x, rate);
  const gated = Math.max(gatedBy(x, rate, 2 * family.hertz), gatedBy(x, rate, family.hertz));
  const all = [
    ...humKinds(family, total, programme),
    ...squealKind(steady, totaldB, tracks, played),
    ...beatKind(beat, total, seconds),
    ...hissKind(noise, total, spectrum, gated),
    ...crackleKind(impulses, family, beat?.hertz),
  ];
  const louder = Math.max(-Infinity, ...tones.map((t) => t.db)) - decibelsFull(family.lines.reduce((sum, l) => sum + l.power, 0));
  // A tone well above all of the mains' own lines is what is heard.
  for (const n of all) if ((n.kind === "hum-mains" || n.kind === "hum-double") && louder > TONE_LOUDER) n.confidence *= 0.8;
  all.sort((a, b) => b.confidence - a.confidence);
  const named = onePerKind(all).filter((n) => n.confidence >= NAMED);
  const motor = named.some((n) => n.kind === "motorboating");
  const crackle = named.some((n) => n.kind === "crackle");
  const beaten = (n: NamedSound) =>
    beat !== undefined && n.kind.startsWith("hum") && beatsMains(beat.hertz, (n.kind === "hum-mains" ? 1 : 2) * family.hertz, spectrum);
  const shown = motor ? named.filter((n) => n.kind !== "crackle" && !beaten(n)) : named;
  if (gated > GATED && named.some((n) => n.kind === "buzz")) notes.push(texts.noiseBurstsMainsArcing());
  if (tracks.some((t) => t.grows > 6 && t.seconds > 0.4)) notes.push(texts.toneGrowsWhileListened());
  if (programme > 0.6) notes.push(texts.somethingLikeSpeechMusic());
  if (burstsOnPeaks > 0.6) notes.push(texts.burstsHighFrequencyRide());
  return {
    ...base,
    named: shown.length > 0 ? shown : [unnamed(all, tones, totaldB, programme)],
    tones: tones.map(({ hertz, db }) => ({ hertz, db })),
    ...(motor && beat ? { subAudioHz: beat.hertz } : {}),
    ...(crackle && !motor ? { crackleRate: impulses.perSecond } : {}),
    hissdB: decibelsFull(noise.power),
    totaldB,
    programme,
    burstsOnPeaks,
    notes,
  };
}

/** From here on something is taken to be played; and tracks that an amp by itself has at most. */
const PLAYED = 0.6;
const MOST_OF_AN_AMP = 2;
/** Decibels that a tone which is there all the time has less in its quiet frames, at most. */
const STAYS = 2.5;

/** A tone or a room's worth of something is not clean, whatever it is. */
const ROOM_DB = -52;
/** Decibels by which a tone must stand above the hum to go first. */
const TONE_LOUDER = 6;
/** Modulation from which noise comes in bursts. */
const GATED = 0.9;

/** What is said where nothing is sure: never "clean" while a tone stands there or it is loud. */
function unnamed(all: NamedSound[], tones: Tone[], totaldB: number, programme: number): NamedSound {
  const best = onePerKind(all)[0];
  if (programme > PLAYED && !tones.length) return { kind: "speech or music", confidence: Math.min(0.9, programme) };
  if (tones.length > 0) return { kind: "squeal", confidence: Math.max(0.3, best?.kind === "squeal" ? best.confidence : 0) };
  if (best && totaldB > ROOM_DB && programme < 0.6) return { kind: best.kind, confidence: Math.min(0.45, Math.max(0.2, best.confidence)) };
  return { kind: "clean", confidence: 0.9 * rises(-totaldB, 20, 8) * (programme > 0.6 ? 0.4 : 1) + 0.05 };
}

/** The surest of each kind. */
function onePerKind(sorted: NamedSound[]): NamedSound[] {
  return sorted.filter((n, i) => sorted.findIndex((m) => m.kind === n.kind) === i);
}

/** By how much the other mains must fit better before what was given is doubted. */
const OTHER_FITS = 25;

/** The family of the mains that was given, or of the other where that fits far better; its frequency then. */
function familyOf(spectrum: Spectrum, given: number | undefined): [MainsFamily, number | undefined] {
  const family = mainsFamily(spectrum, given);
  if (given === undefined || (Math.abs(given - 50) > 3 && Math.abs(given - 60) > 3)) return [family, undefined];
  const other = mainsFamily(spectrum, given > 55 ? 50 : 60);
  return isFamily(other) && other.score > family.score + OTHER_FITS ? [other, other.hertz] : [family, undefined];
}

/** On a multiple of the mains, as near as short frames can tell. */
function ofTheMains(hertz: number, family: MainsFamily): boolean {
  const order = Math.round(hertz / family.hertz);
  return isFamily(family) && order <= 60 && Math.abs(hertz - order * family.hertz) < Math.max(2.5, 0.002 * hertz);
}

const toneOf = (t: ToneTrack): SteadyTone => ({ hertz: t.hertz, db: t.db, wavers: 0 });

function loudest(channels: readonly Float32Array[]): Float32Array {
  let best = channels[0] ?? new Float32Array(0);
  let most = -1;
  for (const c of channels) {
    const stride = Math.max(1, Math.floor(c.length / 50_000));
    let sum = 0;
    for (let i = 0; i < c.length; i += stride) sum += c[i]! * c[i]!;
    if (sum > most) [best, most] = [c, sum];
  }
  return best;
}

/** Peak, places where it stays at full scale, and the mean. */
function extremes(x: Float32Array): { peak: number; clipped: number; offset: number } {
  let [peak, sum, clipped, run] = [0, 0, 0, 0];
  for (let i = 0; i < x.length; i++) {
    const v = x[i]! < 0 ? -x[i]! : x[i]!;
    if (v > peak) peak = v;
    sum += x[i]!;
    run = v > 0.985 ? run + 1 : 0;
    if (run === 3) clipped++;
  }
  return { peak, clipped, offset: sum / x.length };
}

/** Lines that are no multiple of the mains, the strongest first. */
function tonesOf(spectrum: Spectrum, family: MainsFamily, total: number): SteadyTone[] {
  const { power, steady, step } = spectrum;
  const found: SteadyTone[] = [];
  const there = isFamily(family);
  const least = Math.max(1e-11, 1e-4 * total);
  for (let k = Math.ceil(LEAST_TONE_HERTZ / step); k < steady.length - LINE_BINS - 1; k++) {
    if (steady[k]! < steady[k - 1]! || steady[k]! < steady[k + 1]! || power[k]! * 2 < least) continue;
    const floor = floorAround(power, k, step);
    if (power[k]! < 60 * floor) continue;
    const hertz = peakHertz(power, k, step);
    const order = Math.round(hertz / family.hertz);
    let [p, s] = [0, 0];
    for (let j = k - LINE_BINS; j <= k + LINE_BINS; j++) [p, s] = [p + power[j]!, s + steady[j]!];
    if (there && order <= 60 && Math.abs(hertz - order * family.hertz) < Math.max(1.2 * step, 0.0015 * hertz)) {
      // One of the mains' own multiples, unless it stands far above its neighbours among them.
      const beside = Math.max(...[-2, -1, 1, 2].map((d) => family.lines[order - 1 + d]?.power ?? 0));
      if (order < 5 || p < 30 * beside) continue;
    }
    found.push({ hertz, db: decibelsFull(p), wavers: 10 * Math.log10(p / Math.max(s, 1e-20)) });
  }
  return found.sort((a, b) => b.db - a.db).slice(0, MOST_TONES);
}

/** Something that comes and goes in the middle of the band, as syllables and notes do and no fault does. */
function programmeOf(spectrum: Spectrum, total: number): number {
  if (spectrum.frames < 6) return 0;
  const there = bandPower(spectrum, 250, 3400);
  const stays = bandPower(spectrum, 250, 3400, spectrum.steady);
  const share = 10 * Math.log10((there + 1e-20) / (total + 1e-20));
  // Noise keeps a third of itself in the steady part; what is played keeps next to nothing.
  return rises(-10 * Math.log10((stays + 1e-20) / (there + 1e-20)), 9, 1) * rises(share, -20, 2) * rises(decibelsFull(there), -80, 3);
}

/** High frequency that is only there near the peaks of the slow part. */
function burstsOf(x: Float32Array, rate: number): number {
  if (rate < 16_000) return 0;
  const n = Math.min(x.length, 4 * rate);
  const tau = Math.exp((-2 * Math.PI * 2000) / rate);
  let low = 0;
  const slow = new Float32Array(n);
  const fast = new Float32Array(n);
  let peak = 0;
  for (let i = 0; i < n; i++) {
    low = tau * low + (1 - tau) * x[i]!;
    slow[i] = low < 0 ? -low : low;
    fast[i] = i > 1 ? x[i]! - 2 * x[i - 1]! + x[i - 2]! : 0;
    if (slow[i]! > peak) peak = slow[i]!;
  }
  let [onPeak, peaks, off, offs] = [0, 0, 0, 0];
  for (let i = 0; i < n; i++) {
    const square = fast[i]! * fast[i]!;
    if (slow[i]! > 0.75 * peak) [onPeak, peaks] = [onPeak + square, peaks + 1];
    else if (slow[i]! < 0.5 * peak) [off, offs] = [off + square, offs + 1];
  }
  if (peaks < 50 || offs < 50 || peak < 0.01) return 0;
  const ratio = 10 * Math.log10((onPeak / peaks + 1e-14) / (off / offs + 1e-14));
  return rises(ratio, 14, 2) * rises(10 * Math.log10(onPeak / peaks / (peak * peak) + 1e-14), -32, 3);
}
