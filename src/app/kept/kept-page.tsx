"use client";
/** A page of the shop without the server: the job at this address as this browser keeps it, or what else is kept. */

import dynamic from "next/dynamic";
import { usePathname, useSearchParams } from "next/navigation";
import { Suspense, useEffect, useState } from "react";
import { languageOf } from "@/core/shop/settings";
import { findStation } from "@/core/tape/stations";
import { Speaks } from "@/ui/frame/speaks";
import { jobPage } from "@/workers/kept-addresses";
import { JobClient } from "../jobs/[id]/job-client";
import { probingOrder } from "../jobs/[id]/probing-order";
import { keptJob, keptJobs, type KeptJob } from "./kept-jobs";
import { NotKept } from "./not-kept";
import { StayHere } from "./stay-here";

// Apart from this page: what it shares with the others would be put into one file with them, and they would all load it.
const JobFrame = dynamic(() => import("@/ui/frame/job-frame").then((m) => m.JobFrame));
const StationSheet = dynamic(() => import("@/ui/stations/station-sheet").then((m) => m.StationSheet));
const ProbeMode = dynamic(() => import("@/ui/probe/probe-mode").then((m) => m.ProbeMode));

type Kept = { job?: KeptJob; all: KeptJob[]; problem?: string };

async function look(jobId: number | undefined): Promise<Kept> {
  try {
    const job = jobId === undefined ? undefined : await keptJob(jobId);
    return job ? { job, all: [] } : { all: await keptJobs() };
  } catch (error) {
    return { all: [], problem: (error as Error).message };
  }
}

/** The theme that was chosen here: the page was drawn before the server knew who asks. */
function wearTheme() {
  const [, theme] = /(?:^|; )scutum-theme=(\w+)/.exec(document.cookie) ?? [];
  if (theme) document.documentElement.dataset.theme = theme;
}

export function KeptPage() {
  return (
    <Suspense>
      <Found />
    </Suspense>
  );
}

function Found() {
  const path = usePathname();
  const order = useSearchParams().get("order");
  const place = jobPage(path);
  const jobId = place?.jobId;
  const [kept, setKept] = useState<Kept>();
  useEffect(() => {
    wearTheme();
    void look(jobId).then(setKept);
  }, [jobId]);

  if (!kept) return <main className="p-8">Looking for what this browser keeps…</main>;
  const { job } = kept;
  const station = place && findStation(place.place);
  if (!job || (!station && place?.place !== "probe")) return <NotKept {...kept} jobId={jobId} />;
  const { keptAt, offset, ...data } = job;
  return (
    <Speaks language={languageOf(job.settings)}>
      <JobClient {...data} serverNow={new Date(Date.now() + offset).toISOString()} keptAt={keptAt}>
        <StayHere>
          {station ? (
            <JobFrame station={station.id}>
              <StationSheet station={station.id} />
            </JobFrame>
          ) : (
            <ProbeMode order={probingOrder(order)} />
          )}
        </StayHere>
      </JobClient>
    </Speaks>
  );
}
