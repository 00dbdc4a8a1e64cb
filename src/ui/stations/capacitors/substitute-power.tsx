"use client";
/** Another power transformer: its high-tension volts and current and its heater windings against what the amp draws. */

import { useState } from "react";
import { checkPowerTransformer, type PowerTransformerOffer } from "@/core/capacitor/substitute-others";
import type { Element } from "@/core/circuit/circuit";
import { spiceNumber } from "@/core/circuit/write";
import { figure } from "@/core/language/language";
import { parseQuantity } from "@/core/quantity/parse";
import { heaterLoad } from "@/core/supply/heaters";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { useBorn } from "./use-born";
import { useDrawnCapacitors } from "./use-capacitors";
import { Verdict } from "./verdict";

export function SubstitutePowerTransformer({ part }: { part: Element }) {
  const { circuit } = useDrawnCapacitors();
  const { settings } = useJob();
  const { born, failed } = useBorn(part.name);
  const [offer, setOffer] = useState<PowerTransformerOffer>();
  const windings = circuit.heaters.filter((h) => !h.string).map((h) => heaterLoad(circuit, h));
  const vac = Number(part.params.vac ?? 0);
  const { field, onSubmit, refused } = useTypedForm(
    {
      vac: figure(vac),
      amps: "",
      heaters: windings.map((w) => `${figure(w.volts)} V ${figure(Math.ceil(10 * w.amps) / 10)} A`).join(", "),
    },
    (v) => {
      const volts = parseQuantity(v.vac, { unit: "V", decimal: settings.decimal });
      if (!volts.ok || !(volts.quantity.value > 0))
        return `High tension: ${volts.ok ? "above zero is wanted" : `${volts.why}; accepted: ${volts.accepted}`}`;
      const amps = v.amps.trim() ? parseQuantity(v.amps, { unit: "A", decimal: settings.decimal }) : undefined;
      if (amps && !amps.ok) return `Current: ${amps.why}; accepted: 120 mA`;
      const heaters = readHeaters(v.heaters, settings.decimal);
      if (typeof heaters === "string") return heaters;
      setOffer({ vac: volts.quantity.value, heaters, ...(amps?.ok ? { amps: amps.quantity.value } : {}) });
      return v;
    },
  );
  return (
    <>
      <Section title={`Another power transformer on ${part.name}`} hint="volts of a half of its winding, the current out of the rectifier">
        {failed && <p role="alert">{failed}</p>}
        <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
          <Field label="High tension, V rms">
            <input className="input w-28 text-right" {...field("vac")} />
          </Field>
          <Field label="Direct current">
            <input className="input w-28 text-right" placeholder="150 mA" {...field("amps")} />
          </Field>
          <Field label="Heater windings">
            <input className="input w-64" placeholder={`${figure("6.3")} V 3 A, 5 V 2 A`} {...field("heaters")} />
          </Field>
          <button className="btn btn-outline">Check the transformer</button>
          <Refused className="basis-full">{refused}</Refused>
        </form>
      </Section>
      {offer && born && (
        <Verdict
          part={part}
          checks={checkPowerTransformer(
            { vac },
            { amps: born.amps ?? 0, heaters: windings.map((w) => ({ volts: w.volts, amps: w.amps })) },
            offer,
          )}
          set={[`${part.name}.vac=${spiceNumber(offer.vac)}`]}
          newPart={`power transformer ${figure(offer.vac)} V`}
          done={() => setOffer(undefined)}
        />
      )}
    </>
  );
}

/** "6.3 V 3 A, 5 V 2 A": each winding's volts and amperes. @returns why it cannot be read. */
function readHeaters(text: string, decimal: "." | ","): { volts: number; amps: number }[] | string {
  const separator = decimal === "," ? /;|,\s+/ : /[;,]/;
  const out: { volts: number; amps: number }[] = [];
  for (const one of text
    .split(separator)
    .map((t) => t.trim())
    .filter(Boolean)) {
    const [, v = "", a = ""] = /^(\S+?)\s*V\s+(\S+?)\s*A$/i.exec(one) ?? [];
    const [volts, amps] = [parseQuantity(v, { unit: "V", decimal }), parseQuantity(a, { unit: "A", decimal })];
    if (!volts.ok || !amps.ok) return `Heater windings: ${one}; accepted: ${figure("6.3")} V 3 A, 5 V 2 A`;
    out.push({ volts: volts.quantity.value, amps: amps.quantity.value });
  }
  return out;
}
