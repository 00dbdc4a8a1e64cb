"use client";
/** Conditions matrix: a fault that depends on circumstances as runs, what explains them all, the run that tells most next. */

import { useMemo, useState } from "react";
import { useFieldArray } from "react-hook-form";
import type { Badness } from "@/core/tape/events/words";
import { judgeRuns, tellExplanation, type Condition, type MatrixAnswer, type Run } from "@/core/intermittent/conditions";
import { usualConditions } from "@/core/intermittent/usual-conditions";
import { conditionRuns } from "@/core/intermittent/condition-runs";
import { capital } from "../../job/words";
import { Field } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";

type NumberedRun = ReturnType<typeof conditionRuns>[number];

const BAD_WORD: Record<Badness, string> = { none: "No fault", some: "A little", bad: "Bad" };

export function Matrix() {
  const { view } = useJob();
  const { state } = view;
  const usual = useMemo(() => usualConditions(state, view.circuit), [state, view.circuit]);
  const conditions = state.conditions?.conditions;
  const runs = useMemo(() => conditionRuns(state), [state]);
  const answer = useMemo(() => (conditions ? judgeRuns(conditions, runs) : undefined), [conditions, runs]);
  if (!conditions || !answer)
    return (
      <div className="max-w-4xl space-y-4">
        <p className="text-2xl font-bold">When does it fail?</p>
        <p>
          Record runs under different conditions. Name the conditions that could matter, each with its settings. Each planned run changes
          several at once: that takes far fewer runs than one at a time, and finds a fault that needs two conditions together.
        </p>
        <ConditionsForm from={usual.slice(0, 3)} usual={usual} />
      </div>
    );
  return (
    <div className="max-w-5xl space-y-4">
      <Verdict answer={answer} runs={runs} />
      {answer.next && <NextRun key={runs.length} conditions={conditions} answer={answer} />}
      {!answer.next && answer.left.length > 1 && <p className="soft">No run of these conditions tells them apart.</p>}
      <Runs conditions={conditions} runs={runs} answer={answer} />
      <details>
        <summary className="min-h-11 cursor-pointer font-bold">Other conditions</summary>
        <ConditionsForm from={conditions} usual={usual} />
      </details>
    </div>
  );
}

function Verdict({ answer, runs }: { answer: MatrixAnswer; runs: Run[] }) {
  const { left, contradictions, worst } = answer;
  if (contradictions.length > 0)
    return (
      <section aria-label="Contradiction" className="rounded border border-base-300 bg-base-200 p-4">
        <p className="text-3xl font-bold">▲ It may be intermittent</p>
        {contradictions.map((c) => (
          <p key={c.says} className="mt-1 text-lg">
            {capital(c.says)}.
          </p>
        ))}
        <p className="mt-1">
          Repeat a run. If the result is the same, a condition is missing from the list; if not, go on under Comes and goes.
        </p>
      </section>
    );
  if (left.length === 1)
    return (
      <section aria-label="What explains it" className="rounded border border-base-300 bg-base-200 p-4">
        <p className="text-3xl font-bold">It needs {tellExplanation(left[0]!)}</p>
        <p className="mt-1 text-lg">
          All {runs.length} runs agree, and nothing else in the list explains them: {answer.ruledOut.length} others are ruled out.
        </p>
      </section>
    );
  return (
    <p className="soft">
      {left.length} explanations fit {runs.length === 0 ? "so far" : `all ${runs.length} runs`}
      {left.length <= 6 && `: ${left.map(tellExplanation).join("; ")}`}
      {worst !== undefined && `. At most ${worst} more ${worst === 1 ? "run" : "runs"}`}.
    </p>
  );
}

function NextRun({ conditions, answer }: { conditions: readonly Condition[]; answer: MatrixAnswer }) {
  const { say } = useJob();
  const [settings, setSettings] = useState(answer.next!.settings);
  const planned = conditions.every((c) => settings[c.name] === answer.next!.settings[c.name]);
  const log = (bad: Badness) =>
    say({ type: "conditions-run", payload: { settings: conditions.map((c) => ({ name: c.name, setting: settings[c.name]! })), bad } });
  return (
    <section aria-label="Next run" className="rounded border border-base-300 bg-base-200 p-4">
      <p className="soft text-sm">
        {planned
          ? `Next run: if it shows, ${answer.next!.showing} explanations are left; if not, ${answer.next!.silent}`
          : "A run of your own"}
      </p>
      <div className="mt-1 flex flex-wrap gap-x-6 gap-y-2">
        {conditions.map((c) => (
          <Field key={c.name} label={c.name}>
            <select
              className="select h-14 w-44 text-xl font-bold"
              value={settings[c.name]}
              onChange={(e) => setSettings({ ...settings, [c.name]: e.target.value })}
            >
              {c.settings.map((s) => (
                <option key={s}>{s}</option>
              ))}
            </select>
          </Field>
        ))}
      </div>
      <div className="mt-3 flex flex-wrap gap-2">
        {(["none", "some", "bad"] as const).map((bad) => (
          <button key={bad} className="btn btn-outline h-14" onClick={() => log(bad)}>
            {BAD_WORD[bad]}
          </button>
        ))}
        {!planned && (
          <button className="btn btn-ghost h-14" onClick={() => setSettings(answer.next!.settings)}>
            Back to the planned run
          </button>
        )}
      </div>
    </section>
  );
}

