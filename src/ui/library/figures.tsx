"use client";
/** A solved model in tables: points, tubes, stages, parts. */

import { figure, fixed, words } from "@/core/language/language";
import { useState } from "react";
import { whereToProbe } from "@/core/anatomy/sockets";
import type { Circuit, Provenance } from "@/core/circuit/circuit";
import { setProvenance } from "@/core/circuit/edit-line";
import { partWords, placeOf } from "@/core/circuit/part-place";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import type { Solution } from "@/core/expectation/solution";
import { modelled, type SolveConditions, type Solved } from "@/core/expectation/modelled";

interface FiguresProps {
  circuit: Circuit;
  solution?: Solution;
  solved?: Solved;
  conditions: SolveConditions;
  text: string;
  setText(text: string): void;
}

export function Figures(props: FiguresProps) {
  return (
    <div className="grid gap-x-8 gap-y-5 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
      <Points {...props} />
      <div className="space-y-5">
        <Tubes {...props} />
        <Stages {...props} />
      </div>
      <div className="lg:col-span-2">
        <Parts {...props} />
      </div>
    </div>
  );
}

function Points({ circuit, solution, solved, conditions }: FiguresProps) {
  if (circuit.points.length === 0)
    return <p className="soft">No test points. Lines such as *@point B1 node=b1 order=10 label=&quot;Reservoir&quot; make the walk.</p>;
  const source = modelled(circuit, () => solved);
  const points = [...circuit.points].sort((a, b) => a.order - b.order);
  return (
    <section aria-label="Test points">
      <h2 className="font-bold">Test points</h2>
      <table className="table table-sm tabular-nums">
        <thead>
          <tr>
            <th>Point</th>
            <th>Probe on</th>
            <th className="text-right">Computed</th>
            <th className="text-right">95 % of amps</th>
            <th className="text-right">Chart, scaled</th>
          </tr>
        </thead>
        <tbody>
          {points.map((p) => {
            const volts = solution?.points[p.name];
            const expected = source.expect(p, { mains: conditions.mains, without: conditions.without });
            const band = "none" in expected || expected.basis !== "model" ? undefined : expected;
            const floating = solved?.undetermined.includes(p.name);
            return (
              <tr key={p.name}>
                <td>
                  <strong>{p.name}</strong> <span className="soft">{p.label !== p.name && p.label}</span>
                </td>
                <td>{whereToProbe(circuit, p)}</td>
                <td className="text-right font-bold">
                  {volts !== undefined && Number.isFinite(volts) ? formatVolts(volts) : "–"}
                  {floating && <span className="text-warning block text-xs">▲ floating</span>}
                </td>
                <td className="text-right">{band ? `${formatVolts(band.low).replace(" V", "")}…${formatVolts(band.high)}` : ""}</td>
                <td className="text-right">
                  {band?.chart ? (
                    <>
                      {band.chart.disagrees && (
                        <span className="text-warning" title="The circuit cannot give that: another revision, or a misprint">
                          ▲{" "}
                        </span>
                      )}
                      {formatVolts(band.chart.volts)}
                    </>
                  ) : p.chart !== undefined ? (
                    <span className="soft">{formatVolts(p.chart)}</span>
                  ) : (
                    "–"
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

function Tubes({ circuit, solution }: FiguresProps) {
  return (
    <section aria-label={words("Tubes")}>
      <h2 className="font-bold">{words("Tubes at work")}</h2>
      <table className="table table-sm tabular-nums">
        <thead>
          <tr>
            <th>{words("Tube")}</th>
            <th className="text-right">Plate</th>
            <th className="text-right">Grid</th>
            <th className="text-right">Current</th>
            <th className="text-right">Plate watts</th>
          </tr>
        </thead>
        <tbody>
          {circuit.elements
            .filter((e) => e.tube)
            .map((e) => {
              const work = solution?.tubes[e.name];
              const stress = solution?.stresses.find((s) => s.part === e.name && s.kind === "plate watts");
              return (
                <tr key={e.name}>
                  <td>
                    <strong>{e.name}</strong> <span className="soft">{e.type}</span>
                  </td>
                  <td className="text-right">{work ? formatVolts(work.plateVolts) : "out"}</td>
                  <td className="text-right">{work && formatVolts(work.gridVolts)}</td>
                  <td className="text-right">
                    {work && formatQuantity(work.plateMilliamps / 1e3, "A", 3)}
                    {work?.screenMilliamps !== undefined && (
                      <span className="soft block text-xs">+ {formatQuantity(work.screenMilliamps / 1e3, "A", 3)} screen</span>
                    )}
                  </td>
                  <td className="text-right">
                    {work && formatQuantity(work.plateWatts, "W", 3)}
                    {stress?.share !== undefined && (
                      <span className={`block text-xs ${stress.share > 1 ? "verdict-out" : "soft"}`}>
                        {Math.round(stress.share * 100)} % of {stress.rated} W, {e.tube!.ratings!.system}
                      </span>
                    )}
                  </td>
                </tr>
              );
            })}
        </tbody>
      </table>
      <p className="soft text-xs">
        {words("Voltages are given from the tube’s own cathode. Ratings from published data sheets, in the system that the sheet uses.")}
      </p>
    </section>
  );
}

function Stages({ circuit, solution }: FiguresProps) {
  if (circuit.stages.length === 0) return null;
  return (
    <section aria-label="Stages">
      <h2 className="font-bold">Stages, gain at 1 kHz</h2>
      <table className="table table-sm tabular-nums">
        <tbody>
          {circuit.stages.map((s) => {
            const gain = solution?.gains[s.name];
            return (
              <tr key={s.name}>
                <td>
                  <strong>{s.name}</strong> <span className="soft">{s.label}</span>
                </td>
                <td className="soft">
                  {s.in} → {s.out}
                  {s.control && `, after ${s.control}`}
                </td>
                <td className="text-right">
                  {gain !== undefined && `× ${figure(gain.toPrecision(3))}, ${fixed(20 * Math.log10(gain), 1)} dB`}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

const PROVENANCES: (Provenance | "")[] = ["", "seen", "printed", "assumed"];

function Parts({ circuit, solution, text, setText }: FiguresProps) {
  const [all, setAll] = useState(false);
  const rows = circuit.elements
    .map((e) => ({ e, stress: solution?.stresses.find((s) => s.part === e.name && s.kind !== "plate watts") }))
    .sort((a, b) => (all ? 0 : (b.stress?.share ?? -1) - (a.stress?.share ?? -1)));
  const assumed = circuit.elements.filter((e) => e.notes.prov === "assumed").length;
  const shown = all ? rows : rows.slice(0, 12);
  return (
    <section aria-label="Parts">
      <div className="flex flex-wrap items-baseline gap-4">
        <h2 className="font-bold">Parts {all ? "in the order of the file" : "nearest to their rating"}</h2>
        <button className="btn btn-ghost btn-sm min-h-9" onClick={() => setAll(!all)}>
          {all ? "Only the most stressed" : `All ${circuit.elements.length} parts`}
        </button>
        <span className="soft text-sm">
          {assumed > 0 ? `▲ ${assumed} assumed: they are given ±30 % in the bands` : "No part is marked as assumed."} Seen, printed or
          assumed is kept in the circuit file.
        </span>
      </div>
      <table className="table table-sm tabular-nums">
        <thead>
          <tr>
            <th>Part</th>
            <th>Where</th>
            <th className="text-right">Tolerance</th>
            <th className="text-right">Stress, % of rating</th>
            <th>Source</th>
          </tr>
        </thead>
        <tbody>
          {shown.map(({ e, stress }) => (
            <tr key={e.name}>
              <td>
                <strong>{partWords(e)}</strong>{" "}
                <span className="soft">{[e.notes.kind, e.notes.year, e.notes.label].filter(Boolean).join(", ")}</span>
              </td>
              <td className="soft">{placeOf(circuit, e)}</td>
              <td className="text-right">{e.notes.tol !== undefined && `±${Math.round(e.notes.tol * 100)} %`}</td>
              <td className={`text-right ${(stress?.share ?? 0) > 1 ? "verdict-out" : ""}`}>
                {stress &&
                  `${formatQuantity(stress.value, stress.kind === "volts" ? "V" : "W", 2)}${stress.rated ? ` of ${stress.rated} ${stress.kind === "volts" ? "V" : "W"}, ${Math.round(stress.share! * 100)} %` : ""}`}
              </td>
              <td>
                <select
                  className="select select-sm min-h-9 w-32"
                  aria-label={`Source of ${e.name}`}
                  value={e.notes.prov ?? ""}
                  onChange={(ev) => ev.target.value !== "" && setText(setProvenance(text, e.line, ev.target.value as Provenance))}
                >
                  {PROVENANCES.map((p) => (
                    <option key={p} value={p} disabled={p === ""}>
                      {p || "not said"}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
