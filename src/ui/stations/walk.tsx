"use client";
/** The walk: one point at a time, the reading typed, its verdict at once, then the next. Keyboard only if you like. */

import { figure, words } from "@/core/language/language";
import { lateInBrowser } from "../forms/late";
import { useEffect, useMemo, useRef, useState } from "react";
import { expectedFrom } from "@/core/expectation/modelled";
import { formatVolts } from "@/core/quantity/format";
import { movedReadings, shiftedSeries } from "@/core/walk/shifted";
import { stageColumns, staircase, type WalkRow } from "@/core/walk/walk";
import { walkLayer } from "../drawing/layers";
import { useJob, type InHand } from "../job/job-context";
import type { SolvedState } from "../job/use-solved";
import { Stays } from "../forms/stays";
import { VerdictMark } from "../forms/verdict-mark";
import { NoCircuit } from "./no-circuit";
import { WalkByTube } from "./walk-by-tube";
import { NotLive } from "./not-live";
import { ReadingsFile } from "./readings-file";
import { Idle, Outcome, Probe, ProbeBeside } from "./walk-point";
import { WideTable } from "../forms/wide-table";

// The readings come first; what is drawn of them follows.
const StageColumns = lateInBrowser(() => import("../charts/stage-columns").then((m) => m.StageColumns));
const StationDrawing = lateInBrowser(() => import("../drawing/station-drawing").then((m) => m.StationDrawing), "min-h-[31rem]");
const Staircase = lateInBrowser(() => import("../charts/staircase").then((m) => m.Staircase));

export function Walk() {
  const { view } = useJob();
  if (!view.circuit) return <WalkByTube />;
  if (view.rows.length === 0) return <NoCircuit what="The circuit of this amp has no test points." />;
  return <WalkSheet />;
}

