/** The part of the owner's report that is about noise and about what came and went: in the owner's words, with the one picture. */

import { fixed } from "../language/language";
import { judgeRuns, tellExplanation } from "../intermittent/conditions";
import { conditionRun } from "../intermittent/condition-runs";
import { heardIn, louderBy } from "../sound/recording-line";
import { sayOutcome } from "../tape/sound-words";
import type { JobState } from "../tape/fold";
import { soakState } from "../intermittent/soak";
import * as texts from "../texts/job";

export interface ReportNoise {
  /** Of the mains. */
  hertz: number;
  /** Sentences, in order. */
  says: string[];
  /** What was asked of the amp and what it answered. */
  tests: { what: string; outcome: string }[];
  /** Spectrum before and after, decibels on the curve's own frequencies. */
  before?: { curve: number[]; says: string };
  after?: { curve: number[]; says: string };
}

/** @param now milliseconds since 1970, for a soak that runs. @param hertz of the mains. @returns undefined where there is nothing of the kind on the tape. */
export function reportNoise(state: JobState, now: number, hertz = 50): ReportNoise | undefined {
  const before = state.recordings.findLast((r) => r.when === "before");
  const after = state.recordings.findLast((r) => r.when === "after");
  const says: string[] = [];
  if (before && after)
    says.push(
      texts.beforeWorkAfterDb(
        heardIn(before),
        heardIn(after),
        fixed(Math.abs(louderBy(before, after)), 0),
        louderBy(before, after) <= 0 ? "quieter" : "louder",
      ),
    );
  else if (before) says.push(texts.recordedHere(heardIn(before)));
  if (state.conditions && state.conditionsRuns.length > 0) {
    const runs = state.conditionsRuns.map(conditionRun);
    const { left } = judgeRuns(state.conditions.conditions, runs);
    if (left.length === 1) says.push(texts.runsNeeded(runs.length, tellExplanation(left[0]!)));
  }
  const soak = soakState(state, now);
  if (soak) {
    const { ended } = soak.soak;
    const ran = `${fixed(soak.hours, 1)} h${soak.plan.cycleMinutes > 0 ? texts.timesLongEnoughWarm(soak.cycles) : ""}`;
    const done = ended?.done ? texts.done(ended.done) : "";
    if (!ended) says.push(texts.soakRunningSoFar(soak.soak.fault, ran));
    else if (ended.outcome === "cured")
      says.push(texts.runWithoutShowingAgain(ran, soak.soak.fault, Math.floor(100 * soak.confidence), done));
    else if (ended.outcome === "no fault found") says.push(texts.noFaultWasFound(ran, done));
    else says.push(texts.soakEndedAfter(ended.outcome, ran, done));
  }
  const tests = state.noiseTests.map(({ what, outcome }) => ({ what, outcome: sayOutcome(outcome) }));
  if (says.length + tests.length === 0) return undefined;
  return {
    hertz,
    says,
    tests,
    ...(before ? { before: { curve: before.curve, says: heardIn(before) } } : {}),
    ...(after ? { after: { curve: after.curve, says: heardIn(after) } } : {}),
  };
}
