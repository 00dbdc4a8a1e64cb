"use client";
/** The bill: what was done against what was agreed, each difference explained; bills made out, payments, what is owed. */

import { useState } from "react";
import { readAmount } from "@/core/money/amount";
import { billDoubts, billIssued } from "@/core/money/bill-acts";
import { billDraft, billNumber, owed, paidSoFar, standingBills, type BillDraft } from "@/core/money/bill";
import { shopDay } from "@/core/shop/day";
import { refusedTo } from "@/core/shop/people";
import { BILL_KINDS, type BillKind } from "@/core/shop/bill-kinds";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { WideTable } from "../../forms/wide-table";
import { useJob, useNow } from "../../job/job-context";
import { useTasks } from "../../job/use-tasks";
import { Payments } from "./payments";

export function BillTab() {
  const { view, settings, role } = useJob();
  const now = useNow();
  const { tasks, money, spent } = useTasks();
  const draft = billDraft(view.state, tasks, settings, now);
  const bills = standingBills(view.state);
  const notTheirs = refusedTo(role, { type: "bill-line", payload: {} });
  const left = owed(view.state);
  return (
    <div className="max-w-5xl">
      {bills.length > 0 && (
        <section aria-label="Owed" className="mb-4 rounded border border-base-300 bg-base-200 p-4">
          <p className="text-2xl font-bold">
            {left > 0 ? `${money(left)} to be paid` : left < 0 ? `${money(-left)} paid too much` : "● Paid in full"}
          </p>
          <p className="soft">
            {money(bills.reduce((s, b) => s + b.sum.total, 0))} billed, {money(paidSoFar(view.state))} paid
          </p>
        </section>
      )}
      {spent.warnings
        .filter((w) => spent.limit !== undefined && w.says.includes(money(spent.limit)))
        .map((w) => (
          <p key={w.says} className="text-warning">
            ▲ {w.says}
          </p>
        ))}
      <Draft draft={draft} notTheirs={notTheirs} />
      <Bills notTheirs={notTheirs} />
      {notTheirs ? <p className="text-sm">{notTheirs}.</p> : <Payments owing={left} />}
      <a className="btn btn-outline mt-4" href="/api/v1/bookkeeping">
        The shop&apos;s bills and payments as CSV
      </a>
    </div>
  );
}

function Draft({ draft, notTheirs }: { draft: BillDraft; notTheirs?: string }) {
  const { view, say, settings, jobId } = useJob();
  const { money } = useTasks();
  const earlier = standingBills(view.state);
  const { sum } = draft;
  const now = useNow();
  const [asked, setAsked] = useState(false);
  // Of a shop that numbers all its bills in a row the server knows the next one.
  const number = settings.money.billNumbers === "job" ? billNumber(jobId, view.state) : undefined;
  const soaking = view.state.soaks.some((s) => s.ended === undefined);
  const doubts = billDoubts(draft, settings, view.state.bills.length, soaking);
  const issue = () => {
    // What should stand on it is asked once; who goes on means it.
    if (doubts.length > 0 && !asked) return setAsked(true);
    setAsked(false);
    say(billIssued(number ?? "next", draft, settings, now));
  };
  return (
    <Section title="Bill" hint={earlier.length > 0 ? "what came after the last bill" : "from what was done"}>
      {draft.lines.length === 0 ? (
        <p className="soft mb-2">
          {earlier.length > 0
            ? "Everything that was done stands on a bill already. What is done from now on comes here."
            : "Nothing to bill yet: tasks that are done, time, parts with a price and agreed questions come here by themselves."}
        </p>
      ) : (
        <WideTable label="Bill" className="table table-sm mb-2">
          <tbody>
            {draft.lines.map((l, i) => (
              <tr key={`${l.key} ${i}`}>
                <td>
                  {l.text} <span className="soft">{l.kind}</span>
                </td>
                <td className="text-right tabular-nums">{money(l.amount)}</td>
                <td className="w-20">
                  {l.key?.startsWith("line ") && view.state.bill.some((b) => l.key === `line ${b.seq}`) && (
                    <RemoveLine seq={Number(l.key.slice(5))} text={l.text} disabled={notTheirs !== undefined} />
                  )}
                </td>
              </tr>
            ))}
            {!sum.included &&
              sum.taxes.map((t) => (
                <tr key={t.name}>
                  <td>
                    {t.name} {t.percent} %
                  </td>
                  <td className="text-right tabular-nums">{money(t.amount)}</td>
                  <td />
                </tr>
              ))}
            {sum.rounding !== 0 && (
              <tr>
                <td>Rounding</td>
                <td className="text-right tabular-nums">{money(sum.rounding)}</td>
                <td />
              </tr>
            )}
            <tr className="font-bold">
              <td>
                Total
                {sum.included && sum.taxes.length > 0 && (
                  <span className="soft font-normal">
                    {" "}
                    of it {sum.taxes.map((t) => `${t.name} ${t.percent} % ${money(t.amount)}`).join(", ")}
                  </span>
                )}
              </td>
              <td className="text-right tabular-nums">{money(sum.total)}</td>
              <td />
            </tr>
            {draft.paid !== 0 && (
              <tr>
                <td>Paid already; still to pay</td>
                <td className="text-right tabular-nums">
                  {money(draft.paid)}; {money(draft.due)}
                </td>
                <td />
              </tr>
            )}
          </tbody>
        </WideTable>
      )}
      {draft.differences.length > 0 && (
        <>
          <p className="font-bold">What differs from what was agreed</p>
          <ul className="mb-3 list-disc pl-5 text-sm">
            {draft.differences.map((d) => (
              <li key={d}>{d}</li>
            ))}
          </ul>
        </>
      )}
      {notTheirs === undefined && (
        <>
          {asked && doubts.length > 0 && (
            <div role="alert" className="mb-3 rounded border-2 border-warning p-3">
              <p className="font-bold">▲ Before it goes out: {doubts.join("; ")}.</p>
              <a className="underline" href="/settings#money">
                Set it in Settings
              </a>
            </div>
          )}
          {draft.lines.length > 0 && (
            <button className="btn btn-primary mb-3" onClick={issue}>
              {asked && doubts.length > 0 ? "All the same: make out bill" : "Make out bill"} {number ?? "with the next number"}:{" "}
              {money(sum.total)}
            </button>
          )}
          <OwnLine />
        </>
      )}
    </Section>
  );
}

