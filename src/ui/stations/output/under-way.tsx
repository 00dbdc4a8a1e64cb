"use client";
/** Long work of the output stage: how far it is, with Stop; why it failed, with Try again. */

import { useJob } from "../../job/job-context";

export function UnderWay({ what, progress, failed, again }: { what: string; progress?: number; failed?: string; again: () => void }) {
  const { output } = useJob();
  if (failed)
    return (
      <p role="alert" className="text-error">
        {failed}{" "}
        <button className="underline" onClick={again}>
          Try again
        </button>
      </p>
    );
  if (progress === undefined) return null;
  return (
    <p className="mt-2 flex items-center gap-3">
      <progress className="progress w-72" value={progress} max={1} aria-label={what} />
      <button className="btn btn-sm min-h-11" onClick={() => output?.cancel()}>
        Stop
      </button>
    </p>
  );
}
