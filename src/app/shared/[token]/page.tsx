import { db } from "@/server/db";
import { jobOfLink } from "@/server/door/report-links";
import { blocksApart } from "@/server/paper/paper";
import { wholeJob } from "@/server/shop";
import { PrintButton } from "@/ui/forms/print-button";
import { ReportPaper } from "@/ui/paper/report-paper";

export const metadata = { title: "Report · Scutum", robots: "noindex" };

/** The report of one job for the amp's owner, by a link of the shop. Nothing else can be reached from here. */
export default async function SharedReport({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const sql = await db();
  const jobId = await jobOfLink(sql, token);
  if (jobId === undefined)
    return (
      <main className="p-8">
        <p className="text-2xl font-bold">This link is not valid, or its time is over.</p>
        <p className="mt-2">Ask the shop for a new one.</p>
      </main>
    );
  const way = `/api/v1/shared/${token}`;
  return (
    <div data-theme="ledger" className="min-h-dvh bg-base-100 text-base-content">
      <nav className="no-print flex flex-wrap items-center gap-3 border-b border-base-300 bg-base-200 px-4 py-2" aria-label="Report">
        <PrintButton />
        <a className="btn" href={`${way}/report`}>
          PDF, A4
        </a>
        <a className="btn" href={`${way}/report?paper=letter`}>
          PDF, Letter
        </a>
      </nav>
      <ReportPaper blocks={await blocksApart(await wholeJob(sql, jobId), { paper: "report" })} photosAt={`${way}/photos`} />
    </div>
  );
}