function RemoveLine({ seq, text, disabled }: { seq: number; text: string; disabled: boolean }) {
  const { say, tape } = useJob();
  return (
    <button
      className="btn btn-line btn-sm"
      disabled={seq >= tape.pendingFrom || disabled}
      aria-label={`Remove ${text} from the bill`}
      onClick={() => say({ type: "undo", supersedes: seq, reason: "removed from the bill", payload: {} })}
    >
      Remove
    </button>
  );
}

/** What no task and no part stands for: carriage, a discount. */
function OwnLine() {
  const { say, settings } = useJob();
  const { field, onSubmit, refused } = useTypedForm(
    { text: "", amount: "", kind: "labour" as BillKind, discount: false },
    ({ text, amount, kind, discount }) => {
      if (!text.trim()) return "What is it for?";
      const read = readAmount(amount, settings.money.places);
      if (!read.ok) return `Amount: ${read.why}${amount.trim().startsWith("-") ? "; tick “taken off” for a discount" : ""}`;
      say({ type: "bill-line", payload: { text: text.trim(), amount: discount ? -read.amount : read.amount, kind } });
      return { kind };
    },
  );
  return (
    <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit} aria-label="A line of the bill">
      <Field label="For" className="min-w-48 flex-1">
        <input className="input w-full" {...field("text")} />
      </Field>
      <Field label="Kind">
        <select className="select w-36" {...field("kind")}>
          {BILL_KINDS.map((k) => (
            <option key={k}>{k}</option>
          ))}
        </select>
      </Field>
      <Field label={`Amount, ${settings.currency}`}>
        <input className="input w-28 text-right tabular-nums" inputMode="decimal" {...field("amount")} />
      </Field>
      <label className="flex min-h-11 items-center gap-2 text-sm">
        <input type="checkbox" className="checkbox" {...field("discount")} /> taken off
      </label>
      <button className="btn">Add</button>
      <Refused className="basis-full">{refused}</Refused>
    </form>
  );
}

function Bills({ notTheirs }: { notTheirs?: string }) {
  const { view, say, jobId, tape, settings } = useJob();
  const { money } = useTasks();
  const [cancelling, setCancelling] = useState<number>();
  const [why, setWhy] = useState("");
  if (view.state.bills.length === 0) return null;
  return (
    <Section title="Bills made out">
      <ul className="space-y-2">
        {view.state.bills.map((b) => (
          <li key={b.seq} className="flex flex-wrap items-center gap-3">
            <span className={`flex-1 ${b.cancelled ? "line-through" : ""}`}>
              <strong>{b.number}</strong>, {b.on ?? shopDay(b.at, settings.timeZone)}: {money(b.sum.total)}
              {b.payBy && <span className="soft"> by {b.payBy}</span>}
            </span>
            {b.cancelled && <span className="soft">cancelled: {b.cancelled.why}</span>}
            <a className="btn btn-sm btn-outline min-h-9" href={`/jobs/${jobId}/paper/bill-${b.seq}`}>
              As a page
            </a>
            {b.cancelled && (
              <a className="btn btn-sm btn-outline min-h-9" href={`/jobs/${jobId}/paper/credit-${b.cancelled.seq}`}>
                Credit note
              </a>
            )}
            {!b.cancelled && !notTheirs && (
              <button className="btn btn-line btn-sm min-h-9" disabled={b.seq >= tape.pendingFrom} onClick={() => setCancelling(b.seq)}>
                Cancel it
              </button>
            )}
            {cancelling === b.seq && (
              <form
                className="flex basis-full items-end gap-3"
                onSubmit={(e) => {
                  e.preventDefault();
                  if (why.trim().length < 3) return;
                  say({ type: "bill-cancelled", payload: { bill: b.seq, why: why.trim() } });
                  setCancelling(undefined);
                  setWhy("");
                }}
              >
                <Field label={`Why bill ${b.number} is cancelled; its lines can be billed anew`} className="flex-1">
                  <input className="input w-full" value={why} onChange={(e) => setWhy(e.target.value)} />
                </Field>
                <button className="btn" disabled={why.trim().length < 3}>
                  Cancel the bill
                </button>
              </form>
            )}
          </li>
        ))}
      </ul>
    </Section>
  );
}
