/** What a brief says must not be changed, read to parts and kinds of parts. What is not understood covers nothing: the owner is asked. */

import * as texts from "../texts/job";

export const PART_KINDS = ["capacitors", "resistors", "tubes", "transformers", "controls", "wiring", "cabinet", "speakers"] as const;
export type PartKind = (typeof PART_KINDS)[number];

export interface MustNotChange {
  /** "C6", "V4", in capitals. */
  parts: string[];
  kinds: PartKind[];
  /** Nothing at all may be changed, or nothing that is original. */
  everything: boolean;
  /** Words of which nobody can say what they mean. */
  unread: string[];
}

/** Names in use for each kind, singular; longer ones first where one holds the other. */
const NAMES: [PartKind, string][] = [
  ...of(
    "capacitors",
    "coupling capacitor",
    "filter capacitor",
    "electrolytic",
    "capacitor",
    "condenser",
    "reservoir",
    "filter can",
    "can",
    "cap",
  ),
  ...of("resistors", "resistor"),
  ...of("tubes", "output tube", "output valve", "rectifier tube", "tube", "valve", "bottle", "glass"),
  ...of("transformers", "output transformer", "power transformer", "mains transformer", "transformer", "opt", "iron", "choke", "trafo"),
  ...of("controls", "control", "potentiometer", "pot", "knob", "switch", "jack"),
  ...of("wiring", "wiring", "wire", "board", "lead dress", "solder", "solder joint", "cloth wire"),
  ...of(
    "cabinet",
    "cabinet",
    "case",
    "cosmetic",
    "look",
    "grille",
    "grille cloth",
    "cloth",
    "dial",
    "covering",
    "handle",
    "badge",
    "chassis",
    "faceplate",
    "front panel",
  ),
  ...of("speakers", "speaker", "loudspeaker", "driver", "cone"),
];
function of(kind: PartKind, ...names: string[]): [PartKind, string][] {
  return names.map((name) => [kind, name]);
}
const BY_LENGTH = [...NAMES].sort((a, b) => b[1].length - a[1].length);

const EVERYTHING = /\b(?:nothing|anything|everything|all original|keep it (?:all )?original|no changes?|leave it (?:all )?as it is)\b/g;
/** Words that name no part: what is said around them. */
const AROUND = new Set(
  (
    "the a an of on in and or but no not don't do dont must may be is are its it's it to any all this that these those please keep leave touch touched " +
    "change changed changing replace replaced replacing swap swapped modify modified alter altered remove removed original originals as " +
    "was were they them my our his her with without for from at stay stays stock also even if possible old both never ever renew renewed new " +
    "want wants wish wishes cannot can't should shall will get kept left alone only just other others than nor"
  ).split(" "),
);

/**
 * @param text as somebody typed it: "C6, the output transformer and the knobs".
 * @example readMustNotChange("Don't touch the valves; C6") // { parts: ["C6"], kinds: ["tubes"], everything: false, unread: [] }
 */
export function readMustNotChange(text: string): MustNotChange {
  let left = ` ${text.toLowerCase().replace(/[’‘]/g, "'")} `;
  const out: MustNotChange = { parts: [], kinds: [], everything: false, unread: [] };
  left = left.replace(EVERYTHING, () => {
    out.everything = true;
    return " ";
  });
  left = left.replace(/\b(?:xp|x)?(v\d+[a-d]?|[crltdps]\d+[a-d]?|p\d+)\b/g, (_, name: string) => {
    out.parts.push(name.toUpperCase());
    return " ";
  });
  for (const [kind, name] of BY_LENGTH)
    left = left.replace(new RegExp(`\\b${name}(?:e?s)?\\b`, "g"), () => {
      if (!out.kinds.includes(kind)) out.kinds.push(kind);
      return " ";
    });
  out.unread = [...new Set(left.match(/[\p{L}\d][\p{L}\d'-]*/gu) ?? [])].filter((word) => !AROUND.has(word));
  // "Keep it original", "leave it": of whatever there is. Words that name nothing must not pass for a yes.
  if (text.trim() !== "" && out.parts.length + out.kinds.length + out.unread.length === 0) out.everything = true;
  return out;
}

/**
 * What must not be changed with one kind taken out of it, by the plain names of what was understood.
 * @example withoutKind("the caps and V4", "capacitors") // "V4"
 */
export function withoutKind(text: string, kind: PartKind): string {
  const { parts, kinds, everything, unread } = readMustNotChange(text);
  return [...(everything ? ["everything"] : []), ...parts, ...kinds.filter((k) => k !== kind), ...unread].join(", ");
}

/** As it was understood, shown back beside the field; empty where nothing was typed. */
export function sayMustNotChange(text: string): string {
  if (text.trim() === "") return "";
  const { parts, kinds, everything, unread } = readMustNotChange(text);
  const read = everything ? [texts.everythingOriginal()] : [...parts, ...kinds];
  return [
    ...(read.length > 0 ? [texts.understoodAs(read.join(", "))] : []),
    ...(unread.length > 0 ? [texts.notUnderstoodBrief(unread.join(", "))] : []),
  ].join(" ");
}

const LETTER_KIND: Record<string, PartKind> = {
  C: "capacitors",
  R: "resistors",
  V: "tubes",
  T: "transformers",
  L: "transformers",
  P: "controls",
  S: "controls",
};

/**
 * What kinds of parts an action is about: by the names in it, and by the letter of a part's name.
 * @example kindsSpokenOf("C6: replace it") // ["capacitors"]
 */
export function kindsSpokenOf(text: string): PartKind[] {
  const lower = text.toLowerCase();
  const named = NAMES.filter(([, name]) => new RegExp(`\\b${name}(?:e?s)?\\b`).test(lower)).map(([kind]) => kind);
  const lettered = [...text.matchAll(/\b(?:XP|X)?([CRVTLPS])\d+[A-D]?\b/g)].flatMap((m) => LETTER_KIND[m[1]!] ?? []);
  return [...new Set([...named, ...lettered])];
}

/**
 * Whether what must not be changed holds what an action is about; "perhaps" where it says something that was not understood.
 * @param about the action with its place.
 */
export function forbids(mustNotChange: string, about: string): "yes" | "no" | "perhaps" {
  const { parts, kinds, everything, unread } = readMustNotChange(mustNotChange);
  if (everything) return "yes";
  // V4 is meant by V4A, and V4A by V4.
  const names = [...about.toUpperCase().matchAll(/\b(?:XP|X)?([CRVTLPSD]\d+)[A-D]?\b/g)].map((m) => m[1]!);
  if (parts.some((p) => names.includes(p.replace(/[A-D]$/, "")))) return "yes";
  const spoken = kindsSpokenOf(about);
  if (kinds.some((k) => spoken.includes(k))) return "yes";
  return unread.length > 0 ? "perhaps" : "no";
}
