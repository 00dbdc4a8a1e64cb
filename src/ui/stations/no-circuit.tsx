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
        . Until then readings can be logged in the entry line by a name with a number in it and a value, such as{" "}
        <code className="font-mono">TP4 12m</code> or <code className="font-mono">R7 ohm 118k</code>; reservoirs are named at Make safe.
      </p>
    </div>
  );
}
