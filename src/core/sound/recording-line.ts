/** A recording as its line on the tape says it, and what two of them say together. */

import type { RecordingTaken } from "../tape/events/noise-events";
import type { Analysed } from "./sounds";
import { saidSound } from "../tape/sound-words";

export interface Kept {
  hash: string;
  name: string;
  when: RecordingTaken["when"];
  /** Millivolts rms at the speaker for 0 dB, where they are known. */
  fullScaleMillivolts?: number;
}

/** Levels to a tenth of a decibel, confidence to a hundredth. */
export function recordingLine(
  sounds: Pick<Analysed, "seconds" | "named" | "mains" | "hissdB" | "totaldB" | "curve">,
  kept: Kept,
): RecordingTaken {
  const tenth = (x: number) => Math.round(10 * x) / 10;
  return {
    ...kept,
    seconds: tenth(sounds.seconds),
    // What somebody else plays is no sound of the amp's: of that it is clean, and hardly surely.
    sounds: sounds.named.map(({ kind, confidence }) =>
      kind === "speech or music" ? { kind: "clean", confidence: 0.2 } : { kind, confidence: Math.round(100 * confidence) / 100 },
    ),
    f1dB: tenth(sounds.mains.f1dB),
    f2dB: tenth(sounds.mains.f2dB),
    hissdB: tenth(sounds.hissdB),
    totaldB: tenth(sounds.totaldB),
    curve: sounds.curve,
  };
}

/** Its kinds in words. */
export const heardIn = (r: Pick<RecordingTaken, "sounds">) => r.sounds.map((s) => saidSound(s.kind)).join(", ");

/** How much louder the later one is, decibels: by millivolts at the speaker where both say them, else by the recorder's own full scale. */
export function louderBy(before: RecordingTaken, after: RecordingTaken): number {
  const scale = (r: RecordingTaken) =>
    before.fullScaleMillivolts && after.fullScaleMillivolts ? 20 * Math.log10(r.fullScaleMillivolts!) : 0;
  return after.totaldB + scale(after) - (before.totaldB + scale(before));
}

/** Millivolts rms of a level. @param full millivolts rms of 0 dB, a sine of full scale. */
export const millivoltsOf = (db: number, full: number) => full * 10 ** (db / 20);
