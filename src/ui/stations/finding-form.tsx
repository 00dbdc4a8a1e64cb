"use client";
/** A new finding: place, what is wrong, severity, suggested action, photos, and whether the owner has to be asked, by the brief. */

import { useState, type ReactNode } from "react";
import { briefAllows, type BriefAnswer } from "@/core/repair/brief-allows";
import { findingDrafts } from "@/core/job/finding-drafts";
import type { EventDraft } from "@/core/tape/events/event";
import { SEVERITIES, type Severity } from "@/core/tape/events/words";
import type { StationId } from "@/core/tape/stations";
import { Field } from "../forms/section";
import { PhotoField, Thumbnail } from "../forms/photo-field";
import { useTypedForm } from "../forms/typed-form";
import { useJob } from "../job/job-context";

export interface FindingFormProps {
  station: StationId;
  /** What it begins with. */
  from?: { place: string; text: string; severity: Severity; action: string };
  /** What it is about, where no place is typed. */
  about?: string;
  /** Lines that are logged before it. */
  before?: EventDraft[];
  button: string;
  /** Other buttons. */
  children?: ReactNode;
  autoFocus?: boolean;
  onLogged?(): void;
}

const EMPTY = { place: "", text: "", severity: "watch" as Severity, action: "" };
const WHERE = "Where is it?";

export function FindingForm({ station, from = EMPTY, about = "", before = [], button, children, autoFocus, onLogged }: FindingFormProps) {
  const { view, say } = useJob();
  const [photos, setPhotos] = useState<string[]>([]);
  const { field, onSubmit, refused, typed, form } = useTypedForm({ ...from, chosen: "" as BriefAnswer | "" }, (v) => {
    const place = v.place.trim() || about;
    if (!place) return WHERE;
    if (!v.text.trim()) return "What was found?";
    say(...before, ...findingDrafts({ ...v, station, place, brief, photos }));
    setPhotos([]);
    onLogged?.();
  });
  const allowed = briefAllows(view.state.brief, typed.action, `${typed.place} ${about}`, typed.severity);
  const brief = typed.chosen || allowed.brief;
  return (
    <form className="mt-3 grid grid-cols-2 gap-3 lg:grid-cols-6" onSubmit={onSubmit}>
      <Field label="Place" className="lg:col-span-2" error={refused === WHERE ? refused : ""}>
        <input className="input w-full" placeholder={about.slice(0, 40) || "V2 socket"} {...field("place")} />
      </Field>
      <Field label="Finding" className="lg:col-span-4" error={refused === WHERE ? "" : refused}>
        <input autoFocus={autoFocus} className="input w-full" placeholder="pin 3 loose, solder grey" {...field("text")} />
      </Field>
      <Field label="Severity">
        <select className="select w-full" {...field("severity")}>
          {SEVERITIES.map((s) => (
            <option key={s}>{s}</option>
          ))}
        </select>
      </Field>
      <Field label="Suggested action" className="lg:col-span-3">
        <input className="input w-full" placeholder="re-tension and resolder" {...field("action")} />
      </Field>
      <Field label="Agreement with the owner" className="lg:col-span-2">
        <select className="select w-full" value={brief} onChange={(e) => form.setValue("chosen", e.target.value as BriefAnswer)}>
          <option value="allowed">covers it</option>
          <option value="ask">ask the owner</option>
        </select>
        {typed.action.trim() !== "" && <span className="soft mt-1 block text-xs">{allowed.why}</span>}
      </Field>
      <div className="col-span-full flex flex-wrap items-center gap-3">
        <button className="btn btn-primary">{button}</button>
        {children}
        <PhotoField onStored={(hash) => setPhotos((p) => [...p, hash])} />
        {photos.map((h) => (
          <Thumbnail key={h} hash={h} caption="goes with this finding" />
        ))}
      </div>
    </form>
  );
}
