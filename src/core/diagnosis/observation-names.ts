/** What can be seen, heard or felt without a meter, by the names that the suspects know. */

import { words } from "../language/language";
import * as texts from "../texts/diagnosis";

export interface ObservationType {
  /** As it is typed: "V4 cold" is `cold` of V4. */
  name: string;
  /** Other words for it that are typed. */
  also?: string[];
  /** Whether a tube or part goes before it. */
  about: "tube" | "amp";
  says: string;
}

const TYPES: ObservationType[] = [
  { name: "cold", about: "tube", says: texts.tubeColdHandAfter },
  { name: "dark", also: ["no glow", "not lit"], about: "tube", says: texts.heaterDoesNotGlow },
  {
    name: "plate glows",
    also: ["red", "glows red", "red plate", "plate red", "plate glows red", "glows"],
    about: "tube",
    says: texts.plateShowsRed,
  },
  { name: "very hot", also: ["hot"], about: "tube", says: texts.farHotterThanFellow },
  { name: "blue glow", also: ["blue", "glows blue"], about: "tube", says: texts.blueGlowBetweenElectrodes },
  { name: "limiter bright", also: ["lamp bright"], about: "amp", says: texts.seriesLampStaysBright },
  { name: "limiter dark", also: ["lamp dark"], about: "amp", says: texts.seriesLampHardlyGlows },
  { name: "fuse blows", also: ["blows fuses", "blows the fuse", "fuse blown"], about: "amp", says: texts.fuseGoesPower },
  { name: "dead quiet", also: ["silent", "no sound"], about: "amp", says: texts.noSoundNotEven },
  { name: "no signal", about: "amp", says: texts.idlesButNoSignal },
  { name: "quiet", also: ["weak"], about: "amp", says: texts.signalComesThroughFar },
  { name: "hum", also: ["hums"], about: "amp", says: texts.humVolumeDoesNot },
  { name: "hot smell", also: ["smells hot", "smell"], about: "amp", says: texts.runsHotSmells },
  { name: "crackle", also: ["crackles", "crackling", "pops"], about: "amp", says: texts.cracklePoppingIdle },
];

export const OBSERVATIONS: ObservationType[] = TYPES.map(({ name, also, about, says }) => ({
  name,
  also,
  about,
  get says() {
    return words(says);
  },
}));

/** The observation that a text names; undefined when there is none of that name. */
export function observationNamed(text: string): { type: ObservationType; tube?: string } | undefined {
  const lower = text.trim().toLowerCase().replace(/\s+/g, " ");
  const [, tube, seen] = /^(v\d+[a-d]?) (.*)$/.exec(lower) ?? [undefined, undefined, lower];
  const about = tube === undefined ? "amp" : "tube";
  const type = OBSERVATIONS.find((o) => o.about === about && (o.name === seen || o.also?.includes(seen!)));
  return type && (tube === undefined ? { type } : { type, tube: tube.toUpperCase() });
}
