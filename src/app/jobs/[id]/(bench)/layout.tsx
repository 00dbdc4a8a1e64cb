import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { JobClient } from "../job-client";
import { foldJob } from "@/core/tape/fold";
import { badNames } from "@/server/bad-names";
import { db } from "@/server/db";
import { UserError } from "@/server/errors";
import { placesOf } from "@/server/point-places";
import { shopHistory } from "@/server/history";
import { personHere, technician } from "../../../strip";
import { wholeJob } from "@/server/shop";

export default async function JobLayout({ children, params }: { children: ReactNode; params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!/^\d{1,9}$/.test(id)) notFound();
  const job = await wholeJob(await db(), Number(id)).catch((error: unknown) => {
    if (error instanceof UserError && error.status === 404) notFound();
    throw error;
  });
  return (
    <JobClient
      jobId={job.head.id}
      events={job.events}
      netlist={job.model?.netlist}
      modelName={job.model && `${job.model.maker} ${job.model.name}, version ${job.model.version}`}
      modelId={job.model?.id}
      shopHistory={job.model && (await shopHistory(await db(), job.head.id, job.model, foldJob(job.events).complaint))}
      badNames={await badNames(await db())}
      marked={job.model && (await placesOf(await db(), job.model))}
      settings={job.settings}
      serverNow={new Date().toISOString()}
      who={await technician(job.settings)}
      role={(await personHere())?.role}
    >
      {children}
    </JobClient>
  );
}
