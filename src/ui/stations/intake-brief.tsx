"use client";
/** The complaint and what the owner wants done about it. */

import { useState } from "react";
import { useForm } from "react-hook-form";
import { words } from "@/core/language/language";
import { PART_KINDS, readMustNotChange, sayMustNotChange, withoutKind } from "@/core/repair/brief-places";
import { describePart } from "@/core/circuit/part-words";
import { BRIEF_AIMS, WHEN, type BriefAim } from "@/core/tape/events/words";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../forms/section";
import { useJob } from "../job/job-context";

export function Complaint() {
  const { view, say } = useJob();
  const stands = view.state.complaint;
  const { register, handleSubmit, formState } = useForm({
    values: { words: stands?.words ?? "", when: stands?.when ?? [], use: stands?.use ?? "" },
  });
  return (
    <Section title="Complaint" hint="in the owner's words">
      <form
        className="grid gap-3"
        onSubmit={handleSubmit(({ words, when, use }) =>
          say({ type: "complaint", payload: { words: words.trim(), when: when || [], ...(use.trim() ? { use: use.trim() } : {}) } }),
        )}
      >
        <Field label="What is wrong?" error={formState.errors.words && "Enter the complaint, however short"}>
          <textarea
            data-arrival={stands ? undefined : true}
            className="textarea min-h-20 w-full text-lg"
            {...register("words", { validate: (v) => v.trim() !== "" })}
          />
        </Field>
        <fieldset className="flex flex-wrap gap-x-4 text-sm">
          <legend className="mb-1">When does it happen?</legend>
          {WHEN.map((w) => (
            <label key={w} className="flex min-h-11 items-center gap-2">
              <input type="checkbox" className="checkbox" value={w} {...register("when")} /> {w}
            </label>
          ))}
        </fieldset>
        <Field label="How is the amp used?">
          <input className="input w-full" {...register("use")} />
        </Field>
        <div>
          <button className="btn btn-primary" disabled={!formState.isDirty}>
            {stands ? "Store the change" : "Store the complaint"}
          </button>
        </div>
      </form>
    </Section>
  );
}

export function Brief() {
  const { view, say, settings } = useJob();
  const stands = view.state.brief;
  const [order, setOrder] = useState<BriefAim[]>(stands?.order ?? []);
  const { register, handleSubmit, setError, setValue, watch, formState } = useForm({
    values: { mustNotChange: stands?.mustNotChange ?? "", limit: stands?.spendingLimit?.toString() ?? "", dueDate: stands?.dueDate ?? "" },
  });
  const typed = watch("mustNotChange");
  const { kinds, parts } = readMustNotChange(typed);

  const store = handleSubmit(({ mustNotChange, limit, dueDate }) => {
    const parsed = limit.trim() ? parseQuantity(limit, { decimal: settings.decimal }) : undefined;
    if (parsed && (!parsed.ok || parsed.quantity.value < 0))
      return setError("limit", { message: parsed.ok ? "a limit cannot be negative" : `${parsed.why}; accepted: 150 or 150.50` });
    say({
      type: "brief",
      payload: {
        order,
        ...(mustNotChange.trim() ? { mustNotChange: mustNotChange.trim() } : {}),
        ...(parsed?.ok ? { spendingLimit: parsed.quantity.value } : {}),
        ...(dueDate ? { dueDate } : {}),
      },
    });
  });

  return (
    <Section title="Brief" hint="what the owner wants, in the owner's order">
      <form className="grid gap-3" onSubmit={store}>
        <div className="text-sm">
          <p className="mb-1">What matters most, in order</p>
          <div
            className="flex flex-wrap gap-2"
            role="group"
            aria-label="Order of the brief"
            data-arrival={view.state.complaint && !stands ? true : undefined}
          >
            {/* Each keeps its place, so that the focus stays where it was pressed. */}
            {BRIEF_AIMS.map((aim) => {
              const at = order.indexOf(aim);
              return (
                <button
                  key={aim}
                  type="button"
                  className={`btn ${at < 0 ? "btn-outline" : "btn-primary"}`}
                  onClick={() => setOrder(at < 0 ? [...order, aim] : order.filter((a) => a !== aim))}
                  aria-label={at < 0 ? `${aim}, as number ${order.length + 1}` : `${at + 1}: ${aim}, take it out`}
                >
                  {at < 0 ? aim : `${at + 1}. ${aim}`}
                </button>
              );
            })}
          </div>
        </div>
        <div>
          <Field label="What must not be changed? Parts by name, or kinds of parts">
            <input className="input w-full" placeholder="C6, the output transformer, the knobs" {...register("mustNotChange")} />
          </Field>
          {view.circuit && (
            <Field label="A part of the circuit" className="mt-2">
              <select
                className="select w-full"
                value=""
                onChange={(e) =>
                  setValue("mustNotChange", [typed.trim(), e.target.value].filter(Boolean).join(", "), { shouldDirty: true })
                }
              >
                <option value="">take one to the list…</option>
                {view.circuit.elements
                  .filter(({ name }) => readMustNotChange(name).parts.some((p) => !parts.includes(p)))
                  .map((e) => (
                    <option key={e.name} value={e.name}>
                      {e.name}: {describePart(e)}
                    </option>
                  ))}
              </select>
            </Field>
          )}
          <div className="mt-2 flex flex-wrap gap-2" role="group" aria-label="Kinds that must not be changed">
            {PART_KINDS.map((kind) => {
              const there = kinds.includes(kind);
              return (
                <button
                  key={kind}
                  type="button"
                  className={`btn btn-sm min-h-9 ${there ? "btn-primary" : "btn-outline"}`}
                  aria-pressed={there}
                  onClick={() =>
                    setValue("mustNotChange", there ? withoutKind(typed, kind) : [typed.trim(), kind].filter(Boolean).join(", "), {
                      shouldDirty: true,
                    })
                  }
                >
                  {words(kind)}
                </button>
              );
            })}
          </div>
          <p className="soft mt-1 text-sm" role="status">
            {sayMustNotChange(typed)}
          </p>
        </div>
        <div className="grid grid-cols-2 gap-3">
          <div>
            <Field label={`Spending limit${settings.currency ? `, ${settings.currency}` : ""}`} error={formState.errors.limit?.message}>
              <input className="input w-full text-right tabular-nums" inputMode="decimal" {...register("limit")} />
            </Field>
            {!settings.currency && (
              <a className="text-sm underline" href="/settings#money">
                In which currency? Say it in Settings
              </a>
            )}
          </div>
          <Field label="Wanted back by">
            <input type="date" className="input w-full" {...register("dueDate")} />
          </Field>
        </div>
        <div>
          <button className="btn btn-primary" disabled={order.length === 0 && !formState.isDirty}>
            {stands ? "Store the change" : "Store the brief"}
          </button>
        </div>
      </form>
    </Section>
  );
}
