"use client";
/** Parts with a bad name in this shop, with the cases that it was learnt from; they weigh in Suspects and stand in the table's lines. */

import Link from "next/link";
import { useState } from "react";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { useCapacitors } from "./use-capacitors";

export function BadNames() {
  const { parts } = useJob();
  const { names, shopFailed } = useCapacitors();
  if (!parts) return null;
  return (
    <Section title="Parts with a bad name here" hint="remembered for every job of the shop">
      {shopFailed && (
        <p role="alert" className="text-error">
          The shop&apos;s stock and names cannot be read: {shopFailed}
        </p>
      )}
      {names.length === 0 ? (
        <p className="soft mb-2">None yet. A series that fails again and again is noted below, with the case.</p>
      ) : (
        <ul className="mb-3 space-y-1">
          {names.map((n) => (
            <li key={n.id}>
              <strong>
                {n.words || "any"} {years(n)}
              </strong>
              : {n.does}.{" "}
              <span className="soft text-sm">
                {n.evidence.map((e, i) => (
                  <span key={i}>
                    {i > 0 && "; "}
                    {e.job === undefined ? e.text : <Link href={`/jobs/${e.job}`}>job {e.job}</Link>}
                    {e.job !== undefined && `, ${e.text}`}
                  </span>
                ))}
              </span>{" "}
              <More id={n.id} />
            </li>
          ))}
        </ul>
      )}
      <NewName />
    </Section>
  );
}

const years = ({ fromYear, toYear }: { fromYear?: number; toYear?: number }) =>
  fromYear === undefined && toYear === undefined ? "" : `${fromYear ?? "…"}–${toYear ?? "…"}`;

function More({ id }: { id: number }) {
  const { parts, jobId } = useJob();
  const { act } = useCapacitors();
  const [said, setSaid] = useState("");
  const add = (withdraws: boolean) => async () => {
    const text = withdraws ? "withdrawn" : "seen again";
    setSaid(
      (await act(async () => ({ names: await parts!.evidence(id, { job: jobId, text, ...(withdraws ? { withdraws } : {}) }) }))) ?? "",
    );
  };
  return (
    <>
      <button className="btn btn-line btn-sm min-h-9" onClick={() => void add(false)()}>
        Seen again
      </button>{" "}
      <button className="btn btn-line btn-sm min-h-9" onClick={() => void add(true)()}>
        Withdraw
      </button>
      <Refused>{said}</Refused>
    </>
  );
}

function NewName() {
  const { parts, jobId } = useJob();
  const { act } = useCapacitors();
  const [said, setSaid] = useState("");
  const { field, onSubmit, refused } = useTypedForm({ letter: "C", words: "", from: "", to: "", does: "", text: "" }, (v) => {
    if (!v.words.trim()) return "Which words stand on it, or which kind is it?";
    if (!v.does.trim()) return "What does it do: leaks, goes open, drifts high?";
    const year = (text: string) => (text.trim() ? Number(text) : undefined);
    const [fromYear, toYear] = [year(v.from), year(v.to)];
    for (const y of [fromYear, toYear])
      if (y !== undefined && !(Number.isInteger(y) && y >= 1900 && y <= 2100))
        return `${v.from} to ${v.to}: years such as 1958 are accepted`;
    if (fromYear !== undefined && toYear !== undefined && fromYear > toYear) return `${fromYear} to ${toYear}: the earlier year first`;
    void act(async () => ({
      names: await parts!.remember({
        letter: v.letter as "C",
        words: v.words.trim(),
        ...(fromYear === undefined ? {} : { fromYear }),
        ...(toYear === undefined ? {} : { toYear }),
        does: v.does.trim(),
        evidence: { job: jobId, text: v.text.trim() || "seen in this job" },
      }),
    })).then((why) => setSaid(why ?? ""));
  });
  return (
    <form className="flex flex-wrap items-end gap-2" onSubmit={onSubmit} aria-label="A bad name">
      <Field label="Part">
        <select className="select w-32" {...field("letter")}>
          <option value="C">capacitor</option>
          <option value="R">resistor</option>
          <option value="V">tube</option>
        </select>
      </Field>
      <Field label="Words on it, kind">
        <input className="input w-44" placeholder="moulded paper" {...field("words")} />
      </Field>
      <Field label="From year">
        <input className="input w-24" inputMode="numeric" {...field("from")} />
      </Field>
      <Field label="To year">
        <input className="input w-24" inputMode="numeric" {...field("to")} />
      </Field>
      <Field label="What it does">
        <input className="input w-36" placeholder="leaks" {...field("does")} />
      </Field>
      <Field label="Case" className="flex-1">
        <input className="input w-full" placeholder="three of four in this amp" {...field("text")} />
      </Field>
      <button className="btn btn-outline">Remember</button>
      <Refused className="basis-full">{refused || said}</Refused>
    </form>
  );
}