function WalkSheet() {
  const { view, energyKind, conditions, stands, setStands, modelName, modelId, jobId, solved, inHand, setInHand } = useJob();
  const { rows, circuit } = view;
  const [at, setAt] = useState<string>();
  const [last, setLast] = useState<string>();
  /** Points that were read in this visit, oldest first. */
  const [fresh, setFresh] = useState<string[]>([]);
  // Counts how often somebody went to another point by hand.
  const [turn, setTurn] = useState(0);
  const field = useRef<HTMLInputElement>(null);
  const firstOpen = rows.find((r) => !r.reading) ?? rows[0]!;
  const row = rows.find((r) => r.point.name === at) ?? firstOpen;
  // Until one is taken in this visit, the latest reading that is out stands here: it is what the walk has to say so far.
  const worst = rows.filter((r) => r.verdict === "out").sort((a, b) => b.reading!.seq - a.reading!.seq)[0];
  const done = rows.find((r) => r.point.name === last) ?? worst;
  const stairs = useMemo(() => staircase(circuit!, rows), [circuit, rows]);
  const columns = useMemo(() => stageColumns(circuit!, rows), [circuit, rows]);

  const layer = useMemo(() => walkLayer(rows, row.point.node), [rows, row.point.node]);
  // A node that is taken in hand on the drawing is the point of the walk.
  const node = inHand && "node" in inHand ? inHand.node : undefined;
  useEffect(() => {
    const there = node === undefined ? undefined : rows.find((r) => r.point.node === node);
    if (there && row.point.node !== node) {
      setAt(there.point.name);
      setTurn((n) => n + 1);
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- when something else is taken in hand, or becomes a point
  }, [node, rows.length]);

  function to(next: WalkRow) {
    setAt(next.point.name);
    setTurn((n) => n + 1);
    setInHand({ node: next.point.node });
  }
  function go(step: 1 | -1) {
    const i = rows.findIndex((r) => r.point.name === row.point.name);
    to(rows[(i + step + rows.length) % rows.length]!);
  }
  function pick(point: string) {
    to(rows.find((r) => r.point.name === point)!);
    field.current?.focus();
  }
  function picked(on: InHand) {
    // Large, the drawing has a field of its own.
    if (!document.querySelector("[data-large]") && "node" in on && rows.some((r) => r.point.node === on.node)) field.current?.focus();
  }
  function taken(point: string) {
    setLast(point);
    setFresh((f) => [...f.filter((p) => p !== point), point]);
    const i = rows.findIndex((r) => r.point.name === point);
    const next = rows.slice(i + 1).find((r) => !r.reading) ?? rows[(i + 1) % rows.length]!;
    to(next);
  }

  return (
    <div className="space-y-4">
      {energyKind !== "live" && (
        <p className="rounded border border-warning px-3 py-2 text-sm">
          The amp is not logged as on. Voltages are taken live: use <strong>Power on…</strong> above when the bench is ready. Corrections
          can be made at any time.
        </p>
      )}
      <Solving solved={solved} chart={rows.some((r) => r.point.chart !== undefined)} />
      <Stays of={row} name={row.point.name} turn={turn}>
        {(row) => <Probe key={row.point.name} row={row} field={field} taken={taken} go={go} />}
      </Stays>
      <div aria-live="assertive" className={energyKind === "live" ? "min-h-14" : ""}>
        {done?.reading && <Outcome row={done} />}
      </div>

      <Slipped rows={rows} fresh={fresh} done={() => setFresh([])} />
      <NotLive />
      <StationDrawing layer={layer} picked={picked} beside={<ProbeBeside row={row} taken={taken} go={go} />} />
      <div className="grid min-h-72 gap-4 xl:grid-cols-[minmax(0,23rem)_minmax(0,1fr)]">
        <Staircase steps={stairs} />
        <div className="min-w-0">
          <p className="mb-1 text-sm font-bold">Stages</p>
          <StageColumns columns={columns} onPick={pick} />
        </div>
      </div>

      <p className="soft text-sm">{expectedFrom(circuit!)}</p>
      <section aria-label="Conditions" className="grid grid-cols-2 gap-3 text-sm md:grid-cols-4">
        <p>
          <span className="soft block">{words("Mains")}</span>
          {conditions.mains !== undefined ? formatVolts(conditions.mains) : "not read: enter it at the top"}
        </p>
        <p>
          <span className="soft block">{words("Tubes removed, minutes warm")}</span>
          {conditions.without?.join(", ") || words("all tubes fitted")}
          {conditions.warmMinutes !== undefined ? `, ${conditions.warmMinutes} min warm` : ""}
          {conditions.limiter ? `, behind ${conditions.limiter}` : ""}
        </p>
        <label>
          <span className="soft block">Switches</span>
          <input
            className="input input-sm min-h-8 w-full"
            placeholder="as found"
            value={stands.switches}
            onChange={(e) => setStands({ ...stands, switches: e.target.value })}
          />
        </label>
        <label>
          <span className="soft block">Controls</span>
          <input
            className="input input-sm min-h-8 w-full"
            placeholder="volume at zero"
            value={stands.controls}
            onChange={(e) => setStands({ ...stands, controls: e.target.value })}
          />
        </label>
      </section>

      <WalkTable rows={rows} here={row.point.name} pick={pick} />
      <p className="soft text-xs">
        Expected: the circuit of the {modelName ?? "amp"}{" "}
        {words(
          "solved at the mains of the reading, tubes out left out, a 10 MΩ meter on the point; the band holds 95 % of amps whose parts and tubes are within tolerance. Switches and controls are taken into account where noted by name, such as",
        )}{" "}
        “S1 open” or “P1 {figure(0.7)}”. Chart: {circuit!.chart ? `drawn for ${circuit!.chart.mains} V, ` : ""}
        {words("scaled to the mains; it may be for another revision.")}{" "}
        {modelId !== undefined && (
          <a href={`/library/${modelId}`} className="underline underline-offset-4">
            The circuit and its figures
          </a>
        )}
      </p>
      <ReadingsFile jobId={jobId} />
    </div>
  );
}

/** Readings that are all off at their own point and right at the next: did a row slip? */
function Slipped({ rows, fresh, done }: { rows: WalkRow[]; fresh: string[]; done(): void }) {
  const { say } = useJob();
  const slipped = useMemo(() => shiftedSeries(rows, fresh), [rows, fresh]);
  if (!slipped) return null;
  const { moves, by } = slipped;
  return (
    <section role="alert" aria-label="Slipped by a row" className="rounded border-2 border-warning p-3">
      <p className="text-lg font-bold">
        ▲ The last {moves.length} readings fit the point {by === 1 ? "after" : "before"} each: did they slip by a row?
      </p>
      <p className="soft text-sm">
        {moves.map((m) => `${formatVolts(m.from.reading!.value)} at ${m.from.point.name}, right for ${m.to.point.name}`).join("; ")}.
      </p>
      <div className="mt-2 flex gap-3">
        <button
          className="btn btn-primary"
          onClick={() => {
            say(...movedReadings(slipped));
            done();
          }}
        >
          Move them by one
        </button>
        <button className="btn" onClick={done}>
          They are where they belong
        </button>
      </div>
    </section>
  );
}

/** While the circuit is being solved the scaled chart stands in; once it is, this says nothing. */
function Solving({ solved, chart }: { solved: SolvedState; chart: boolean }) {
  if (solved.failed)
    return (
      <p role="status" className="rounded border border-warning px-3 py-2 text-sm">
        ▲ The circuit was not solved: {solved.failed}. {chart ? "Expectations are the scaled chart’s." : "Nothing is expected."}
      </p>
    );
  if (solved.progress === undefined) return null;
  return (
    <p role="status" className="soft flex items-center gap-3 text-sm">
      Solving the circuit for these conditions{chart ? "; until then the scaled chart stands in" : ""}.
      <progress className="progress w-40" value={solved.progress} max={1} aria-label="Solving" />
    </p>
  );
}

function WalkTable({ rows, here, pick }: { rows: WalkRow[]; here: string; pick(point: string): void }) {
  return (
    <WideTable label="All points" className="table table-sm">
      <thead>
        <tr>
          <th>Point</th>
          <th>Probe on</th>
          <th className="text-right">Chart</th>
          <th className="text-right">Expected now</th>
          <th className="text-right">Reading</th>
          <th>Verdict</th>
          <th>Current, dissipation</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.point.name} data-point={r.point.name} className={r.point.name === here ? "bg-base-200" : ""}>
            <td>
              <button className="text-left underline decoration-dotted underline-offset-4" onClick={() => pick(r.point.name)}>
                <strong>{r.point.name}</strong> <span className="soft">{r.point.label}</span>
              </button>
            </td>
            <td>{r.probeOn}</td>
            <td className="text-right tabular-nums">
              {r.expected?.chart?.disagrees && (
                <span className="text-warning" title="The circuit cannot give this: the chart may be for another revision">
                  ▲{" "}
                </span>
              )}
              {r.point.chart !== undefined ? formatVolts(r.point.chart) : "–"}
            </td>
            <td className="text-right tabular-nums">
              {r.expected ? `${formatVolts(r.expected.low).replace(" V", "")}…${formatVolts(r.expected.high)}` : "–"}
            </td>
            <td className="text-right tabular-nums font-bold">{r.reading ? formatVolts(r.reading.value) : ""}</td>
            <td>
              <VerdictMark verdict={r.verdict} word />
            </td>
            <td className="text-xs">
              {r.idle.length > 0
                ? r.idle.map((i) => (
                    <span key={i.tube} className="block">
                      <Idle idle={i} />
                    </span>
                  ))
                : r.verdict === "out" || r.verdict === "watch"
                  ? r.reason
                  : ""}
            </td>
          </tr>
        ))}
      </tbody>
    </WideTable>
  );
}
