"use client";
/** One capacitor: what is read off it, old markings and colours included, and what was measured of it. */

import { figure } from "@/core/language/language";
import { leakageLimit } from "@/core/capacitor/leakage-limit";
import { mostSeriesOhms } from "@/core/capacitor/measured";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { readColours } from "@/core/quantity/colour-code";
import type { Unit } from "@/core/quantity/unit";
import type { CapacitorNoted } from "@/core/tape/events/capacitor-events";
import { CAPACITOR_PLACES, CASE_LEADS, type CapacitorTestKind } from "@/core/tape/events/words";
import { Field } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { CapacitorKinds } from "./capacitor-kinds";
import type { CapacitorRow } from "./use-capacitors";

export function CapacitorDetail({ row }: { row: CapacitorRow }) {
  return (
    <div className="grid gap-6 py-2 lg:grid-cols-2">
      <ReadOff row={row} />
      <Tests row={row} />
    </div>
  );
}

const shownFarads = (farads: number | undefined) => (farads === undefined ? "" : formatQuantity(farads, "F", 3).replace(" ", ""));

function ReadOff({ row: { c } }: { row: CapacitorRow }) {
  const { say, settings } = useJob();
  const usual = {
    farads: "",
    volts: "",
    kind: "",
    year: "",
    celsius: "",
    ripple: "",
    marking: "",
    colours: "",
    place: "",
    safetyClass: "",
    caseLead: "",
    lug: "",
    note: "",
  };
  const { field, onSubmit, refused, typed } = useTypedForm(usual, (v) => {
    const out: Partial<CapacitorNoted> = {};
    const number = (name: "farads" | "volts" | "ripple", label: string, unit: Unit): string | undefined => {
      if (!v[name].trim()) return undefined;
      const parsed = parseQuantity(v[name], { unit, decimal: settings.decimal });
      if (!parsed.ok) return `${label}: ${parsed.why}; accepted: ${parsed.accepted}`;
      if (!(parsed.quantity.value > 0)) return `${label}: ${parsed.quantity.echo}; above zero is wanted`;
      out[name] = parsed.quantity.value;
      return undefined;
    };
    if (v.colours.trim()) {
      const read = readColours(v.colours, "F");
      if (typeof read === "string") return `Colours: ${read}`;
      out.farads = read.value;
      if (read.volts) out.volts = read.volts;
    }
    const bad = number("farads", "Capacitance", "F") ?? number("volts", "Rated volts", "V") ?? number("ripple", "Ripple current", "A");
    if (bad) return bad;
    for (const [name, low, high] of [
      ["year", 1900, 2100],
      ["celsius", 20, 250],
    ] as const) {
      if (!v[name].trim()) continue;
      const value = Number(v[name].replace(",", "."));
      if (!(value >= low && value <= high))
        return `${name === "year" ? "Year" : "Temperature class"}: ${v[name]}; ${low} to ${high} is accepted`;
      out[name] = name === "year" ? Math.round(value) : value;
    }
    for (const name of ["kind", "marking", "lug", "note"] as const) if (v[name].trim()) out[name] = v[name].trim();
    if (v.place) out.place = v.place as CapacitorNoted["place"];
    if (v.safetyClass) out.safetyClass = v.safetyClass as CapacitorNoted["safetyClass"];
    if (v.caseLead) out.caseLead = v.caseLead as CapacitorNoted["caseLead"];
    if (Object.keys(out).length === 0) return "Nothing was entered";
    say({ type: "capacitor", payload: { part: c.name, ...out } });
  });
  // Microfarads and picofarads are often confused: what was understood stands beside it before it is logged.
  const parsed = typed.farads.trim() ? parseQuantity(typed.farads, { unit: "F", decimal: settings.decimal }) : undefined;
  const far =
    parsed?.ok && c.element?.value && (parsed.quantity.value > 30 * c.element.value || parsed.quantity.value < c.element.value / 30);
  return (
    <form onSubmit={onSubmit} aria-label={`Read off ${c.name}`}>
      <h3 className="font-bold">Read off it</h3>
      <p className="soft mb-2 text-sm">
        Known:{" "}
        {[
          shownFarads(c.farads),
          c.volts && `${c.volts} V`,
          c.kind,
          c.year,
          c.celsius && `${c.celsius} °C`,
          c.marking,
          c.lug && `lug ${c.lug}`,
        ]
          .filter(Boolean)
          .join(", ") || "nothing"}
      </p>
      <div className="grid grid-cols-2 items-end gap-2 sm:grid-cols-3">
        <Field label="Capacitance">
          <input className="input w-full" placeholder="0.022 MFD" {...field("farads")} />
        </Field>
        <Field label="Rated volts">
          <input className="input w-full" placeholder="450" {...field("volts")} />
        </Field>
        <Field label="Kind">
          <input className="input w-full" list="capacitor-kinds" placeholder="paper" {...field("kind")} />
        </Field>
        <CapacitorKinds />
        <Field label="Colours in their order">
          <input className="input w-full" placeholder="red red yellow" {...field("colours")} />
        </Field>
        <Field label="Year">
          <input className="input w-full" inputMode="numeric" {...field("year")} />
        </Field>
        <Field label="Marking, series">
          <input className="input w-full" {...field("marking")} />
        </Field>
        <Field label="Temperature class, °C">
          <input className="input w-full" inputMode="numeric" {...field("celsius")} />
        </Field>
        <Field label="Ripple current rated">
          <input className="input w-full" placeholder="200 mA" {...field("ripple")} />
        </Field>
        <Field label="Lug">
          <input className="input w-full" placeholder="square" {...field("lug")} />
        </Field>
        <Field label="Its case is joined to">
          <select className="select w-full" {...field("caseLead")}>
            <option value="">{c.caseLead === "unknown" ? "not known" : c.caseLead}</option>
            {CASE_LEADS.map((x) => (
              <option key={x}>{x}</option>
            ))}
          </select>
        </Field>
        <Field label="A failure is dangerous">
          <select className="select w-full" {...field("place")}>
            <option value="">no, or as found</option>
            {CAPACITOR_PLACES.map((x) => (
              <option key={x}>{x}</option>
            ))}
          </select>
        </Field>
        <Field label="Safety class marked">
          <select className="select w-full" {...field("safetyClass")}>
            <option value="">not looked at</option>
            <option>none</option>
            <option>X</option>
            <option>Y</option>
          </select>
        </Field>
      </div>
      {parsed && (
        <p className={`mt-1 text-sm ${far ? "text-warning" : ""}`}>
          {parsed.ok ? `read as ${parsed.quantity.echo}` : `${parsed.why}; accepted: ${parsed.accepted}`}
          {far && `: the circuit has ${shownFarads(c.element!.value)}. Microfarads or picofarads?`}
        </p>
      )}
      <Refused className="mt-1">{refused}</Refused>
      <button className="btn btn-outline mt-2">Log what it says</button>
    </form>
  );
}

