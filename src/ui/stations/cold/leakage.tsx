"use client";
/** Leakage of coupling capacitors with one leg lifted: ohms from the volts, and what that does to the grid it feeds. */

import { figure, fixed, words } from "@/core/language/language";
import type { Element } from "@/core/circuit/circuit";
import { knownCapacitors } from "@/core/capacitor/known";
import { latestReading } from "@/core/tape/fold";
import { describePart } from "@/core/circuit/part-words";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { eitherOf, judgeLeak } from "@/core/capacitor/coupling-leak";
import { couplings, gridLeakOf } from "@/core/anatomy/couplings";
import { Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { BoardOrCapacitor } from "./board";
import { useJob } from "../../job/job-context";
import { VerdictMark } from "../../forms/verdict-mark";

export function Leakage() {
  const { view, energyKind } = useJob();
  const { circuit, state, rows } = view;
  if (!circuit) return null;
  const list = couplings(circuit);
  const known = knownCapacitors(circuit, state);
  // As it was read off the part, where somebody has.
  const told = (c: Element) => {
    const own = known.find((k) => k.name === c.name);
    return describePart(own ? { ...c, value: own.farads, notes: { ...c.notes, volts: own.volts, kind: own.kind } } : c);
  };
  const sourceOf = (c: Element) => Math.max(0, ...c.nodes.map((n) => rows.find((r) => r.point.node === n)?.expected?.volts ?? 0));

  const example = list.map((c) => ({ c, leak: gridLeakOf(circuit, c), source: sourceOf(c) })).find((x) => x.leak && x.source > 0);
  return (
    <>
      <Section title="Leakage of coupling capacitors" hint="lift the leg on the grid side, meter from it to chassis, power on">
        <p className="mb-2 max-w-3xl">
          The leg is lifted on an amp that is <strong>proven dead</strong>; then switch on and read the volts at the lifted leg with a 10 MΩ
          meter, as at any live point.{" "}
          {energyKind !== "live" && <span className="soft">The amp is not on now: log here only what you read while it was on.</span>}
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
                    <strong>{c.name}</strong> <span className="soft">{told(c)}</span>
                  </td>
                  <td className="text-right tabular-nums">{source > 0 ? formatVolts(source) : "–"}</td>
                  <td className="text-right tabular-nums">{leak ? formatQuantity(leak.ohms, "Ω", 3) : "–"}</td>
                  <td>
                    <LiftedLeg name={c.name} source={source} shown={reading?.value} />
                  </td>
                  <td>
                    {judged ? (
                      <>
                        <VerdictMark verdict={judged.verdict} word />{" "}
                        <span className="text-xs">
                          {Number.isFinite(judged.ohms) ? `leaks through ${formatQuantity(judged.ohms, "Ω", 2)}` : "no leak measurable"}
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
      <BoardOrCapacitor circuit={circuit} />
    </>
  );
}

/** The volts at one lifted leg, as evidence of a leak; at most what stands on the other side. */
function LiftedLeg({ name, source, shown }: { name: string; source: number; shown?: number }) {
  const { say, conditions, settings } = useJob();
  const { field, onSubmit, refused, typed } = useTypedForm({ text: "" }, ({ text }) => {
    const parsed = parseQuantity(text, { unit: "V", decimal: settings.decimal });
    if (!parsed.ok) return `${parsed.why}; accepted: ${figure("0.4")}, 31m`;
    const { value, digits, echo } = parsed.quantity;
    if (value < 0 || (source > 0 && value > source)) return `${echo}: accepted 0 to the ${formatVolts(source)} on the other side`;
    say({ type: "reading", payload: { point: name, kind: "leak", value, digits, conditions } });
  });
  return (
    <>
      <form className="flex items-center gap-2" onSubmit={onSubmit}>
        <input
          className="input input-sm min-h-10 w-24 text-right"
          aria-label={`Volts at the lifted leg of ${name}`}
          aria-invalid={refused !== ""}
          placeholder={shown === undefined ? "" : figure(shown)}
          {...field("text")}
        />
        <button className="btn btn-sm min-h-10" disabled={!typed.text.trim()}>
          Log
        </button>
      </form>
      <Refused>{refused}</Refused>
    </>
  );
}

/** The same volts on a grid follow from a leak or from grid current: in circuit nobody can tell. */
function WhyNotInCircuit({ source, ohms, name }: { source: number; ohms: number; name: string }) {
  const either = eitherOf(source, ohms, 1);
  return (
    <p className="soft mb-3 max-w-3xl text-sm">
      Why not in circuit: one volt on the grid behind {name} is a leak of {formatQuantity(either.leakOhms, "Ω", 2)}, or a sound capacitor
      and {fixed(either.gridMicroamps, 1)} {words("µA of grid current from a gassy tube. An ohmmeter with")} {figure("0.3")} V sees neither.
    </p>
  );
}
