/** What can be seen, heard or felt without a meter, by the names that the suspects know. */

export interface ObservationType {
  /** As it is typed: "V4 cold" is `cold` of V4. */
  name: string;
  /** Whether a tube or part goes before it. */
  about: "tube" | "amp";
  says: string;
}

export const OBSERVATIONS: ObservationType[] = [
  { name: "cold", about: "tube", says: "the tube is cold to the hand after minutes" },
  { name: "dark", about: "tube", says: "its heater does not glow" },
  { name: "plate glows", about: "tube", says: "its plate shows red" },
  { name: "very hot", about: "tube", says: "far hotter than its fellow" },
  { name: "blue glow", about: "tube", says: "a blue glow between its electrodes" },
  { name: "limiter bright", about: "amp", says: "the series lamp stays bright" },
  { name: "limiter dark", about: "amp", says: "the series lamp hardly glows" },
  { name: "fuse blows", about: "amp", says: "the fuse goes at power-on" },
  { name: "dead quiet", about: "amp", says: "no sound, not even hum" },
  { name: "no signal", about: "amp", says: "it idles, but no signal comes through" },
  { name: "quiet", about: "amp", says: "signal comes through far too low" },
  { name: "hum", about: "amp", says: "hum that the volume does not change" },
  { name: "hot smell", about: "amp", says: "it runs hot and smells" },
  { name: "crackle", about: "amp", says: "crackle and popping at idle" },
];

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
