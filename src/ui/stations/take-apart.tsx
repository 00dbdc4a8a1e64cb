"use client";
/** The take-apart list: everything that was taken off; what is not back blocks Prove. */

import { useState } from "react";
import { useForm } from "react-hook-form";
import { Field, Section } from "../forms/section";
import { PhotoField, Thumbnail } from "../forms/photo-field";
import { useJob } from "../job/job-context";

export function TakeApart({ add = true }: { add?: boolean }) {
  const { view, say, tape } = useJob();
  const [photo, setPhoto] = useState<string>();
  const { register, handleSubmit, reset } = useForm({ defaultValues: { what: "", place: "", colour: "" } });
  const off = view.state.removed.filter((r) => r.back === undefined);
  const store = handleSubmit(({ what, place, colour }) => {
    if (!what.trim()) return;
    say({
      type: "removed",
      payload: {
        what: what.trim(),
        ...(place.trim() ? { place: place.trim() } : {}),
        ...(colour.trim() ? { colour: colour.trim() } : {}),
        ...(photo ? { photo } : {}),
      },
    });
    reset();
    setPhoto(undefined);
  });
  return (
    <Section title="Take-apart list" hint={off.length ? `${off.length} not put back` : "everything is put back"}>
      <ul className="mb-3 space-y-1">
        {view.state.removed.map((r) => (
          <li key={r.seq} className={`flex items-center gap-3 ${r.back === undefined ? "" : "opacity-70"}`}>
            <span className="flex-1">
              {r.what} <span className="soft">{[r.place, r.colour].filter(Boolean).join(", ")}</span>
            </span>
            {r.photo && <Thumbnail hash={r.photo} caption={r.what} />}
            {r.back === undefined ? (
              <button
                className="btn btn-line btn-sm"
                disabled={r.seq >= tape.pendingFrom}
                onClick={() => say({ type: "put-back", payload: { removed: r.seq } })}
              >
                Put back
              </button>
            ) : (
              <span className="text-sm">back</span>
            )}
          </li>
        ))}
      </ul>
      {add && (
        <form className="flex flex-wrap items-end gap-3" onSubmit={store}>
          <Field label="What was removed" className="min-w-48 flex-1">
            <input className="input w-full" placeholder="two back-panel screws" {...register("what")} />
          </Field>
          <Field label="From where">
            <input className="input w-40" {...register("place")} />
          </Field>
          <Field label="Colour">
            <input className="input w-28" placeholder="red lead" {...register("colour")} />
          </Field>
          <button className="btn">Add</button>
          <PhotoField onStored={(hash) => setPhoto(hash)} />
          {photo && <Thumbnail hash={photo} caption="with this line" />}
        </form>
      )}
    </Section>
  );
}
