"use client";
/** Turns ratio from an AC test, and what the load then reflects: a wrong load, a wrong tap or shorted turns show. */

import { figure } from "@/core/language/language";
import { turnsRatio, WRONG_LOAD, type Ratio } from "@/core/output/load-line";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { useState } from "react";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";

/** @param wanted ohms that the circuit's transformer is to reflect. @param load ohms that hang on it. */
export function RatioForm({ wanted, load }: { wanted?: number; load?: number }) {
  const { settings } = useJob();
  const [ratio, setRatio] = useState<Ratio>();
  const { field, onSubmit, refused } = useTypedForm(
    { primary: "", secondary: "", load: load === undefined ? "" : figure(load) },
    (typed) => {
      const read = (text: string, name: string, unit: "V" | "Ω") => {
        const parsed = parseQuantity(text, { unit, decimal: settings.decimal });
        if (!parsed.ok) throw new RangeError(`${name}: ${parsed.why}; accepted: ${unit === "V" ? "100" : "8"}`);
        return parsed.quantity.value;
      };
      try {
        setRatio(
          turnsRatio(read(typed.primary, "Primary", "V"), read(typed.secondary, "Secondary", "V"), read(typed.load, "Load", "Ω"), wanted),
        );
      } catch (error) {
        if (!(error instanceof RangeError)) throw error;
        return error.message;
      }
      return typed;
    },
  );
  const wrong = ratio?.share !== undefined && Math.abs(ratio.share - 1) > WRONG_LOAD;
  return (
    <Section
      title="Turns ratio from an AC test"
      hint="a known low AC voltage on the whole primary, nothing on the secondary, power off, proven dead"
    >
      <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
        <Field label="On the primary, V">
          <input className="input w-28 text-right" inputMode="decimal" {...field("primary")} />
        </Field>
        <Field label="On the secondary, V">
          <input className="input w-28 text-right" inputMode="decimal" {...field("secondary")} />
        </Field>
        <Field label="Load, Ω">
          <input className="input w-28 text-right" inputMode="decimal" {...field("load")} />
        </Field>
        <button className="btn">Work it out</button>
      </form>
      <Refused>{refused}</Refused>
      {ratio && (
        <div className="mt-2" data-testid="ratio">
          <p className={`text-xl font-bold ${wrong ? "text-warning" : ""}`}>
            {wrong ? "▲ " : ""}
            {figure(Number(ratio.turns.toPrecision(3)))} : 1, so the load reflects {formatQuantity(ratio.reflected, "Ω", 3)}
            {ratio.share !== undefined && ` (${Math.round(ratio.share * 100)} % of the ${formatQuantity(wanted!, "Ω", 3)} wanted)`}
          </p>
          {wrong && (
            <p>
              With this transformer a load of {formatQuantity(ratio.loadWanted!, "Ω", 2)} is right. Another load, the wrong tap of the
              secondary, or shorted turns: check which before power goes on.
            </p>
          )}
        </div>
      )}
    </Section>
  );
}
