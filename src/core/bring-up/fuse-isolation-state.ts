/** Where a job's isolation stands: whether a fuse has gone, and the answers so far. Not solved here. */

import { isFitted, type JobState } from "../tape/fold";
import type { Answer } from "../diagnosis/isolate";

/** Line of the last thing that was repaired: what blew before it is settled. */
const repaired = (state: JobState) => state.changes.findLast(isFitted)?.seq ?? 0;

/** A fuse that has gone in this job and whose cause was not replaced since. */
export function fuseGone(state: JobState): boolean {
  const since = repaired(state);
  return state.observations.some((o) => o.name.toLowerCase() === "fuse blows" && o.seq > since);
}

/** True while an isolation is under way or wanted. */
export function isolationOpen(state: JobState): boolean {
  return fuseGone(state) || isolationAnswers(state).length > 0;
}

/** The answers since the last repair, in their order. */
export function isolationAnswers(state: JobState): (Answer & { seq: number; at: string; ohms?: number })[] {
  const since = repaired(state);
  return state.isolation.filter((s) => s.seq > since).map(({ test, outcome, seq, at, ohms }) => ({ test, outcome, seq, at, ohms }));
}
