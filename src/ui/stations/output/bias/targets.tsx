"use client";
/** The schools' targets side by side, each with what it means for the tubes; what label and manual say, which is gone by, and why. */

import { figure, words } from "@/core/language/language";
import type { Target } from "@/core/output/targets";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import type { IdleSchool } from "@/core/tape/events/words";
import { Field, Section } from "../../../forms/section";
import { Refused, useTypedForm } from "../../../forms/typed-form";
import { WideTable } from "../../../forms/wide-table";
import { useJob } from "../../../job/job-context";
import { percent, useStage } from "../use-stage";

const NAME: Record<IdleSchool, string> = {
  cool: "Cool",
  middle: "Middle",
  hot: "Hot",
  label: "Label",
  manual: "Manual",
  crossover: "Crossover gone",
  brief: "Owner's brief",
  own: "Own figure",
};

export function Targets({ targets, chosen, choose }: { targets: Target[]; chosen: IdleSchool; choose(school: IdleSchool): void }) {
  const { facts } = useStage();
  return (
    <Section title="Target" hint={words("for each tube, at the volts that this idle leaves")}>
      <WideTable label="Targets by school" className="table table-sm">
        <thead>
          <tr>
            <th>School</th>
            <th className="text-right">Plate current</th>
            <th className="text-right">At</th>
            <th className="text-right">Of the rating</th>
            <th className="text-right">Screen</th>
            <th>Why</th>
          </tr>
        </thead>
        <tbody>
          {targets.map((t) => (
            <tr key={t.school} className={t.school === chosen ? "bg-base-200 font-bold" : ""}>
              <td>
                <label className="flex min-h-11 items-center gap-2">
                  <input type="radio" className="radio" name="school" checked={t.school === chosen} onChange={() => choose(t.school)} />
                  {NAME[t.school]}
                </label>
              </td>
              <td className="text-right whitespace-nowrap tabular-nums">{formatQuantity(t.amps, "A", 3)}</td>
              <td className="text-right whitespace-nowrap tabular-nums">{formatVolts(t.plateVolts)}</td>
              <td className="text-right whitespace-nowrap tabular-nums">
                {t.above ? "▲ " : ""}
                {percent(t.ofRating)}
              </td>
              <td className="text-right whitespace-nowrap tabular-nums">{percent(t.ofScreenRating)}</td>
              <td className="font-normal">{t.why}</td>
            </tr>
          ))}
        </tbody>
      </WideTable>
      {facts.crossover === undefined && (
        <p className="soft text-sm">The idle at which the crossover notch is gone appears here once the Waveform tab has been opened.</p>
      )}
      <Figures chosen={chosen} choose={choose} />
    </Section>
  );
}

/** Label and manual are both kept, with the choice between them. */
function Figures({ chosen, choose }: { chosen: IdleSchool; choose(school: IdleSchool): void }) {
  const { say, settings } = useJob();
  const { facts, setFacts, stage } = useStage();
  const shown = (amps: number | undefined) => (amps === undefined ? "" : figure(Number((amps * 1e3).toPrecision(3))));
  const { field, onSubmit, refused } = useTypedForm(
    { label: shown(facts.label), manual: shown(facts.manual), own: shown(facts.own), reason: "" },
    (typed) => {
      const milliamps: Record<string, number> = {};
      for (const name of ["label", "manual", "own"] as const) {
        if (typed[name].trim() === "") continue;
        const parsed = parseQuantity(typed[name], { decimal: settings.decimal });
        if (!parsed.ok || !(parsed.quantity.value > 0 && parsed.quantity.value < 1000))
          return `${name}: read ${typed[name]}; accepted: milliamperes of plate current for each tube, such as 38`;
        milliamps[name] = parsed.quantity.value;
      }
      const { label, manual, own } = milliamps;
      setFacts({
        ...facts,
        label: label === undefined ? undefined : label / 1e3,
        manual: manual === undefined ? undefined : manual / 1e3,
        own: own === undefined ? undefined : own / 1e3,
      });
      if (label !== undefined && manual !== undefined && Math.abs(label / manual - 1) > 0.05 && !typed.reason.trim())
        return "Label and manual disagree: say which is gone by, and why";
      say({
        type: "bias-figures",
        payload: {
          stage: stage.name,
          chosen,
          ...(label === undefined ? {} : { labelMilliamps: label }),
          ...(manual === undefined ? {} : { manualMilliamps: manual }),
          ...(own === undefined ? {} : { ownMilliamps: own }),
          ...(typed.reason.trim() ? { reason: typed.reason.trim() } : {}),
        },
      });
      choose(chosen);
      return typed;
    },
  );
  const input = (name: "label" | "manual" | "own", label: string) => (
    <Field label={label}>
      <input className="input w-28 text-right" inputMode="decimal" {...field(name)} />
    </Field>
  );
  return (
    <form className="mt-3 flex flex-wrap items-end gap-3" onSubmit={onSubmit} aria-label="Figures of label and manual">
      {input("label", words("Label, mA a tube"))}
      {input("manual", words("Manual, mA a tube"))}
      {input("own", words("Own, mA a tube"))}
      <Field label="Reason for the choice" className="grow">
        <input className="input w-full" {...field("reason")} />
      </Field>
      <button className="btn">Log the choice: {NAME[chosen]}</button>
      <Refused>{refused}</Refused>
    </form>
  );
}
