"use client";
/** A resistor in place of a resistor, or a choke. */

import { useState } from "react";
import { checkResistor, RESISTOR_KINDS, shouldFailOpen, type ResistorOffer } from "@/core/capacitor/substitute-resistor";
import { ratingFor, STANDARD_WATTS } from "@/core/quantity/ratings";
import type { Element } from "@/core/circuit/circuit";
import { spiceNumber } from "@/core/circuit/write";
import { figure } from "@/core/language/language";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { BesideTable } from "./checks-table";
import { FitPart } from "./fit-part";
import { useBorn } from "./use-born";
import { useDrawnCapacitors } from "./use-capacitors";
import { Verdict } from "./verdict";

export function SubstituteResistor({ part }: { part: Element }) {
  const { circuit, year } = useDrawnCapacitors();
  const { settings } = useJob();
  const { born, failed } = useBorn(part.name);
  const [offer, setOffer] = useState<ResistorOffer>();
  const failOpen = shouldFailOpen(circuit, part);
  const ohmsText = formatQuantity(part.value!, "Ω", 3).replace(/[.,]0+ /, " ");
  const { field, onSubmit, refused } = useTypedForm(
    { ohms: ohmsText, watts: "", kind: failOpen ? "metal-oxide" : "metal-film", volts: "" },
    (v) => {
      const ohms = parseQuantity(v.ohms, { unit: "Ω", decimal: settings.decimal });
      if (!ohms.ok || !(ohms.quantity.value > 0))
        return `Ohms: ${ohms.ok ? "above zero is wanted" : `${ohms.why}; accepted: ${ohms.accepted}`}`;
      const watts = parseQuantity(v.watts || String(suggested), { unit: "W", decimal: settings.decimal });
      if (!watts.ok || !(watts.quantity.value > 0)) return `Watts: ${watts.ok ? "above zero is wanted" : `${watts.why}; accepted: 2`}`;
      const volts = v.volts.trim() ? parseQuantity(v.volts, { unit: "V", decimal: settings.decimal }) : undefined;
      if (volts && !volts.ok) return `Volts: ${volts.why}; accepted: ${volts.accepted}`;
      setOffer({
        ohms: ohms.quantity.value,
        watts: watts.quantity.value,
        kind: v.kind,
        ...(volts?.ok ? { volts: volts.quantity.value } : {}),
      });
      return { ...v, watts: v.watts || String(suggested) };
    },
  );
  const suggested = ratingFor(Math.max(0.5, 2 * (born?.watts ?? 0)), STANDARD_WATTS) ?? 100;
  const set = offer
    ? [
        `${part.name}=${spiceNumber(offer.ohms)}`,
        `${part.name}.watts=${offer.watts}`,
        `${part.name}.kind=${offer.kind}`,
        `${part.name}.year=${year}`,
      ]
    : [];
  const checks =
    offer &&
    born &&
    checkResistor(
      { name: part.name, ohms: part.value!, tol: part.notes.tol ?? 0.1, watts: born.watts ?? 0, volts: born.volts, failOpen },
      offer,
    );
  return (
    <>
      <Section title={part.name} hint={failOpen ? "a short behind it would burn it: it should go open" : undefined}>
        {failed && <p role="alert">{failed}</p>}
        {born && (
          <p className="soft mb-2 text-sm">
            {formatQuantity(born.watts ?? 0, "W", 2)} in it and {Math.round(born.volts)} V across it with the mains up a tenth.
          </p>
        )}
        <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
          <Field label="Ohms">
            <input className="input w-28" {...field("ohms")} />
          </Field>
          <Field label="Watts">
            <input className="input w-24" placeholder={figure(suggested)} {...field("watts")} />
          </Field>
          <Field label="Kind">
            <select className="select w-40" {...field("kind")}>
              {RESISTOR_KINDS.map((k) => (
                <option key={k}>{k}</option>
              ))}
            </select>
          </Field>
          <Field label="Volts it may have across it">
            <input className="input w-32" placeholder="usual" {...field("volts")} />
          </Field>
          <button className="btn btn-primary" disabled={!born}>
            Check it
          </button>
          <Refused className="basis-full">{refused}</Refused>
        </form>
      </Section>
      {offer && checks && (
        <Verdict
          part={part}
          checks={checks}
          set={set}
          newPart={`${formatQuantity(offer.ohms, "Ω", 3)} ${figure(offer.watts)} W ${offer.kind}`}
          done={() => setOffer(undefined)}
        />
      )}
    </>
  );
}

/** A choke where the resistor is: only between two points of the supply. */
export function SubstituteChoke({ part }: { part: Element }) {
  const { circuit, netlist, mains } = useDrawnCapacitors();
  const { settings, capacitors } = useJob();
  const [offer, setOffer] = useState<{ henries: number; ohms: number }>();
  const { field, onSubmit, refused } = useTypedForm({ henries: "10", ohms: "200" }, (v) => {
    const [henries, ohms] = [
      parseQuantity(v.henries, { unit: "H", decimal: settings.decimal }),
      parseQuantity(v.ohms, { unit: "Ω", decimal: settings.decimal }),
    ];
    if (!henries.ok || !(henries.quantity.value > 0))
      return `Henries: ${henries.ok ? "above zero is wanted" : `${henries.why}; accepted: 10`}`;
    if (!ohms.ok || !(ohms.quantity.value > 0)) return `Ohms: ${ohms.ok ? "above zero is wanted" : `${ohms.why}; accepted: 200`}`;
    setOffer({ henries: henries.quantity.value, ohms: ohms.quantity.value });
    return v;
  });
  const set = offer ? [`${part.name}=choke:${spiceNumber(offer.henries)}:${spiceNumber(offer.ohms)}`] : [];
  const beside = useAnswer(capacitors && offer && JSON.stringify([netlist, set, mains]), () => capacitors!.beside(netlist, set, mains));
  const points = circuit.points.filter((p) => !p.name.includes(".")).map((p) => p.node);
  if (!part.nodes.every((n) => points.includes(n))) return null;
  const then = beside.answer?.then.over ?? [];
  const checks = beside.answer && [
    {
      what: "ratings of the amp",
      needs: "within",
      has: then.length > 0 ? then.join(", ") : "within",
      verdict: then.some((o) => !beside.answer!.now.over.includes(o)) ? ("out" as const) : ("in" as const),
      why: "less is lost in a choke than in a resistor: the rails behind it rise",
    },
  ];
  return (
    <Section title={`A choke for ${part.name}`} hint="less ripple for less voltage lost; the rails behind it rise">
      <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
        <Field label="Henries">
          <input className="input w-24 text-right" {...field("henries")} />
        </Field>
        <Field label="Ohms of its winding">
          <input className="input w-28 text-right" {...field("ohms")} />
        </Field>
        <button className="btn btn-outline">Check it</button>
        <Refused className="basis-full">{refused}</Refused>
      </form>
      {offer && <BesideTable part={part.name} beside={beside.answer} failed={beside.failed} />}
      {offer && checks && (
        <FitPart
          fits={[
            {
              part,
              newPart: `choke ${formatQuantity(offer.henries, "H", 2)}, ${formatQuantity(offer.ohms, "Ω", 3)}`,
              set,
              checks,
              reason: "",
            },
          ]}
          done={() => setOffer(undefined)}
        />
      )}
    </Section>
  );
}
