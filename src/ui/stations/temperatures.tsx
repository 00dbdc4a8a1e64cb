"use client";
/** Temperatures of tubes and parts, by thermometer or by a finger held near: evidence for the suspects. */

import { useState } from "react";
import { envelopeOf } from "@/core/circuit/circuit";
import { TOUCHES, type Touch } from "@/core/job/events/words";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../forms/section";
import { useJob } from "../frame/job-context";
import { dayTime } from "../frame/words";

export function Temperatures() {
  const { view, say, settings, conditions } = useJob();
  const tubes = [...new Set((view.circuit?.elements ?? []).filter((e) => e.tube).map((e) => envelopeOf(e.name)))];
  const [place, setPlace] = useState("");
  const [celsius, setCelsius] = useState("");
  const [touch, setTouch] = useState<Touch | "">("");
  const [refused, setRefused] = useState("");
  function store(e: React.FormEvent) {
    e.preventDefault();
    if (!place.trim()) return setRefused("Where: V4, the mains transformer, R4");
    const parsed = parseQuantity(celsius, { decimal: settings.decimal });
    if (celsius.trim() && !parsed.ok) return setRefused(`${parsed.why}; accepted: 85`);
    const degrees = celsius.trim() && parsed.ok ? parsed.quantity.value : undefined;
    if (degrees !== undefined && (degrees < -20 || degrees > 500)) return setRefused(`Read ${celsius} °C; accepted: −20 to 500`);
    if (degrees === undefined && touch === "") return setRefused("Degrees, or how it feels");
    say({
      type: "temperature",
      payload: {
        place: place.trim(),
        ...(degrees === undefined ? {} : { celsius: degrees }),
        ...(touch ? { touch } : {}),
        ...(conditions.warmMinutes === undefined ? {} : { warmMinutes: conditions.warmMinutes }),
      },
    });
    setCelsius("");
    setTouch("");
    setRefused("");
  }
  return (
    <Section title="Temperatures" hint="of tubes they are evidence for the suspects, from five minutes on">
      <form onSubmit={store} className="flex flex-wrap items-end gap-3">
        <Field label="Where">
          <input className="input w-40" list="temperature-places" value={place} onChange={(e) => setPlace(e.target.value)} />
          <datalist id="temperature-places">
            {[...tubes, "mains transformer", "output transformer"].map((t) => (
              <option key={t} value={t} />
            ))}
          </datalist>
        </Field>
        <Field label="Thermometer, °C">
          <input className="input w-24 text-right" inputMode="decimal" value={celsius} onChange={(e) => setCelsius(e.target.value)} />
        </Field>
        <Field label="Or, held near it">
          <select className="select w-40" value={touch} onChange={(e) => setTouch(e.target.value as Touch)}>
            <option value="">–</option>
            {TOUCHES.map((t) => (
              <option key={t}>{t}</option>
            ))}
          </select>
        </Field>
        <button className="btn">Log it</button>
      </form>
      <p className="soft mt-1 text-sm">Glass burns and its socket is live: a thermometer, or a finger near it and never on it.</p>
      {refused && (
        <p role="alert" className="text-sm text-error">
          {refused}
        </p>
      )}
      {view.state.temperatures.length > 0 && (
        <ul className="mt-2 text-sm">
          {view.state.temperatures.map((t) => (
            <li key={t.seq}>
              <span className="soft tabular-nums" suppressHydrationWarning>
                {dayTime(t.at)}
              </span>{" "}
              <strong>{t.place}</strong>{" "}
              {[t.celsius === undefined ? "" : `${Math.round(t.celsius)} °C`, t.touch ?? ""].filter(Boolean).join(", ")}
              {t.warmMinutes !== undefined && <span className="soft"> after {t.warmMinutes} min</span>}
            </li>
          ))}
        </ul>
      )}
    </Section>
  );
}
