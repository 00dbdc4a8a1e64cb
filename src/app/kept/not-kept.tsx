/** Without the server and without the page that was asked for: why, and what this browser does keep. */

import { dayTime } from "@/ui/job/words";
import type { KeptJob } from "./kept-jobs";

interface NotKeptProps {
  /** The job that was asked for. */
  jobId?: number;
  job?: KeptJob;
  all: KeptJob[];
  problem?: string;
}

const ampOf = ({ events }: KeptJob): string => {
  const opened = events.find((e) => e.type === "job-opened")?.payload as { amp?: string; owner?: string } | undefined;
  return [opened?.amp, opened?.owner].filter(Boolean).join(" · ");
};

export function NotKept({ jobId, job, all, problem }: NotKeptProps) {
  const jobs = job ? [job] : all;
  return (
    <main className="mx-auto max-w-2xl px-4 py-10">
      <h1 className="text-2xl font-bold">The server is not reached.</h1>
      <p className="mt-2">
        {jobId !== undefined && !job
          ? `Job ${jobId} was not opened in this browser lately, so it is not kept here.`
          : "This page is made by the server. Stations and probe mode of a job that was opened here go on without it."}
      </p>
      {problem && <p className="mt-2 text-error">This browser would not say what it keeps: {problem}</p>}
      <button className="btn btn-primary mt-4" onClick={() => window.location.reload()}>
        Try again
      </button>
      {jobs.length > 0 && (
        <>
          <h2 className="mt-8 mb-2 font-bold">Kept in this browser</h2>
          <ul className="grid gap-2">
            {jobs.map((k) => (
              <li key={k.jobId}>
                {/* A whole page: the router would ask the server. */}
                <a
                  className="flex min-h-14 items-center justify-between gap-4 rounded border border-base-300 bg-base-200 px-4 py-2 hover:border-primary"
                  href={`/jobs/${k.jobId}/walk`}
                >
                  <span>
                    <span className="font-bold">Job {k.jobId}</span> {ampOf(k)}
                  </span>
                  <span className="soft text-sm">as of {dayTime(k.keptAt)}</span>
                </a>
              </li>
            ))}
          </ul>
        </>
      )}
    </main>
  );
}
