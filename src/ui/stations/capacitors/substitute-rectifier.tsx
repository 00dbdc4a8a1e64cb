"use client";
/** Silicon in place of a tube or of selenium. */

import { useState } from "react";
import type { Element } from "@/core/circuit/circuit";
import { words } from "@/core/language/language";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { BesideTable, ChecksTable } from "./checks-table";
import { FitPart } from "./fit-part";
import { useDrawnCapacitors } from "./use-capacitors";

export function SubstituteRectifier({ part }: { part: Element }) {
  const { netlist, mains } = useDrawnCapacitors();
  const { settings, capacitors } = useJob();
  const [offer, setOffer] = useState<{ surge?: number; inverse?: number }>();
  const { field, onSubmit, refused } = useTypedForm({ surge: "30", inverse: "1000" }, (v) => {
    const [surge, inverse] = [
      parseQuantity(v.surge, { unit: "A", decimal: settings.decimal }),
      parseQuantity(v.inverse, { unit: "V", decimal: settings.decimal }),
    ];
    if (!surge.ok) return `Surge: ${surge.why}; accepted: 30`;
    if (!inverse.ok) return `Inverse volts: ${inverse.why}; accepted: 1000`;
    setOffer({ surge: surge.quantity.value, inverse: inverse.quantity.value });
    return v;
  });
  const found = useAnswer(capacitors && offer && JSON.stringify([netlist, part.name, mains, offer]), () =>
    capacitors!.silicon(netlist, part.name, mains, offer!),
  );
  const set = found.answer?.set;
  const beside = useAnswer(capacitors && set && JSON.stringify([netlist, set, mains]), () => capacitors!.beside(netlist, set!, mains));
  const silicon = part.params.tube === undefined || part.params.tube === "silicon";
  if (silicon) return <p>{part.name} is silicon already.</p>;
  const { answer } = found;
  return (
    <Section
      title={`Silicon for ${part.name}`}
      hint={words("what brings the rail back, and what the capacitors see before the tubes draw")}
    >
      <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
        <Field label="Surge of one half wave, A">
          <input className="input w-28 text-right" {...field("surge")} />
        </Field>
        <Field label="Inverse volts of a diode">
          <input className="input w-28 text-right" {...field("inverse")} />
        </Field>
        <button className="btn btn-primary">Check it</button>
        <Refused className="basis-full">{refused}</Refused>
      </form>
      {found.failed && <p role="alert">{found.failed}</p>}
      {answer && (
        <>
          <p className="mt-2 text-xl font-bold">
            {answer.ohms > 0
              ? `${formatQuantity(answer.ohms, "Ω", 2)}, ${formatQuantity(answer.watts, "W", 2)} in series: ${formatVolts(answer.after)}; without it ${formatVolts(answer.bare)}, now ${formatVolts(answer.before)}.`
              : `No resistor is wanted: ${formatVolts(answer.after)}, now ${formatVolts(answer.before)}.`}
          </p>
          <ChecksTable checks={answer.checks} />
          <BesideTable part={part.name} beside={beside.answer} failed={beside.failed} />
          <FitPart
            fits={[
              {
                part,
                newPart: `silicon${answer.ohms > 0 ? ` with ${formatQuantity(answer.ohms, "Ω", 2)} ${formatQuantity(answer.watts, "W", 2)}` : ""}`,
                set: answer.set,
                checks: answer.checks,
                reason: "",
              },
            ]}
            done={() => setOffer(undefined)}
          />
        </>
      )}
    </Section>
  );
}
