"use client";
/** Supply droppers from values that exist, with the effect on every later node; a choke against a resistor. */

import { words } from "@/core/language/language";
import { useState } from "react";
import { supplyChain } from "@/core/anatomy/points";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { WideTable } from "../../forms/wide-table";
import { TryPart } from "../../frame/try-part";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { keyOf, useStage } from "./use-stage";

export function Droppers() {
  const { circuit } = useStage();
  const points = supplyChain(circuit)
    .slice(1)
    .filter((s) => s.droppers.some((d) => d.letter === "R" || d.letter === "L"));
  if (points.length === 0) return <p>{words("This supply has no dropper between its points.")}</p>;
  return (
    <div className="space-y-4">
      <Dropper
        points={points.filter((s) => s.droppers.findLast((d) => d.letter === "R" || d.letter === "L")?.letter === "R").map((s) => s.point)}
      />
      <Choke points={points.map((s) => s.point)} />
    </div>
  );
}

interface NamedPoint {
  name: string;
  label: string;
}

const PointField = ({ points, ...rest }: { points: NamedPoint[] } & React.SelectHTMLAttributes<HTMLSelectElement>) => (
  <select className="select w-56" {...rest}>
    {points.map((p) => (
      <option key={p.name} value={p.name}>
        {p.name} {p.label}
      </option>
    ))}
  </select>
);

function Dropper({ points }: { points: NamedPoint[] }) {
  const { output, settings } = useJob();
  const { netlist, mains } = useStage();
  const [window, setWindow] = useState<{ point: string; low: number; high: number }>();
  const { field, onSubmit, refused } = useTypedForm({ point: points[0]?.name ?? "", low: "", high: "" }, (typed) => {
    const [low, high] = [typed.low, typed.high].map((text) => parseQuantity(text, { unit: "V", decimal: settings.decimal }));
    if (!low!.ok) return `From: ${low!.why}; accepted: 250`;
    if (!high!.ok) return `To: ${high!.why}; accepted: 265`;
    if (high!.quantity.value <= low!.quantity.value) return "The lower figure first";
    setWindow({ point: typed.point, low: low!.quantity.value, high: high!.quantity.value });
    return typed;
  });
  const key = output && window && keyOf("dropper", netlist, window, mains);
  const { answer, failed } = useAnswer(key, () => output!.dropper(netlist, window!.point, window!, mains));
  if (points.length === 0) return null;
  return (
    <Section title="Dropper for a window" hint="values that exist, at the idle that the amp has now">
      <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
        <Field label="Supply point">
          <PointField points={points} {...field("point")} />
        </Field>
        <Field label="From, V">
          <input className="input w-28 text-right" inputMode="decimal" {...field("low")} />
        </Field>
        <Field label="To, V">
          <input className="input w-28 text-right" inputMode="decimal" {...field("high")} />
        </Field>
        <button className="btn">Find values</button>
      </form>
      <Refused>{refused}</Refused>
      {failed && <p role="alert">{failed}</p>}
      {answer && (
        <div className="mt-2">
          <p className="text-xl font-bold">
            {answer.choices[0]
              ? `${answer.part}: ${formatQuantity(answer.choices[0].ohms, "Ω", 3)}, ${formatQuantity(answer.choices[0].fit, "W", 2)} gives ${formatVolts(answer.choices[0].volts)}; now ${formatVolts(answer.now)}.`
              : `No E12 value for ${answer.part} reaches the window: ${answer.reaches!.map((v) => formatVolts(v)).join(" to ")} can be had.`}
          </p>
          {answer.choices.length > 0 && (
            <WideTable label="Dropper values" className="table table-sm">
              <thead>
                <tr>
                  <th>{answer.part}</th>
                  <th className="text-right">Fit</th>
                  <th className="text-right">Ripple</th>
                  {answer.choices[0]!.nodes.map((n) => (
                    <th key={n.point} className="text-right">
                      {n.point}
                    </th>
                  ))}
                  <th />
                </tr>
              </thead>
              <tbody>
                {answer.choices.map((c) => (
                  <tr key={c.ohms}>
                    <td className="font-bold">{formatQuantity(c.ohms, "Ω", 3)}</td>
                    <td className="text-right">{formatQuantity(c.fit, "W", 2)}</td>
                    <td className="text-right">{formatQuantity(c.ripple, "V", 2)}</td>
                    {c.nodes.map((n) => (
                      <td key={n.point} className="text-right tabular-nums">
                        {formatVolts(n.volts)}
                        {Math.abs(n.change) >= 0.5 && (
                          <span className="soft block text-xs">
                            {n.change > 0 ? "+" : "−"}
                            {formatVolts(Math.abs(n.change))}
                          </span>
                        )}
                      </td>
                    ))}
                    <td>
                      <TryPart
                        label="Try it"
                        trial={() => ({
                          position: answer.part,
                          newPart: `${formatQuantity(c.ohms, "Ω", 3)}, ${formatQuantity(c.fit, "W", 2)}`,
                          set: [`${answer.part}=${c.ohms}`],
                          hypothesis: `${window!.point} at ${formatVolts(c.volts)}`,
                          before: formatVolts(answer.now),
                        })}
                      />
                    </td>
                  </tr>
                ))}
              </tbody>
            </WideTable>
          )}
        </div>
      )}
    </Section>
  );
}

