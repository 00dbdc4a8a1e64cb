"use client";
/** What the walk came to: how many in band, which are out, which were left, and what the suspects make of it. */

import { VERDICT_WORD } from "@/core/expectation/expectation";
import { formatVolts } from "@/core/quantity/format";
import { tellReading } from "@/core/tape/tell";
import type { ProbeWalk } from "@/core/walk/probe-walk";
import { useJob } from "../job/job-context";
import { useSuspects } from "../job/use-suspects";
import { VerdictMark } from "../forms/verdict-mark";
import { Keys } from "./keys";
import { usePedal } from "./pedal";
import type { ProbingOrder } from "@/core/walk/probe-order";

export function Summary({ order, walk, done, again }: { order: ProbingOrder; walk: ProbeWalk; done(): void; again(): void }) {
  const { view } = useJob();
  const { answer, job, progress } = useSuspects();
  const pedal = usePedal({
    short: done,
    other(key) {
      if (key !== "b" && key !== "arrowleft" && key !== "backspace") return false;
      again();
      return true;
    },
  });
  const rows = view.rows.filter((r) => r.reading && walk.taken.includes(r.point.name));
  const count = (v: "in" | "watch" | "out") => rows.filter((r) => r.verdict === v).length;
  const bad = rows.filter((r) => r.verdict === "out" || r.verdict === "watch");
  const top = job.evidence.length > 0 ? answer?.suspects[0] : undefined;
  return (
    <>
      <section aria-label="What the walk came to" className="flex flex-1 flex-col justify-center gap-8 overflow-hidden px-4 md:px-12">
        {rows.length > 0 && (
          <p className="flex flex-wrap gap-x-12 text-6xl font-bold">
            {(["in", "watch", "out"] as const).map((v) => (
              <span key={v} className={`verdict-${v} flex items-center gap-3`}>
                <VerdictMark verdict={v} size={40} />
                {count(v)} {VERDICT_WORD[v]}
              </span>
            ))}
          </p>
        )}
        {bad.length > 0 ? (
          <ul className="grid gap-x-12 gap-y-3 text-4xl md:grid-cols-2">
            {bad.slice(0, 8).map((r) => (
              <li key={r.point.name} className="flex items-baseline gap-3">
                <VerdictMark verdict={r.verdict} size={22} />
                <strong>{tellReading(r.reading!)}</strong>
                {r.expected && <span className="soft text-3xl">should be {formatVolts(r.expected.volts)}</span>}
              </li>
            ))}
          </ul>
        ) : (
          <p className="text-4xl">
            {rows.length > 0
              ? "Every reading is within what this circuit should show."
              : top
                ? "Nothing new was read; the earlier readings are enough."
                : "Nothing was read."}
          </p>
        )}
        {top && (
          <p className="text-6xl leading-tight font-bold">
            {top.group.length > 1 ? `One of ${top.group.join(", ")}` : top.refs.length === 0 ? "Nothing wrong" : top.fault}
            <span className="soft text-4xl font-normal whitespace-nowrap"> {Math.round(top.groupProbability * 100)} %</span>
          </p>
        )}
        {!top && progress !== undefined && (
          <p role="status" className="soft text-3xl">
            Working out the suspects <progress className="progress w-80" value={progress} max={1} aria-label="Solving the faults" />
          </p>
        )}
        {walk.unreachable.length > 0 && <p className="soft text-2xl">Not reached: {walk.unreachable.join(", ")}</p>}
        {order === "suspects" && rows.length > 0 && (
          <p className="soft text-2xl">{rows.length} readings were taken, each where it told most.</p>
        )}
      </section>
      <Keys
        pedal={pedal}
        keys={[
          ["press", "leave the probe"],
          ["B", "back to the points"],
        ]}
      />
    </>
  );
}
