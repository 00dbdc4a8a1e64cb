"use client";
/** Leakage of coupling capacitors with one leg lifted: ohms from the volts, and what that does to the grid it feeds. */

import { useState } from "react";
import type { Element } from "@/core/circuit/circuit";
import { latestReading } from "@/core/job/fold";
import { describePart } from "@/core/job/part-words";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { eitherOf, judgeLeak } from "@/core/supply/leakage";
import { couplings, gridLeakOf } from "@/core/walk/couplings";
import { Section } from "../../forms/section";
import { useJob } from "../../frame/job-context";
import { VerdictMark } from "../../frame/verdict-mark";

export function Leakage() {
  const { view, say, conditions, settings, energy } = useJob();
  const [text, setText] = useState<Record<string, string>>({});
  const [refused, setRefused] = useState<Record<string, string>>({});
  const { circuit, state, rows } = view;
  if (!circuit) return null;
  const list = couplings(circuit);
  const sourceOf = (c: Element) => Math.max(0, ...c.nodes.map((n) => rows.find((r) => r.point.node === n)?.expected?.volts ?? 0));

  function take(c: Element, source: number) {
    const parsed = parseQuantity(text[c.name] ?? "", { unit: "V", decimal: settings.decimal });
    const no = (why: string) => setRefused({ ...refused, [c.name]: why });
    if (!parsed.ok) return no(`${parsed.why}; accepted: 0.4, 31m`);
    const volts = parsed.quantity.value;
    if (volts < 0 || (source > 0 && volts > source))
      return no(`${parsed.quantity.echo}: accepted 0 to the ${formatVolts(source)} on the other side`);
    say({ type: "reading", payload: { point: c.name, kind: "leak", value: volts, digits: parsed.quantity.digits, conditions } });
    setText({ ...text, [c.name]: "" });
    setRefused({ ...refused, [c.name]: "" });
  }
  const example = list.map((c) => ({ c, leak: gridLeakOf(circuit, c), source: sourceOf(c) })).find((x) => x.leak && x.source > 0);
  return (
    <Section title="Leakage of coupling capacitors" hint="the far leg lifted, the meter from it to chassis, power on">
      <p className="mb-2 max-w-3xl">
        The leg is lifted on an amp that is <strong>proven dead</strong>; then power on, and the volts at the lifted leg are read as a live
        point with a 10 MΩ meter.{" "}
        {energy.kind !== "live" && <span className="soft">The amp is not on now: a reading logged here is one that was taken before.</span>}
      </p>
      {example && <WhyNotInCircuit source={example.source} ohms={example.leak!.ohms} name={example.c.name} />}
      <table className="table table-sm" aria-label="Coupling capacitors">
        <thead>
          <tr>
            <th>Capacitor</th>
            <th className="text-right">Across it</th>
            <th className="text-right">Grid leak</th>
            <th>At the lifted leg, V</th>
            <th>Leak and what it does</th>
          </tr>
        </thead>
        <tbody>
          {list.map((c) => {
            const leak = gridLeakOf(circuit, c);
            const source = sourceOf(c);
            const reading = latestReading(state, c.name, "leak");
            const judged =
              reading && source > 0 && reading.value <= source ? judgeLeak(source, Math.max(0, reading.value), leak?.ohms) : undefined;
            return (
              <tr key={c.name}>
                <td>
                  <strong>{c.name}</strong> <span className="soft">{describePart(c)}</span>
                </td>
                <td className="text-right tabular-nums">{source > 0 ? formatVolts(source) : "–"}</td>
                <td className="text-right tabular-nums">{leak ? formatQuantity(leak.ohms, "Ω", 3) : "–"}</td>
                <td>
                  <form
                    className="flex items-center gap-2"
                    onSubmit={(e) => {
                      e.preventDefault();
                      take(c, source);
                    }}
                  >
                    <input
                      className="input input-sm min-h-10 w-24 text-right"
                      aria-label={`Volts at the lifted leg of ${c.name}`}
                      aria-invalid={!!refused[c.name]}
                      value={text[c.name] ?? ""}
                      placeholder={reading ? String(reading.value) : ""}
                      onChange={(e) => {
                        setText({ ...text, [c.name]: e.target.value });
                        setRefused({ ...refused, [c.name]: "" });
                      }}
                    />
                    <button className="btn btn-sm min-h-10" disabled={!(text[c.name] ?? "").trim()}>
                      Log
                    </button>
                  </form>
                  {refused[c.name] && (
                    <span role="alert" className="block text-xs text-error">
                      {refused[c.name]}
                    </span>
                  )}
                </td>
                <td>
                  {judged ? (
                    <>
                      <VerdictMark verdict={judged.verdict} word />{" "}
                      <span className="text-xs">
                        {Number.isFinite(judged.ohms) ? `leaks through ${formatQuantity(judged.ohms, "Ω", 2)}` : "no leak to be seen"}
                        {judged.why && `, ${judged.why}`}
                      </span>
                    </>
                  ) : (
                    <VerdictMark verdict="none" word />
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Section>
  );
}

/** The same volts on a grid follow from a leak or from grid current: in circuit nobody can tell. */
function WhyNotInCircuit({ source, ohms, name }: { source: number; ohms: number; name: string }) {
  const either = eitherOf(source, ohms, 1);
  return (
    <p className="soft mb-3 max-w-3xl text-sm">
      Why not in circuit: one volt on the grid behind {name} is a leak of {formatQuantity(either.leakOhms, "Ω", 2)}, or a sound capacitor
      and {either.gridMicroamps.toFixed(1)} µA of grid current from a gassy tube. An ohmmeter with 0.3 V sees neither.
    </p>
  );
}
