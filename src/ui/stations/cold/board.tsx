"use client";
/** Volts on a grid that should have none: the capacitor before it, the board, or the tube? Asked step by step; cleaning with its before and after. */

import { questionAsked } from "@/core/repair/owner-acts";
import { isolate } from "@/core/diagnosis/isolate";
import { boardTable } from "@/core/capacitor/board-table";
import { gridsCleaned, stripGrids, type StripGrid } from "@/core/capacitor/board-cleaned";
import { leakFromGrid } from "@/core/capacitor/coupling-leak";
import type { Circuit } from "@/core/circuit/circuit";
import { figure, words } from "@/core/language/language";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { latestReading, type JobState } from "@/core/tape/fold";
import { useState } from "react";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";

/** From here on volts on a grid at rest are more than contact bias and the meter. */
const SEEN = 0.1;

export function BoardOrCapacitor({ circuit }: { circuit: Circuit }) {
  const { view } = useJob();
  const { state, rows } = view;
  const grids = stripGrids(circuit);
  const volts = (node: string) => rows.find((r) => r.point.node === node)?.expected?.volts;
  const high = grids.filter((g) => {
    const read = latestReading(state, g.point)?.value;
    return read !== undefined && read - Math.min(0, volts(g.node) ?? 0) > SEEN;
  });
  const [picked, pick] = useState<string>();
  const grid = grids.find((g) => g.point === picked) ?? high[0] ?? grids[0];
  if (!grid) return null;
  return (
    <Section title="Board or capacitor?" hint="volts on a grid that should rest at nothing">
      <Field label="Grid">
        <select className="select w-96" value={grid.point} onChange={(e) => pick(e.target.value)}>
          {grids.map((g) => (
            <option key={g.point} value={g.point}>
              {g.point} behind {g.part}
              {high.includes(g) ? `: ${formatVolts(latestReading(state, g.point)!.value)}` : ""}
            </option>
          ))}
        </select>
      </Field>
      <Steps grid={grid} neighbours={neighboursSay(grid, grids, high, state)} volts={volts} key={grid.point} />
      <Cleaned circuit={circuit} grids={grids} volts={volts} />
    </Section>
  );
}

/** What the readings say already of the other grids; nothing where none of them was read. */
function neighboursSay(grid: StripGrid, grids: StripGrid[], high: StripGrid[], state: JobState): string | undefined {
  const others = grids.filter((g) => g !== grid && latestReading(state, g.point) !== undefined);
  if (others.length === 0 || !high.includes(grid)) return undefined;
  return others.some((g) => high.includes(g)) ? "several grids" : "one grid";
}

interface StepsProps {
  grid: StripGrid;
  /** Answer to the question of the other grids, where the tape has it. */
  neighbours?: string;
  volts(node: string): number | undefined;
}

function Steps({ grid, neighbours, volts }: StepsProps) {
  const { view, say } = useJob();
  const { state } = view;
  const table = boardTable(grid.part, grid.tube ?? words("the tube"));
  const cleaned = state.boardsCleaned.findLast((b) => b.grids.includes(grid.point))?.seq ?? 0;
  const asked = state.boardTests.filter((t) => t.grid === grid.point && (t.seq > cleaned || cleaned === 0));
  // What was read counts as answered; what somebody has answered counts before it.
  const answers = [
    ...(neighbours && !asked.some((a) => a.test === "neighbours") ? [{ seq: 0, test: "neighbours", outcome: neighbours }] : []),
    ...asked,
  ];
  const found = isolate(
    table,
    answers.map(({ test, outcome }) => ({ test, outcome })),
  );
  const read = latestReading(state, grid.point)?.value;
  const source = volts(grid.source);
  const rest = Math.min(0, volts(grid.node) ?? 0);
  const leak =
    read !== undefined && source !== undefined && read > rest && read < source
      ? leakFromGrid(source, grid.leakOhms, read, undefined, rest)
      : undefined;
  const next = found.next[0];
  return (
    <div className="mt-3 space-y-2">
      {read === undefined ? (
        <p>
          Read {grid.point} at Walk first, {words("power on, no signal")}.
        </p>
      ) : (
        <p className="soft text-sm">
          {formatVolts(read)} read
          {leak &&
            Number.isFinite(leak.ohms) &&
            `: ${formatQuantity(leak.ohms, "Ω", 2)} from the ${formatVolts(source!)} side, were it a leak; ${formatVolts(leak.unloadedVolts)} without the meter`}
          . {words("The same volts follow from a leaky capacitor, a board that conducts, or grid current: only what changes them tells.")}
        </p>
      )}
      <p className="text-2xl font-bold" data-testid="board-says">
        {found.found
          ? `${cap(found.found.says)}.`
          : found.doubtful
            ? "The answers contradict each other: do the marked ones again."
            : "Cannot tell yet."}
      </p>
      <p className="text-sm">{found.causes.map((c) => `${c.says} ${Math.round(c.probability * 100)} %`).join("; ")}</p>
      {answers.length > 0 && (
        <ul className="text-sm">
          {answers.map((a) => (
            <li key={a.seq} className={found.recheck.some((r) => r.id === a.test) ? "text-warning" : ""}>
              {table.tests.find((t) => t.id === a.test)?.what ?? a.test}: <strong>{a.outcome}</strong>
            </li>
          ))}
        </ul>
      )}
      {next && !found.found && (
        <div className="rounded border border-base-300 bg-base-200 p-3">
          <p className="text-lg">{next.what}</p>
          <div className="mt-2 flex flex-wrap gap-2">
            {next.outcomes.map((outcome) => (
              <button
                key={outcome}
                className="btn btn-outline"
                onClick={() => say({ type: "board-test", payload: { grid: grid.point, part: grid.part, test: next.id, outcome } })}
              >
                {cap(outcome)}
              </button>
            ))}
          </div>
        </div>
      )}
    </div>
  );
}

