/** One sentence about a solved amp: what a technician asks of it first. */

import type { Circuit } from "../circuit/circuit";
import { isOutputTube } from "../anatomy/cathode-current";
import type { Solution } from "./solution";
import * as texts from "../texts/expectation";

export interface Headline {
  verdict: "in" | "watch" | "out";
  says: string;
}

const listed = (words: string[]) => (words.length <= 1 ? (words[0] ?? "") : texts.and(words.slice(0, -1).join(", "), words.at(-1)));
const percent = (share: number) => `${Math.round(share * 100)} %`;
/** Share of a rating from which a part is named before it is over it. */
const NEAR = 0.9;

export function headlineOf(circuit: Circuit, solution: Solution, mains: number | undefined): Headline {
  const at = mains === undefined ? "" : ` at ${mains} V`;
  if (!solution.converged) return { verdict: "out", says: texts.doesNotSettleNode(at, solution.unsettled.join(", ")) };
  const over = solution.stresses.filter((s) => (s.share ?? 0) > 1.005).sort((a, b) => b.share! - a.share!);
  if (over.length > 0) {
    const worst = over.slice(0, 3).map((s) => texts.bearsOfIts(s.part, percent(s.share!), s.kind));
    return { verdict: "out", says: texts.aboveRating(at, listed(worst), over.length > 3 ? texts.andMore(over.length - 3) : "") };
  }
  if (solution.undetermined.length > 0)
    return {
      verdict: "watch",
      says: texts.solvedButNothingHolds(at, listed(solution.undetermined.map((n) => texts.node(n)))),
    };
  const idle = circuit.elements
    .filter(isOutputTube)
    .flatMap((e) => solution.stresses.filter((s) => s.part === e.name && s.kind === "plate watts" && s.share !== undefined))
    .map((s) => `${s.part} at ${percent(s.share!)}`);
  const near = solution.stresses.filter((s) => (s.share ?? 0) > NEAR && s.kind !== "plate watts");
  const idling = idle.length > 0 ? texts.plateRating(listed(idle)) : "";
  if (near.length > 0)
    return {
      verdict: "watch",
      says: texts.solved(at, idling, listed(near.slice(0, 3).map((s) => texts.bearsOfIts(s.part, percent(s.share!), s.kind)))),
    };
  return { verdict: "in", says: texts.solvedNothingAboveRating(at, idling) };
}
