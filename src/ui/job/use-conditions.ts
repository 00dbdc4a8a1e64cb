"use client";
/** How the amp stands now, as the solver takes it: for what a screen shows besides readings. */

import { useMemo } from "react";
import { wallVolts } from "@/core/circuit/mains-connection";
import { solveConditions, type SolveConditions } from "@/core/expectation/modelled";
import { useJob } from "./job-context";

/** The mains as read, else of the wall; tubes that are out; switches and controls as noted. Wants a job with a circuit. */
export function useConditions(): SolveConditions {
  const { view, conditions, settings } = useJob();
  const circuit = view.circuit!;
  const { without, switches, controls } = conditions;
  const mains = conditions.mains ?? wallVolts(circuit, settings.mainsVolts);
  const out = without?.join(",") ?? "";
  return useMemo(
    () => solveConditions(circuit, { mains, without: out ? out.split(",") : [], switches, controls }),
    [circuit, mains, out, switches, controls],
  );
}