const cap = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** The strip cleaned: what each grid stood at before, where it is now, and the rewiring that is left. */
function Cleaned({ circuit, grids, volts }: { circuit: Circuit; grids: StripGrid[]; volts(node: string): number | undefined }) {
  const { view, say } = useJob();
  const { state } = view;
  const [strip, setStrip] = useState<ReadonlySet<string>>(new Set());
  const after = gridsCleaned(circuit, state, volts, (node) => Math.min(0, volts(node) ?? 0));
  const left = after.filter((g) => g.left);
  const question = `Rewire ${left.map((g) => g.grid).join(", ")} off the board: it still conducts after cleaning (${left.map((g) => `${g.grid} ${formatVolts(g.after!)}`).join(", ")})`;
  const asked = state.approvals.some((a) => a.what === question);
  return (
    <div className="mt-4">
      <h3 className="font-bold">Cleaning</h3>
      <div className="flex flex-wrap items-center gap-x-4">
        {grids
          .filter((g) => latestReading(state, g.point) !== undefined)
          .map((g) => (
            <label key={g.point} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="checkbox"
                checked={strip.has(g.point)}
                onChange={() =>
                  setStrip((s) => {
                    const next = new Set(s);
                    if (!next.delete(g.point)) next.add(g.point);
                    return next;
                  })
                }
              />{" "}
              {g.point}
            </label>
          ))}
        <button
          className="btn btn-outline"
          disabled={strip.size === 0}
          onClick={() => say({ type: "board-cleaned", payload: { grids: [...strip] } })}
        >
          Cleaned and dried
        </button>
      </div>
      {after.length > 0 && (
        <table className="table table-sm max-w-3xl" aria-label="Before and after cleaning">
          <thead>
            <tr>
              <th>Grid</th>
              <th className="text-right">Before</th>
              <th className="text-right">After</th>
              <th className="text-right">Through, before</th>
              <th className="text-right">Through, after</th>
              <th>Read it again</th>
            </tr>
          </thead>
          <tbody>
            {after.map((g) => (
              <tr key={g.grid}>
                <td className="font-bold">{g.grid}</td>
                <td className="text-right tabular-nums">{g.before === undefined ? "–" : formatVolts(g.before)}</td>
                <td className="text-right tabular-nums">{g.after === undefined ? "–" : formatVolts(g.after)}</td>
                <td className="text-right tabular-nums">{g.ohmsBefore === undefined ? "–" : formatQuantity(g.ohmsBefore, "Ω", 2)}</td>
                <td className="text-right tabular-nums">{g.ohmsAfter === undefined ? "–" : formatQuantity(g.ohmsAfter, "Ω", 2)}</td>
                <td>
                  <Again grid={g.grid} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {left.length > 0 && (
        <p className="mt-2 text-warning">
          ▲ {left.map((g) => g.grid).join(", ")}: still more than a {words("tube's")} own spread hides. What is left is to wire it off the
          board.{" "}
          {asked ? (
            <span>asked</span>
          ) : (
            <button className="btn btn-line btn-sm min-h-9" onClick={() => say(questionAsked({ what: question }))}>
              Ask the owner
            </button>
          )}
        </p>
      )}
    </div>
  );
}

function Again({ grid }: { grid: string }) {
  const { say, conditions, settings } = useJob();
  const { field, onSubmit, refused, typed } = useTypedForm({ text: "" }, ({ text }) => {
    const parsed = parseQuantity(text, { unit: "V", decimal: settings.decimal });
    if (!parsed.ok) return `${parsed.why}; accepted: ${figure("0.05")}, 31m`;
    const { value, digits } = parsed.quantity;
    say({ type: "reading", payload: { point: grid, kind: "dcv", value, digits, conditions } });
  });
  return (
    <form className="flex items-center gap-2" onSubmit={onSubmit}>
      <input className="input input-sm min-h-10 w-24 text-right" aria-label={`Volts on ${grid} after cleaning`} {...field("text")} />
      <button className="btn btn-sm min-h-10" disabled={!typed.text.trim()}>
        Log
      </button>
      <Refused>{refused}</Refused>
    </form>
  );
}
