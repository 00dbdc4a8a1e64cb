import Link from "next/link";
import { notFound } from "next/navigation";
import { messageOf } from "@/core/papers/message";
import { readPaperName, type PaperName } from "@/core/papers/paper-name";
import { db } from "@/server/db";
import { UserError } from "@/server/errors";
import { blocksApart } from "@/server/paper/paper";
import { wholeJob } from "@/server/shop";
import { CopyText } from "@/ui/forms/copy-text";
import { PrintButton } from "@/ui/forms/print-button";
import { ReportPaper } from "@/ui/paper/report-paper";

type Props = { params: Promise<{ id: string; paper: string }> };

const NAMES: Record<PaperName["paper"], string> = {
  report: "Report",
  history: "Bench history",
  quote: "Quote",
  question: "Question",
  bill: "Bill",
  credit: "Credit note",
};
/** Where in the job each is made. */
const STATION: Record<PaperName["paper"], string> = {
  report: "return",
  history: "return",
  quote: "work#Quote",
  question: "work#Approvals",
  bill: "return#Bill",
  credit: "return#Bill",
};

export async function generateMetadata({ params }: Props) {
  const { id, paper } = await params;
  const name = readPaperName(paper);
  return { title: `${name ? NAMES[name.paper] : "Paper"} · job ${id} · Scutum` };
}

/** A quote, a question, a bill or the bench history, as paper on the screen. */
export default async function PaperPage({ params }: Props) {
  const { id, paper } = await params;
  const name = readPaperName(paper);
  if (!/^\d{1,9}$/.test(id) || !name) notFound();
  const blocks = await (async () => blocksApart(await wholeJob(await db(), Number(id)), name))().catch((error: unknown) => {
    if (error instanceof UserError && error.status === 404) notFound();
    throw error;
  });
  const address = `/api/v1/jobs/${id}/paper/${paper}`;
  return (
    <div data-theme="ledger" className="min-h-dvh bg-base-100 text-base-content">
      <nav
        className="no-print flex flex-wrap items-center gap-3 border-b border-base-300 bg-base-200 px-4 py-2"
        aria-label={NAMES[name.paper]}
      >
        <Link href={`/jobs/${id}/${STATION[name.paper]}`} className="btn">
          Back to the job
        </Link>
        <PrintButton />
        <a className="btn" href={address}>
          PDF, A4
        </a>
        <a className="btn" href={`${address}?paper=letter`}>
          PDF, Letter
        </a>
        {name.paper !== "history" && <CopyText text={messageOf(blocks)} label="Copy as a message" />}
      </nav>
      <ReportPaper blocks={blocks} />
    </div>
  );
}
