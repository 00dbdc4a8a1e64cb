"use client";
/** The arithmetic of an output stage from typed figures alone, for an amp without a circuit. */

import { figure, words } from "@/core/language/language";
import { useState } from "react";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { typedIdle } from "@/core/output/read-current";
import { TUBE_TYPES } from "@/core/tubes/library";
import { isOutputType } from "@/core/anatomy/cathode-current";
import { Field, Section } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { RatioForm } from "./ratio-form";
import { percent } from "./use-stage";

const TYPES = TUBE_TYPES.filter(isOutputType);

/** Bias and turns ratio; the names say what is typed. */
export function Typed() {
  return (
    <>
      <TypedBias />
      <RatioForm />
    </>
  );
}

function TypedBias() {
  const { settings } = useJob();
  const [typed, setTyped] = useState({ type: TYPES[0]!.type, volts: "", across: "", ohms: "" });
  const read = (text: string, unit: "V" | "Ω") => {
    const parsed = parseQuantity(text, { unit, decimal: settings.decimal });
    return text.trim() === "" ? undefined : parsed.ok ? parsed.quantity.value : parsed.why;
  };
  const [volts, across, ohms] = [read(typed.volts, "V"), read(typed.across, "V"), read(typed.ohms, "Ω")];
  const type = TYPES.find((t) => t.type === typed.type)!;
  const said = [volts, across, ohms].find((x) => typeof x === "string");
  const numbers = typeof volts === "number" && typeof across === "number" && typeof ohms === "number" && ohms > 0;
  const idle = numbers ? typedIdle(type, { plate: volts, across, ohms }) : undefined;
  const input = (name: "volts" | "across" | "ohms", label: string, placeholder: string) => (
    <Field label={label}>
      <input
        className="input w-32 text-right"
        inputMode="decimal"
        placeholder={placeholder}
        value={typed[name]}
        onChange={(e) => setTyped({ ...typed, [name]: e.target.value })}
      />
    </Field>
  );
  return (
    <Section title="Bias from typed figures" hint={words("one tube, read across its cathode resistor")}>
      <div className="flex flex-wrap items-end gap-3">
        <Field label={words("Tube type")}>
          <select className="select w-36" value={typed.type} onChange={(e) => setTyped({ ...typed, type: e.target.value })}>
            {TYPES.map((t) => (
              <option key={t.type}>{t.type}</option>
            ))}
          </select>
        </Field>
        {input("volts", "Plate to chassis, V", "415")}
        {input("across", "Across the cathode resistor, V", figure("0.45"))}
        {input("ohms", "Cathode resistor, Ω", "10")}
      </div>
      {said && (
        <p role="alert" className="mt-1 text-sm text-error">
          {said}
        </p>
      )}
      {idle && (
        <p className="mt-2 text-2xl font-bold" data-testid="typed-bias">
          {formatQuantity(idle.plate, "A", 3)} plate current, {formatQuantity(idle.watts, "W", 3)}
          {type.ratings && ` = ${percent(idle.watts / type.ratings.plateWatts)} of ${type.ratings.plateWatts} W (${type.ratings.system})`}
        </p>
      )}
    </Section>
  );
}
