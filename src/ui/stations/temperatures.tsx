"use client";
/** Temperatures of tubes and parts, by thermometer or by a finger held near: evidence for the suspects. */

import { words } from "@/core/language/language";
import { envelopeOf } from "@/core/circuit/circuit";
import { TOUCHES, type Touch } from "@/core/tape/events/words";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../forms/section";
import { Refused, useTypedForm } from "../forms/typed-form";
import { useJob } from "../job/job-context";
import { dayTime } from "../job/words";

export function Temperatures() {
  const { view, say, settings, conditions } = useJob();
  const tubes = [...new Set((view.circuit?.elements ?? []).filter((e) => e.tube).map((e) => envelopeOf(e.name)))];
  const { field, onSubmit, refused } = useTypedForm({ place: "", celsius: "", touch: "" as Touch | "" }, ({ place, celsius, touch }) => {
    if (!place.trim()) return words("Where: V4, the mains transformer, R4");
    const parsed = parseQuantity(celsius, { decimal: settings.decimal });
    if (celsius.trim() && !parsed.ok) return `${parsed.why}; accepted: 85`;
    const degrees = celsius.trim() && parsed.ok ? parsed.quantity.value : undefined;
    if (degrees !== undefined && (degrees < -20 || degrees > 500)) return `Read ${celsius} °C; accepted: −20 to 500`;
    if (degrees === undefined && touch === "") return "Enter degrees, or how it feels";
    say({
      type: "temperature",
      payload: {
        place: place.trim(),
        ...(degrees === undefined ? {} : { celsius: degrees }),
        ...(touch ? { touch } : {}),
        ...(conditions.warmMinutes === undefined ? {} : { warmMinutes: conditions.warmMinutes }),
      },
    });
    return { place };
  });
  return (
    <Section title="Temperatures" hint={words("of tubes: used by Suspects once the amp has been on for five minutes")}>
      <form onSubmit={onSubmit} className="flex flex-wrap items-end gap-3">
        <Field label="Where">
          <input className="input w-40" list="temperature-places" {...field("place")} />
          <datalist id="temperature-places">
            {[...tubes, words("mains transformer"), "output transformer"].map((t) => (
              <option key={t} value={t} />
            ))}
          </datalist>
        </Field>
        <Field label="Thermometer, °C">
          <input className="input w-24 text-right" inputMode="decimal" {...field("celsius")} />
        </Field>
        <Field label="Or, held near it">
          <select className="select w-40" {...field("touch")}>
            <option value="">–</option>
            {TOUCHES.map((t) => (
              <option key={t}>{t}</option>
            ))}
          </select>
        </Field>
        <button className="btn">Log it</button>
      </form>
      <p className="soft mt-1 text-sm">Glass is hot and its socket is live: use a thermometer, or hold a finger near it, never on it.</p>
      <Refused>{refused}</Refused>
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
