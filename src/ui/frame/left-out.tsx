"use client";
/** What is not in what everything is judged by, said at every station: lines that cannot be understood, experiments that the circuit cannot take. */

import Link from "next/link";
import type { CircuitInUse } from "@/core/job/circuit-in-use";
import { useJob } from "../job/job-context";

export function LeftOut() {
  const { view } = useJob();
  const leftOut = view.inUse?.leftOut ?? [];
  const unreadable = view.state.lines.filter((l) => l.effective && l.event.type === "unreadable");
  return (
    <>
      {unreadable.length > 0 && (
        <p role="alert" className="mb-3 rounded border-2 border-warning px-3 py-2 text-sm">
          ▲ {unreadable.length === 1 ? "A line of this tape cannot" : `${unreadable.length} lines of this tape cannot`} be understood and{" "}
          {unreadable.length === 1 ? "counts" : "count"} for nothing: {unreadable.map((l) => `line ${l.event.seq}`).join(", ")}. The tape
          says why. Log what it meant anew, then undo it.
        </p>
      )}
      {leftOut.length > 0 && <Experiments leftOut={leftOut} />}
    </>
  );
}

function Experiments({ leftOut }: { leftOut: CircuitInUse["leftOut"] }) {
  const { jobId } = useJob();
  return (
    <p role="alert" className="mb-3 rounded border-2 border-warning px-3 py-2 text-sm">
      ▲ Judged without {leftOut.map((l) => `the experiment at ${l.position}, line ${l.line} (${l.why})`).join("; ")}. Correct it at{" "}
      <Link className="underline" href={`/jobs/${jobId}/work`}>
        Work
      </Link>
      .
    </p>
  );
}
