"use client";
/** The timer that runs, on every station of the job: which task, how long, and what it is about to pass. */

import { formatDuration } from "@/core/quantity/format";
import { runningTimer } from "@/core/repair/time";
import { useJob } from "../job/job-context";
import { useTasks } from "../job/use-tasks";

export function TimerStrip() {
  const { view, say } = useJob();
  // Without a timer nothing has to be worked out for it.
  return runningTimer(view.state, 0) ? <Running stop={() => say({ type: "timer", payload: { turn: "stopped" } })} /> : null;
}

function Running({ stop }: { stop(): void }) {
  const { who } = useJob();
  const { running, tasks, spent } = useTasks();
  if (!running) return null;
  const task = tasks.find((t) => t.root === running.task);
  const over = task && task.worked > task.estimate;
  const [worst] = spent.warnings;
  return (
    <div
      role="status"
      aria-label="Timer"
      className="mb-3 flex flex-wrap items-center gap-3 rounded border border-primary bg-base-200 px-3 py-2"
    >
      <span className="min-w-0 flex-1">
        Timer{running.who === who ? "" : ` of ${running.who}`}: <strong>{task?.name ?? (running.what || "work on no task")}</strong>,{" "}
        <span className="tabular-nums">{running.minutes < 1 ? "just started" : formatDuration(Math.floor(running.minutes) * 60)}</span>
        {task && <span className="soft">, {formatDuration(task.estimate * 60)} estimated</span>}
        {over && <span className="text-warning"> ▲ longer than estimated</span>}
        {running.problem && (
          <span className="block text-warning">▲ {running.problem}. Was it forgotten? Take minutes off at Work, Plan.</span>
        )}
        {worst && <span className="block text-warning">▲ {worst.says}</span>}
      </span>
      <button className="btn btn-sm min-h-9" onClick={stop}>
        Stop the timer
      </button>
    </div>
  );
}
