/** Records some seconds of the browser's microphone as a WAV, without the cleaning that calls want and measuring does not. */

import { writeWav } from "@/core/sound/wav";

const BLOCK = 4096;

/** @param told 0 to 1. @throws Error with a reason that can be shown: refused, not there, taken by another program. */
export async function recordMicrophone(seconds: number, told: (part: number) => void, stop: AbortSignal): Promise<Blob> {
  if (!navigator.mediaDevices?.getUserMedia)
    throw new Error("This browser gives no microphone to a page that is not on https or localhost. A WAV file can be chosen instead.");
  let stream: MediaStream;
  try {
    stream = await navigator.mediaDevices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    });
  } catch (error) {
    const name = (error as DOMException).name;
    throw new Error(
      name === "NotAllowedError"
        ? "The microphone was refused. Allow it beside the page's address, or choose a WAV file."
        : name === "NotFoundError"
          ? "No microphone is there. Plug one in, or choose a WAV file."
          : `The microphone could not be opened (${name}). Another program may hold it; a WAV file can be chosen instead.`,
    );
  }
  const context = new AudioContext();
  try {
    const blocks: Float32Array[] = [];
    const wanted = Math.ceil((seconds * context.sampleRate) / BLOCK);
    await new Promise<void>((resolve, reject) => {
      const source = context.createMediaStreamSource(stream);
      // Deprecated, but the only tap that needs no script of its own from an address.
      const tap = context.createScriptProcessor(BLOCK, 1, 1);
      tap.onaudioprocess = (e) => {
        blocks.push(e.inputBuffer.getChannelData(0).slice());
        told(Math.min(1, blocks.length / wanted));
        if (blocks.length >= wanted) resolve();
      };
      stop.addEventListener("abort", () => reject(new Error("The recording was interrupted.")));
      source.connect(tap);
      tap.connect(context.destination);
    });
    const whole = new Float32Array(blocks.length * BLOCK);
    blocks.forEach((b, i) => whole.set(b, i * BLOCK));
    return new Blob([new Uint8Array(writeWav([whole], Math.round(context.sampleRate), 16))], { type: "audio/wav" });
  } finally {
    stream.getTracks().forEach((t) => t.stop());
    await context.close();
  }
}
