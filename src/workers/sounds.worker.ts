/** Recordings off the main thread: a thin shell over core. */

import { expose } from "comlink";
import { curveOf } from "@/core/noise/curve";
import { soundsOf } from "@/core/noise/sounds";
import type { Analysed } from "@/core/noise/sounds-port";
import { decodeWav, HEAD_BYTES, readWavHead } from "@/core/noise/wav";

const api = {
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

expose(api);
