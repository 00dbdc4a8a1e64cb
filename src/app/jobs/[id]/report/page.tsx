import Link from "next/link";
import { notFound } from "next/navigation";
import { db } from "@/server/db";
import { doorShut } from "@/server/door/secret";
import { UserError } from "@/server/errors";
import { blocksApart } from "@/server/paper/paper";
import { wholeJob } from "@/server/shop";
import { PrintButton } from "@/ui/forms/print-button";
import { ReportPaper } from "@/ui/paper/report-paper";
import { OwnerLink } from "./owner-link";

type Props = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props) {
  return { title: `Report · job ${(await params).id} · Scutum` };
}

/** The owner's report, as paper on the screen. */
export default async function ReportPage({ params }: Props) {
  const { id } = await params;
  if (!/^\d{1,9}$/.test(id)) notFound();
  const job = await wholeJob(await db(), Number(id)).catch((error: unknown) => {
    if (error instanceof UserError && error.status === 404) notFound();
    throw error;
  });
  return (
    <div data-theme="ledger" className="min-h-dvh bg-base-100 text-base-content">
      <nav className="no-print flex flex-wrap items-center gap-3 border-b border-base-300 bg-base-200 px-4 py-2" aria-label="Report">
        <Link href={`/jobs/${id}/return`} className="btn">
          Back to the job
        </Link>
        <PrintButton />
        <a className="btn" href={`/api/v1/jobs/${id}/report`}>
          PDF, A4
        </a>
        <a className="btn" href={`/api/v1/jobs/${id}/report?paper=letter`}>
          PDF, Letter
        </a>
        {doorShut() && <OwnerLink jobId={job.head.id} />}
      </nav>
      <ReportPaper blocks={await blocksApart(job, { paper: "report" })} />
    </div>
  );
}
