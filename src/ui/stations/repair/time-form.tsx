"use client";
/** Time beside the tasks: a timer for work that is on no task, and minutes noted or taken off by hand. */

import { formatDuration } from "@/core/quantity/format";
import { minutesWorked, spells } from "@/core/repair/time";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob, useNow } from "../../job/job-context";
import { useTasks } from "../../job/use-tasks";

export function TimeForm() {
  const { view, say } = useJob();
  const now = useNow();
  const { tasks, running } = useTasks();
  const worked = minutesWorked(view.state, now);
  const all = [...worked.values()].reduce((a, b) => a + b, 0);
  const loose = worked.get(undefined) ?? 0;
  const problems = spells(view.state, now).flatMap((s) => (s.problem ? [{ line: s.line, says: s.problem }] : []));
  const { field, onSubmit, refused } = useTypedForm({ minutes: "", planned: "", what: "" }, ({ minutes, planned, what }) => {
    const read = Number(minutes.trim().replace("−", "-"));
    if (!minutes.trim() || !Number.isInteger(read) || read === 0)
      return `Minutes: read “${minutes.trim()}”; a whole number is accepted, below zero to take time off`;
    say({
      type: "time",
      payload: { minutes: read, ...(planned ? { planned: Number(planned) } : {}), ...(what.trim() ? { what: what.trim() } : {}) },
    });
    return { planned };
  });
  return (
    <Section title="Time" hint={`${formatDuration(all * 60)} in all${loose > 0 ? `, ${formatDuration(loose * 60)} of it on no task` : ""}`}>
      {problems.map((p) => (
        <p key={p.line} className="text-warning">
          ▲ {p.says}
        </p>
      ))}
      <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit} aria-label="Minutes">
        <Field label="Minutes, − to take off">
          <input className="input w-28 text-right tabular-nums" inputMode="numeric" {...field("minutes")} />
        </Field>
        <Field label="On">
          <select className="select w-56" {...field("planned")}>
            <option value="">no task</option>
            {tasks.map((t) => (
              <option key={t.root} value={t.root}>
                {t.name}
              </option>
            ))}
          </select>
        </Field>
        <Field label="What for" className="min-w-40 flex-1">
          <input className="input w-full" {...field("what")} />
        </Field>
        <button className="btn">Note the minutes</button>
        {!running && (
          <button type="button" className="btn btn-outline" onClick={() => say({ type: "timer", payload: { turn: "started" } })}>
            Start a timer on no task
          </button>
        )}
        <Refused className="basis-full">{refused}</Refused>
      </form>
    </Section>
  );
}
