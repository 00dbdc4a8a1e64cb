"use client";
/** Corners, taps and balanced outputs by hand: figures in, what they do out. */

import { fixed } from "@/core/language/language";
import { useForm } from "react-hook-form";
import { cornerHertz, electronicBalanced, tapLoading, transformerBalanced } from "@/core/signal/taps";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import type { Unit } from "@/core/quantity/unit";
import { Field, Section } from "../../forms/section";
import { useJob } from "../../job/job-context";

const USUAL = {
  ohms: "470k",
  farads: "22n",
  source: "47k",
  load: "1M",
  cable: "500p",
  leg: "47",
  receiver: "10k",
  mismatch: "1",
  by: "electronic" as "electronic" | "one leg driven" | "transformer",
};
type Typed = Exclude<keyof typeof USUAL, "by">;

export function Taps() {
  const { settings } = useJob();
  const { register, watch } = useForm({ defaultValues: USUAL });
  const typed = watch();
  const { by } = typed;
  /** A figure that is typed, with its field; without a value while it cannot be read. */
  const read = (name: Typed, unit: Unit | undefined) => {
    const parsed = parseQuantity(typed[name], { unit, decimal: settings.decimal });
    const value = parsed.ok && parsed.quantity.value >= 0 ? parsed.quantity.value : undefined;
    const refused = parsed.ok ? (value === undefined ? "zero or more" : "") : `${parsed.why}; accepted: ${parsed.accepted}`;
    const field = (label: string) => (
      <Field label={label} error={refused || undefined}>
        <input className="input w-28 text-right" {...register(name)} />
      </Field>
    );
    return { value, field };
  };
  const [ohms, farads] = [read("ohms", "Ω"), read("farads", "F")];
  const [source, load, cable] = [read("source", "Ω"), read("load", "Ω"), read("cable", "F")];
  const [leg, receiver, mismatch] = [read("leg", "Ω"), read("receiver", "Ω"), read("mismatch", undefined)];
  const corner = ohms.value && farads.value ? cornerHertz(ohms.value, farads.value) : undefined;
  const tap = source.value !== undefined && load.value ? tapLoading(source.value, load.value, cable.value) : undefined;
  const balanced =
    leg.value === undefined || !receiver.value
      ? undefined
      : by === "transformer"
        ? transformerBalanced(1, leg.value, 0.1 * leg.value, receiver.value, 200e-12, 50)
        : electronicBalanced(leg.value, (mismatch.value ?? 0) / 100, receiver.value, by === "electronic");
  return (
    <Section title="Corners, taps, balanced outputs" hint="by the values you enter">
      <div className="space-y-2">
        <div className="flex flex-wrap items-end gap-3">
          {ohms.field("Resistance, Ω")}
          {farads.field("Capacitance, F (22n)")}
          <p className="pb-2 text-lg font-bold tabular-nums">
            {corner === undefined ? "–" : `corner at ${formatQuantity(corner, "Hz", 3)}`}
          </p>
        </div>
        <div className="flex flex-wrap items-end gap-3">
          {source.field("Source impedance, Ω")}
          {load.field("Load impedance, Ω")}
          {cable.field("Cable capacitance, F")}
          <p className="pb-2 text-lg font-bold tabular-nums">
            {tap === undefined
              ? "–"
              : `${fixed(tap.decibels, 2)} dB${tap.corner ? `, treble −3 dB at ${formatQuantity(tap.corner, "Hz", 2)}` : ""}`}
          </p>
        </div>
        <div className="flex flex-wrap items-end gap-3">
          <Field label="Balanced output">
            <select className="select w-40" {...register("by")}>
              <option>electronic</option>
              <option>one leg driven</option>
              <option>transformer</option>
            </select>
          </Field>
          {leg.field(by === "transformer" ? "Source, Ω" : "Each leg, Ω")}
          {receiver.field("Receiver, Ω")}
          {by !== "transformer" && mismatch.field("Legs differ, %")}
          <p className="pb-2 text-lg font-bold tabular-nums">
            {balanced === undefined
              ? "–"
              : `${formatQuantity(balanced.outputOhms, "Ω", 3)}, ${fixed(balanced.decibels, 1)} dB, hum on both legs ${balanced.rejection === -Infinity ? "gone" : `${fixed(balanced.rejection, 0)} dB`}`}
          </p>
        </div>
      </div>
    </Section>
  );
}
