/** One thing that a part has to be good for before it is soldered in. */

import type { Verdict } from "../expectation/expectation";

export interface PartCheck {
  /** "volts", "capacitance", "ripple current". */
  what: string;
  /** What the place asks for, and what the part has, as they are shown. */
  needs: string;
  has: string;
  /** None where one of the two is not known. */
  verdict: Verdict;
  /** The reason in a sentence; empty where the figures say it. */
  why: string;
}

/** The worst of several: out before watch before none before in. */
export function worstOf(checks: readonly PartCheck[]): Verdict {
  return (["out", "watch", "none"] as const).find((v) => checks.some((c) => c.verdict === v)) ?? "in";
}

/** For the tape: what did not pass and what is not known, one sentence each; first that all the others did. */
export function toldChecks(checks: readonly PartCheck[]): string[] {
  const passed = checks.filter((c) => c.verdict === "in").map((c) => c.what);
  return [
    ...(passed.length > 0 ? [`checked: ${passed.join(", ")}`] : []),
    ...checks.filter((c) => c.verdict !== "in").map((c) => `${c.what}: ${c.has || "?"} / ${c.needs}${c.why ? `, ${c.why}` : ""}`),
  ].map((t) => t.slice(0, 300));
}
