/** Whether the agreed brief covers an action, or the owner has to be asked first. */

import type { Brief } from "../tape/events/intake-events";
import type { Severity } from "../tape/events/words";
import * as texts from "../texts/job";
import { forbids } from "./brief-places";

export type BriefAnswer = "allowed" | "ask";

/** Words of an action that put another part in, and of one that only looks, cleans or tightens. */
const REPLACES = /\b(replace|renew|fit|change|swap|exchange|rewire|remove|modif\w*|drill|convert)\b/i;
const KEEPS = /\b(clean|re-?tension|tighten|resolder|test|measure|check|inspect|reform|adjust|secure)\b/i;

/**
 * Whether the brief covers an action. What changes the amp needs a yes where the brief names it as not to be changed, by part or by kind,
 * where it says something that is not understood, and where originality comes first. Danger to life is made safe all the same, and its owner
 * is told; but a brief that forbids it is asked about first.
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
  const said = brief.mustNotChange?.trim() ?? "";
  const forbidden = replaces && said !== "" ? forbids(said, `${action} ${place}`) : "no";
  if (forbidden === "yes") return { brief: "ask", why: texts.briefSays(said) };
  if (severity === "danger") return { brief: "allowed", why: texts.dangerCovers() };
  if (!replaces) return { brief: "allowed", why: texts.nothingChangedGood() };
  if (forbidden === "perhaps") return { brief: "ask", why: texts.briefPerhaps(said) };
  if (brief.order[0] === "originality") return { brief: "ask", why: texts.originalityComesFirst() };
  return { brief: "allowed", why: texts.comesFirst(brief.order[0] ?? texts.theBrief()) };
}
