"use client";
/** A capacitor, or a can with all its sections, held against what its place asks for. */

import { useState } from "react";
import {
  checkCan,
  checkCapacitor,
  MOUNTINGS,
  type CapacitorOffer,
  type CapacitorPlaceNeeds,
  type Mounting,
} from "@/core/capacitor/substitute-capacitor";
import { fittedSet, offerText } from "@/core/capacitor/kit";
import { placeNeeds } from "@/core/capacitor/place-needs";
import { suggestCapacitor } from "@/core/capacitor/suggest-capacitor";
import type { Element } from "@/core/circuit/circuit";
import { figure } from "@/core/language/language";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { CASE_LEADS, type CaseLead } from "@/core/tape/events/words";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { BesideTable, ChecksTable } from "./checks-table";
import { FitPart } from "./fit-part";
import { useDrawnCapacitors } from "./use-capacitors";

interface Offered {
  sections: { part: Element; lug?: string; offer: CapacitorOffer }[];
  /** Millimetres that there are. */
  room: { diameter?: number; length?: number };
  stock?: number;
}

/** The suggestion for a place as it stands in the fields; nothing where none can be made, with the reason. */
function suggestion(place: CapacitorPlaceNeeds): { offer?: CapacitorOffer; why: string } {
  try {
    const { offer, why } = suggestCapacitor(place);
    return { offer, why };
  } catch (error) {
    if (error instanceof RangeError) return { why: error.message };
    throw error;
  }
}

const shown = (farads: number) =>
  formatQuantity(farads, "F", 3)
    .replace(/[.,]?0+ /, (m) => (/[.,]/.test(m) ? " " : m))
    .replace(" ", "");

