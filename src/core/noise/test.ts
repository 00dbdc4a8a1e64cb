/** What a test of a noise is, and the words that it is answered with. */

import type { SoundWord } from "../tape/sound-words";

export const CHANGES_HEARD = ["gone", "less", "no change", "more"] as const;
export const SWEPT = ["no change", "louder as it goes up", "loudest part-way", "louder as it goes down"] as const;
export const RIPPLE_READ = ["as it should be", "two to five times", "over five times", "less than it should be"] as const;
export const TOUCHED = ["loud", "soft", "nothing"] as const;
export const WORDS: SoundWord[] = [
  "hum-mains",
  "hum-double",
  "buzz",
  "squeal",
  "motorboating",
  "hiss",
  "crackle",
  "speech or music",
  "bursts on peaks",
  "nothing at all",
  "clean",
];
/** Answers to every test besides its own. */
export const NOT_SURE = "not sure";
export const NOW_AND_THEN = "now one, now the other";

export interface NoiseTest {
  id: string;
  what: string;
  how: string;
  outcomes: readonly string[];
  /** Effort and danger together. */
  cost: number;
  caution?: string;
  /** A hand goes into the chassis for it: the amp is proven dead first. */
  inside?: boolean;
  /** What it does to the circuit, where it does something to it. */
  circuit?: { set?: string[]; without?: string[]; capacitor?: { node: string; farads: number }; sweep?: string };
  /** Node whose ripple is read, or whose grid is touched. */
  node?: string;
}

export const LIVE = "The amp is live and open: one hand, insulated probe, nothing bare.";
export const OFF = "Power off, plug out, reservoirs proven dead before a hand goes in.";
