"use client";
/** Everything that happened to this job, oldest at the top like a paper roll. Superseded lines stay, struck through. */

import { lateInBrowser } from "../forms/late";
import { useEffect, useMemo, useRef, useState } from "react";
import { Undo2 } from "lucide-react";
import { lineSpokenOf } from "@/core/tape/references";
import { tellEvent } from "@/core/tape/tell";
import type { StationId } from "@/core/tape/stations";
import { useJob } from "../job/job-context";
import { useEarlyKeys } from "./early-keys";
import { clockTime, day } from "../job/words";

/** The reader of sentences comes after the page; until then its place is empty, so that nothing typed is lost. */
const EntryLine = lateInBrowser(() => import("./entry-line").then((m) => m.EntryLine), "h-28 border-t border-base-300");

const Strike = lateInBrowser(() => import("./strike").then((m) => m.Strike));

export function TapeColumn({ station }: { station: StationId }) {
  const { view, tape, say, energyKind } = useJob();
  const roll = useRef<HTMLOListElement>(null);
  const [striking, setStriking] = useState<number>();
  const early = useEarlyKeys();
  const count = view.state.lines.length;

  useEffect(() => {
    roll.current?.scrollTo({ top: roll.current.scrollHeight });
    // The strip on top has grown or shrunk: what was at the end is moved out of sight.
  }, [count, tape.present.length, energyKind]);

  const lines = useMemo(() => {
    let last = "";
    return view.state.lines.map((l) => {
      const date = day(l.event.at);
      const first = date !== last;
      last = date;
      return {
        ...l,
        date: first ? date : undefined,
        text: tellEvent(l.event, view.state.lines[(lineSpokenOf(l.event) ?? 0) - 1]?.event),
      };
    });
  }, [view.state.lines]);

  return (
    <aside aria-label="Tape" className="no-print flex min-h-0 flex-col border-base-300 bg-base-200 md:w-80 md:shrink-0 md:border-l">
      <ol ref={roll} tabIndex={0} className="min-h-0 flex-1 overflow-y-auto px-3 py-2 text-sm" aria-label="Lines of the tape">
        {lines.map(({ event, effective, supersededBy, date, text }) => {
          const pending = event.seq >= tape.pendingFrom;
          const strikeable = effective && !pending && event.type !== "job-opened";
          return (
            <li key={event.id} data-seq={event.seq} className="group relative border-b border-base-300/60 py-1">
              {date && <p className="soft mt-1 text-xs font-bold">{date}</p>}
              <div className="flex gap-2">
                <span className="soft w-10 shrink-0 text-xs">
                  <time className="block leading-4" dateTime={event.at} suppressHydrationWarning>
                    {clockTime(event.at)}
                  </time>
                  <span aria-label={`line ${event.seq}`} className="block text-[0.65rem] leading-3 tabular-nums">
                    {event.seq}
                  </span>
                </span>
                <span
                  className={`min-w-0 flex-1 break-words ${effective ? "" : "line-through opacity-70"} ${event.type === "power" || event.type === "gate-passed" ? "font-bold" : ""}`}
                >
                  {text}
                </span>
                <span className="soft text-xs">
                  {pending ? "storing…" : event.seq < view.state.broughtIn ? `as claimed: ${event.who}` : event.who}
                </span>
              </div>
              {!effective && <p className="soft pl-11 text-xs">replaced by line {supersededBy}</p>}
              {event.reason && event.type !== "undo" && (
                <p className="soft pl-11 text-xs">
                  was line {event.supersedes}: {event.reason}
                </p>
              )}
              {view.state.late.has(event.seq) && (
                <p className="pl-11 text-xs text-warning">
                  ▲ Made before the amp was last switched on and stored after it: counts for nothing. Measure again.
                </p>
              )}
              {strikeable && (
                <button
                  className="absolute top-0.5 right-0 hidden rounded bg-base-300 p-1 group-focus-within:block group-hover:block focus:block"
                  aria-label={`${event.type === "undo" ? "Restore what was undone by" : "Undo"} line ${event.seq}`}
                  onClick={() => setStriking(event.seq)}
                >
                  <Undo2 className="size-4" aria-hidden />
                </button>
              )}
              {striking === event.seq && (
                <Strike
                  seq={event.seq}
                  close={() => setStriking(undefined)}
                  strike={(reason) => {
                    say({ type: "undo", supersedes: event.seq, reason, payload: {} });
                    setStriking(undefined);
                  }}
                />
              )}
            </li>
          );
        })}
      </ol>
      {tape.refusals.map((r) => (
        <div key={r.event.id} role="alert" className="border-t-2 border-error px-3 py-2 text-sm">
          <p className="font-bold text-error">Not stored: {r.message}</p>
          <p className="soft">It was: {tellEvent({ ...r.event, seq: 0 } as never)}</p>
          <button className="btn btn-line btn-sm mt-1" onClick={() => tape.forget(r)}>
            Dismiss
          </button>
        </div>
      ))}
      <EntryLine station={station} early={early} />
    </aside>
  );
}