export function SubstituteCapacitor({ part }: { part: Element }) {
  const { circuit, rows, stresses, stock, netlist, mains, year } = useDrawnCapacitors();
  const { settings, capacitors } = useJob();
  const [offered, setOffered] = useState<Offered>();
  const sections = part.notes.section ? circuit.elements.filter((e) => e.letter === "C" && e.notes.section === part.notes.section) : [part];
  const rowOf = (name: string) => rows.find((r) => r.c.name === name)!;
  const places = new Map(sections.map((e) => [e.name, placeNeeds(circuit, rowOf(e.name).c, stresses.get(e.name))]));
  const place = places.get(part.name)!;
  const first = suggestion(place);
  const can = sections.length > 1;
  const usual = {
    volts: String(first.offer?.volts ?? ""),
    kind: first.offer?.kind ?? "electrolytic",
    celsius: String(first.offer?.celsius ?? ""),
    hours: String(first.offer?.hours ?? ""),
    ripple: "",
    diameter: "",
    length: "",
    roomDiameter: "",
    roomLength: "",
    mounting: "",
    caseLead: "",
    safetyClass: "",
    stock: "",
    ...Object.fromEntries(
      sections.flatMap((e) => [
        [`farads-${e.name}`, shown(suggestion(places.get(e.name)!).offer?.farads ?? e.value ?? 0)],
        [`lug-${e.name}`, rowOf(e.name).c.lug ?? ""],
      ]),
    ),
  } as Record<string, string>;
  const { field, onSubmit, refused, form } = useTypedForm<Record<string, string>>(usual, (v) => {
    const said: string[] = [];
    const number = (name: string, label: string, unit?: "V" | "A" | "F"): number | undefined => {
      const text = (v[name] ?? "").trim();
      if (!text) return undefined;
      const parsed = parseQuantity(text, { ...(unit ? { unit } : {}), decimal: settings.decimal });
      if (parsed.ok && parsed.quantity.value > 0) return parsed.quantity.value;
      said.push(`${label}: ${parsed.ok ? `${parsed.quantity.echo}; above zero is wanted` : `${parsed.why}; accepted: ${parsed.accepted}`}`);
      return undefined;
    };
    const volts = number("volts", "Rated volts", "V");
    const common = {
      kind: v.kind!.trim() || "film",
      celsius: number("celsius", "Temperature class"),
      hours: number("hours", "Hours"),
      ripple: number("ripple", "Ripple current", "A"),
      diameter: number("diameter", "Diameter"),
      length: number("length", "Length"),
      ...(v.mounting ? { mounting: v.mounting as Mounting } : {}),
      ...(v.caseLead ? { caseLead: v.caseLead as CaseLead } : {}),
      ...(v.safetyClass ? { safetyClass: v.safetyClass as "X" } : {}),
    };
    const made = sections.map((e) => ({
      part: e,
      lug: v[`lug-${e.name}`]?.trim() || undefined,
      farads: number(`farads-${e.name}`, e.name, "F"),
    }));
    if (said.length > 0) return said[0];
    if (volts === undefined) return "Rated volts are wanted";
    const missing = made.find((m) => m.farads === undefined);
    if (missing) return `${missing.part.name}: its capacitance is wanted`;
    const roomFor = { diameter: number("roomDiameter", "Room for the diameter"), length: number("roomLength", "Room for the length") };
    if (said.length > 0) return said[0];
    setOffered({
      sections: made.map(({ part: e, lug, farads }) => ({ part: e, lug, offer: { ...common, farads: farads!, volts } })),
      room: roomFor,
      ...(v.stock ? { stock: Number(v.stock) } : {}),
    });
    return v;
  });
  /** A part of the drawer into the fields. */
  const take = (number: string) => {
    const own = stock.find((s) => String(s.number) === number);
    form.setValue("stock", number);
    if (!own) return;
    const put = (name: string, value: number | string | undefined) => form.setValue(name, value === undefined ? "" : figure(String(value)));
    for (const [name, value] of Object.entries({
      volts: own.rating,
      kind: own.kind,
      celsius: own.celsius,
      hours: own.hours,
      diameter: own.diameter,
      length: own.length,
      mounting: own.mounting,
      safetyClass: own.safetyClass,
    }))
      put(name, value);
    put("ripple", own.ripple === undefined ? undefined : formatQuantity(own.ripple, "A", 3));
    sections.forEach((e, i) => put(`farads-${e.name}`, shown(own.sections?.[i] ?? own.value)));
  };
  const v = form.getValues();
  const withRoom = (p: CapacitorPlaceNeeds): CapacitorPlaceNeeds => ({ ...p, ...offered?.room });
  const checks =
    offered &&
    (can
      ? checkCan(
          new Map([...places].map(([name, p]) => [name, withRoom(p)])),
          offered.sections.map((s) => ({ part: s.part.name, lug: s.lug, offer: s.offer })),
        )
      : [{ part: part.name, checks: checkCapacitor(withRoom(place), offered.sections[0]!.offer) }]);
  const set = offered?.sections.flatMap((s) => fittedSet(s.part.name, s.offer, year)) ?? [];
  const key = capacitors && offered && JSON.stringify([netlist, set, mains]);
  const { answer, failed } = useAnswer(key, () => capacitors!.beside(netlist, set, mains));
  const unknownLug = can && offered?.sections.some((s) => !s.lug);
  return (
    <>
      <Section
        title={can ? `${part.notes.section}: ${sections.map((e) => e.name).join(", ")}` : part.name}
        hint={rowOf(part.name).c.role.does}
      >
        <p className="soft mb-2 text-sm">
          It sees up to {Math.ceil(Math.max(...[...places.values()].map((p) => p.worst)))} V
          {place.firstLimit &&
            place.role === "reservoir" &&
            `; ${place.firstLimit.tube} allows ${formatQuantity(place.firstLimit.farads, "F", 2)} as first capacitor`}
          {place.ripple > 1e-3 && `; ${formatQuantity(place.ripple, "A", 2)} of ripple at idle, more at full signal`}. {first.why}
        </p>
        <form className="grid grid-cols-2 gap-3 sm:grid-cols-4" onSubmit={onSubmit}>
          {sections.map((e) => (
            <Field key={e.name} label={can ? `${e.name} (${shown(e.value!)})` : "Capacitance"}>
              <input className="input w-full" {...field(`farads-${e.name}`)} />
              {can && (
                <input
                  className="input mt-1 w-full"
                  placeholder="lug: square"
                  aria-label={`Lug of ${e.name}`}
                  {...field(`lug-${e.name}`)}
                />
              )}
            </Field>
          ))}
          <Field label="Rated volts">
            <input className="input w-full" {...field("volts")} />
          </Field>
          <Field label="Kind">
            <input className="input w-full" {...field("kind")} />
          </Field>
          <Field label="Temperature class, °C">
            <input className="input w-full" {...field("celsius")} />
          </Field>
          <Field label="Hours at it">
            <input className="input w-full" {...field("hours")} />
          </Field>
          <Field label="Ripple current rated">
            <input className="input w-full" placeholder="400 mA" {...field("ripple")} />
          </Field>
          <Field label="Diameter, mm (room)">
            <span className="flex gap-1">
              <input className="input w-full" {...field("diameter")} />
              <input className="input w-full" aria-label="Room for the diameter, mm" {...field("roomDiameter")} />
            </span>
          </Field>
          <Field label="Length, mm (room)">
            <span className="flex gap-1">
              <input className="input w-full" {...field("length")} />
              <input className="input w-full" aria-label="Room for the length, mm" {...field("roomLength")} />
            </span>
          </Field>
          <Field label="Mounting">
            <select className="select w-full" {...field("mounting")}>
              <option value="">not said</option>
              {MOUNTINGS.map((m) => (
                <option key={m}>{m}</option>
              ))}
            </select>
          </Field>
          {can && (
            <Field label="Its case is joined to">
              <select className="select w-full" {...field("caseLead")}>
                <option value="">not said</option>
                {CASE_LEADS.map((x) => (
                  <option key={x}>{x}</option>
                ))}
              </select>
            </Field>
          )}
          {place.safety && (
            <Field label="Safety class">
              <select className="select w-full" {...field("safetyClass")}>
                <option value="">none</option>
                <option>X</option>
                <option>Y</option>
              </select>
            </Field>
          )}
          <Field label="From stock">
            <select className="select w-full" value={v.stock ?? ""} onChange={(e) => take(e.target.value)}>
              <option value="">no</option>
              {stock
                .filter((s) => s.letter === "C" && s.pieces > 0 && (s.sections?.length ?? 1) === sections.length)
                .map((s) => (
                  <option key={s.number} value={s.number}>
                    {s.number}: {(s.sections ?? [s.value]).map(shown).join(" + ")} {s.rating} V ({s.pieces})
                  </option>
                ))}
            </select>
          </Field>
          <div className="col-span-full">
            <button className="btn btn-primary">Check it</button>
            <Refused className="mt-1">{refused}</Refused>
          </div>
        </form>
      </Section>
      {offered && checks && (
        <Section title="Before it is soldered">
          {checks.map(({ part: name, checks: own }) => (
            <div key={name} className="mb-3">
              {can && <h3 className="font-bold">{name}</h3>}
              <ChecksTable checks={own} label={`Checks of ${name}`} />
            </div>
          ))}
          <BesideTable part={part.name} beside={answer} failed={failed} />
          {unknownLug ? (
            <p role="alert" className="mt-2 text-warning">
              ▲ A section has no lug yet: measure which lug is which (capacitance to the case), enter it, check again. A section on the
              wrong lug puts the high tension where a lower rating stands.
            </p>
          ) : (
            <FitPart
              fits={offered.sections.map((s, i) => ({
                part: s.part,
                newPart: `${offerText(s.offer)}${s.lug ? `, lug ${s.lug}` : ""}`,
                set: fittedSet(s.part.name, s.offer, year),
                checks: checks[i]!.checks,
                reason: rowOf(s.part.name).judged.why,
                measured: rowOf(s.part.name)
                  .tests.map((t) => t.what)
                  .join(", "),
              }))}
              {...(offered.stock ? { stock: { number: offered.stock, pieces: 1 } } : {})}
              done={() => setOffered(undefined)}
            />
          )}
        </Section>
      )}
    </>
  );
}
