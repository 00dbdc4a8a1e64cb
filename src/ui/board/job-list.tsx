"use client";
/** Jobs as a list: what was promised when, what is to be done next, and for whom each waits since when. */

import Link from "next/link";
import { useMemo } from "react";
import { createColumnHelper } from "@tanstack/react-table";
import { format } from "date-fns";
import { daysSince, daysUntil } from "@/core/job/urgency";
import { SortTable } from "../forms/sort-table";
import { WAITING, type BoardCard } from "./board-card";

const column = createColumnHelper<BoardCard>();

interface JobListProps {
  cards: BoardCard[];
  /** Milliseconds since 1970 by the server's clock, so that server and browser draw the same. */
  now: number;
  /** The day at the shop. */
  today: string;
  label: string;
}

export function JobList({ cards, now, today, label }: JobListProps) {
  const columns = useMemo(
    () => [
      column.accessor((c) => c.dueDate || "9999", {
        id: "due",
        header: "Promised",
        cell: ({ row }) => <Due date={row.original.dueDate} today={today} done={row.original.waitingOn === "done"} />,
        meta: { className: "whitespace-nowrap" },
      }),
      column.accessor("amp", { header: "Job", cell: ({ row }) => <Job card={row.original} /> }),
      column.accessor("nextStep", {
        header: "Next step",
        cell: ({ row: { original: c } }) =>
          c.nextStep && (
            <Link className="underline decoration-dotted underline-offset-4" href={`/jobs/${c.id}/${c.nextStation}`} prefetch={false}>
              {c.nextStep}
            </Link>
          ),
        meta: { className: "hidden md:table-cell" },
      }),
      column.accessor((c) => daysSince(c.waitingSince, now), {
        id: "waits",
        header: "Waiting for",
        cell: ({ row }) => <Waits card={row.original} now={now} />,
        meta: { className: "hidden lg:table-cell" },
      }),
    ],
    [now, today],
  );
  return <SortTable label={label} rows={cards} columns={columns} idOf={(c) => String(c.id)} />;
}

function Due({ date, today, done }: { date: string; today: string; done: boolean }) {
  const days = daysUntil(date, today);
  if (days === undefined) return <span className="soft">no date</span>;
  const day = format(new Date(`${date}T12:00:00`), "d MMM");
  if (done) return <span className="soft">{day}</span>;
  if (days < 0)
    return (
      <strong className="text-error">
        ■ {day}
        <span className="block text-xs">{counted(-days)} late</span>
      </strong>
    );
  return (
    <span className={days <= 3 ? "font-bold text-warning" : ""}>
      {days <= 3 && "▲ "}
      {day}
      <span className="soft block text-xs">{days === 0 ? "today" : `in ${counted(days)}`}</span>
    </span>
  );
}

function Job({ card: c }: { card: BoardCard }) {
  return (
    <>
      <Link href={`/jobs/${c.id}/${c.waitingOn === "done" ? "return" : "intake"}`} prefetch={false} className="text-base font-bold">
        {c.amp} <span className="soft font-mono text-xs font-normal">{c.id}</span>
      </Link>
      {c.charge && <strong className="ml-2 text-warning">{c.charge.kind === "live" ? "LIVE" : "STORED"}</strong>}
      <span className="block text-sm">
        {c.owner}
        {c.serial && <span className="soft"> · serial {c.serial}</span>}
        {c.technician && <span className="soft"> · {c.technician}</span>}
      </span>
      {c.complaint && <span className="soft line-clamp-1 text-sm">“{c.complaint}”</span>}
      {c.found && <span className="block text-sm">found: {c.found}</span>}
    </>
  );
}

function Waits({ card: c, now }: { card: BoardCard; now: number }) {
  if (c.waitingOn === "done") return <span className="soft">returned</span>;
  const days = daysSince(c.waitingSince, now);
  return (
    <>
      {WAITING[c.waitingOn]}
      {c.waitingWhat && <span className="soft">: {c.waitingWhat}</span>}
      <span className="soft block text-xs">{days === 0 ? "since today" : `for ${counted(days)}`}</span>
    </>
  );
}

const counted = (days: number) => (days === 1 ? "1 day" : `${days} days`);