const UNITS: Record<CapacitorTestKind, { unit?: Unit; label: string; placeholder: string; second: string; secondUnit: Unit }> = {
  leakage: { unit: "A", label: "Leakage", placeholder: "0.4 mA", second: "at volts", secondUnit: "V" },
  capacitance: { unit: "F", label: "Capacitance", placeholder: "31 µF", second: "at hertz", secondUnit: "Hz" },
  "series ohms": { unit: "Ω", label: "Series resistance", placeholder: "1.2", second: "at hertz", secondUnit: "Hz" },
  dissipation: { label: "Dissipation factor", placeholder: "0.03", second: "at hertz", secondUnit: "Hz" },
};

function Tests({ row: { c, tests } }: { row: CapacitorRow }) {
  const { say, settings } = useJob();
  const { field, onSubmit, refused, typed } = useTypedForm({ kind: "leakage", value: "", second: "", note: "" }, (v) => {
    const kind = v.kind as CapacitorTestKind;
    const { unit, label, second, secondUnit } = UNITS[kind];
    const parsed = parseQuantity(v.value, { ...(unit ? { unit } : {}), decimal: settings.decimal });
    if (!parsed.ok) return `${label}: ${parsed.why}; accepted: ${parsed.accepted}`;
    if (parsed.quantity.value < 0) return `${label}: ${parsed.quantity.echo}; zero or more is accepted`;
    if (kind === "dissipation" && parsed.quantity.value > 20)
      return `${label}: ${v.value}; a number such as ${figure("0.03")} is accepted, no percent`;
    const at = v.second.trim() ? parseQuantity(v.second, { unit: secondUnit, decimal: settings.decimal }) : undefined;
    if (at && !at.ok) return `${second}: ${at.why}; accepted: ${at.accepted}`;
    if (kind === "leakage" && !at) return "At which volts? Leakage without them says nothing.";
    if (at?.ok && kind === "leakage" && c.volts !== undefined && at.quantity.value > 1.05 * c.volts)
      return `${at.quantity.echo}: it is rated for ${c.volts} V`;
    say({
      type: "capacitor-test",
      payload: {
        part: c.name,
        kind,
        value: parsed.quantity.value,
        ...(at?.ok ? { [secondUnit === "V" ? "volts" : "hertz"]: at.quantity.value } : {}),
        ...(v.note.trim() ? { note: v.note.trim() } : {}),
      },
    });
    return { kind: v.kind };
  });
  const kind = UNITS[typed.kind as CapacitorTestKind];
  const limit = c.farads && c.volts ? leakageLimit({ farads: c.farads, volts: c.volts, kind: c.kind, year: c.year }) : undefined;
  return (
    <form onSubmit={onSubmit} aria-label={`Tests of ${c.name}`}>
      <h3 className="font-bold">Measured, out of circuit or one leg lifted</h3>
      {limit ? (
        <p className="soft mb-2 text-sm">
          Allowed: {formatQuantity(limit.amps, "A", 3)} at {c.volts} V ({limit.formula}; {limit.source}). Series resistance up to{" "}
          {formatQuantity(mostSeriesOhms(c.farads!, c.kind), "Ω", 2)} is usual.
        </p>
      ) : (
        <p className="soft mb-2 text-sm">Enter capacitance and rated volts first: every limit follows from them.</p>
      )}
      <p className="soft mb-2 text-sm">
        Volts past a capacitor in circuit are no leakage: they show the node. For couplings use Leakage in Cold checks.
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <Field label="What">
          <select className="select w-44" {...field("kind")}>
            {Object.entries(UNITS).map(([id, u]) => (
              <option key={id} value={id}>
                {u.label}
              </option>
            ))}
          </select>
        </Field>
        <Field label={kind.label}>
          <input className="input w-28 text-right" placeholder={figure(kind.placeholder)} {...field("value")} />
        </Field>
        <Field label={kind.second}>
          <input className="input w-24 text-right" {...field("second")} />
        </Field>
        <button className="btn btn-outline">Log the test</button>
      </div>
      <Refused className="mt-1">{refused}</Refused>
      {tests.length > 0 && (
        <ul className="mt-2 text-sm">
          {tests.map((t, i) => (
            <li key={i}>
              {t.what}
              {t.why && `, ${t.why}`}
            </li>
          ))}
        </ul>
      )}
    </form>
  );
}
