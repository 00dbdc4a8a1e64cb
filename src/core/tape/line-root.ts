/** The line that a line goes back to by its corrections. */

import type { JobState } from "./job-state";

/** @returns the number of the first of them: a task keeps it through all its corrections. */
export function rootOf(state: Pick<JobState, "lines">, seq: number): number {
  // Lines that another bench stores at this moment may still be missing here: then the place is not the number.
  const there = state.lines[seq - 1]?.event;
  const before = there?.seq === seq ? there : state.lines.find((l) => l.event.seq === seq)?.event;
  return before?.supersedes === undefined ? seq : rootOf(state, before.supersedes);
}
