/** What a resistance read in circuit says about the part, before any solving: parallel paths can only lower it. */

import type { Element } from "../circuit/circuit";
import type { Verdict } from "../expectation/expectation";
import * as texts from "../texts/cold";

/** Tolerance taken for a part that does not state one. */
const TOLERANCE = 0.2;

/**
 * Above its tolerance the part itself has gone high or open, whatever lies beside it.
 * Below it, a parallel path may explain the reading: one leg has to be lifted to tell.
 * @param ohms the reading, settled, power off, polarity such that no junction conducts.
 */
export function judgeInCircuit(resistor: Element, ohms: number): { verdict: Verdict; why: string } {
  const marked = resistor.value!;
  const tol = resistor.notes.tol ?? TOLERANCE;
  if (ohms > marked * (1 + 2 * tol)) return { verdict: "out", why: texts.readsAboveMarkedValue(ohms > marked * 20 ? "open" : "high") };
  if (ohms > marked * (1 + tol)) return { verdict: "watch", why: texts.aboveToleranceDriftedHigh() };
  if (ohms >= marked * (1 - tol)) return { verdict: "in", why: "" };
  return { verdict: "watch", why: texts.belowMarkedValueParallel() };
}
