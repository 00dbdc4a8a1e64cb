"use client";
/** The suspect becomes a task of the plan, with the reason that it is one. */

import { findElement } from "@/core/circuit/circuit";
import { describePart } from "@/core/circuit/part-words";
import type { Suspect } from "@/core/suspects/rank";
import { useJob } from "../../job/job-context";

export function PlanRepair({ suspect }: { suspect: Suspect }) {
  const { view, say } = useJob();
  const position = suspect.refs[0]!;
  const there = view.state.planned.find((p) => !p.ended && p.position.toUpperCase() === position.toUpperCase());
  if (there)
    return (
      <p className="soft mb-2 text-sm">
        {position} is on the plan: {there.what}.
      </p>
    );
  const part = describePart(view.circuit && findElement(view.circuit, position));
  return (
    <button
      className="btn btn-outline mb-2"
      onClick={() =>
        say({
          type: "planned",
          payload: {
            position,
            what: `renew ${part ?? position}`.slice(0, 300),
            phase: "power off",
            from: "suspect",
            reason: `suspected: ${suspect.fault}, ${Math.round(suspect.groupProbability * 100)} %`,
            reversible: true,
          },
        })
      }
    >
      Plan the repair of {position}
    </button>
  );
}
