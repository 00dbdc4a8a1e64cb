/** The runs of a job under conditions, as the matrix of conditions takes them. */

import { ampAsItIs } from "../tape/amp-as-it-is";
import type { JobState } from "../tape/fold";
import type { Run } from "./conditions";

/** The runs under conditions of the amp as it is, with the lines that they stand on. */
export function conditionRuns(state: JobState): (Run & { seq: number })[] {
  const { counts } = ampAsItIs(state);
  return state.conditionsRuns.filter((r) => counts(r.seq)).map(conditionRun);
}

/** A run as the matrix takes it. */
export function conditionRun({ seq, settings, bad }: JobState["conditionsRuns"][number]): Run & { seq: number } {
  return { seq, settings: Object.fromEntries(settings.map((s) => [s.name, s.setting])), bad };
}
