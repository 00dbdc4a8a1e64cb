"use client";
/** The reservoirs with their readings, what ties them together, and naming one by hand. */

import { useMemo, useState } from "react";
import type { ReservoirState } from "@/core/safety/proof";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { readMarking } from "@/core/capacitor/marking";
import { tiesOf, type Tie } from "@/core/safety/separate-reservoirs";
import { Field } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { clockTime } from "../../job/words";

const BASIS: Record<string, string> = { read: "read", expected: "expected", rating: "from its rating", named: "as named" };

export function Reservoirs({ reservoirs, safeVolts }: { reservoirs: ReservoirState[]; safeVolts: number }) {
  const { view } = useJob();
  const ties = useMemo(() => tiesOf(view.circuit, view.reservoirs), [view.circuit, view.reservoirs]);
  return (
    <section aria-label="Reservoirs">
      <h2 className="mb-1 font-bold">
        Reservoirs <span className="soft font-normal">each is read on its own; safe voltage of this shop {formatVolts(safeVolts)}</span>
      </h2>
      <table className="table table-sm">
        <thead>
          <tr>
            <th>Reservoir</th>
            <th className="text-right">Size</th>
            <th className="text-right">Estimate now</th>
            <th>First reading</th>
            <th>After a minute</th>
            <th>Why it is read on its own</th>
          </tr>
        </thead>
        <tbody>
          {reservoirs.map((r) => (
            <ReservoirRow key={r.name} r={r} tie={ties.find((t) => t.reservoir === r.name)} />
          ))}
        </tbody>
      </table>
      {reservoirs.length === 0 && (
        <p className="soft">None known. Name each capacitor that can hold a charge: the large cans, and the bias supply.</p>
      )}
    </section>
  );
}

function ReservoirRow({ r, tie }: { r: ReservoirState; tie?: Tie }) {
  const shown = (reading: { volts: number; at: string } | undefined) =>
    reading ? `${formatVolts(reading.volts)} at ${clockTime(reading.at)}` : "";
  return (
    <tr>
      <td>
        <strong>{r.name}</strong> <span className="soft">{r.label}</span>
      </td>
      <td className="text-right whitespace-nowrap tabular-nums">{formatQuantity(r.farads, "F", 2)}</td>
      <td className="text-right tabular-nums">
        {r.volts === undefined ? "not known" : formatVolts(r.volts)} {r.basis && <span className="soft text-xs">{BASIS[r.basis]}</span>}
      </td>
      <td className="tabular-nums">{shown(r.first)}</td>
      <td className="tabular-nums">
        {r.unread ? "cannot be read" : shown(r.second) || (r.secondIn !== undefined ? (r.secondIn > 0 ? `in ${r.secondIn} s` : "now") : "")}
        {r.first && r.second && <span className="soft block text-xs">rebound {formatVolts(r.second.volts - r.first.volts)}</span>}
      </td>
      <td className="text-xs">{tie && tieWords(tie)}</td>
    </tr>
  );
}

/** Why its reading cannot be taken from another's. */
function tieWords(tie: Tie): string {
  const bleed = !tie.bled
    ? "no bleeder: it will not discharge by itself"
    : tie.bleedLostBy.length > 0
      ? `bled only by way of ${tie.bleedLostBy.join(", ")}`
      : "";
  if (tie.first) return ["the largest", bleed].filter(Boolean).join("; ");
  if (tie.behind.length > 0) return [`behind ${tie.behind.join(", ")}, which is open`, bleed].filter(Boolean).join("; ");
  if (!tie.joined) return ["a supply of its own", bleed].filter(Boolean).join("; ");
  if (tie.cutOffBy.length > 0) return `cut off if ${tie.cutOffBy.join(" or ")} is open`;
  return "on the same terminal as the largest, but holds a charge of its own";
}

export function NameReservoir() {
  const { say, settings, view } = useJob();
  // It stays open while several are named one after the other.
  const [open, setOpen] = useState(view.reservoirs.length === 0);
  const { field, onSubmit, refused } = useTypedForm({ name: "", farads: "", volts: "" }, (typed) => {
    const read = readMarking(typed.farads, typed.volts, settings.decimal);
    const name = typed.name.trim();
    if (!name) return "Give it a name: C1, big can";
    if (!read.ok) return read.why;
    const { farads, volts } = read;
    if (volts === undefined) return "Its rated volts are missing; accepted: 450, or 16u 450V in the size";
    if (farads < 1e-9) return `Size: read ${formatQuantity(farads, "F")}; accepted: 1 nF to 1 F`;
    if (volts > 3000) return `Rated volts: read ${formatVolts(volts)}; accepted: 1 to 3000 V`;
    say({ type: "reservoir", payload: { name, farads, volts } });
  });
  return (
    <details open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="cursor-pointer py-2 text-sm">Name a reservoir by hand</summary>
      <form className="flex flex-wrap items-end gap-3 text-sm" onSubmit={onSubmit}>
        <Field label="Name">
          <input className="input w-36" data-arrival={view.reservoirs.length === 0 ? true : undefined} {...field("name")} />
        </Field>
        <Field label="Size">
          <input className="input w-28" placeholder="32u" {...field("farads")} />
        </Field>
        <Field label="Rated, V">
          <input className="input w-24" placeholder="450" {...field("volts")} />
        </Field>
        <button className="btn">Add</button>
        <Refused>{refused}</Refused>
      </form>
    </details>
  );
}
