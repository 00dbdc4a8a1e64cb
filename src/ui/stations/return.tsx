"use client";
/** Return: advice, the bill, the report, old parts, and the amp goes home. */

import { useState } from "react";
import { useForm } from "react-hook-form";
import { refusedTo } from "@/core/shop/people";
import { parseQuantity } from "@/core/quantity/parse";
import { money } from "@/core/job/money";
import { composeReport } from "@/core/papers/report";
import { Field, Section } from "../forms/section";
import { useJob } from "../frame/job-context";

export function ReturnStation() {
  const { view, jobId, settings, marks } = useJob();
  const report = composeReport(jobId, view, settings);
  const gaps = [
    marks.prove.open > 0 && marks.prove.says,
    view.state.reproductions.some((r) => r.run === "intake") &&
      !view.state.reproductions.some((r) => r.run === "prove") &&
      "the complaint's own test was not run again",
    report.unanswered.length > 0 && `${report.unanswered.length} questions wait for the owner`,
  ].filter((g) => typeof g === "string");
  return (
    <div className="max-w-4xl">
      <section aria-label="Report" className="mb-4 rounded border border-base-300 bg-base-200 p-4">
        <p className="text-2xl font-bold">The owner&apos;s report</p>
        <p className="mt-1">
          {report.parts.length} {report.parts.length === 1 ? "part" : "parts"}, {report.findings.length}{" "}
          {report.findings.length === 1 ? "finding" : "findings"}, {report.beforeAfter.length} voltages,{" "}
          {report.safety.filter((s) => s.verdict === "passed").length} of {report.safety.length} safety tests passed.
        </p>
        {gaps.length > 0 && (
          <ul className="mt-2 text-warning">
            {gaps.map((g) => (
              <li key={g}>▲ {g}</li>
            ))}
          </ul>
        )}
        <div className="mt-3 flex flex-wrap gap-3">
          <a className="btn btn-primary btn-lg" href={`/jobs/${jobId}/report`}>
            Open and print
          </a>
          <a className="btn" href={`/api/v1/jobs/${jobId}/report`}>
            PDF, A4
          </a>
          <a className="btn" href={`/api/v1/jobs/${jobId}/report?paper=letter`}>
            PDF, Letter
          </a>
          <a className="btn" href={`/api/v1/jobs/${jobId}/archive`}>
            Job archive (ZIP)
          </a>
        </div>
      </section>
      <AdviceForm />
      <Bill />
      <HandOver />
    </div>
  );
}

function AdviceForm() {
  const { view, say } = useJob();
  const stands = view.state.advice;
  const { register, handleSubmit, formState } = useForm({ values: { text: stands?.text ?? "", nextService: stands?.nextService ?? "" } });
  return (
    <Section title="Advice" hint="what to watch for, when to service it next">
      <form
        className="grid gap-3"
        onSubmit={handleSubmit(({ text, nextService }) =>
          say({ type: "advice", payload: { text: text.trim(), ...(nextService ? { nextService } : {}) } }),
        )}
      >
        <Field label="To the owner">
          <textarea className="textarea min-h-20 w-full" {...register("text")} />
        </Field>
        <Field label="Next service">
          <input type="date" className="input w-48" {...register("nextService")} />
        </Field>
        <div>
          <button className="btn" disabled={!formState.isDirty}>
            Store the advice
          </button>
        </div>
      </form>
    </Section>
  );
}

function Bill() {
  const { view, say, settings, tape, role } = useJob();
  const notTheirs = refusedTo(role, { type: "bill-line", payload: {} });
  const [refused, setRefused] = useState("");
  const { register, handleSubmit, reset } = useForm({ defaultValues: { text: "", amount: "", kind: "labour" } });
  const total = view.state.bill.reduce((sum, l) => sum + Math.round(l.amount * 100), 0) / 100;
  const limit = view.state.brief?.spendingLimit;
  const store = handleSubmit(({ text, amount, kind }) => {
    const parsed = parseQuantity(amount, { decimal: settings.decimal });
    if (!text.trim()) return setRefused("What is it for?");
    if (!parsed.ok) return setRefused(`Amount: ${parsed.why}; accepted: 12.50`);
    say({
      type: "bill-line",
      payload: { text: text.trim(), amount: Math.round(parsed.quantity.value * 100) / 100, kind: kind as "labour" },
    });
    reset({ text: "", amount: "", kind });
    setRefused("");
  });
  return (
    <Section title="Bill">
      <table className="table table-sm mb-2">
        <tbody>
          {view.state.bill.map((l) => (
            <tr key={l.seq}>
              <td>
                {l.text} <span className="soft">{l.kind}</span>
              </td>
              <td className="text-right tabular-nums">{money(l.amount, settings.currency)}</td>
              <td className="w-20">
                <button
                  className="btn btn-line btn-sm"
                  disabled={l.seq >= tape.pendingFrom || notTheirs !== undefined}
                  aria-label={`Remove ${l.text} from the bill`}
                  onClick={() => say({ type: "undo", supersedes: l.seq, reason: "removed from the bill", payload: {} })}
                >
                  Remove
                </button>
              </td>
            </tr>
          ))}
          <tr className="font-bold">
            <td>
              Total
              {limit !== undefined && total > limit && (
                <span className="text-warning"> ▲ above the owner&apos;s limit of {money(limit, settings.currency)}</span>
              )}
            </td>
            <td className="text-right tabular-nums">{money(total, settings.currency)}</td>
            <td />
          </tr>
        </tbody>
      </table>
      {notTheirs ? (
        <p className="text-sm">{notTheirs}.</p>
      ) : (
        <form className="flex flex-wrap items-end gap-3" onSubmit={store}>
          <Field label="For" className="min-w-48 flex-1">
            <input className="input w-full" {...register("text")} />
          </Field>
          <Field label="Kind">
            <select className="select w-32" {...register("kind")}>
              <option>labour</option>
              <option>parts</option>
              <option>other</option>
            </select>
          </Field>
          <Field label={`Amount, ${settings.currency}`}>
            <input className="input w-28 text-right tabular-nums" inputMode="decimal" {...register("amount")} />
          </Field>
          <button className="btn">Add</button>
          {refused && (
            <p role="alert" className="text-error">
              {refused}
            </p>
          )}
        </form>
      )}
    </Section>
  );
}

function HandOver() {
  const { view, say, energyKind } = useJob();
  const [old, setOld] = useState(true);
  const done = view.state.returned;
  if (done)
    return (
      <Section title="Handed over">
        <p className="text-lg">
          ● Returned to {done.to}
          {done.oldPartsHanded ? ", old parts with it" : ""}.
        </p>
      </Section>
    );
  return (
    <Section title="Hand over">
      <div className="flex flex-wrap items-center gap-4">
        <label className="flex min-h-11 items-center gap-2">
          <input type="checkbox" className="checkbox" checked={old} onChange={() => setOld(!old)} /> Old parts go with it
        </label>
        <button
          className="btn btn-primary"
          disabled={energyKind === "live"}
          onClick={() => say({ type: "returned", payload: { to: view.state.opened?.owner ?? "the owner", oldPartsHanded: old } })}
        >
          Handed over to {view.state.opened?.owner}
        </button>
        {energyKind === "live" && <span className="text-warning">▲ The amp is logged as live.</span>}
      </div>
    </Section>
  );
}
