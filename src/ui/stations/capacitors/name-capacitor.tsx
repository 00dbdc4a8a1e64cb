"use client";
/** In a job without a circuit: one more capacitor, by its name and what stands on it. */

import { figure } from "@/core/language/language";
import { readMarking } from "@/core/capacitor/marking";
import { Field } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { CapacitorKinds } from "./capacitor-kinds";

/** @param known names that there are already. */
export function NameCapacitor({ known }: { known: readonly string[] }) {
  const { say, settings } = useJob();
  const { field, onSubmit, refused } = useTypedForm({ name: "", farads: "", volts: "", kind: "", year: "" }, (v) => {
    const name = v.name.trim();
    if (name === "") return "Give it a name: C6, or “grid of V4”";
    if (known.some((k) => k.toUpperCase() === name.toUpperCase())) return `${name} is there already: open it in the table.`;
    const read = readMarking(v.farads, v.volts, settings.decimal);
    if (!read.ok) return read.why;
    const year = v.year.trim() === "" ? undefined : Number(v.year);
    if (year !== undefined && !(Number.isInteger(year) && year >= 1900 && year <= 2100)) return `Year: ${v.year}; 1900 to 2100 is accepted`;
    say({
      type: "capacitor",
      payload: {
        part: name,
        farads: read.farads,
        ...(read.volts === undefined ? {} : { volts: read.volts }),
        ...(v.kind.trim() === "" ? {} : { kind: v.kind.trim() }),
        ...(year === undefined ? {} : { year }),
      },
    });
  });
  return (
    <form aria-label="Name a capacitor" className="mt-3 flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
      <Field label="Name">
        <input className="input w-36" placeholder="C6" {...field("name")} />
      </Field>
      <Field label="Size">
        <input className="input w-32" placeholder={figure("0.022u")} {...field("farads")} />
      </Field>
      <Field label="Rated, V">
        <input className="input w-24" placeholder="400" {...field("volts")} />
      </Field>
      <Field label="Kind">
        <input className="input w-36" list="capacitor-kinds" placeholder="paper" {...field("kind")} />
      </Field>
      <CapacitorKinds />
      <Field label="Year">
        <input className="input w-24" inputMode="numeric" placeholder="1961" {...field("year")} />
      </Field>
      <button className="btn btn-outline">Add the capacitor</button>
      <Refused>{refused}</Refused>
    </form>
  );
}
