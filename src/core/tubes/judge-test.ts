/** What a tube test says: shorts, emission, transconductance against new and reject, or a swap with a known good one. */

import { gmLimits, REJECT_SHARE, type TubeType } from "./library";

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
  if (shorts) return { verdict: "out", why: `short: ${shorts}. It must not go back in` };
  const limits = type && gmLimits(type);
  const percent = figures.percent ?? (figures.gm !== undefined && limits ? (100 * figures.gm) / limits.fresh : undefined);
  const reject = Math.round(REJECT_SHARE * 100);
  switch (method) {
    case "transconductance": {
      if (percent === undefined) return { verdict: "watch", why: "no figure, or the type's figure for new is not known" };
      const against = limits ? ` (new ${limits.fresh} mA/V, reject ${limits.reject.toFixed(1)})` : "";
      if (percent < REJECT_SHARE * 100) return { verdict: "out", percent, why: `below the reject limit of ${reject} %${against}` };
      if (percent < TIRED_SHARE * 100) return { verdict: "watch", percent, why: `above reject, but tired${against}` };
      return { verdict: "in", percent, why: `good${against}` };
    }
    case "emission":
      if (percent !== undefined && percent < REJECT_SHARE * 100)
        return { verdict: "out", percent, why: "weak even as a diode: it will not amplify" };
      // A rectifier is a diode: what it passes is all that is asked of it.
      if (type?.kind === "rectifier" && percent !== undefined)
        return {
          verdict: percent < TIRED_SHARE * 100 ? "watch" : "in",
          percent,
          why: percent < TIRED_SHARE * 100 ? "passes enough, but tired" : "passes what it should",
        };
      return { verdict: "watch", percent, why: "emission alone never clears a tube: it says nothing of transconductance, gas or noise" };
    case "substitution":
      if (swap === "better") return { verdict: "out", why: "the amp is better with a known good one: this tube is at fault" };
      if (swap === "the same") return { verdict: "in", why: "no change with a known good one: this tube is not the cause" };
      if (swap === "worse") return { verdict: "watch", why: "worse with the other one: is that tube known to be good?" };
      return { verdict: "watch", why: "the outcome of the swap is wanted" };
    case "shorts only":
      return shorts === ""
        ? { verdict: "watch", why: "no short found; how well it works was not tested" }
        : { verdict: "watch", why: "which electrodes, or none, is wanted" };
  }
}
