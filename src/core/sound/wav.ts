/**
 * WAV files in and out. Read: PCM of 8, 16, 24 and 32 bits, floating point of 32 and 64, plain or extensible, any number of channels.
 * Source: Microsoft and IBM, "Multimedia programming interface and data specifications 1.0", 1991; the extensible form of 2001.
 */

import { fixed } from "../language/language";
import * as texts from "../texts/sound";

export interface Recording {
  /** Samples a second. */
  rate: number;
  /** One course per channel, full scale from −1 to 1. */
  channels: Float32Array[];
  bits: number;
  float: boolean;
  /** What was odd about the file and could be lived with. */
  notes: string[];
}

/** A file that cannot be read: what was found, and what is accepted. */
export class WavError extends Error {
  constructor(
    readonly found: string,
    readonly expected = texts.wavFilePcmBits(),
  ) {
    super(texts.wanted(found, expected));
  }
}

export interface WavShape {
  rate: number;
  channels: number;
  bits: number;
  float: boolean;
  /** Bytes from the start of the file where the samples begin, and how many there are. */
  from: number;
  bytes: number;
  notes: string[];
}

/** Longest part of a recording that is looked at, seconds: more tells nothing new and would not fit the memory. */
export const MOST_SECONDS = 600;
/** The head of a file in which the samples must begin. */
export const HEAD_BYTES = 1 << 20;

const [PCM, IEEE_FLOAT, EXTENSIBLE] = [1, 3, 0xfffe];
const COMPRESSED: Record<number, string> = {
  2: "ADPCM",
  6: "A-law",
  7: "µ-law",
  0x11: texts.imaAdpcm,
  0x50: texts.mpegAudio,
  0x55: "MP3",
  0x161: texts.windowsMediaAudio,
};

