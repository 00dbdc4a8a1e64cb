"use client";
/** A quote from the planned work: up to three ways side by side, each with the tasks that it holds; the one that was accepted is kept. */

import { shopDay } from "@/core/shop/day";
import { quoteMade } from "@/core/money/bill-acts";
import { useState } from "react";
import { depositOf, quoteOption, unpricedParts, type OptionDraft } from "@/core/money/quote";
import { OPTION_AIMS, type OptionAim } from "@/core/tape/events/words";
import { questionsOf } from "@/core/repair/questions";
import type { Task } from "@/core/repair/tasks";
import { Field, Section } from "../../forms/section";
import { useJob, useNow } from "../../job/job-context";
import { useTasks } from "../../job/use-tasks";
import { WideTable } from "../../forms/wide-table";

const NAME: Record<OptionAim, string> = {
  "make it work": "Make it work",
  "make it last": "Make it last",
  "keep it original": "Keep it original",
};

export function QuoteTab() {
  const { view, say, settings, jobId, role } = useJob();
  const { tasks, money } = useTasks();
  const open = tasks.filter((t) => t.state === "open");
  const [drafts, setDrafts] = useState<OptionDraft[]>();
  const [note, setNote] = useState("");
  const options = drafts ?? [{ name: NAME["make it last"], aim: "make it last", tasks: open.map((t) => t.root) }];
  const rates = settings.money;
  const priced = options.map((o) => quoteOption(o, open, rates));
  const unpriced = unpricedParts(open.filter((t) => options.some((o) => o.tasks.includes(t.root))));
  const quotes = questionsOf(view.state).filter((q) => q.kind === "quote");
  const set = (i: number, change: Partial<OptionDraft>) => setDrafts(options.map((o, k) => (k === i ? { ...o, ...change } : o)));
  const empty = priced.some((p) => p.lines.length === 0);
  const names = new Set(options.map((o) => o.name.trim().toLowerCase()));
  const deposit = depositOf(priced, rates);
  const now = useNow();
  const make = () => {
    say(quoteMade(priced, settings, now, { deposit, note }));
    setDrafts(undefined);
    setNote("");
  };
  return (
    <div className="max-w-6xl">
      {quotes.length > 0 && (
        <Section title="Quotes" hint="the answer is noted at Approvals">
          <ul className="space-y-1">
            {quotes.map((q) => (
              <li key={q.line} className="flex flex-wrap items-center gap-3">
                <span className="flex-1">
                  {q.quote!.on ?? shopDay(q.at, settings.timeZone)}:{" "}
                  {q.quote!.options.map((o) => `${o.name} ${money(o.sum.total)}`).join(" / ")}{" "}
                  <strong>
                    {q.option
                      ? `accepted: ${q.option.name}`
                      : q.stands === "asked"
                        ? "no answer yet"
                        : q.stands === "no"
                          ? "declined"
                          : "taken back"}
                  </strong>
                </span>
                <a className="btn btn-sm btn-outline min-h-9" href={`/jobs/${jobId}/paper/quote-${q.line}`}>
                  As a page
                </a>
              </li>
            ))}
          </ul>
        </Section>
      )}
      <Section title="A new quote" hint="from the open tasks of the plan">
        {rates.hourly === 0 && (
          <p className="text-warning">
            ▲ The shop has no hourly rate yet: labour comes to nothing.{" "}
            <a className="underline" href="/settings">
              Settings
            </a>
          </p>
        )}
        {open.length === 0 ? (
          <p className="soft">Nothing is planned: a quote is made from the tasks of the plan.</p>
        ) : (
          <>
            <div className={`grid gap-3 ${["max-w-2xl", "lg:grid-cols-2", "lg:grid-cols-3"][options.length - 1]}`}>
              {options.map((o, i) => (
                <fieldset key={i} className="rounded border border-base-300 bg-base-200 p-3" aria-label={`Way ${i + 1}`}>
                  <div className="flex items-end gap-2">
                    <Field label={`Way ${i + 1}`} className="flex-1">
                      <input className="input w-full font-bold" value={o.name} onChange={(e) => set(i, { name: e.target.value })} />
                    </Field>
                    {options.length > 1 && (
                      <button
                        type="button"
                        className="btn btn-line btn-sm mb-1 min-h-9"
                        aria-label={`Remove way ${i + 1}`}
                        onClick={() => setDrafts(options.filter((_, k) => k !== i))}
                      >
                        Remove
                      </button>
                    )}
                  </div>
                  <Field label="Aim" className="mt-2">
                    <select
                      className="select w-full"
                      value={o.aim ?? ""}
                      onChange={(e) =>
                        set(i, {
                          aim: (e.target.value || undefined) as OptionAim | undefined,
                          ...(e.target.value && Object.values(NAME).includes(o.name) ? { name: NAME[e.target.value as OptionAim] } : {}),
                        })
                      }
                    >
                      <option value="">none of these</option>
                      {OPTION_AIMS.map((a) => (
                        <option key={a}>{a}</option>
                      ))}
                    </select>
                  </Field>
                  <Field label="What it means for the owner" className="mt-2">
                    <textarea
                      className="textarea w-full"
                      rows={2}
                      value={o.consequence ?? ""}
                      onChange={(e) => set(i, { consequence: e.target.value })}
                    />
                  </Field>
                  <div className="mt-2">
                    {open.map((t) => (
                      <label key={t.root} className="flex min-h-8 items-center gap-2 text-sm">
                        <input
                          type="checkbox"
                          className="checkbox checkbox-sm"
                          checked={o.tasks.includes(t.root)}
                          onChange={(e) => set(i, { tasks: e.target.checked ? [...o.tasks, t.root] : o.tasks.filter((r) => r !== t.root) })}
                        />
                        <span className="flex-1">{t.name}</span>
                        <span className="tabular-nums">{money(priceOf(t, priced[i]!.lines))}</span>
                      </label>
                    ))}
                  </div>
                  <p className="mt-2 text-right text-xl font-bold tabular-nums">{money(priced[i]!.sum.total)}</p>
                </fieldset>
              ))}
            </div>
            <div className="mt-3 flex flex-wrap items-end gap-3">
              {options.length < 3 && (
                <button
                  type="button"
                  className="btn btn-outline"
                  onClick={() => {
                    const aim = OPTION_AIMS.find((a) => !options.some((o) => o.aim === a));
                    setDrafts([
                      ...options,
                      { name: aim ? NAME[aim] : `Way ${options.length + 1}`, ...(aim ? { aim } : {}), tasks: open.map((t) => t.root) },
                    ]);
                  }}
                >
                  Another way beside it
                </button>
              )}
              <Field label="Note on the quote" className="min-w-48 flex-1">
                <input className="input w-full" value={note} onChange={(e) => setNote(e.target.value)} />
              </Field>
            </div>
            {unpriced.length > 0 && <p className="mt-2 text-warning">▲ Without a price, so at nothing: {unpriced.join("; ")}</p>}
            {deposit > 0 && <p className="soft mt-1">Deposit before the work begins: {money(deposit)}</p>}
            {role === "apprentice" ? (
              <p className="mt-2 text-sm">An apprentice makes no quote: ask the technician.</p>
            ) : (
              <button className="btn btn-primary mt-3" disabled={empty || names.size < options.length || names.has("")} onClick={make}>
                Make the quote
              </button>
            )}
            {empty && <p className="text-sm text-warning">▲ A way without any task has no price.</p>}
            {names.size < options.length && <p className="text-sm text-warning">▲ Two ways have one name.</p>}
          </>
        )}
      </Section>
      {priced[0] && priced[0].lines.length > 0 && (
        <Section title="Line by line" hint={priced[0].name}>
          <WideTable label="Lines of the quote" className="table table-sm">
            <tbody>
              {priced[0].lines.map((l) => (
                <tr key={`${l.key} ${l.text}`}>
                  <td>{l.text}</td>
                  <td>{l.kind}</td>
                  <td className="text-right tabular-nums">{money(l.amount)}</td>
                </tr>
              ))}
            </tbody>
          </WideTable>
        </Section>
      )}
    </div>
  );
}

const priceOf = (t: Task, lines: readonly { planned?: number; amount: number }[]): number =>
  lines.filter((l) => l.planned === t.root).reduce((sum, l) => sum + l.amount, 0);
