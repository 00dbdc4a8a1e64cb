"use client";
/** A change as it is logged: the old part and what it measured, the new one with where it comes from, how it was fixed, time and photos. */

import { useEffect, useState } from "react";
import { alter } from "@/core/circuit/alter";
import { findElement } from "@/core/circuit/circuit";
import { describePart } from "@/core/circuit/part-words";
import { readAmount } from "@/core/money/amount";
import { FIXINGS, OLD_PART_PLACES, PART_SOURCES, type Fixing, type OldPartPlace, type PartSource } from "@/core/tape/events/words";
import type { Change } from "@/core/tape/events/work-events";
import { isIn } from "@/core/tape/fold";
import { coverageOf } from "@/core/repair/covered";
import { PhotoField } from "../../forms/photo-field";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { useTasks } from "../../job/use-tasks";
import { partChanged } from "@/core/repair/part-acts";
import { useTypedChecks } from "../../job/use-typed-checks";
import { useTaskToLog } from "./task-to-log";
import { TypedChecksNote } from "./typed-checks";

const USUAL = {
  kind: "replacement" as Change["kind"],
  planned: "",
  position: "",
  oldPart: "",
  oldMeasured: "",
  newPart: "",
  reason: "",
  reversible: true,
  oldWent: "bag for the owner" as OldPartPlace,
  fixing: "",
  fixings: [] as Fixing[],
  source: "" as PartSource | "",
  batch: "",
  cost: "",
  minutes: "",
  hypothesis: "",
  set: "",
  before: "",
  unagreed: "",
};

