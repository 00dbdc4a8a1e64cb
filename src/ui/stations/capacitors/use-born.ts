"use client";
/** What one part bears with the mains up a tenth. */

import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { useDrawnCapacitors } from "./use-capacitors";

export function useBorn(part: string) {
  const { capacitors } = useJob();
  const { netlist, mains } = useDrawnCapacitors();
  const { answer, failed } = useAnswer(capacitors && JSON.stringify(["born", netlist, mains]), () => capacitors!.born(netlist, mains));
  return { born: answer?.find((b) => b.part === part), all: answer, failed };
}
