/** What a cause of a noise is: where it enters, what it changes, what it sounds like, how it answers. */

import type { SoundWord } from "../tape/sound-words";

/** A current into a node (out of another, or of ground), at the mains frequency, twice it, or in the middle of the band. */
export interface Enters {
  into: string;
  from?: string;
  at: "mains" | "double" | "audio" | "high";
  /** Relative to the other places of the same cause. */
  weight?: number;
}

/** How a cause answers a test that the circuit says nothing of: decibels of change; −40 is gone. */
export type Reactions = Partial<Record<string, number>>;

export interface NoiseCause {
  id: string;
  says: string;
  refs: string[];
  prior: number;
  /** What it sounds like, and how likely each; what is not named is unlikely. */
  sounds: Partial<Record<SoundWord, number>>;
  /** Changes to the netlist that it is, in the engine's words. */
  changes: string[];
  /** The same less and more severe: what is read of it may be any of these. */
  severities?: string[][];
  /** Where it enters; "ripple" is the rectifier's own current of the high-tension or the bias supply. */
  enters: Enters[] | "ripple" | "bias ripple";
  reacts: Reactions;
  /** It makes no noise: signal is lost. */
  silent?: boolean;
  /** It comes and goes of itself. */
  fitful?: boolean;
  /** The fault of the suspects' list that it is. */
  fault?: string;
}
