"use client";
/** What came through the door: the complaint's own test, earlier work as claimed, accessories, photos. */

import { useState } from "react";
import { useForm } from "react-hook-form";
import { Field, Section } from "../forms/section";
import { PhotoField, Thumbnail } from "../forms/photo-field";
import { useJob } from "../job/job-context";
import { dayTime } from "../job/words";

export function Reproduce({ run }: { run: "intake" | "prove" }) {
  const { view, say } = useJob();
  const before = view.state.reproductions.findLast((r) => r.run === "intake");
  const stands = view.state.reproductions.filter((r) => r.run === run);
  const start = run === "prove" ? before : undefined;
  const { register, handleSubmit, reset } = useForm({
    defaultValues: {
      reproduced: "yes",
      settings: start?.settings ?? "",
      instrument: start?.instrument ?? "",
      conditions: start?.conditions ?? "",
    },
  });
  const store = handleSubmit((v) => {
    const text = Object.fromEntries(
      (
        [
          ["settings", v.settings],
          ["instrument", v.instrument],
          ["conditions", v.conditions],
        ] as const
      ).filter(([, t]) => t.trim()),
    );
    say({ type: "reproduction", payload: { reproduced: v.reproduced as "yes", run, ...text } });
    reset();
  });
  return (
    <Section
      title={run === "intake" ? "Reproduce the complaint first" : "The complaint's own test again"}
      hint="with the owner's settings, instrument and cabinet"
    >
      {stands.map((r) => (
        <p key={r.seq} className="mb-2">
          <strong>{{ yes: "Heard", no: "Not heard", sometimes: "Heard now and then" }[r.reproduced]}</strong>{" "}
          <span className="soft text-sm" suppressHydrationWarning>
            {dayTime(r.at)}
          </span>{" "}
          {[r.settings, r.instrument, r.conditions].filter(Boolean).join("; ")}
        </p>
      ))}
      {run === "prove" && before && (
        <p className="soft mb-2 text-sm">
          At intake: {[before.settings, before.instrument, before.conditions].filter(Boolean).join("; ") || "no settings were written down"}
        </p>
      )}
      <form className="grid grid-cols-2 gap-3" onSubmit={store}>
        <Field label="The complaint is">
          <select className="select w-full" {...register("reproduced")}>
            <option value="yes">heard</option>
            <option value="sometimes">heard now and then</option>
            <option value="no">not heard</option>
          </select>
        </Field>
        <Field label="Settings">
          <input className="input w-full" placeholder="volume 5, bright on" {...register("settings")} />
        </Field>
        <Field label="Instrument and cabinet">
          <input className="input w-full" {...register("instrument")} />
        </Field>
        <Field label="Conditions">
          <input className="input w-full" placeholder="after 20 minutes, panel on" {...register("conditions")} />
        </Field>
        <div className="col-span-full">
          <button className="btn">Store this test</button>
        </div>
      </form>
    </Section>
  );
}

export function Claims() {
  const { view, say } = useJob();
  const { register, handleSubmit, reset } = useForm({ defaultValues: { text: "" } });
  return (
    <Section title="Earlier work, as claimed" hint="checked against date codes at Look">
      <ul className="mb-2">
        {view.state.claims.map((c) => (
          <li key={c.seq}>“{c.text}”</li>
        ))}
      </ul>
      <form
        className="flex items-end gap-3"
        onSubmit={handleSubmit(({ text }) => {
          if (text.trim()) {
            say({ type: "claim", payload: { text: text.trim() } });
            reset();
          }
        })}
      >
        <Field label="Claim" className="flex-1">
          <input className="input w-full" placeholder="recapped two years ago" {...register("text")} />
        </Field>
        <button className="btn">Add</button>
      </form>
    </Section>
  );
}

export function ArrivalList() {
  const { view, say } = useJob();
  const [caption, setCaption] = useState("");
  const { register, handleSubmit, reset } = useForm({ defaultValues: { name: "", state: "here", bridge: "" } });
  const store = handleSubmit(({ name, state, bridge }) => {
    if (!name.trim()) return;
    say({ type: "accessory", payload: { name: name.trim(), state: state as "here", ...(bridge.trim() ? { bridge: bridge.trim() } : {}) } });
    reset();
  });
  const photos = view.state.photos.filter((p) => p.station === "intake");
  return (
    <Section title="Came with it" hint="accessories, arrival photos, transport damage">
      <ul className="mb-2">
        {view.state.accessories.map((a) => (
          <li key={a.seq}>
            {a.name}{" "}
            <span className="soft">
              {a.state}
              {a.bridge ? `; to run without: ${a.bridge}` : ""}
            </span>
          </li>
        ))}
      </ul>
      <form className="flex flex-wrap items-end gap-3" onSubmit={store}>
        <Field label="Item">
          <input className="input w-52" placeholder="footswitch" {...register("name")} />
        </Field>
        <Field label="Where is it?">
          <select className="select w-36" {...register("state")}>
            <option value="here">here</option>
            <option value="left at home">left at home</option>
          </select>
        </Field>
        <Field label="To run the amp without it" className="min-w-40 flex-1">
          <input className="input w-full" placeholder="bridge pins 1 and 8" {...register("bridge")} />
        </Field>
        <button className="btn">Add</button>
      </form>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        {photos.map((p) => (
          <Thumbnail key={p.seq} hash={p.hash} caption={p.caption} />
        ))}
        <Field label="Caption for the next photo">
          <input className="input w-52" value={caption} onChange={(e) => setCaption(e.target.value)} />
        </Field>
        <PhotoField
          label="Arrival photo"
          onStored={(hash, name) => {
            say({ type: "photo", payload: { hash, caption: caption.trim() || name, station: "intake" } });
            setCaption("");
          }}
        />
      </div>
    </Section>
  );
}
