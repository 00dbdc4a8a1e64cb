/** Every kind of block, in the order in which the list of what can be added shows them. */

import { BACK_BIAS, BIAS_ADJUSTER, BIAS_SUPPLY } from "./bias";
import { EFFECTS_LOOP, REVERB } from "./effects";
import { FEEDBACK, LINE_OUTLET } from "./feedback";
import { CASCODE, FOLLOWER, PARALLEL, PENTODE, TRIODE } from "./gain-stages";
import { HEATERS } from "./heaters";
import { INPUT, INPUT_LEAK, MIXER, VOLUME } from "./inputs";
import { LONG_TAILED_PAIR, PARAPHASE, SPLIT_LOAD, TRANSFORMER_INVERTER } from "./inverters";
import type { BlockKind } from "./kind";
import { PUSH_PULL, SINGLE_ENDED } from "./outputs";
import { BLEEDER, BRIDGE, DOUBLER, FILTER, FULL_WAVE, HALF_WAVE, LINE_CONNECTED, OTHER_DRAW, STANDBY } from "./supplies";
import { BASS_TREBLE, TONE_CONTROL, TONE_STACK } from "./tone";
import { TREMOLO_BIAS, TREMOLO_CATHODE, TREMOLO_GRID } from "./tremolo";

export const KINDS: readonly BlockKind[] = [
  ...[FULL_WAVE, BRIDGE, HALF_WAVE, DOUBLER, LINE_CONNECTED, STANDBY, FILTER, BLEEDER, OTHER_DRAW],
  ...[BIAS_SUPPLY, BACK_BIAS, BIAS_ADJUSTER],
  ...[INPUT, INPUT_LEAK, MIXER, VOLUME],
  ...[TRIODE, PENTODE, PARALLEL, CASCODE, FOLLOWER],
  ...[TONE_STACK, BASS_TREBLE, TONE_CONTROL],
  ...[EFFECTS_LOOP, REVERB, TREMOLO_BIAS, TREMOLO_CATHODE, TREMOLO_GRID],
  ...[SPLIT_LOAD, LONG_TAILED_PAIR, PARAPHASE, TRANSFORMER_INVERTER],
  ...[SINGLE_ENDED, PUSH_PULL, FEEDBACK, LINE_OUTLET],
  HEATERS,
];

const BY_NAME = new Map(KINDS.map((k) => [k.kind, k]));

/** The kind of that name; undefined for one that there is not. */
export const findKind = (name: string): BlockKind | undefined => BY_NAME.get(name);