function Runs({ conditions, runs, answer }: { conditions: readonly Condition[]; runs: NumberedRun[]; answer: MatrixAnswer }) {
  const { say } = useJob();
  if (runs.length === 0) return null;
  const odd = new Set(answer.contradictions.flatMap((c) => c.runs));
  const out = (i: number) => answer.ruledOut.filter((r) => r.by === i).length;
  return (
    <table className="table table-sm" aria-label="Runs">
      <thead>
        <tr>
          <th>Run</th>
          {conditions.map((c) => (
            <th key={c.name}>{c.name}</th>
          ))}
          <th>Fault</th>
          <th>Ruled out</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {runs.map((r, i) => (
          <tr key={r.seq}>
            <td>
              {i + 1}
              {odd.has(i) && answer.contradictions[0]!.runs.length < runs.length && " ▲"}
            </td>
            {conditions.map((c) => (
              <td key={c.name}>{r.settings[c.name]}</td>
            ))}
            <td className={r.bad === "none" ? "" : "font-bold"}>
              {r.bad === "none" ? "○ none" : r.bad === "some" ? "▲ a little" : "■ bad"}
            </td>
            <td className="tabular-nums">{out(i)}</td>
            <td>
              <button
                className="text-sm underline decoration-dotted underline-offset-4"
                onClick={() => say({ type: "undo", supersedes: r.seq, reason: "entered wrongly", payload: {} })}
              >
                Undo
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function ConditionsForm({ from, usual }: { from: readonly Condition[]; usual: readonly Condition[] }) {
  const { say } = useJob();
  const { field, onSubmit, refused, form } = useTypedForm(
    { rows: from.map((c) => ({ name: c.name, settings: c.settings.join(", ") })) },
    ({ rows }) => {
      const conditions = rows
        .map((r) => ({ name: r.name.trim(), settings: [...new Set(r.settings.split(",").map((s) => s.trim()))].filter(Boolean) }))
        .filter((c) => c.name !== "");
      if (conditions.length === 0) return "No condition is named; accepted: footswitch lead with short, long";
      const few = conditions.find((c) => c.settings.length < 2);
      if (few) return `"${few.name}" has ${few.settings.length} setting; accepted: two to five, with commas between: short, long`;
      if (new Set(conditions.map((c) => c.name)).size < conditions.length) return "Two conditions have one name";
      say({ type: "conditions", payload: { conditions } });
      return { rows };
    },
  );
  const { fields, append, remove } = useFieldArray({ control: form.control, name: "rows" });
  /** The first of the usual ones that is not in a row yet. */
  const offered = () => {
    const there = form.getValues("rows").map((r) => r.name.trim());
    const next = usual.find((c) => !there.includes(c.name));
    return next && { name: next.name, settings: next.settings.join(", ") };
  };
  return (
    <form className="space-y-2" onSubmit={onSubmit}>
      {fields.map((f, i) => (
        <div key={f.id} className="flex flex-wrap gap-2">
          <input className="input w-56" aria-label={`Condition ${i + 1}`} placeholder="footswitch lead" {...field(`rows.${i}.name`)} />
          <input
            className="input w-72"
            aria-label={`Settings of condition ${i + 1}`}
            placeholder="short, long"
            {...field(`rows.${i}.settings`)}
          />
          <button type="button" className="btn btn-ghost" aria-label={`Remove condition ${i + 1}`} onClick={() => remove(i)}>
            ✕
          </button>
        </div>
      ))}
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="btn"
          disabled={fields.length >= 10}
          onClick={() => append({ name: "", settings: "", ...offered() })}
        >
          Another condition
        </button>
        <button className="btn btn-primary">Plan the runs</button>
      </div>
      <Refused>{refused}</Refused>
    </form>
  );
}
