import { cookies } from "next/headers";
import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { JobClient } from "../job-client";
import { db } from "@/server/db";
import { UserError } from "@/server/errors";
import { shopHistory } from "@/server/history";
import { wholeJob } from "@/server/shop";

export default async function JobLayout({ children, params }: { children: ReactNode; params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!/^\d{1,9}$/.test(id)) notFound();
  const job = await wholeJob(await db(), Number(id)).catch((error: unknown) => {
    if (error instanceof UserError && error.status === 404) notFound();
    throw error;
  });
  const chosen = (await cookies()).get("scutum-who")?.value;
  const who = chosen && job.settings.technicians.includes(chosen) ? chosen : job.settings.technicians[0]!;
  return (
    <JobClient
      jobId={job.head.id}
      events={job.events}
      netlist={job.model?.netlist}
      modelName={job.model && `${job.model.maker} ${job.model.name}, version ${job.model.version}`}
      modelId={job.model?.id}
      shopHistory={job.model && (await shopHistory(await db(), job.head.id, job.model))}
      settings={job.settings}
      serverNow={new Date().toISOString()}
      who={who}
    >
      {children}
    </JobClient>
  );
}
