/** Kinds of sound as a technician says them. */

import type { Word } from "./cause";

export const SAID: Record<Word, string> = {
  "hum-mains": "hum at the mains frequency",
  "hum-double": "hum at twice the mains frequency",
  buzz: "buzz: a comb of mains multiples",
  squeal: "squeal: a steady tone",
  motorboating: "motor-boating",
  hiss: "hiss",
  crackle: "crackle",
  clean: "nothing out of the way",
  "speech or music": "speech or music that nobody plays",
  "bursts on peaks": "bursts on the peaks of the signal",
  "nothing at all": "nothing at all, no signal either",
};

/** An outcome of a test in words: kinds of sound by name, all else as it stands. */
export const sayOutcome = (outcome: string) => (Object.hasOwn(SAID, outcome) ? SAID[outcome as Word] : outcome);
