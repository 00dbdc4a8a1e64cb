"use client";
/** What the owner is asked, with price and consequence, and what they answered. */

import { shopDay } from "@/core/shop/day";
import { questionsOf, type Question } from "@/core/repair/questions";
import { Section } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { useTasks } from "../../job/use-tasks";
import { Again, Answer } from "./answer";
import { AskOwner } from "./ask-owner";

const STANDS: Record<Question["stands"], string> = {
  asked: "▲ not answered",
  yes: "● yes",
  part: "● in part",
  no: "■ no",
  revoked: "■ yes, then taken back",
};

export function Approvals() {
  const { view, jobId } = useJob();
  const { money } = useTasks();
  const questions = questionsOf(view.state);
  const open = questions.filter((q) => q.stands === "asked");
  const settled = questions.filter((q) => q.stands !== "asked");
  return (
    <div className="max-w-5xl">
      <Section title="Owner's approval" hint="needed before work that the agreement does not cover">
        {questions.length === 0 && (
          <p className="soft">Nothing was asked yet. What the brief covers needs no question; a quote is made at Quote.</p>
        )}
        <ul className="space-y-3">
          {open.map((q) => (
            <li key={q.line} className="rounded border border-base-300 bg-base-200 p-3">
              <Asked q={q} money={money} jobId={jobId} />
              <Answer q={q} />
            </li>
          ))}
          {settled.map((q) => (
            <li key={q.line} className="border-l-4 border-base-300 pl-3">
              <Asked q={q} money={money} jobId={jobId} />
              <Again q={q} />
            </li>
          ))}
        </ul>
      </Section>
      <AskOwner />
    </div>
  );
}

function Asked({ q, money, jobId }: { q: Question; money(amount: number): string; jobId: number }) {
  const { settings } = useJob();
  const { answer } = q;
  return (
    <div className="flex flex-wrap items-start gap-x-3">
      <p className="min-w-48 flex-1">
        <strong>{q.kind === "quote" ? `Quote: ${q.option?.name ?? q.what}` : q.what}</strong>
        {q.cost !== undefined && <span className="ml-2 tabular-nums">{money(q.cost)}</span>}
        {q.asked?.consequence && <span className="soft block text-sm">{q.asked.consequence}</span>}
        {(q.asked?.options ?? []).map((o, i) => (
          <span key={o.name} className="soft block text-sm">
            {i + 1}. {o.name}
            {o.aim && ` (${o.aim})`}
            {o.cost !== undefined && `, ${money(o.cost)}`}
            {o.consequence && `: ${o.consequence}`}
          </span>
        ))}
        <span className="block text-sm">
          <span className={q.stands === "asked" ? "text-warning" : ""}>{STANDS[q.stands]}</span>
          {answer && (
            <span className="soft">
              {" "}
              {[answer.on ?? shopDay(answer.at, settings.timeZone), answer.by, answer.said, `noted by ${answer.who}`]
                .filter(Boolean)
                .join(", ")}
            </span>
          )}
        </span>
      </p>
      <a className="btn btn-sm btn-outline min-h-9" href={`/jobs/${jobId}/paper/${q.kind}-${q.line}`}>
        As a page
      </a>
    </div>
  );
}
