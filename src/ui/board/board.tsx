"use client";
/** The bench board: what was left live or charged, then the open jobs by urgency, with a search over everything. */

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { PlugZap, Zap } from "lucide-react";
import { formatDuration, formatVolts } from "@/core/quantity/format";
import { chargeWords, WAITING, type BoardCard } from "./board-card";
import { FirstSteps } from "./first-steps";
import { JobList } from "./job-list";

type Filter = keyof typeof WAITING | "all";
const FILTERS: { on: Filter; title: string }[] = [
  { on: "all", title: "All open" },
  { on: "you", title: "To do" },
  { on: "owner", title: "Owner's approval" },
  { on: "part", title: "Part on order" },
  { on: "soak", title: "Soak test" },
  { on: "collection", title: "Ready for collection" },
];

export interface BoardProps {
  cards: BoardCard[];
  done: number;
  /** Milliseconds since 1970 by the server's clock. */
  now: number;
  /** The day at the shop. */
  today: string;
  search(text: string): Promise<Found>;
}

/** What a search met: jobs, and other things of the shop. */
export interface Found {
  jobs: BoardCard[];
  elsewhere: { kind: string; says: string; href?: string }[];
}

export function Board({ cards, done, now, today, search }: BoardProps) {
  const router = useRouter();
  const [text, setText] = useState("");
  const [found, setFound] = useState<Found>();
  /** Text with which Enter was pressed, and that of the answer. */
  const entered = useRef("");
  const answered = useRef("");
  const [problem, setProblem] = useState("");
  const [filter, setFilter] = useState<Filter>("all");
  const shown = filter === "all" ? cards : cards.filter((c) => c.waitingOn === filter);

  useEffect(() => {
    if (text.trim() === "") {
      setFound(undefined);
      return;
    }
    let stale = false;
    const timer = setTimeout(() => {
      search(text).then(
        (met) => {
          if (stale) return;
          answered.current = text;
          setFound(met);
          setProblem("");
          if (entered.current === text && met.jobs.length === 1) router.push(`/jobs/${met.jobs[0]!.id}`);
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
  }, [text, search, router]);

  return (
    <div className="mx-auto max-w-7xl px-4 py-3">
      <Charged cards={cards} now={now} />
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <input
          className="input h-12 min-w-60 flex-1 text-lg"
          type="search"
          aria-label="Search jobs"
          placeholder="Search: owner, amp, serial number, part, note"
          value={text}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== "Enter") return;
            // The one job that is found is the one that is meant, also where the answer comes after the key.
            if (found?.jobs.length === 1 && answered.current === text) router.push(`/jobs/${found.jobs[0]!.id}`);
            else entered.current = text;
          }}
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
            {found.jobs.length === 0
              ? `No job contains “${text.trim()}”. Every word must occur in the job: try fewer words.`
              : `${found.jobs.length} ${found.jobs.length === 1 ? "job" : "jobs"} found`}
          </p>
          {found.jobs.length > 0 && <JobList label="Jobs found" cards={found.jobs} now={now} today={today} />}
          {found.elsewhere.length > 0 && (
            <section aria-label="Found in the shop" className="mt-3">
              <h2 className="font-bold">In the shop</h2>
              <ul>
                {found.elsewhere.map((f) => (
                  <li key={`${f.kind} ${f.says}`}>
                    <span className="soft">{f.kind}:</span>{" "}
                    {f.href ? (
                      <Link className="underline" href={f.href}>
                        {f.says}
                      </Link>
                    ) : (
                      f.says
                    )}
                  </li>
                ))}
              </ul>
            </section>
          )}
        </section>
      ) : cards.length === 0 && done === 0 ? (
        <FirstSteps />
      ) : (
        <section aria-label="Open jobs">
          <div role="group" aria-label="Show jobs that wait for" className="mb-2 flex flex-wrap gap-1">
            {FILTERS.map(({ on, title }) => (
              <button
                key={on}
                aria-pressed={filter === on}
                className={`btn btn-sm min-h-9 ${filter === on ? "btn-primary" : "btn-ghost"}`}
                onClick={() => setFilter(on)}
              >
                {title}{" "}
                <span className="font-mono text-xs">{on === "all" ? cards.length : cards.filter((c) => c.waitingOn === on).length}</span>
              </button>
            ))}
          </div>
          {shown.length === 0 ? (
            <p className="soft py-4">No open job waits for that.</p>
          ) : (
            <JobList label="Open jobs" cards={shown} now={now} today={today} />
          )}
        </section>
      )}
      {done > 0 && !found && (
        <p className="soft mt-4 text-sm">
          {done} returned {done === 1 ? "job is" : "jobs are"} not listed; search finds {done === 1 ? "it" : "them"}.
        </p>
      )}
    </div>
  );
}

/** What can hurt somebody stands above all else. */
function Charged({ cards, now }: { cards: BoardCard[]; now: number }) {
  const charged = cards.filter((c) => c.charge);
  if (charged.length === 0) return null;
  return (
    <section aria-label="Left charged" className="mb-3 space-y-2">
      {charged.map(({ id, amp, charge }) => (
        <Link
          key={id}
          href={`/jobs/${id}/make-safe`}
          className={`flex flex-wrap items-center gap-x-3 rounded px-4 py-2 ${charge!.kind === "live" ? "bg-[var(--live)] text-[var(--live-ink)]" : "bg-warning text-warning-content"}`}
        >
          {charge!.kind === "live" ? <Zap aria-hidden /> : <PlugZap aria-hidden />}
          <strong>{charge!.kind === "live" ? "LIVE" : "STORED"}</strong>
          <span className="min-w-0 flex-1">
            {amp}, job {id}: {chargeWords(charge!, formatVolts)}{" "}
            <span className="whitespace-nowrap">
              ({charge!.kind === "live" ? "on for" : "off for"} {wholeMinutes((now - Date.parse(charge!.since)) / 1000)})
            </span>
          </span>
        </Link>
      ))}
    </section>
  );
}

/** The board is not drawn anew every second. */
const wholeMinutes = (seconds: number) => (seconds < 60 ? "less than a minute" : formatDuration(Math.floor(seconds / 60) * 60));
