/** One sentence about a solved amp: what a technician asks of it first. */

import type { Circuit } from "../circuit/circuit";
import { isOutputTube } from "../walk/current";
import type { Solution } from "./port";

export interface Headline {
  verdict: "in" | "watch" | "out";
  says: string;
}

const listed = (words: string[]) => (words.length <= 1 ? (words[0] ?? "") : `${words.slice(0, -1).join(", ")} and ${words.at(-1)}`);
const percent = (share: number) => `${Math.round(share * 100)} %`;
/** Share of a rating from which a part is named before it is over it. */
const NEAR = 0.9;

export function headlineOf(circuit: Circuit, solution: Solution, mains: number | undefined): Headline {
  const at = mains === undefined ? "" : ` at ${mains} V`;
  if (!solution.converged)
    return { verdict: "out", says: `It does not settle${at}: node ${solution.unsettled.join(", ")} will not come to rest` };
  const over = solution.stresses.filter((s) => (s.share ?? 0) > 1.005).sort((a, b) => b.share! - a.share!);
  if (over.length > 0) {
    const worst = over.slice(0, 3).map((s) => `${s.part} bears ${percent(s.share!)} of its ${s.kind}`);
    return { verdict: "out", says: `Above its rating${at}: ${listed(worst)}${over.length > 3 ? `, and ${over.length - 3} more` : ""}` };
  }
  if (solution.undetermined.length > 0)
    return {
      verdict: "watch",
      says: `Solved${at}, but nothing holds ${listed(solution.undetermined.map((n) => `node ${n}`))}: an open part leaves it floating`,
    };
  const idle = circuit.elements
    .filter(isOutputTube)
    .flatMap((e) => solution.stresses.filter((s) => s.part === e.name && s.kind === "plate watts" && s.share !== undefined))
    .map((s) => `${s.part} at ${percent(s.share!)}`);
  const near = solution.stresses.filter((s) => (s.share ?? 0) > NEAR && s.kind !== "plate watts");
  const idling = idle.length > 0 ? `: ${listed(idle)} of plate rating` : "";
  if (near.length > 0)
    return {
      verdict: "watch",
      says: `Solved${at}${idling}; ${listed(near.slice(0, 3).map((s) => `${s.part} bears ${percent(s.share!)} of its ${s.kind}`))}`,
    };
  return { verdict: "in", says: `Solved${at}${idling}; nothing above its rating` };
}
