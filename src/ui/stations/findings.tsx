"use client";
/** Findings of a station: place, what, severity, photo, and whether the brief allows the action. */

import { useState } from "react";
import { useForm } from "react-hook-form";
import { SEVERITIES, type Severity } from "@/core/tape/events/words";
import type { StationId } from "@/core/tape/stations";
import { Field, Section } from "../forms/section";
import { useTypedForm } from "../forms/typed-form";
import { PhotoField, Thumbnail } from "../forms/photo-field";
import { useJob } from "../frame/job-context";

const SHAPE: Record<Severity, string> = { note: "○", watch: "▲", fault: "■", danger: "■■" };

export function Findings({ station }: { station: StationId }) {
  const { view, say } = useJob();
  const [photos, setPhotos] = useState<string[]>([]);
  const { register, handleSubmit, reset, formState } = useForm({
    defaultValues: { place: "", text: "", severity: "watch", action: "", brief: "allowed" },
  });
  const findings = view.state.findings.filter((f) => f.station === station);
  const store = handleSubmit((v) => {
    const action = v.action.trim();
    say(
      {
        type: "finding",
        payload: {
          station,
          place: v.place.trim(),
          text: v.text.trim(),
          severity: v.severity as Severity,
          brief: v.brief as "ask",
          ...(action ? { action } : {}),
          ...(photos.length ? { photos } : {}),
        },
      },
      ...(v.brief === "ask" && action ? [{ type: "approval", payload: { what: action, answer: "asked" } } as const] : []),
    );
    reset();
    setPhotos([]);
  });
  return (
    <Section title="Findings" hint="place, what is wrong, severity, action">
      {findings.length === 0 && <p className="soft mb-2">No findings yet. Enter one finding at a time; add a photo of the place.</p>}
      <ul className="mb-3 space-y-2">
        {findings.map((f) => (
          <li key={f.seq} className="flex flex-wrap items-start gap-3">
            <span
              className={`w-10 text-lg ${f.severity === "fault" || f.severity === "danger" ? "verdict-out" : f.severity === "watch" ? "verdict-watch" : "soft"}`}
              aria-hidden
            >
              {SHAPE[f.severity]}
            </span>
            <span className={`min-w-48 flex-1 ${f.closed ? "opacity-70" : ""}`}>
              <strong>{f.place}</strong> {f.text}{" "}
              <span className="soft text-sm">
                ({f.severity}
                {f.action ? `; ${f.action}, ${f.brief === "ask" ? "ask the owner" : "agreed"}` : ""})
              </span>
              {f.closed && <span className="soft block text-sm">Closed: {f.closed}</span>}
            </span>
            {f.photos?.map((h) => (
              <Thumbnail key={h} hash={h} caption={f.place} />
            ))}
            {!f.closed && <CloseFinding seq={f.seq} />}
          </li>
        ))}
      </ul>
      <form className="grid grid-cols-2 gap-3 lg:grid-cols-6" onSubmit={store}>
        <Field label="Place" className="lg:col-span-2" error={formState.errors.place && "Where is it?"}>
          <input className="input w-full" placeholder="V2 socket" {...register("place", { validate: (v) => v.trim() !== "" })} />
        </Field>
        <Field label="Finding" className="lg:col-span-4" error={formState.errors.text && "What was found?"}>
          <input
            className="input w-full"
            placeholder="pin 3 loose, solder grey"
            {...register("text", { validate: (v) => v.trim() !== "" })}
          />
        </Field>
        <Field label="Severity" className="lg:col-span-1">
          <select className="select w-full" {...register("severity")}>
            {SEVERITIES.map((s) => (
              <option key={s}>{s}</option>
            ))}
          </select>
        </Field>
        <Field label="Suggested action" className="lg:col-span-3">
          <input className="input w-full" placeholder="re-tension and resolder" {...register("action")} />
        </Field>
        <Field label="Agreement with the owner" className="lg:col-span-2">
          <select className="select w-full" {...register("brief")}>
            <option value="allowed">covers it</option>
            <option value="ask">ask the owner</option>
          </select>
        </Field>
        <div className="col-span-full flex flex-wrap items-center gap-3">
          <button className="btn btn-primary">Add finding</button>
          <PhotoField onStored={(hash) => setPhotos((p) => [...p, hash])} />
          {photos.map((h) => (
            <Thumbnail key={h} hash={h} caption="goes with this finding" />
          ))}
        </div>
      </form>
    </Section>
  );
}

function CloseFinding({ seq }: { seq: number }) {
  const { say, tape } = useJob();
  const [asking, setAsking] = useState(false);
  const { field, onSubmit } = useTypedForm({ how: "" }, ({ how }) => {
    if (how.trim()) say({ type: "finding-closed", payload: { finding: seq, how: how.trim() } });
    setAsking(false);
  });
  if (!asking)
    return (
      <button className="btn btn-line btn-sm" disabled={seq >= tape.pendingFrom} onClick={() => setAsking(true)}>
        Close…
      </button>
    );
  return (
    <form className="flex gap-1" onSubmit={onSubmit}>
      <input
        autoFocus
        className="input input-sm min-h-9 w-44"
        placeholder="how it was resolved"
        aria-label="How the finding was resolved"
        {...field("how")}
      />
      <button className="btn btn-sm min-h-9">Close</button>
    </form>
  );
}
