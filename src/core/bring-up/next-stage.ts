/** The powered stage that a job's bring-up stands before. */

import type { Circuit } from "../circuit/circuit";
import type { JobState } from "../tape/fold";
import { isolationOpen } from "./fuse-isolation-state";
import { stageResult } from "./stage-state";
import { stagesOf, type BringUpStage } from "./stages";

/** Undefined without a circuit, before any stage has been answered, and when all are through. */
export function nextStage(circuit: Circuit | undefined, state: JobState): BringUpStage | undefined {
  if (!circuit || state.stages.size === 0) return undefined;
  return stagesOf(circuit, { oneAtATime: isolationOpen(state) }).find(
    (s) => s.powered && !["passed", "skipped"].includes(stageResult(state, s) ?? ""),
  );
}
