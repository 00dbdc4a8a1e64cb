/** A station that needs the circuit, in a job that has none: what it is for, and where to give it one. */

import Link from "next/link";
import { useJob } from "../job/job-context";

export function NoCircuit({ what }: { what: string }) {
  const { jobId } = useJob();
  return (
    <div className="rounded border border-dashed border-base-content/50 p-6">
      <p className="text-lg font-bold">{what}</p>
      <p className="mt-1">
        This job has no circuit yet.{" "}
        <Link className="underline" href={`/jobs/${jobId}/intake`}>
          Give it one at Intake
        </Link>
        , or{" "}
        <Link className="underline" data-arrival href={`/library/new?for=${jobId}`}>
          put it together from its tubes
        </Link>
        . Until then readings stand at{" "}
        <Link className="underline" href={`/jobs/${jobId}/walk`}>
          Walk
        </Link>{" "}
        by tube and pin, with what can be said of them; reservoirs are named at Make safe.
      </p>
    </div>
  );
}
