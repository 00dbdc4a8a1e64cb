"use client";
/** What stands between this page and the server: it is not reached, it waits for somebody, or the page is older than the job's circuit. */

import { useJob } from "../job/job-context";
import { dayTime } from "../job/words";

const strip = "basis-full rounded bg-warning px-3 py-1 text-sm text-warning-content";

export function Lost() {
  const { tape, keptAt } = useJob();
  const waiting = tape.events.length - tape.pendingFrom + 1;
  return (
    <>
      {tape.lost && (
        <p role="alert" className={strip}>
          {tape.lost}{" "}
          {keptAt && tape.outOfTouch && `This is the job as it was here on ${dayTime(keptAt)}; what others logged since is not in it. `}
          {waiting > 0
            ? `${waiting} ${waiting === 1 ? "line is" : "lines are"} kept in this browser and will be sent.`
            : "What you enter is kept in this browser and will be sent."}
        </p>
      )}
      {tape.held.length > 0 && (
        <p role="alert" className={strip}>
          Lines of {tape.held.join(" and ")} are kept in this browser: they are sent when {tape.held.join(" or ")} signs in here.
        </p>
      )}
    </>
  );
}

/** @param large for probe mode, read from two metres. */
export function OtherCircuit({ large = false }: { large?: boolean }) {
  const { tape, modelId } = useJob();
  if (tape.circuit === undefined || (tape.circuit ?? undefined) === modelId) return null;
  return (
    <p
      role="alert"
      className={large ? "flex shrink-0 items-center gap-4 bg-warning px-6 py-2 text-2xl font-bold text-warning-content" : strip}
    >
      ▲ This job was given another circuit: what is expected here is of the one before.{" "}
      <button className={`btn ${large ? "btn-lg" : "btn-sm"} ml-2`} onClick={() => window.location.reload()}>
        Load it
      </button>
    </p>
  );
}
