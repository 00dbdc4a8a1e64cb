/** What can be seen, heard or felt without a meter, by the names that the suspects know. */

import { words } from "../language/language";
import * as texts from "../texts/diagnosis";

export interface ObservationType {
  /** As it is typed: "V4 cold" is `cold` of V4. */
  name: string;
  /** Whether a tube or part goes before it. */
  about: "tube" | "amp";
  says: string;
}

const TYPES: ObservationType[] = [
  { name: "cold", about: "tube", says: texts.tubeColdHandAfter },
  { name: "dark", about: "tube", says: texts.heaterDoesNotGlow },
  { name: "plate glows", about: "tube", says: texts.plateShowsRed },
  { name: "very hot", about: "tube", says: texts.farHotterThanFellow },
  { name: "blue glow", about: "tube", says: texts.blueGlowBetweenElectrodes },
  { name: "limiter bright", about: "amp", says: texts.seriesLampStaysBright },
  { name: "limiter dark", about: "amp", says: texts.seriesLampHardlyGlows },
  { name: "fuse blows", about: "amp", says: texts.fuseGoesPower },
  { name: "dead quiet", about: "amp", says: texts.noSoundNotEven },
  { name: "no signal", about: "amp", says: texts.idlesButNoSignal },
  { name: "quiet", about: "amp", says: texts.signalComesThroughFar },
  { name: "hum", about: "amp", says: texts.humVolumeDoesNot },
  { name: "hot smell", about: "amp", says: texts.runsHotSmells },
  { name: "crackle", about: "amp", says: texts.cracklePoppingIdle },
];

export const OBSERVATIONS: ObservationType[] = TYPES.map(({ name, about, says }) => ({
  name,
  about,
  get says() {
    return words(says);
  },
}));

/** The observation that a text names; undefined when there is none of that name. */
export function observationNamed(text: string): { type: ObservationType; tube?: string } | undefined {
  const lower = text.trim().toLowerCase().replace(/\s+/g, " ");
  for (const type of OBSERVATIONS) {
    if (type.about === "amp" && lower === type.name) return { type };
    const tube = type.about === "tube" && new RegExp(`^(v\\d+[a-d]?) ${type.name}$`).exec(lower)?.[1];
    if (tube) return { type, tube: tube.toUpperCase() };
  }
  return undefined;
}