export function ChangeForm() {
  const { view, say, settings } = useJob();
  const { tasks } = useTasks();
  const [photos, setPhotos] = useState<{ photoBefore?: string; photoAfter?: string }>({});
  const open = tasks.filter((t) => t.state === "open");
  /** Why it goes beyond what the owner agreed to; empty where it does not. */
  const beyondOf = (v: typeof USUAL): string => {
    const position = v.position.trim();
    if (!position) return "";
    const { covered, why } = coverageOf(view.state, {
      position,
      kind: v.kind,
      newPart: v.newPart,
      reversible: v.reversible,
      ...(v.planned ? { planned: Number(v.planned) } : {}),
      ...(v.kind === "experiment" ? { outcome: "open" } : {}),
    });
    return covered ? "" : `${position} goes beyond what was agreed (${why}).`;
  };
  const { field, onSubmit, refused, typed, form } = useTypedForm(USUAL, (v) => {
    const part = view.circuit && findElement(view.circuit, v.position.trim());
    if (!v.position.trim()) return "Which position?";
    // A task of that position is what this is about, unless another was chosen.
    const same = open.filter((t) => t.position.toUpperCase() === v.position.trim().toUpperCase());
    const task = v.planned ? Number(v.planned) : same.length === 1 ? same[0]!.root : undefined;
    if (!v.newPart.trim()) return v.kind === "experiment" ? "What is changed?" : "What was fitted?";
    const typedSet = v.set.split(/[,;\s]+/).filter(Boolean);
    // What is typed there goes before what the part's own words say.
    const set = typedSet.length > 0 || v.kind !== "replacement" ? typedSet : checked.set;
    try {
      // What is changed goes into the circuit in use: it must be one that can be made.
      if (view.circuit) alter(view.circuit, set);
    } catch (error) {
      return (error as Error).message;
    }
    const cost = v.cost.trim() ? readAmount(v.cost, settings.money.places) : undefined;
    if (cost && !cost.ok) return `Cost: ${cost.why}`;
    const minutes = v.minutes.trim() ? Number(v.minutes) : undefined;
    if (minutes !== undefined && !(Number.isInteger(minutes) && minutes >= 0))
      return `Minutes: read “${v.minutes}”; a whole number is accepted`;
    if (v.kind === "replacement" && checked.out && v.reason.trim().length < 3)
      return "It may not stand there: take another part, or say under Why what speaks for it all the same.";
    const beyond = beyondOf(v);
    if (beyond && v.unagreed.trim().length < 3) return `${beyond} Ask the owner at Approvals, or say why it was done all the same.`;
    say(
      partChanged({
        position: part?.name ?? v.position,
        kind: v.kind,
        newPart: v.newPart,
        reversible: v.reversible,
        oldPart: v.oldPart.trim() || (part && describePart(part)) || "",
        oldMeasured: v.oldMeasured,
        reason: v.reason,
        fixing: v.fixing,
        fixings: v.fixings,
        source: v.source || undefined,
        batch: v.batch,
        cost: cost?.ok ? cost.amount : undefined,
        minutes: minutes || undefined,
        ...photos,
        planned: task,
        unagreed: beyond ? v.unagreed : undefined,
        set,
        ...(v.kind === "replacement" ? { checks: checked.told, oldWent: v.oldWent } : {}),
        ...(v.kind === "experiment" ? { outcome: "open" as const, hypothesis: v.hypothesis, before: v.before } : {}),
      }),
    );
    setPhotos({});
    return { kind: v.kind, oldWent: v.oldWent, source: v.source };
  });
  const { kind } = typed;
  const checked = useTypedChecks(typed.position.trim(), typed.newPart);
  const position = typed.position.trim();
  const known = view.circuit && position ? describePart(findElement(view.circuit, position)) : undefined;
  const beyond = beyondOf(typed);
  const before = position ? view.state.changes.findLast((c) => isIn(c) && c.position.toUpperCase() === position.toUpperCase()) : undefined;
  /** A task that is chosen says where and what. */
  const chooseTask = (root: string) => {
    const task = open.find((t) => String(t.root) === root);
    form.setValue("planned", root);
    if (!task) return;
    form.setValue("position", task.position);
    const part = task.parts?.[0];
    if (part && !typed.newPart) form.setValue("newPart", part.text);
    if (part?.cost !== undefined && !typed.cost) form.setValue("cost", String(part.cost));
    if (task.reason && !typed.reason) form.setValue("reason", task.reason);
  };
  const { task: toLog } = useTaskToLog();
  useEffect(() => {
    if (toLog) chooseTask(String(toLog.root));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once each time that the plan sends a task here
  }, [toLog]);
  return (
    <Section title="Log a change">
      <form className="grid grid-cols-2 items-end gap-3 lg:grid-cols-6" onSubmit={onSubmit} aria-label="A change">
        <Field label="This is a">
          <select className="select w-full" {...field("kind")}>
            <option value="replacement">replacement</option>
            <option value="repair">repair</option>
            <option value="experiment">experiment</option>
          </select>
        </Field>
        {open.length > 0 && (
          <Field label="Task of the plan" className="lg:col-span-2">
            <select className="select w-full" value={typed.planned} onChange={(e) => chooseTask(e.target.value)}>
              <option value="">none</option>
              {open.map((t) => (
                <option key={t.root} value={t.root}>
                  {t.name}
                </option>
              ))}
            </select>
          </Field>
        )}
        <Field label="Position">
          <input className="input w-full font-mono" placeholder="C6" list="positions" data-arrival {...field("position")} />
        </Field>
        <datalist id="positions">
          {view.circuit?.elements.map((e) => (
            <option key={e.name} value={e.name}>
              {describePart(e)}
            </option>
          ))}
        </datalist>
        <Field label="Old part" className="lg:col-span-2">
          <input className="input w-full" placeholder={known ?? "22 nF 400 V paper"} {...field("oldPart")} />
        </Field>
        <Field label="It measured" className="lg:col-span-2">
          <input className="input w-full" placeholder="4 µA at 300 V" {...field("oldMeasured")} />
        </Field>
        <Field label={kind === "experiment" ? "What is changed" : "New part and its ratings"} className="lg:col-span-2">
          <input className="input w-full" placeholder="22 nF 630 V polypropylene" {...field("newPart")} />
        </Field>
        <Field label="Why" className="lg:col-span-2">
          <input className="input w-full" {...field("reason")} />
        </Field>
        {view.circuit && (
          <Field label="Change in the circuit" className={kind === "experiment" ? "" : "lg:col-span-2"}>
            <input className="input w-full font-mono" placeholder="R17=22k" {...field("set")} />
          </Field>
        )}
        {kind === "experiment" && (
          <>
            <Field label="Hypothesis" className="lg:col-span-3">
              <input className="input w-full" placeholder="less feedback cures the ringing" {...field("hypothesis")} />
            </Field>
            <Field label="Before" className="lg:col-span-2">
              <input className="input w-full" placeholder="rings at 14 kHz" {...field("before")} />
            </Field>
          </>
        )}
        {kind === "replacement" && (
          <>
            <Field label="New part comes from">
              <select className="select w-full" {...field("source")}>
                <option value="">not said</option>
                {PART_SOURCES.map((s) => (
                  <option key={s}>{s}</option>
                ))}
              </select>
            </Field>
            <Field label="Batch or date code">
              <input className="input w-full font-mono" {...field("batch")} />
            </Field>
            <Field label={`Costs the shop, ${settings.currency}`}>
              <input className="input w-full text-right tabular-nums" inputMode="decimal" {...field("cost")} />
            </Field>
            <Field label="Old part went" className="lg:col-span-2">
              <select className="select w-full" {...field("oldWent")}>
                {OLD_PART_PLACES.map((p) => (
                  <option key={p}>{p}</option>
                ))}
              </select>
            </Field>
          </>
        )}
        <Field label="Minutes, if no timer ran">
          <input className="input w-full text-right tabular-nums" inputMode="numeric" {...field("minutes")} />
        </Field>
        <fieldset className="col-span-full">
          <legend className="mb-1 text-sm">How it is fixed</legend>
          <div className="flex flex-wrap gap-x-5">
            {FIXINGS.map((f) => (
              <label key={f} className="flex min-h-9 items-center gap-2 text-sm">
                <input type="checkbox" className="checkbox checkbox-sm" value={f} {...field("fixings")} /> {f}
              </label>
            ))}
            <input
              className="input input-sm min-h-9 min-w-48 flex-1"
              aria-label="More on how it is fixed"
              placeholder="more on it"
              {...field("fixing")}
            />
          </div>
        </fieldset>
        <div className="col-span-full flex flex-wrap items-center gap-4 text-sm">
          <PhotoField
            label={photos.photoBefore ? "Photo before ●" : "Photo before"}
            onStored={(photoBefore) => setPhotos((p) => ({ ...p, photoBefore }))}
          />
          <PhotoField
            label={photos.photoAfter ? "Photo after ●" : "Photo after"}
            onStored={(photoAfter) => setPhotos((p) => ({ ...p, photoAfter }))}
          />
          <label className="flex min-h-11 items-center gap-2">
            <input type="checkbox" className="checkbox" {...field("reversible")} /> can be reversed
          </label>
        </div>
        {kind === "replacement" && <TypedChecksNote checks={checked} />}
        {before && (
          <p className="col-span-full text-sm text-warning">
            ▲ {before.position} was changed in line {before.seq} already ({before.newPart}). Log it again only if another part was fitted.
          </p>
        )}
        {beyond && (
          <Field label={`▲ ${beyond} Ask the owner first, or say why it was done all the same:`} className="col-span-full">
            <input className="input w-full" {...field("unagreed")} />
          </Field>
        )}
        <div className="col-span-full">
          <button className="btn btn-primary">Log the change</button>
          <Refused className="mt-1">{refused}</Refused>
        </div>
      </form>
    </Section>
  );
}
