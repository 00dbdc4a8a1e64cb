/** What a tube test says: shorts, emission, transconductance against new and reject, or a swap with a known good one. */

import { gmLimits, REJECT_SHARE, type TubeType } from "./library";
import * as texts from "../texts/tubes";

export const TEST_METHODS = ["transconductance", "emission", "substitution", "shorts only"] as const;
export type TestMethod = (typeof TEST_METHODS)[number];
export const SWAP_RESULTS = ["better", "the same", "worse"] as const;
export type SwapResult = (typeof SWAP_RESULTS)[number];

export interface TubeTestFigures {
  method: TestMethod;
  /** Percent of new, as the tester's scale has it. */
  percent?: number;
  /** mA/V, as a bridge reads it; of use where the type is known. */
  gm?: number;
  /** Electrodes that the shorts test lights up: "heater–cathode"; empty for none, undefined for not tested. */
  shorts?: string;
  /** With the known good tube in its place, the amp was … */
  swap?: SwapResult;
}

export interface TubeTestVerdict {
  verdict: "in" | "watch" | "out";
  /** Percent of new by which it was judged. */
  percent?: number;
  why: string;
}

/** A tube this far above the reject limit still serves, but not for long. */
const TIRED_SHARE = 0.8;

/** @param type of the tube; without it a transconductance in mA/V cannot be judged. */
export function judgeTubeTest(figures: TubeTestFigures, type?: TubeType): TubeTestVerdict {
  const { method, shorts, swap } = figures;
  if (shorts) return { verdict: "out", why: texts.shortMustNotGo(shorts) };
  const limits = type && gmLimits(type);
  const percent = figures.percent ?? (figures.gm !== undefined && limits ? (100 * figures.gm) / limits.fresh : undefined);
  const reject = Math.round(REJECT_SHARE * 100);
  switch (method) {
    case "transconductance": {
      if (percent === undefined) return { verdict: "watch", why: texts.noFigureTypesFigure() };
      const against = limits ? texts.newMaReject(limits.fresh, limits.reject.toFixed(1)) : "";
      if (percent < REJECT_SHARE * 100) return { verdict: "out", percent, why: texts.belowRejectLimit(reject, against) };
      if (percent < TIRED_SHARE * 100) return { verdict: "watch", percent, why: texts.aboveRejectButTired(against) };
      return { verdict: "in", percent, why: `good${against}` };
    }
    case "emission":
      if (percent !== undefined && percent < REJECT_SHARE * 100) return { verdict: "out", percent, why: texts.weakEvenDiodeWill() };
      // A rectifier is a diode: what it passes is all that is asked of it.
      if (type?.kind === "rectifier" && percent !== undefined)
        return {
          verdict: percent < TIRED_SHARE * 100 ? "watch" : "in",
          percent,
          why: percent < TIRED_SHARE * 100 ? texts.passesEnoughButTired() : texts.passesWhatShould(),
        };
      return { verdict: "watch", percent, why: texts.emissionAloneNeverClears() };
    case "substitution":
      if (swap === "better") return { verdict: "out", why: texts.ampBetterKnownGood() };
      if (swap === "the same") return { verdict: "in", why: texts.noChangeKnownGood() };
      if (swap === "worse") return { verdict: "watch", why: texts.worseOtherOneTube() };
      return { verdict: "watch", why: texts.outcomeSwapWanted() };
    case "shorts only":
      return shorts === ""
        ? { verdict: "watch", why: texts.noShortFoundHow() }
        : { verdict: "watch", why: texts.whichElectrodesNoneWanted() };
  }
}
