"use client";
/** Payments and deposits: those that were made, and one more. */

import { readAmount } from "@/core/money/amount";
import { PAYMENT_MEANS, type PaymentMeans } from "@/core/tape/events/words";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob, useToday } from "../../job/job-context";
import { useTasks } from "../../job/use-tasks";

/** @param owing what is still to be paid; below zero when too much was. */
export function Payments({ owing }: { owing: number }) {
  const { view, say, settings } = useJob();
  const { money } = useTasks();
  const today = useToday();
  const usual = { amount: "", on: today, means: "card" as PaymentMeans, what: "payment" as "deposit" | "payment" | "paid back" };
  const { field, onSubmit, refused } = useTypedForm(usual, ({ amount, on, means, what }) => {
    const read = readAmount(amount, settings.money.places);
    if (!read.ok) return `Amount: ${read.why}`;
    if (read.amount === 0) return "Amount: more than nothing is accepted";
    if (!on) return "On which day?";
    if (on > today) return `On: read ${on}, which is still to come; up to ${today} is accepted`;
    say({ type: "payment", payload: { amount: what === "paid back" ? -read.amount : read.amount, on, means, what } });
    return { means };
  });
  return (
    <Section title="Payments" hint={owing > 0 ? `${money(owing)} to be paid` : undefined}>
      <ul className="mb-2">
        {view.state.payments.map((p) => (
          <li key={p.seq}>
            {p.on}: {money(p.amount)}, {p.means} <span className="soft">{p.what}</span>
          </li>
        ))}
      </ul>
      <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit} aria-label="A payment">
        <Field label={`Amount, ${settings.currency}`}>
          <input
            className="input w-32 text-right tabular-nums"
            inputMode="decimal"
            placeholder={owing > 0 ? owing.toFixed(settings.money.places) : ""}
            {...field("amount")}
          />
        </Field>
        <Field label="On">
          <input type="date" className="input w-40" {...field("on")} />
        </Field>
        <Field label="By">
          <select className="select w-32" {...field("means")}>
            {PAYMENT_MEANS.map((m) => (
              <option key={m}>{m}</option>
            ))}
          </select>
        </Field>
        <Field label="What it is">
          <select className="select w-36" {...field("what")}>
            <option>payment</option>
            <option>deposit</option>
            <option>paid back</option>
          </select>
        </Field>
        <button className="btn">Note the payment</button>
        <Refused className="basis-full">{refused}</Refused>
      </form>
    </Section>
  );
}
