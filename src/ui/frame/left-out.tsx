"use client";
/** Experiments that are in the amp but not in the circuit that everything is judged by: said at every station, never dropped. */

import Link from "next/link";
import { useJob } from "./job-context";

export function LeftOut() {
  const { view, jobId } = useJob();
  const leftOut = view.inUse?.leftOut ?? [];
  if (leftOut.length === 0) return null;
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
