/** Which lines of a tape speak of the amp as it is: what was read before its last change, or during a trial that was put back, does not. */

import { isIn, type JobState } from "./fold";
import { rootOf } from "./line-root";

export interface AmpAsItIs {
  /** The line of the last change that is in the amp, and where it was made. */
  since?: { seq: number; position: string };
  /** Whether a line of that number counts. */
  counts(seq: number): boolean;
}

export function ampAsItIs(state: Pick<JobState, "changes" | "lines" | "adjusted" | "tubesFitted">): AmpAsItIs {
  const begun = (seq: number) => rootOf(state, seq);
  const last = state.changes.findLast(isIn);
  const since = [
    ...(last ? [{ seq: last.kind === "experiment" ? begun(last.seq) : last.seq, position: last.position }] : []),
    ...state.adjusted.slice(-1).map((a) => ({ seq: a.seq, position: a.control })),
    ...state.tubesFitted.slice(-1).map((t) => ({ seq: t.seq, position: t.tube })),
  ].sort((a, b) => b.seq - a.seq)[0];
  const trials = state.changes.filter((c) => !isIn(c)).map((c) => ({ from: begun(c.seq), to: c.seq }));
  return {
    ...(since ? { since } : {}),
    counts: (seq) => seq > (since?.seq ?? 0) && !trials.some((t) => t.from < seq && seq < t.to),
  };
}