function Choke({ points }: { points: NamedPoint[] }) {
  const { output, settings } = useJob();
  const { netlist, mains } = useStage();
  const [asked, setAsked] = useState<{ point: string; henries: number; dcr: number; ohms: number }>();
  const { field, onSubmit, refused } = useTypedForm({ point: points[0]!.name, henries: "5", dcr: "100", ohms: "1k" }, (typed) => {
    const made: Record<string, number> = {};
    for (const [name, unit] of [
      ["henries", "H"],
      ["dcr", "Ω"],
      ["ohms", "Ω"],
    ] as const) {
      const parsed = parseQuantity(typed[name], { unit, decimal: settings.decimal });
      if (!parsed.ok || !(parsed.quantity.value > 0))
        return `${name === "henries" ? "Choke" : name === "dcr" ? "Its winding" : "Resistor"}: read ${typed[name]}; accepted: a figure above 0, such as ${name === "henries" ? "5" : "100"}`;
      made[name] = parsed.quantity.value;
    }
    setAsked({ point: typed.point, henries: made.henries!, dcr: made.dcr!, ohms: made.ohms! });
    return typed;
  });
  const key = output && asked && keyOf("choke", netlist, asked, mains);
  const { answer, failed } = useAnswer(key, () =>
    output!.choke(netlist, asked!.point, { ...asked!, ...(mains === undefined ? {} : { mains }) }),
  );
  return (
    <Section title="Choke against resistor" hint="the filter before a point">
      <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
        <Field label="Supply point">
          <PointField points={points} {...field("point")} />
        </Field>
        <Field label="Choke, H">
          <input className="input w-24 text-right" {...field("henries")} />
        </Field>
        <Field label="Its winding, Ω">
          <input className="input w-24 text-right" {...field("dcr")} />
        </Field>
        <Field label="Resistor, Ω">
          <input className="input w-24 text-right" {...field("ohms")} />
        </Field>
        <button className="btn">Compare</button>
      </form>
      <Refused>{refused}</Refused>
      {failed && <p role="alert">{failed}</p>}
      {answer && (
        <WideTable label="Choke against resistor" className="table table-sm mt-2">
          <thead>
            <tr>
              <th>Before {asked!.point}</th>
              <th className="text-right">Volts</th>
              <th className="text-right">Ripple</th>
              <th className="text-right">Falls with 50 mA more</th>
              <th className="text-right">Heat in it</th>
            </tr>
          </thead>
          <tbody>
            {answer.map((c) => (
              <tr key={c.what}>
                <td className="font-bold">{c.what}</td>
                <td className="text-right">{formatVolts(c.volts)}</td>
                <td className="text-right">{formatQuantity(c.ripple, "V", 2)}</td>
                <td className="text-right">{formatVolts(c.sag)}</td>
                <td className="text-right">{formatQuantity(c.watts, "W", 2)}</td>
              </tr>
            ))}
          </tbody>
        </WideTable>
      )}
    </Section>
  );
}
