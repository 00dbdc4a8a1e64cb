/** What a complaint is about, so that two of them can be held together however they are worded. */

/** What owners complain of, by the words that they use. */
const KINDS: [name: string, words: RegExp][] = [
  ["hum", /\bhum(s|ming|med)?\b/],
  ["buzz", /\bbuzz/],
  ["hiss", /\bhiss|\brushing\b/],
  ["crackle", /crackl|scratch|\bpops?\b|popping|sputter/],
  ["squeal", /squeal|howl|whistl|feed(s)? back/],
  ["motorboating", /motor.?boat|putter|put-put/],
  ["distortion", /distort|hoarse|fuzz|rough|farty|chok/],
  ["weak", /weak|quiet|loses? (half|level|volume|power)|no power|low volume|fades?/],
  ["dead", /\bdead\b|no sound|silent|does nothing|nothing comes|will not (start|come on)|dark/],
  ["blows its fuse", /fuse/],
  ["smoke or smell", /smok|smell|burn/],
  ["comes and goes", /comes and goes|now and then|sometimes|intermitt|cuts? out|drops? out/],
  ["runs hot", /\bred\b.*plate|glow(s|ing) red|too hot|overheat/],
];

/** The kinds that a complaint names; `when` is what was ticked beside it. */
export function complaintKinds(words: string, when: readonly string[] = []): string[] {
  const text = words.toLowerCase();
  const kinds = KINDS.filter(([, pattern]) => pattern.test(text)).map(([name]) => name);
  if (when.includes("now and then") && !kinds.includes("comes and goes")) kinds.push("comes and goes");
  if (when.includes("when hot") || /\b(hot|warm|minutes)\b/.test(text)) kinds.push("when hot");
  return kinds;
}

/** Part of what either names that both name, from 0 to 1. */
export function alike(a: readonly string[], b: readonly string[]): number {
  const all = new Set([...a, ...b]);
  return all.size === 0 ? 0 : a.filter((k) => b.includes(k)).length / all.size;
}

/** From this on two complaints count as like. */
export const LIKE = 0.5;
