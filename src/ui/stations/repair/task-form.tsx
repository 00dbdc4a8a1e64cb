"use client";
/** A task as it is planned or corrected: what, how long, what has to come off and what first, its parts. */

import { describePart } from "@/core/circuit/part-words";
import { readAmount } from "@/core/money/amount";
import type { PlannedPart } from "@/core/tape/events/plan-events";
import { WORK_PHASES, type PartState, type WorkPhase } from "@/core/tape/events/words";
import { usualMinutes } from "@/core/repair/usual-minutes";
import type { Task } from "@/core/repair/tasks";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";

/** "2 × 22 nF 630 V film = 1.20; one a line." */
const PART_LINE = /^\s*(?:(\d{1,4})\s*[x×*]\s*)?(.+?)(?:\s*=\s*([^=]*?))?(?:\s*\((in stock|to order|ordered|here)\))?\s*$/i;

/** Parts as they are typed, one a line. @returns why one cannot be read. */
export function readParts(text: string, places: number): PlannedPart[] | string {
  const out: PlannedPart[] = [];
  for (const line of text.split("\n")) {
    if (!line.trim()) continue;
    const match = PART_LINE.exec(line);
    if (!match) return `Parts: read “${line.trim()}”; accepted: 2 × 22 nF 630 V film = 1.20`;
    const [, pieces, name, cost, state] = match;
    const amount = cost?.trim() ? readAmount(cost, places) : undefined;
    if (amount && !amount.ok) return `Parts, ${name!.trim()}: ${amount.why}`;
    out.push({
      text: name!.trim(),
      pieces: pieces ? Number(pieces) : 1,
      state: (state?.toLowerCase() as PartState | undefined) ?? "to order",
      ...(amount?.ok ? { cost: amount.amount } : {}),
    });
    if (out.at(-1)!.pieces < 1) return `Parts, ${name!.trim()}: one piece or more is accepted`;
  }
  return out;
}

const writeParts = (parts: readonly PlannedPart[] = []): string =>
  parts.map((p) => `${p.pieces > 1 ? `${p.pieces} × ` : ""}${p.text}${p.cost === undefined ? "" : ` = ${p.cost}`} (${p.state})`).join("\n");

