/** How long an amp must run without failing before "cured" means anything, and where a running soak stands. */

import { is, type JobEvent } from "../tape/events/event";
import type { SoakBegun, SoakEnded } from "../tape/events/noise-events";
import type { JobState, Line } from "../tape/fold";
import * as texts from "../texts/intermittent";

export interface SoakPlan {
  /** Hours of running without a failure. */
  hours: number;
  /** Times that it must have been warm for longer than the fault used to take. */
  cycles: number;
  /** Minutes of power for one such cycle. */
  cycleMinutes: number;
}

/** A cycle counts from so many times the minutes that the fault used to take. */
const BEYOND_ONSET = 1.5;

/**
 * The stop rule. If it still failed as it used to, the chance of `hours` without failure would be below 1 − confidence:
 * with k failures seen in T hours, (T/(T + t))^k = 1 − confidence, so t = T·((1 − confidence)^(−1/k) − 1). For many failures that is
 * ln(1/(1 − confidence)) mean intervals, about 3 for 95 %. Source: the predictive distribution of a Poisson process with a flat prior
 * on the logarithm of its rate (Gelman et al., "Bayesian data analysis", ch. 2).
 *
 * A fault that showed at every warming-up is about cycles, not hours: k of k warm cycles failed, n without failure have the chance
 * 1/C(k + n, n) ≤ (1/(k + 1))^… under the same fault by Laplace's rule, the product of i/(k + 1 + i) for i = 1 … n.
 * @param failures seen within @param hours of running. @param onsetMinutes minutes of power until it used to show; 0 when it had nothing to do with warmth.
 * @throws RangeError for fewer than one failure, no hours, or a confidence outside 0.5 to 0.999.
 */
export function soakPlan({
  failures,
  hours,
  onsetMinutes,
  confidence,
}: Pick<SoakBegun, "failures" | "hours" | "onsetMinutes" | "confidence">): SoakPlan {
  if (!(failures >= 1) || !(hours > 0)) throw new RangeError(texts.soakMeasuredHowOften());
  if (!(confidence >= 0.5 && confidence <= 0.999)) throw new RangeError(texts.confidenceAccepted(confidence));
  const needed = hours * ((1 - confidence) ** (-1 / failures) - 1);
  if (onsetMinutes <= 0) return { hours: needed, cycles: 1, cycleMinutes: 0 };
  let [cycles, chance] = [0, 1];
  while (chance > 1 - confidence && cycles < 10_000) {
    cycles++;
    chance *= cycles / (failures + 1 + cycles);
  }
  const cycleMinutes = BEYOND_ONSET * onsetMinutes;
  return { hours: Math.max(Math.min(needed, hours * 3), (cycles * cycleMinutes) / 60), cycles, cycleMinutes };
}

export interface SoakState {
  soak: Line<SoakBegun> & { ended?: Line<SoakEnded> };
  plan: SoakPlan;
  /** Hours run since it began, and cycles that were long enough. */
  hours: number;
  cycles: number;
  /** Failures since it began. */
  failures: { at: string; what: string; warmMinutes?: number }[];
  /** Confidence that what has run so far gives. */
  confidence: number;
  /** Hours still to run; 0 when the rule is met. */
  left: number;
  cyclesLeft: number;
}

/** Where the latest soak stands at `now`, milliseconds since 1970; undefined when none was begun. */
export function soakState(state: JobState, now: number): SoakState | undefined {
  const soak = state.soaks.at(-1);
  if (!soak) return undefined;
  const until = soak.ended ? Date.parse(soak.ended.at) : now;
  const plan = soakPlan(soak);
  const failures = state.occurrences.filter((o) => o.seq > soak.seq && (!soak.ended || o.seq < soak.ended.seq));
  // A failure begins the count anew: what ran before it proves nothing any more.
  const from = Math.max(Date.parse(soak.at), ...failures.map((f) => Date.parse(f.at)));
  const runs = powerRuns(state.effective, from, until);
  const hours = runs.reduce((sum, r) => sum + r.minutes, 0) / 60;
  const cycles = runs.filter((r) => r.warmMinutes >= plan.cycleMinutes).length;
  return {
    soak,
    plan,
    hours,
    cycles,
    failures: failures.map(({ at, what, warmMinutes }) => ({ at, what, warmMinutes })),
    confidence: reached(soak, hours, cycles),
    left: Math.max(0, plan.hours - hours),
    cyclesLeft: Math.max(0, plan.cycles - cycles),
  };
}

function reached(soak: SoakBegun, hours: number, cycles: number): number {
  const byHours = 1 - (soak.hours / (soak.hours + hours)) ** soak.failures;
  if (soak.onsetMinutes <= 0) return byHours;
  let chance = 1;
  for (let i = 1; i <= cycles; i++) chance *= i / (soak.failures + 1 + i);
  return 1 - chance;
}

interface PowerRun {
  /** Minutes within the time asked for. */
  minutes: number;
  /** Minutes from its own power-on to its end; 0 when that was before the time asked for: a failure in it spoils it. */
  warmMinutes: number;
}

/** Stretches with the power on between two times, from the tape. */
export function powerRuns(events: readonly JobEvent[], from: number, until: number): PowerRun[] {
  const out: PowerRun[] = [];
  let on: number | undefined;
  const end = (at: number) => {
    if (on === undefined) return;
    const minutes = (Math.min(at, until) - Math.max(on, from)) / 60_000;
    if (minutes > 0) out.push({ minutes, warmMinutes: on >= from ? minutes : 0 });
    on = undefined;
  };
  for (const e of events) {
    if (!is(e, "power")) continue;
    const at = Date.parse(e.at);
    if (e.payload.state === "on") on ??= at;
    else end(at);
  }
  end(until);
  return out;
}