const word = (bytes: Uint8Array, at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
const printable = (text: string) => [...text].map((c) => (c >= " " && c <= "~" ? c : "·")).join("");

/**
 * Finds the samples of a file from its first bytes.
 * @param head the first bytes, up to HEAD_BYTES. @param size bytes of the whole file.
 * @throws WavError for what is no WAV, is compressed, or has no samples.
 */
export function readWavHead(head: Uint8Array, size: number): WavShape {
  if (size === 0) throw new WavError(texts.fileEmpty());
  if (head.length < 12 || word(head, 0) !== "RIFF" || word(head, 8) !== "WAVE") {
    const start = printable(word(head, 0));
    const known = start.startsWith("ID3") ? texts.anMp() : start === "fLaC" ? " (FLAC)" : start === "OggS" ? " (Ogg)" : "";
    throw new WavError(texts.fileStartsNotRiff(start, known));
  }
  const view = new DataView(head.buffer, head.byteOffset, head.byteLength);
  const notes: string[] = [];
  let format: { tag: number; channels: number; rate: number; align: number; bits: number } | undefined;
  for (let at = 12; at + 8 <= head.length;) {
    const id = word(head, at);
    const length = view.getUint32(at + 4, true);
    if (id === "fmt ") {
      if (length < 16 || at + 8 + 16 > head.length) throw new WavError(texts.formatChunkBytes(length));
      const tag = view.getUint16(at + 8, true);
      // The extensible form says its kind in the first two bytes of an identifier.
      const inner = tag === EXTENSIBLE && length >= 40 && at + 34 <= head.length ? view.getUint16(at + 32, true) : tag;
      format = {
        tag: inner,
        channels: view.getUint16(at + 10, true),
        rate: view.getUint32(at + 12, true),
        align: view.getUint16(at + 20, true),
        bits: view.getUint16(at + 22, true),
      };
    } else if (id === "data") {
      if (!format) throw new WavError(texts.samplesBeforeTheirFormat());
      return shapeOf(format, at + 8, length, size, notes);
    }
    at += 8 + length + (length & 1);
  }
  if (!format) throw new WavError(texts.noFormatChunk());
  throw new WavError(texts.noSamplesEndsAfter(), texts.recordingSecondMore());
}

function shapeOf(
  f: { tag: number; channels: number; rate: number; align: number; bits: number },
  from: number,
  said: number,
  size: number,
  notes: string[],
): WavShape {
  if (f.tag !== PCM && f.tag !== IEEE_FLOAT) {
    const name = COMPRESSED[f.tag] ?? texts.kind(f.tag);
    throw new WavError(texts.compressedWhatCodecLeaves(name), texts.uncompressedWav());
  }
  const float = f.tag === IEEE_FLOAT;
  const known = float ? [32, 64] : [8, 16, 24, 32];
  if (!known.includes(f.bits)) throw new WavError(texts.bitsSample(f.bits, float ? texts.floatingPoint() : ""));
  if (f.channels < 1 || f.channels > 64) throw new WavError(texts.channels(f.channels), "1 to 64 channels");
  if (f.rate < 2000 || f.rate > 768_000) throw new WavError(texts.samplesSecond(f.rate), texts.samplesSecond2());
  const frame = (f.bits / 8) * f.channels;
  if (f.align !== frame) notes.push(texts.fileSaysBytesFrame(f.align, frame));
  const there = Math.max(0, size - from);
  // Recorders that stream leave the length at zero or at its largest until they close the file.
  const open = said === 0 || said >= 0xffffff00;
  if (!open && said > there) notes.push(texts.cutShortThere(fixed(there / frame / f.rate, 1), fixed(said / frame / f.rate, 1)));
  const most = Math.floor(MOST_SECONDS * f.rate) * frame;
  const whole = Math.floor(Math.min(open ? there : said, there) / frame) * frame;
  if (whole === 0) throw new WavError(texts.noSamples(), texts.recordingSecondMore());
  if (whole > most) notes.push(texts.minLongFirstMin(Math.round(whole / frame / f.rate / 60), MOST_SECONDS / 60));
  return { rate: f.rate, channels: f.channels, bits: f.bits, float, from, bytes: Math.min(whole, most), notes };
}

/** The samples. @param data the `bytes` bytes from `from` on. */
export function decodeWav(shape: WavShape, data: Uint8Array): Recording {
  const { bits, float, rate } = shape;
  const step = bits / 8;
  const frames = Math.floor(data.length / (step * shape.channels));
  const view = new DataView(data.buffer, data.byteOffset, data.byteLength);
  const read: (at: number) => number = float
    ? bits === 32
      ? (at) => view.getFloat32(at, true)
      : (at) => view.getFloat64(at, true)
    : bits === 8
      ? (at) => (view.getUint8(at) - 128) / 128
      : bits === 16
        ? (at) => view.getInt16(at, true) / 32768
        : bits === 24
          ? (at) => ((view.getUint8(at) | (view.getUint8(at + 1) << 8) | (view.getInt8(at + 2) << 16)) as number) / 8388608
          : (at) => view.getInt32(at, true) / 2147483648;
  const channels = Array.from({ length: shape.channels }, () => new Float32Array(frames));
  let broken = 0;
  for (let i = 0, at = 0; i < frames; i++)
    for (const channel of channels) {
      const v = read(at);
      if (Number.isFinite(v)) channel[i] = v;
      else broken++;
      at += step;
    }
  const notes = [...shape.notes];
  if (broken > 0) notes.push(texts.samplesWereNoNumbers(broken));
  return { rate, channels, bits, float, notes };
}

/** Reads a whole file that is in memory. @throws WavError */
export function readWav(bytes: Uint8Array): Recording {
  const shape = readWavHead(bytes.subarray(0, HEAD_BYTES), bytes.length);
  return decodeWav(shape, bytes.subarray(shape.from, shape.from + shape.bytes));
}

/** Writes PCM of 8, 16, 24 or 32 bits, or floating point of 32; what is beyond full scale is clipped. */
export function writeWav(channels: readonly Float32Array[], rate: number, bits: 8 | 16 | 24 | 32 = 16, float = false): Uint8Array {
  const frames = channels[0]?.length ?? 0;
  const frame = (bits / 8) * channels.length;
  const out = new Uint8Array(44 + frames * frame);
  const view = new DataView(out.buffer);
  const put = (at: number, text: string) => [...text].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
  put(0, "RIFF");
  view.setUint32(4, 36 + frames * frame, true);
  put(8, "WAVEfmt ");
  view.setUint32(16, 16, true);
  view.setUint16(20, float ? IEEE_FLOAT : PCM, true);
  view.setUint16(22, channels.length, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * frame, true);
  view.setUint16(32, frame, true);
  view.setUint16(34, bits, true);
  put(36, "data");
  view.setUint32(40, frames * frame, true);
  const full = 2 ** (bits - 1);
  for (let i = 0, at = 44; i < frames; i++)
    for (const channel of channels) {
      const v = Math.max(-1, Math.min(1, channel[i]!));
      const whole = Math.max(-full, Math.min(full - 1, Math.round(v * full)));
      if (float) view.setFloat32(at, channel[i]!, true);
      else if (bits === 8) view.setUint8(at, whole + 128);
      else if (bits === 16) view.setInt16(at, whole, true);
      else if (bits === 24) {
        view.setUint8(at, whole & 255);
        view.setUint8(at + 1, (whole >> 8) & 255);
        view.setUint8(at + 2, (whole >> 16) & 255);
      } else view.setInt32(at, whole, true);
      at += bits / 8;
    }
  return out;
}
