"use client";
/** Corners, taps and balanced outputs by hand: figures in, what they do out. */

import { useState } from "react";
import { cornerHertz, electronicBalanced, tapLoading, transformerBalanced } from "@/core/noise/taps";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import type { Unit } from "@/core/quantity/unit";
import { Field, Section } from "../../forms/section";
import { useJob } from "../../frame/job-context";

/** A figure that is typed; undefined while it cannot be read. */
function useTyped(first: string, unit: Unit) {
  const { settings } = useJob();
  const [text, setText] = useState(first);
  const parsed = parseQuantity(text, { unit, decimal: settings.decimal });
  const value = parsed.ok && parsed.quantity.value >= 0 ? parsed.quantity.value : undefined;
  const refused = parsed.ok ? (value === undefined ? "zero or more" : "") : `${parsed.why}; accepted: ${parsed.accepted}`;
  const field = (label: string) => (
    <Field label={label} error={refused || undefined}>
      <input className="input w-28 text-right" value={text} onChange={(e) => setText(e.target.value)} />
    </Field>
  );
  return { value, field };
}

export function Taps() {
  const [ohms, farads] = [useTyped("470k", "Ω"), useTyped("22n", "F")];
  const [source, load, cable] = [useTyped("47k", "Ω"), useTyped("1M", "Ω"), useTyped("500p", "F")];
  const [leg, receiver] = [useTyped("47", "Ω"), useTyped("10k", "Ω")];
  const [mismatch, setMismatch] = useState(1);
  const [by, setBy] = useState<"electronic" | "one leg driven" | "transformer">("electronic");
  const corner = ohms.value && farads.value ? cornerHertz(ohms.value, farads.value) : undefined;
  const tap = source.value !== undefined && load.value ? tapLoading(source.value, load.value, cable.value) : undefined;
  const balanced =
    leg.value === undefined || !receiver.value
      ? undefined
      : by === "transformer"
        ? transformerBalanced(1, leg.value, 0.1 * leg.value, receiver.value, 200e-12, 50)
        : electronicBalanced(leg.value, mismatch / 100, receiver.value, by === "electronic");
  return (
    <Section title="Corners, taps, balanced outputs" hint="by hand">
      <div className="space-y-2">
        <div className="flex flex-wrap items-end gap-3">
          {ohms.field("Resistance")}
          {farads.field("Capacitance")}
          <p className="pb-2 text-lg font-bold tabular-nums">
            {corner === undefined ? "–" : `corner at ${formatQuantity(corner, "Hz", 3)}`}
          </p>
        </div>
        <div className="flex flex-wrap items-end gap-3">
          {source.field("Tap's own ohms")}
          {load.field("What it drives")}
          {cable.field("Lead, capacitance")}
          <p className="pb-2 text-lg font-bold tabular-nums">
            {tap === undefined
              ? "–"
              : `${tap.decibels.toFixed(2)} dB${tap.corner ? `, highs from ${formatQuantity(tap.corner, "Hz", 2)}` : ""}`}
          </p>
        </div>
        <div className="flex flex-wrap items-end gap-3">
          <Field label="Balanced output">
            <select className="select w-40" value={by} onChange={(e) => setBy(e.target.value as "electronic")}>
              <option>electronic</option>
              <option>one leg driven</option>
              <option>transformer</option>
            </select>
          </Field>
          {leg.field(by === "transformer" ? "Source" : "Each leg")}
          {receiver.field("Receiver")}
          {by !== "transformer" && (
            <Field label="Legs differ, %">
              <input
                className="input w-24 text-right"
                type="number"
                min={0}
                step="any"
                value={mismatch}
                onChange={(e) => setMismatch(Math.max(0, Number(e.target.value)))}
              />
            </Field>
          )}
          <p className="pb-2 text-lg font-bold tabular-nums">
            {balanced === undefined
              ? "–"
              : `${formatQuantity(balanced.outputOhms, "Ω", 3)}, ${balanced.decibels.toFixed(1)} dB, hum on both legs ${balanced.rejection === -Infinity ? "gone" : `${balanced.rejection.toFixed(0)} dB`}`}
          </p>
        </div>
      </div>
    </Section>
  );
}