/** @param task that is corrected; a new one without it. */
export function TaskForm({ task, others, done }: { task?: Task; others: Task[]; done(): void }) {
  const { view, say, settings, shopHistory } = useJob();
  const usual = {
    position: task?.position ?? "",
    what: task?.what ?? "",
    phase: (task?.phase ?? "power off") as WorkPhase,
    minutes: task?.minutes === undefined ? "" : String(task.minutes),
    fixedPrice: task?.fixedPrice === undefined ? "" : String(task.fixedPrice),
    reach: task?.reach?.join(", ") ?? "",
    needs: (task?.needs ?? []).map(String),
    parts: writeParts(task?.parts),
    reason: task?.reason ?? "",
    reversible: task?.reversible ?? true,
  };
  const { field, onSubmit, refused, typed, form } = useTypedForm(usual, (v) => {
    if (!v.position.trim()) return "Which position? A part, or a place such as “mains cord”.";
    if (!v.what.trim()) return "What is to be done?";
    const minutes = v.minutes.trim() ? Number(v.minutes) : undefined;
    if (minutes !== undefined && !(Number.isInteger(minutes) && minutes >= 0))
      return `Minutes: read “${v.minutes}”; a whole number is accepted`;
    const price = v.fixedPrice.trim() ? readAmount(v.fixedPrice, settings.money.places) : undefined;
    if (price && !price.ok) return `Fixed price: ${price.why}`;
    const parts = readParts(v.parts, settings.money.places);
    if (typeof parts === "string") return parts;
    const reach = v.reach
      .split(",")
      .map((r) => r.trim())
      .filter(Boolean);
    const needs = (Array.isArray(v.needs) ? v.needs : []).map(Number).filter(Boolean);
    say({
      type: "planned",
      ...(task ? { supersedes: task.seq, reason: "changed" } : {}),
      payload: {
        position: v.position.trim(),
        what: v.what.trim(),
        phase: v.phase,
        from: task?.from ?? "technician",
        ...(task?.source === undefined ? {} : { source: task.source }),
        ...(minutes === undefined ? {} : { minutes }),
        ...(price?.ok ? { fixedPrice: price.amount } : {}),
        ...(reach.length > 0 ? { reach } : {}),
        ...(needs.length > 0 ? { needs } : {}),
        ...(parts.length > 0 ? { parts } : {}),
        ...(v.reason.trim() ? { reason: v.reason.trim() } : {}),
        reversible: v.reversible,
      },
    });
    done();
  });
  const guess = usualMinutes({ position: typed.position, what: typed.what, phase: typed.phase, from: "technician" }, shopHistory?.minutes);
  const fixed = settings.money.fixedPrices;
  return (
    <Section title={task ? `Change the task ${task.name}` : "A new task"}>
      <form className="grid grid-cols-2 gap-3 lg:grid-cols-6" onSubmit={onSubmit} aria-label={task ? "Change a task" : "A new task"}>
        <Field label="Position">
          <input className="input w-full font-mono" placeholder="C6" list="task-positions" {...field("position")} />
        </Field>
        <datalist id="task-positions">
          {view.circuit?.elements.map((e) => (
            <option key={e.name} value={e.name}>
              {describePart(e)}
            </option>
          ))}
        </datalist>
        <Field label="What is to be done" className="lg:col-span-3">
          <input className="input w-full" placeholder="renew the coupling capacitor" {...field("what")} />
        </Field>
        <Field label="When">
          <select className="select w-full" {...field("phase")}>
            {WORK_PHASES.map((p) => (
              <option key={p}>{p}</option>
            ))}
          </select>
        </Field>
        <Field label="Minutes">
          <input
            className="input w-full text-right tabular-nums"
            inputMode="numeric"
            placeholder={`usually ${guess}`}
            {...field("minutes")}
          />
        </Field>
        <Field label="What has to come off first" className="lg:col-span-2">
          <input className="input w-full" placeholder="chassis out, board up" {...field("reach")} />
        </Field>
        <Field label="Reason" className="lg:col-span-2">
          <input className="input w-full" {...field("reason")} />
        </Field>
        <Field label={`Fixed price, ${settings.currency}`}>
          <input
            className="input w-full text-right tabular-nums"
            inputMode="decimal"
            placeholder="by the hour"
            list={fixed.length > 0 ? "fixed-prices" : undefined}
            {...field("fixedPrice")}
          />
        </Field>
        {fixed.length > 0 && (
          <datalist id="fixed-prices">
            {fixed.map((f) => (
              <option key={f.name} value={f.amount}>
                {f.name}
              </option>
            ))}
          </datalist>
        )}
        <label className="flex min-h-11 items-center gap-2 self-end text-sm">
          <input type="checkbox" className="checkbox" {...field("reversible")} /> can be reversed
        </label>
        <Field label="Parts, one a line: pieces × part = cost for one (where it is)" className="col-span-full lg:col-span-3">
          <textarea
            className="textarea w-full font-mono text-sm"
            rows={3}
            placeholder={`2 × 22 nF 630 V film = 1${settings.decimal}20 (in stock)`}
            {...field("parts")}
          />
        </Field>
        {others.filter((o) => o.root !== task?.root).length > 0 && (
          <fieldset className="col-span-full lg:col-span-3">
            <legend className="mb-1 text-sm">Needs done first</legend>
            {others
              .filter((o) => o.root !== task?.root)
              .map((o) => (
                <label key={o.root} className="flex min-h-8 items-center gap-2 text-sm">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-sm"
                    checked={typed.needs.includes(String(o.root))}
                    onChange={(e) =>
                      form.setValue(
                        "needs",
                        e.target.checked ? [...typed.needs, String(o.root)] : typed.needs.filter((n) => n !== String(o.root)),
                      )
                    }
                  />
                  {o.name}
                </label>
              ))}
          </fieldset>
        )}
        <div className="col-span-full flex flex-wrap items-center gap-3">
          <button className="btn btn-primary">{task ? "Store the task" : "Plan the task"}</button>
          {task && (
            <button type="button" className="btn btn-ghost" onClick={done}>
              Leave it as it was
            </button>
          )}
          <Refused>{refused}</Refused>
        </div>
      </form>
    </Section>
  );
}
