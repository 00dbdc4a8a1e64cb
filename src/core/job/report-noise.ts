/** The part of the owner's report that is about noise and about what came and went: in the owner's words, with the one picture. */

import { judgeRuns, tellExplanation } from "../noise/conditions";
import { runOf } from "../noise/job-noise";
import { heardIn, louderBy } from "../noise/recording-line";
import { sayOutcome } from "../noise/sound-words";
import type { JobState } from "./fold";
import { soakState } from "./soak";

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
      `Before the work: ${heardIn(before)}. After it: ${heardIn(after)}, ${Math.abs(louderBy(before, after)).toFixed(0)} dB ${louderBy(before, after) <= 0 ? "quieter" : "louder"} altogether.`,
    );
  else if (before) says.push(`Recorded here: ${heardIn(before)}.`);
  if (state.conditions && state.conditionsRuns.length > 0) {
    const runs = state.conditionsRuns.map(runOf);
    const { left } = judgeRuns(state.conditions.conditions, runs);
    if (left.length === 1) says.push(`In ${runs.length} runs it needed ${tellExplanation(left[0]!)}.`);
  }
  const soak = soakState(state, now);
  if (soak) {
    const { ended } = soak.soak;
    const ran = `${soak.hours.toFixed(1)} h${soak.plan.cycleMinutes > 0 ? ` and ${soak.cycles} times long enough to be warm` : ""}`;
    const done = ended?.done ? ` Done: ${ended.done}.` : "";
    if (!ended) says.push(`A soak for "${soak.soak.fault}" is running: ${ran} so far.`);
    else if (ended.outcome === "cured")
      says.push(
        `Run for ${ran} without "${soak.soak.fault}" showing again: ${Math.floor(100 * soak.confidence)} % sure that it no longer fails as it did.${done}`,
      );
    else if (ended.outcome === "no fault found") says.push(`No fault was found in ${ran}. It may come back; nothing was made up.${done}`);
    else says.push(`The soak ended: ${ended.outcome}, after ${ran}.${done}`);
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
