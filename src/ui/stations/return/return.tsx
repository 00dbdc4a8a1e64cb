"use client";
/** Return: advice, the bill, the papers, old parts, and the amp goes home. */

import { useForm } from "react-hook-form";
import { composeReport } from "@/core/papers/report";
import { Field, Section } from "../../forms/section";
import { Tabs } from "../../forms/tabs";
import { useJob } from "../../job/job-context";
import { BillTab } from "./bill";
import { HandOver } from "./hand-over";
import { NotToBeUsed } from "./not-to-be-used";

const TABS = [
  { id: "report", name: "Report", body: <Papers /> },
  { id: "bill", name: "Bill", body: <BillTab />, keep: true },
  { id: "hand-over", name: "Hand over", body: <HandOver />, keep: true },
];

export function ReturnStation() {
  return (
    <div className="max-w-5xl">
      <Tabs tabs={TABS} label="Return" />
    </div>
  );
}

function Papers() {
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
        <NotToBeUsed />
        {gaps.length > 0 && (
          <ul className="mt-2 text-warning">
            {gaps.map((g) => (
              <li key={g}>▲ {g}</li>
            ))}
          </ul>
        )}
        <div className="mt-3 flex flex-wrap gap-3">
          <a className="btn btn-primary btn-lg" data-arrival href={`/jobs/${jobId}/report`}>
            Open and print
          </a>
          <a className="btn" href={`/api/v1/jobs/${jobId}/report`}>
            PDF, A4
          </a>
          <a className="btn" href={`/api/v1/jobs/${jobId}/report?paper=letter`}>
            PDF, Letter
          </a>
        </div>
      </section>
      <AdviceForm />
      <Section title="For the shop">
        <div className="flex flex-wrap gap-3">
          <a className="btn" href={`/jobs/${jobId}/paper/history`}>
            Bench history
          </a>
          <a className="btn" href={`/api/v1/jobs/${jobId}/archive`}>
            Job archive (ZIP)
          </a>
        </div>
      </Section>
    </div>
  );
}

function AdviceForm() {
  const { view, say, jobId, tape } = useJob();
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
        <div className="flex flex-wrap items-center gap-3">
          <button className="btn" disabled={!formState.isDirty}>
            Store the advice
          </button>
          {stands?.nextService && stands.seq < tape.pendingFrom && (
            <a className="btn btn-outline" href={`/api/v1/jobs/${jobId}/service`}>
              Calendar file for {stands.nextService}
            </a>
          )}
        </div>
      </form>
    </Section>
  );
}
