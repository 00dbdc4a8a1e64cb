/** How a stage of the bring-up stands in a job: its result, unless the amp was changed since. */

import type { StageResult } from "../tape/events/words";
import { isIn, lastPowerOn, type JobState } from "../tape/fold";
import type { Circuit } from "../circuit/circuit";
import { stageFit, type BringUpStage } from "./stages";

/** Line of the last thing that was changed in the amp for good or is being tried; 0 for none. */
export function lastChange(state: Pick<JobState, "changes">): number {
  return state.changes.findLast(isIn)?.seq ?? 0;
}

/**
 * What came of a stage; undefined while it is open. After work the amp is brought up anew: what was passed with the power on before the
 * change no longer counts. What is set up beside the amp does.
 */
export function stageResult(
  state: Pick<JobState, "changes" | "stages">,
  stage: Pick<BringUpStage, "id" | "powered">,
): Exclude<StageResult, "open again"> | undefined {
  const done = state.stages.get(stage.id);
  if (!done || done.result === "open again") return undefined;
  return stage.powered && done.seq < lastChange(state) ? undefined : done.result;
}

/**
 * The readings of a stage by kind and point: those since the power-on that its result, or else now, belongs to. The latest of each.
 * None where that power-on had other tubes in than the stage: what is read then says nothing of it.
 */
export function stageReadings(
  state: JobState,
  stage: Pick<BringUpStage, "id" | "powered" | "without">,
  circuit: Circuit,
): Map<string, JobState["readings"][number]> {
  const until = (stageResult(state, stage) && state.stages.get(stage.id)?.seq) ?? Infinity;
  const on = lastPowerOn(state, until);
  const fit = stageFit(circuit, stage, on?.payload.without ?? []);
  const from = on && fit.wantedIn.length + fit.wantedOut.length === 0 ? on.seq : Infinity;
  const out = new Map<string, JobState["readings"][number]>();
  for (const r of state.readings) if (r.seq > from && r.seq < until) out.set(`${r.kind} ${r.point.toLowerCase()}`, r);
  return out;
}
