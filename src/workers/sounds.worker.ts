/** Recordings off the main thread: a thin shell over core. */

import { expose } from "comlink";
import { setLanguage } from "@/core/language/language";
import { releasing } from "./releasing";
import { curveOf } from "@/core/sound/curve";
import { soundsOf } from "@/core/sound/sounds";
import type { Analysed } from "@/core/sound/sounds";
import { decodeWav, HEAD_BYTES, readWavHead } from "@/core/sound/wav";

const api = {
  speak: setLanguage,
  async analyse(file: Blob, mains: number | undefined, progress?: (part: number) => void): Promise<Analysed> {
    // Only what is looked at is read: a file of gigabytes never fills the memory.
    const head = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer());
    const shape = readWavHead(head, file.size);
    progress?.(0.05);
    const recording = decodeWav(shape, new Uint8Array(await file.slice(shape.from, shape.from + shape.bytes).arrayBuffer()));
    progress?.(0.15);
    const { spectrum, ...sounds } = soundsOf(recording, mains, (part) => progress?.(0.15 + 0.85 * part));
    return { ...sounds, curve: curveOf(spectrum) };
  },
};

export type SoundsApi = typeof api;

expose(releasing(api));
