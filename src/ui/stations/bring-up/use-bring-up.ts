"use client";
/** What each stage of this amp should show, solved off the main thread. */

import type { BringUpPrediction } from "@/core/bring-up/predict-stages";
import { useJob } from "../../job/job-context";
import { useAnswer, type Asked } from "../../job/use-answer";

export interface BringUpBench {
  wall: number;
  lamp: number;
  setLamp(watts: number): void;
  solved: Asked<BringUpPrediction>;
}

/** @param lamp watts; 0 for none. @param oneAtATime output tubes one after another, as after a blown fuse. */
export function useBringUp(wall: number, lamp: number, oneAtATime: boolean): Asked<BringUpPrediction> {
  const { netlist, solver } = useJob();
  const key = netlist === undefined || !solver ? undefined : JSON.stringify([netlist, wall, lamp, oneAtATime]);
  return useAnswer(key, (told) => solver!.bringUp(netlist!, wall, lamp, { oneAtATime }, told));
}
