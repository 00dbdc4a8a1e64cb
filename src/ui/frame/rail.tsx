"use client";
/** The thirteen stations in order, each with what is open in it. A job is read down this rail at a glance. */

import Link from "next/link";
import { Check, TriangleAlert } from "lucide-react";
import { STATIONS, type StationId } from "@/core/tape/stations";
import { useJob } from "../job/job-context";

export function Rail({ current }: { current: StationId }) {
  const { jobId, marks } = useJob();
  return (
    <nav
      aria-label="Stations"
      className="no-print relative flex shrink-0 gap-px overflow-x-auto border-base-300 bg-base-200 py-1 md:w-44 md:flex-col md:overflow-y-auto md:border-r"
    >
      {STATIONS.map((s, i) => {
        const mark = marks[s.id];
        const here = s.id === current;
        return (
          <Link
            key={s.id}
            href={`/jobs/${jobId}/${s.id}`}
            prefetch={false}
            aria-current={here ? "page" : undefined}
            title={mark.says}
            className={`flex min-h-11 items-center gap-1.5 px-2 text-sm whitespace-nowrap ${here ? "border-l-4 border-primary bg-base-100 font-bold" : "border-l-4 border-transparent hover:bg-base-300"}`}
          >
            <span className="soft w-5 text-right tabular-nums text-xs" aria-hidden>
              {i + 1}
            </span>
            <span className="flex-1">{s.name}</span>
            {mark.warning ? (
              <TriangleAlert className="size-4 shrink-0 text-warning" aria-hidden />
            ) : mark.done ? (
              <Check className="size-4 shrink-0 text-success" aria-hidden />
            ) : null}
            {mark.open > 0 && <span className="rounded bg-base-300 px-1.5 font-mono text-xs">{mark.open}</span>}
            <span className="sr-only">, {mark.says}</span>
          </Link>
        );
      })}
    </nav>
  );
}
