"use client";
/** A new finding: place, what is wrong, severity, suggested action, photos, and whether the owner has to be asked. */

import { useState } from "react";
import { useForm } from "react-hook-form";
import { SEVERITIES, type Severity } from "@/core/tape/events/words";
import type { StationId } from "@/core/tape/stations";
import { Field } from "../forms/section";
import { PhotoField, Thumbnail } from "../forms/photo-field";
import { useJob } from "../frame/job-context";

export function FindingForm({ station }: { station: StationId }) {
  const { say } = useJob();
  const [photos, setPhotos] = useState<string[]>([]);
  const { register, handleSubmit, reset, formState } = useForm({
    defaultValues: { place: "", text: "", severity: "watch", action: "", brief: "allowed" },
  });
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
  );
}
