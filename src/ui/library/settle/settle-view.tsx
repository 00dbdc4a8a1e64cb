"use client";
/** The model fitted to what is known to be right: a chart typed down the list of points, readings of a sound amp, measured windings. */

import { useState } from "react";
import type { Circuit, Element } from "@/core/circuit/circuit";
import { readCircuit } from "@/core/circuit/read";
import { figure, language, words } from "@/core/language/language";
import type { SolverPort } from "@/core/ports/solver-port";
import { SolverCancelled } from "@/core/ports/solver-port";
import { chartOf, readGiven, type Given, type Measured } from "@/core/settle/given";
import type { Settled } from "@/core/settle/settle";
import { writeTypedChart } from "@/core/settle/typed-chart";
import { writeSettled } from "@/core/settle/write-settled";
import { onItsChart, onSoundAmps } from "@/core/texts/settle";
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

/** What was settled, and on which text and windings: what is changed afterwards has not been. */
interface Answer {
  settled: Settled;
  of: string;
  /** The file with its chart, and what it was settled on. */
  text: string;
  on: string;
}

export function SettleView({ text, setText, circuit, solver }: SettleViewProps) {
  const [mains, setMains] = useState(circuit.chart ? figure(circuit.chart.mains) : "");
  const [meter, setMeter] = useState(circuit.chart?.meterOhmsPerVolt ? String(circuit.chart.meterOhmsPerVolt) : "");
  // What nobody has touched here is what the file says.
  const [typed, setTyped] = useState<Record<string, string>>({});
  /** What was typed, by part and parameter. */
  const [windings, setWindings] = useState<Record<string, string>>({});
  const [files, setFiles] = useState<{ name: string; given: Given[]; measured: Measured[] }[]>([]);
  const [problem, setProblem] = useState("");
  const [progress, setProgress] = useState<number>();
  const [answer, setAnswer] = useState<Answer>();
  const volts = Object.fromEntries(circuit.points.map((p) => [p.name, typed[p.name] ?? (p.chart === undefined ? "" : figure(p.chart))]));
  const asked = JSON.stringify([text, volts, mains, meter, windings, files.map((f) => f.name)]);
  const settled = answer?.of === asked ? answer.settled : undefined;
  const measurable = circuit.elements.flatMap((e): { e: Element; key: "vac" | "dcr"; says: string }[] =>
    typeof e.params.vac === "number"
      ? [{ e, key: "vac", says: words("winding volts, AC") }]
      : typeof e.params.dcr === "number"
        ? [{ e, key: "dcr", says: "ohms of the primary" }]
        : [],
  );

  function measured(): Measured[] | string {
    const out: Measured[] = files.flatMap((f) => f.measured);
    for (const { e, key } of measurable) {
      const value = windings[`${e.name} ${key}`]?.trim();
      if (!value) continue;
      const read = parseQuantity(value, { unit: key === "vac" ? "V" : "Ω", decimal: language().decimal });
      if (!read.ok || !(read.quantity.value > 0)) return `${e.name}: ${value} cannot be read; a number above zero is accepted`;
      out.push({ part: e.name, key, value: read.quantity.value });
    }
    return out;
  }

  async function run() {
    setProblem("");
    const chart = writeTypedChart(text, circuit, { volts, mains, meter }, language().decimal);
    if (!chart.ok) return setProblem(chart.why);
    const known = measured();
    if (typeof known === "string") return setProblem(known);
    const on = [...(chart.figures > 0 ? [onItsChart(figure(chart.mains))] : []), ...(files.length > 0 ? [onSoundAmps(files.length)] : [])];
    const given = [...(chart.figures > 0 ? chartOf(readCircuit(chart.text).circuit) : []), ...files.flatMap((f) => f.given)];
    setProgress(0);
    try {
      setAnswer({ settled: await solver.settle(chart.text, given, known, setProgress), of: asked, text: chart.text, on: on.join(" and ") });
    } catch (error) {
      if (!(error instanceof SolverCancelled)) setProblem((error as Error).message);
    } finally {
      setProgress(undefined);
    }
  }

  async function load(file: File): Promise<void> {
    const { problems, ...read } = readGiven(await file.text(), circuit, "reading", circuit.mains?.volts);
    if (problems.length > 0)
      throw new Error(
        problems
          .slice(0, 5)
          .map((p) => `${file.name} line ${p.line}: found ${p.found}; expected ${p.expected}`)
          .join(". "),
      );
    setFiles([...files, { name: file.name, ...read }]);
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
        <ChartTable circuit={circuit} typed={volts} setTyped={setTyped} />
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
            <button className="btn btn-outline h-12" onClick={() => setText(writeSettled(answer!.text, settled, answer!.on))}>
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
