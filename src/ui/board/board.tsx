"use client";
/** The bench board: jobs by what they wait for, an amp that was left on above all, and a search over everything. */

import Link from "next/link";
import { useEffect, useState, type ReactNode } from "react";
import { PlugZap, Zap } from "lucide-react";
import { formatDuration, formatVolts } from "@/core/quantity/format";

export interface BoardCard {
  id: number;
  owner: string;
  amp: string;
  serial: string;
  complaint: string;
  waitingOn: "you" | "owner" | "part" | "soak" | "collection" | "done";
  waitingWhat: string;
  waitingUntil: string;
  dueDate: string;
  openFindings: number;
  readings: number;
  lastAt: string;
  /** Set for an amp that was left live or charged. */
  charge?: { kind: "live" | "stored"; volts?: number; joules?: number; since: string };
  found?: string;
}

const COLUMNS: { on: BoardCard["waitingOn"]; title: string; empty: string }[] = [
  { on: "you", title: "You", empty: "Nothing waits for you." },
  { on: "owner", title: "The owner's yes", empty: "No question is out." },
  { on: "part", title: "A part", empty: "No part is awaited." },
  { on: "soak", title: "The soak clock", empty: "Nothing is soaking." },
  { on: "collection", title: "Collection", empty: "Nothing stands ready." },
];

export function Board({ cards, done, search }: { cards: BoardCard[]; done: number; search(text: string): Promise<BoardCard[]> }) {
  const [text, setText] = useState("");
  const [found, setFound] = useState<BoardCard[]>();
  const [problem, setProblem] = useState("");
  const charged = cards.filter((c) => c.charge);

  useEffect(() => {
    if (text.trim() === "") {
      setFound(undefined);
      return;
    }
    let stale = false;
    const timer = setTimeout(() => {
      search(text).then(
        (jobs) => {
          if (!stale) {
            setFound(jobs);
            setProblem("");
          }
        },
        (e: Error) => {
          if (!stale) setProblem(e.message);
        },
      );
    }, 150);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [text, search]);

  return (
    <div className="px-4 py-3">
      {charged.length > 0 && (
        <section aria-label="Left charged" className="mb-3 space-y-2">
          {charged.map((c) => (
            <Link
              key={c.id}
              href={`/jobs/${c.id}/make-safe`}
              className={`flex items-center gap-3 rounded px-4 py-2 ${c.charge!.kind === "live" ? "bg-[var(--live)] text-[var(--live-ink)]" : "bg-warning text-warning-content"}`}
            >
              {c.charge!.kind === "live" ? <Zap aria-hidden /> : <PlugZap aria-hidden />}
              <strong>{c.charge!.kind === "live" ? "LIVE" : "STORED"}</strong>
              <span>
                {c.amp}, job {c.id}:{" "}
                {c.charge!.kind === "live" ? "power was put on and never taken off" : `≈ ${formatVolts(c.charge!.volts ?? 0)} by estimate`}{" "}
                <Ago iso={c.charge!.since} />
              </span>
            </Link>
          ))}
        </section>
      )}
      <div className="mb-4 flex flex-wrap items-center gap-3">
        <input
          className="input h-12 min-w-60 flex-1 text-lg"
          type="search"
          aria-label="Search jobs"
          placeholder="Search: owner, amp, serial, part, note"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Link href="/jobs/new" className="btn btn-primary h-12">
          New job
        </Link>
      </div>
      {problem && (
        <p role="alert" className="text-error">
          {problem}
        </p>
      )}
      {found ? (
        <section aria-label="Found">
          <p className="soft mb-2" role="status">
            {found.length === 0
              ? `Nothing holds “${text.trim()}”. Every word must be in the job; try fewer.`
              : `${found.length} ${found.length === 1 ? "job" : "jobs"}`}
          </p>
          <div className="grid gap-2 md:grid-cols-2 xl:grid-cols-3">
            {found.map((c) => (
              <Card key={c.id} card={c} />
            ))}
          </div>
        </section>
      ) : cards.length === 0 && done === 0 ? (
        <div className="rounded border border-dashed border-base-content/50 p-8">
          <p className="text-2xl font-bold">No jobs yet.</p>
          <p className="mt-2">
            Take in the first amp: <strong>New job</strong> wants the owner&apos;s name and what the amp is. A circuit file can come with it
            or later. A job archive from another bench can be read in under Settings.
          </p>
        </div>
      ) : (
        <div className="grid gap-4 md:grid-cols-3 xl:grid-cols-5">
          {COLUMNS.map(({ on, title, empty }) => {
            const mine = cards.filter((c) => c.waitingOn === on);
            return (
              <Column key={on} title={title} count={mine.length}>
                {mine.length === 0 ? <p className="soft text-sm">{empty}</p> : mine.map((c) => <Card key={c.id} card={c} />)}
              </Column>
            );
          })}
        </div>
      )}
      {done > 0 && !found && (
        <p className="soft mt-4 text-sm">
          {done} {done === 1 ? "job is" : "jobs are"} returned; the search finds them.
        </p>
      )}
    </div>
  );
}

function Column({ title, count, children }: { title: string; count: number; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="mb-2 border-b-2 border-base-300 pb-1 font-bold">
        {title} <span className="soft font-mono font-normal">{count}</span>
      </h2>
      <div className="space-y-2">{children}</div>
    </section>
  );
}

function Card({ card: c }: { card: BoardCard }) {
  return (
    <Link
      href={`/jobs/${c.id}/${c.waitingOn === "done" ? "return" : "intake"}`}
      prefetch={false}
      className="block rounded border border-base-300 bg-base-200 p-3 hover:border-primary"
    >
      <p className="flex items-baseline justify-between gap-2">
        <strong>{c.amp}</strong>
        <span className="soft font-mono text-xs">{c.id}</span>
      </p>
      <p className="text-sm">
        {c.owner}
        {c.serial && <span className="soft"> · {c.serial}</span>}
      </p>
      {c.complaint && <p className="soft mt-1 line-clamp-2 text-sm">“{c.complaint}”</p>}
      {c.waitingWhat && <p className="mt-1 text-sm">▸ {c.waitingWhat}</p>}
      {c.found && <p className="mt-1 text-sm">found: {c.found}</p>}
      <p className="soft mt-1 text-xs">
        {c.waitingOn === "done"
          ? "returned"
          : c.openFindings > 0
            ? `${c.openFindings} ${c.openFindings === 1 ? "finding" : "findings"} open`
            : `${c.readings} readings`}
        {c.dueDate && ` · wanted ${c.dueDate}`}
      </p>
    </Link>
  );
}

/** Time since, by the reader's clock, so it is drawn only in the browser. */
function Ago({ iso }: { iso: string }) {
  const [ago, setAgo] = useState("");
  useEffect(() => setAgo(`${formatDuration(Math.floor((Date.now() - Date.parse(iso)) / 60000) * 60)} ago`), [iso]);
  return <span>{ago}</span>;
}
