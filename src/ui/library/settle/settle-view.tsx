"use client";
/** The model fitted to what is known to be right: a chart typed down the list of points, readings of a sound amp, measured windings. */

import { useState } from "react";
import { setChart, setChartFigure } from "@/core/circuit/edit-line";
import type { Circuit, Element } from "@/core/circuit/circuit";
import { figure, typedNumber, words } from "@/core/language/language";
import type { SolverPort } from "@/core/ports/solver-port";
import { SolverCancelled } from "@/core/ports/solver-port";
import { chartOf, readGiven, type Given, type Measured } from "@/core/settle/given";
import type { Settled } from "@/core/settle/settle";
import { writeSettled } from "@/core/settle/write-settled";
import { parseQuantity } from "@/core/quantity/parse";
import { FileField } from "../../forms/file-field";

import { Field } from "../../forms/section";
import { ChartTable } from "./chart-table";
import { SettledTables } from "./settled-tables";

/** A list of readings. */
const READINGS_FILES = { "text/csv": [".csv"] };

interface SettleViewProps {
  text: string;
  setText(text: string): void;
  circuit: Circuit;
  solver: SolverPort;
}

interface Windings {
  /** What was typed, by part and parameter. */
  [key: string]: string;
}

export function SettleView({ text, setText, circuit, solver }: SettleViewProps) {
  const [mains, setMains] = useState(circuit.chart ? figure(circuit.chart.mains) : "");
  const [meter, setMeter] = useState(circuit.chart?.meterOhmsPerVolt ? String(circuit.chart.meterOhmsPerVolt) : "");
  const [typed, setTyped] = useState<Record<string, string>>(() =>
    Object.fromEntries(circuit.points.map((p) => [p.name, p.chart === undefined ? "" : figure(p.chart)])),
  );
  const [windings, setWindings] = useState<Windings>({});
  const [files, setFiles] = useState<{ name: string; given: Given[]; measured: Measured[] }[]>([]);
  const [problem, setProblem] = useState("");
  const [progress, setProgress] = useState<number>();
  const [settled, setSettled] = useState<Settled>();
  const measurable = circuit.elements.flatMap((e): { e: Element; key: "vac" | "dcr"; says: string }[] =>
    typeof e.params.vac === "number"
      ? [{ e, key: "vac", says: words("winding volts, AC") }]
      : typeof e.params.dcr === "number"
        ? [{ e, key: "dcr", says: "ohms of the primary" }]
        : [],
  );

  /** The file with the chart as it is typed; the reason when something cannot be read. */
  function withChart(): { text: string; volts: Map<string, number> } | string {
    const volts = new Map<string, number>();
    for (const [name, value] of Object.entries(typed)) {
      if (value.trim() === "") continue;
      const read = parseQuantity(value, { unit: "V", decimal: value.includes(",") ? "," : "." });
      if (!read.ok) return `${name}: ${read.read} is not a voltage; ${read.accepted} is accepted`;
      volts.set(name, read.quantity.value);
    }
    const at = typedNumber(mains);
    if (volts.size > 0 && !(at > 0 && at < 500))
      return words("The chart's mains is wanted: the volts at the wall that its figures were measured at");
    const perVolt = meter.trim() === "" ? undefined : parseQuantity(meter, { unit: "Ω" });
    if (perVolt && !perVolt.ok) return `Meter: ${perVolt.read} is not ohms per volt; 20k is accepted`;
    let out = text;
    for (const p of circuit.points) if (p.line > 0) out = setChartFigure(out, p.line, volts.get(p.name));
    if (volts.size > 0) out = setChart(out, at, perVolt?.ok ? perVolt.quantity.value : undefined);
    return { text: out, volts };
  }

  function measured(): Measured[] | string {
    const out: Measured[] = files.flatMap((f) => f.measured);
    for (const { e, key } of measurable) {
      const value = windings[`${e.name} ${key}`]?.trim();
      if (!value) continue;
      const read = parseQuantity(value, { unit: key === "vac" ? "V" : "Ω" });
      if (!read.ok || !(read.quantity.value > 0)) return `${e.name}: ${value} cannot be read; a number above zero is accepted`;
      out.push({ part: e.name, key, value: read.quantity.value });
    }
    return out;
  }

  async function run() {
    setSettled(undefined);
    setProblem("");
    const chart = withChart();
    if (typeof chart === "string") return setProblem(chart);
    const known = measured();
    if (typeof known === "string") return setProblem(known);
    const points = circuit.points.map((p) => ({ ...p, chart: chart.volts.get(p.name) }));
    const at = typedNumber(mains);
    const perVolt = meter.trim() === "" ? undefined : parseQuantity(meter, { unit: "Ω" });
    const given = [
      ...(chart.volts.size > 0
        ? chartOf({ ...circuit, points, chart: { mains: at, meterOhmsPerVolt: perVolt?.ok ? perVolt.quantity.value : undefined } })
        : []),
      ...files.flatMap((f) => f.given),
    ];
    setProgress(0);
    try {
      setSettled(await solver.settle(chart.text, given, known, setProgress));
    } catch (error) {
      if (!(error instanceof SolverCancelled)) setProblem((error as Error).message);
    } finally {
      setProgress(undefined);
    }
  }

  async function load(file: File | undefined) {
    if (!file) return;
    const read = readGiven(await file.text(), circuit, "reading", circuit.mains?.volts);
    if (read.problems.length > 0)
      return setProblem(
        read.problems
          .slice(0, 5)
          .map((p) => `${file.name} line ${p.line}: found ${p.found}; expected ${p.expected}`)
          .join(". "),
      );
    setProblem("");
    setFiles([...files, { name: file.name, ...read }]);
  }

  function keep() {
    const chart = withChart();
    if (!settled || typeof chart === "string") return;
    const on = [
      ...(chart.volts.size > 0 ? [`its chart at ${typedNumber(mains)} V`] : []),
      ...(files.length > 0 ? [`readings of ${files.length} sound ${files.length === 1 ? "amp" : "amps"}`] : []),
    ].join(" and ");
    setText(writeSettled(chart.text, circuit, settled, on));
  }

  return (
    <div className="grid gap-6 lg:grid-cols-[22rem_minmax(0,1fr)]">
      <section aria-label="What is known to be right" className="space-y-3">
        <h2 className="text-lg font-bold">What is known to be right</h2>
        <div className="flex gap-3">
          <Field label={words("Mains of the chart, V")}>
            <input className="input w-28 text-right" inputMode="decimal" value={mains} onChange={(e) => setMains(e.target.value)} />
          </Field>
          <Field label="Its meter, Ω per volt">
            <input className="input w-32 text-right" placeholder="10 MΩ meter" value={meter} onChange={(e) => setMeter(e.target.value)} />
          </Field>
        </div>
        <ChartTable circuit={circuit} typed={typed} setTyped={setTyped} />
        {measurable.length > 0 && (
          <fieldset className="space-y-1">
            <legend className="font-bold">Measured on the transformers</legend>
            {measurable.map(({ e, key, says }) => (
              <label key={e.name + key} className="flex items-center gap-2 text-sm">
                <span className="w-44">
                  <strong>{e.name}</strong> {says}
                </span>
                <input
                  className="input w-28 text-right"
                  inputMode="decimal"
                  placeholder={figure(Number(e.params[key]))}
                  value={windings[`${e.name} ${key}`] ?? ""}
                  onChange={(event) => setWindings({ ...windings, [`${e.name} ${key}`]: event.target.value })}
                />
              </label>
            ))}
          </fieldset>
        )}
        <div className="flex flex-wrap items-center gap-2">
          <FileField label="Readings of a sound amp…" name="Readings" className="btn" accept={READINGS_FILES} take={load} />
          {files.map((f, i) => (
            <button key={i} className="btn btn-ghost btn-sm" onClick={() => setFiles(files.filter((_, k) => k !== i))}>
              {f.name}: {f.given.length} figures ×
            </button>
          ))}
        </div>
      </section>
      <section aria-label="What comes of it" className="min-w-0 space-y-3">
        <div className="flex flex-wrap items-center gap-3">
          <button className="btn btn-primary h-12 text-lg" disabled={progress !== undefined} onClick={() => void run()}>
            Settle the model
          </button>
          {progress !== undefined && (
            <span role="status" className="flex items-center gap-2">
              <progress className="progress w-40" value={progress} max={1} aria-label="Settling" />
              <button className="btn btn-ghost" onClick={() => solver.cancel()}>
                Stop
              </button>
            </span>
          )}
          {settled && !settled.refused && (
            <button className="btn btn-outline h-12" onClick={keep}>
              Write it into the file
            </button>
          )}
        </div>
        {problem && (
          <p role="alert" className="text-error">
            {problem}
          </p>
        )}
        {settled ? (
          <SettledTables settled={settled} />
        ) : (
          <p className="soft max-w-prose">
            {words(
              "Winding volts, resistances and the average tube are what a computed voltage is uncertain by. Figures that were measured on a real amp of the kind fit them. Nothing changes until it is written into the file and stored as a new version.",
            )}
          </p>
        )}
      </section>
    </div>
  );
}
