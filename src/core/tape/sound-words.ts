/** Kinds of sound as a technician says them. */

import { words } from "../language/language";
import type { SoundKind } from "./events/words";
import * as texts from "../texts/sound";

/** A kind of sound, or what else a test can be answered with. */
export type SoundWord = SoundKind | "speech or music" | "bursts on peaks" | "nothing at all";

const SAID: Record<SoundWord, string> = {
  "hum-mains": texts.humMainsFrequency,
  "hum-double": texts.humTwiceMainsFrequency,
  buzz: texts.buzzCombMainsMultiples,
  squeal: texts.squealSteadyTone,
  motorboating: "motor-boating",
  hiss: "hiss",
  crackle: "crackle",
  clean: texts.nothingOutWay,
  "speech or music": texts.speechMusicNobodyPlays,
  "bursts on peaks": texts.burstsPeaksSignal,
  "nothing at all": texts.nothingAllNoSignal,
};

/** A kind of sound as a technician says it. */
export const saidSound = (kind: SoundWord): string => words(SAID[kind]);

/** An outcome of a test in words: kinds of sound by name, all else as it stands. */
export const sayOutcome = (outcome: string) => (Object.hasOwn(SAID, outcome) ? saidSound(outcome as SoundWord) : outcome);
