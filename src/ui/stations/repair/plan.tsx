"use client";
/** The plan of the job: its tasks in the order in which they are done, with time, money and what is in the way. */

import { useState } from "react";
import { formatDuration } from "@/core/quantity/format";
import type { Planned } from "@/core/tape/events/plan-events";
import { byDependency, orderProblems, planSteps } from "@/core/repair/order";
import { proposals } from "@/core/repair/proposals";
import type { Task } from "@/core/repair/tasks";
import { Section } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { useTasks } from "../../job/use-tasks";
import { WorkList } from "../look/work-list";
import { TaskForm } from "./task-form";
import { TaskList } from "./task-list";
import { TimeForm } from "./time-form";

export function Plan() {
  const { view, say } = useJob();
  const { tasks, spent, money } = useTasks();
  const [edited, setEdited] = useState<Task>();
  const open = tasks.filter((t) => t.state === "open" && t.agreed !== "declined");
  const order = (roots: number[]) => say({ type: "plan-order", payload: { order: roots } });
  const suggested = byDependency(open);
  const inOrder = suggested.tasks.every((t, i) => t.root === open[i]?.root);
  const problems = [...(suggested.problem ? [suggested.problem] : []), ...orderProblems(open)];
  const between = planSteps(open);
  const closed = tasks.filter((t) => !open.includes(t));
  return (
    <div className="max-w-5xl">
      <section aria-label="What it comes to" className="mb-4 rounded border border-base-300 bg-base-200 p-4">
        <p className="text-2xl font-bold">
          {open.length === 0
            ? "No open task"
            : `${open.length} open ${open.length === 1 ? "task" : "tasks"}, ${formatDuration(spent.openMinutes * 60)}`}
          {spent.all > 0 && <span className="text-lg font-normal"> · {money(spent.all)} in all</span>}
        </p>
        <p className="mt-1">
          {spent.spent > 0 && <>Done so far: {money(spent.spent)}. </>}
          {spent.limit !== undefined && <>The owner&apos;s limit: {money(spent.limit)}. </>}
          {spent.minutesLeft !== undefined && view.state.brief?.dueDate && (
            <>
              Bench time until {view.state.brief.dueDate}: {formatDuration(spent.minutesLeft * 60)}.
            </>
          )}
        </p>
        {spent.warnings.map((w) => (
          <p key={w.says} role={w.passed ? "alert" : undefined} className={w.passed ? "font-bold text-error" : "text-warning"}>
            {w.passed ? "■" : "▲"} {w.says}
          </p>
        ))}
      </section>
      <Proposed />
      <WorkList />
      <Section title="Tasks" hint="in the order in which they are done: drag them, or move them with the keyboard">
        {open.length === 0 ? (
          <p className="soft">Nothing is planned. Findings, suspects and capacitors propose tasks; others are entered below.</p>
        ) : (
          <>
            {problems.map((p) => (
              <p key={p} className="text-warning">
                ▲ {p}
              </p>
            ))}
            {!inOrder && (
              <button className="btn btn-outline mb-2" onClick={() => order(suggested.tasks.map((t) => t.root))}>
                Order by what depends on what
              </button>
            )}
            <TaskList tasks={open} between={between} reorder={order} edit={setEdited} />
          </>
        )}
      </Section>
      <TaskForm key={edited?.seq ?? "new"} task={edited} others={open} done={() => setEdited(undefined)} />
      <TimeForm />
      {closed.length > 0 && (
        <Section title="Ended" hint={`${closed.length}`}>
          <ul>
            {closed.map((t) => (
              <li key={t.root} className="flex flex-wrap gap-x-3">
                <span className="flex-1">
                  {t.state === "done" ? "●" : "○"} {t.name}{" "}
                  <span className="soft">
                    {t.agreed === "declined" && t.state === "open" ? "declined by the owner" : t.state}
                    {t.ended?.why ? `: ${t.ended.why}` : ""}
                  </span>
                </span>
                <span className="tabular-nums">
                  {t.worked > 0 ? formatDuration(t.worked * 60) : "no time"}{" "}
                  <span className="soft">of {formatDuration(t.estimate * 60)}</span>
                </span>
                {t.ended && (
                  <button
                    className="btn btn-line btn-sm"
                    onClick={() => say({ type: "undo", supersedes: t.ended!.seq, reason: "open again", payload: {} })}
                  >
                    Open again
                  </button>
                )}
              </li>
            ))}
          </ul>
        </Section>
      )}
    </div>
  );
}

/** Tasks that findings, tubes and the end of the job ask for. */
function Proposed() {
  const { view, say } = useJob();
  const found = proposals(view.state, view.circuit);
  if (found.length === 0) return null;
  const plan = (planned: readonly Planned[]) => say(...planned.map((payload) => ({ type: "planned" as const, payload })));
  return (
    <Section title="Proposed" hint="from the findings, and what has to come after">
      <ul className="mb-2 space-y-1">
        {found.map(({ planned: p, urgent }) => (
          <li key={`${p.position} ${p.what}`} className="flex items-center gap-3">
            <span className="flex-1">
              {urgent && <span className="text-warning">▲ </span>}
              <strong>{p.position}</strong>: {p.what} <span className="soft text-sm">{p.phase}</span>
            </span>
            <button className="btn btn-line btn-sm min-h-9" onClick={() => plan([p])} aria-label={`Plan ${p.position}: ${p.what}`}>
              Plan it
            </button>
          </li>
        ))}
      </ul>
      {found.length > 1 && (
        <button className="btn btn-primary" onClick={() => plan(found.map((f) => f.planned))}>
          Plan all {found.length}
        </button>
      )}
    </Section>
  );
}
