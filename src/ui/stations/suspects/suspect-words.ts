/** A suspect in words: how far it has gone, and what cannot be told apart from it. */

import { figure, say } from "@/core/language/language";
import { formatQuantity } from "@/core/quantity/format";
import type { Suspect } from "@/core/suspects/rank";

/** The value that explains the readings best, as ", about 15 MΩ"; empty where the fault has none. */
export function severityOf(s: Suspect): string {
  if (s.fitted === undefined) return "";
  if (s.unit === "Ω") return `, about ${formatQuantity(s.fitted, "Ω", 2)}`;
  if (s.unit === "A") return `, about ${formatQuantity(s.fitted, "A", 2)}`;
  if (s.unit === "of emission") return `, about ${Math.round(s.fitted * 100)} % of its emission left`;
  if (s.unit === "of its value") return `, about ${Math.round(s.fitted * 100)} % of its value left`;
  if (s.unit === "of the mains") return say`, about ${Math.round(s.fitted * 100)} % of the mains that was entered`;
  return `, about × ${figure(s.fitted.toPrecision(2))}`;
}

/** The leading fault of each part of a group that is not told apart yet. */
export function partsOf(s: Suspect): string[] {
  return s.group.filter((_, i) => s.groupRefs.findIndex((r) => r.join() === s.groupRefs[i]!.join()) === i);
}

/** Other ways in which the leading part may fail: what is to be replaced is the same. */
export function waysOf(s: Suspect): string[] {
  return s.group.slice(1).filter((_, i) => s.groupRefs[i + 1]!.join() === s.refs.join());
}
