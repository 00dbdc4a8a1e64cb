/** Whether the agreed brief covers an action, or the owner has to be asked first. */

import type { Brief } from "../tape/events/intake-events";
import type { Severity } from "../tape/events/words";
import * as texts from "../texts/job";

export type BriefAnswer = "allowed" | "ask";

/** Words of an action that put another part in, and of one that only looks, cleans or tightens. */
const REPLACES = /\b(replace|renew|fit|change|swap|exchange|rewire|remove|modif\w*|drill|convert)\b/i;
const KEEPS = /\b(clean|re-?tension|tighten|resolder|test|measure|check|inspect|reform|adjust|secure)\b/i;

/**
 * Danger to life is dealt with whatever the brief says, but its owner is still told. Otherwise what changes the amp needs a yes where
 * originality comes first or where the brief names the part as not to be changed.
 * @param action as suggested. @param place and part that it is about.
 */
export function briefAllows(
  brief: Pick<Brief, "order" | "mustNotChange"> | undefined,
  action: string,
  place: string,
  severity: Severity,
): { brief: BriefAnswer; why: string } {
  if (!brief) return { brief: "ask", why: texts.noBriefAgreedYet() };
  const replaces = REPLACES.test(action) && !(KEEPS.test(action) && !/\b(replace|renew|fit|rewire|remove)\b/i.test(action));
  const forbidden = (brief.mustNotChange ?? "").toLowerCase();
  if (replaces && forbidden && touches(forbidden, `${action} ${place}`)) return { brief: "ask", why: texts.briefSays(brief.mustNotChange) };
  if (severity === "danger") return { brief: "allowed", why: texts.dangerNotLeftTell() };
  if (!replaces) return { brief: "allowed", why: texts.nothingChangedGood() };
  if (brief.order[0] === "originality") return { brief: "ask", why: texts.originalityComesFirst() };
  return { brief: "allowed", why: texts.comesFirst(brief.order[0] ?? texts.theBrief()) };
}

/** Words that say nothing of a part. */
const IDLE = new Set([
  "nothing",
  "the",
  "may",
  "not",
  "must",
  "without",
  "and",
  "keep",
  "original",
  "change",
  "changed",
  "replaced",
  "replace",
  "with",
  "for",
]);

/** "Nothing may be replaced" forbids everything; "the speaker and the knobs" only those. */
function touches(forbidden: string, about: string): boolean {
  if (/\b(nothing|anything|everything)\b/.test(forbidden)) return true;
  const words = forbidden.match(/[a-z]{4,}/g) ?? [];
  const lower = about.toLowerCase();
  return words.some((w) => !IDLE.has(w) && lower.includes(w.replace(/s$/, "")));
}
