/** A hunt with the probe: which point is next by the ranking, and when it is over. */

import { ENOUGH } from "../diagnosis/evidence";
import type { NextMeasurement } from "./next";
import type { Suspect } from "./rank";
import * as texts from "../texts/suspects";

export interface HuntRanking {
  suspects: Pick<Suspect, "refs" | "group" | "groupProbability" | "unknown">[];
  next: Pick<NextMeasurement, "point" | "kind" | "gainBits" | "why">[];
  recheck: string[];
}

/** Points of the walk so far. */
export interface Hunted {
  order: readonly string[];
  taken: readonly string[];
  skipped: readonly string[];
  unreachable: readonly string[];
}

/** Bits that a point must promise to be read once a group holds enough: it splits the group while the probe is in the hand. */
const SPLITS = 0.2;

/**
 * The next point, with the reason; undefined when one fault is found or no point would tell more.
 * A reading that fits nothing comes first, though it was taken; of the others none is asked for twice, however little came of it.
 * @param evidence how many readings and observations the ranking has seen.
 */
export function huntNext(ranking: HuntRanking, hunted: Hunted, evidence: number): { point: string; why?: string } | undefined {
  const { order, taken, skipped, unreachable } = hunted;
  const open = (p: string) => order.includes(p) && !unreachable.includes(p) && !skipped.includes(p);
  const fresh = ranking.next.filter((n) => n.kind === "dcv" && open(n.point) && !taken.includes(n.point));
  const [top] = ranking.suspects;
  const found = evidence > 0 && top !== undefined && top.refs.length > 0 && !top.unknown && top.groupProbability >= ENOUGH;
  if (found && !(top.group.length > 1 && fresh.some((n) => n.gainBits > SPLITS))) return undefined;
  const again = ranking.recheck.find(open);
  if (again !== undefined) return { point: again, why: texts.fitsNothingExplainsRest() };
  return fresh[0] && { point: fresh[0].point, why: fresh[0].why };
}
