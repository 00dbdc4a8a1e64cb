"use client";
/** As found against reference: what differs, in words, and what each difference does to the amp. */

import { figure } from "@/core/language/language";
import { useEffect, useMemo, useState } from "react";
import type { Circuit } from "@/core/circuit/circuit";
import { carryOver, compareCircuits, type Difference } from "@/core/circuit/compare";
import { readCircuit } from "@/core/circuit/read";
import { writeCircuit } from "@/core/circuit/write";
import { formatVolts } from "@/core/quantity/format";
import type { Solution } from "@/core/expectation/solution";
import type { SolverPort } from "@/core/ports/solver-port";
import type { SolveConditions } from "@/core/expectation/modelled";
import type { LibraryPort, ModelHead } from "./library-port";
import { CIRCUIT_FILES, FileField } from "../forms/file-field";

const STORED = "stored";

export function CompareView({
  found,
  conditions,
  candidates,
  stored,
  port,
  solver,
  begunFrom,
}: {
  found: Circuit;
  conditions: SolveConditions;
  candidates: ModelHead[];
  /** The stored text of this model, when the text in hand differs from it. */
  stored?: string;
  port: LibraryPort;
  solver: SolverPort;
  begunFrom?: number;
}) {
  const [chosen, setChosen] = useState<string>(stored !== undefined ? STORED : begunFrom !== undefined ? String(begunFrom) : "");
  const [text, setText] = useState<string>();
  const [problem, setProblem] = useState("");

  useEffect(() => {
    setProblem("");
    if (chosen === "" || chosen === "file") return;
    if (chosen === STORED) return setText(stored);
    let gone = false;
    port.netlist(Number(chosen)).then(
      (t) => !gone && setText(t),
      (e: Error) => !gone && setProblem(e.message),
    );
    return () => {
      gone = true;
    };
  }, [chosen, stored, port]);

  const reference = useMemo(() => (text === undefined ? undefined : readCircuit(text)), [text]);
  const sound = reference && reference.errors.length === 0 ? reference.circuit : undefined;
  const differences = useMemo(() => (sound ? compareCircuits(sound, found) : []), [sound, found]);

  return (
    <div className="space-y-4">
      <div className="flex flex-wrap items-end gap-3">
        <label className="block">
          <span className="mb-1 block">Compare with (reference)</span>
          <select className="select h-11 w-96 max-w-full" value={chosen} onChange={(e) => setChosen(e.target.value)}>
            <option value="">choose a model…</option>
            {stored !== undefined && <option value={STORED}>this model as it is stored</option>}
            {candidates.map((c) => (
              <option key={c.id} value={c.id}>
                {c.maker} {c.name}, version {c.version}
              </option>
            ))}
            {chosen === "file" && <option value="file">the file that was loaded</option>}
          </select>
        </label>
        <FileField
          label="A file…"
          name="Reference circuit file"
          className="btn h-11"
          accept={CIRCUIT_FILES}
          take={async (file) => {
            setText(await file.text());
            setChosen("file");
          }}
        />
      </div>
      {problem && (
        <p role="alert" className="text-error">
          {problem}
        </p>
      )}
      {!reference && (
        <p className="soft">Choose what to compare this circuit with: another version, the model it was started from, or a file.</p>
      )}
      {reference && !sound && (
        <p className="verdict-out">
          ■ The reference cannot be read: line {reference.errors[0]!.line}, found {reference.errors[0]!.found}; expected{" "}
          {reference.errors[0]!.expected}
        </p>
      )}
      {sound && differences.length === 0 && (
        <p className="verdict-in text-lg">● No difference: same parts, same values, same connections.</p>
      )}
      {sound && differences.length > 0 && (
        <>
          <p className="text-lg font-bold">
            {differences.length} {differences.length === 1 ? "difference" : "differences"}, compared with the reference
          </p>
          <ul className="space-y-2">
            {differences.slice(0, 200).map((d, i) => (
              <DifferenceRow key={`${d.part} ${d.says} ${i}`} reference={sound} difference={d} conditions={conditions} solver={solver} />
            ))}
          </ul>
          {differences.length > 200 && (
            <p className="soft">And {differences.length - 200} more: these two are probably not the same amp.</p>
          )}
        </>
      )}
    </div>
  );
}

interface Effect {
  moved: { point: string; from: number; to: number }[];
  gains: { stage: string; from: number; to: number }[];
  failed?: string;
}

function DifferenceRow({
  reference,
  difference,
  conditions,
  solver,
}: {
  reference: Circuit;
  difference: Difference;
  conditions: SolveConditions;
  solver: SolverPort;
}) {
  const [effect, setEffect] = useState<Effect>();
  const [busy, setBusy] = useState(false);
  async function solve() {
    setBusy(true);
    try {
      const plain: SolveConditions = { ...conditions, without: [] };
      const [before, after] = [
        await solver.solve(writeCircuit(reference), plain),
        await solver.solve(writeCircuit(carryOver(reference, difference)), plain),
      ];
      setEffect(effectOf(before, after));
    } catch (error) {
      setEffect({ moved: [], gains: [], failed: (error as Error).message });
    } finally {
      setBusy(false);
    }
  }
  return (
    <li className="rounded border border-base-300 px-3 py-2">
      <div className="flex flex-wrap items-center gap-3">
        <span className="flex-1 text-lg">{difference.says}</span>
        <button className="btn btn-sm min-h-9" disabled={busy} onClick={() => void solve()}>
          {busy ? "Solving…" : "Effect on voltages"}
        </button>
      </div>
      <div aria-live="polite">
        {effect?.failed && <p className="verdict-out">■ With this change the amp cannot be solved: {effect.failed}</p>}
        {effect && !effect.failed && effect.moved.length === 0 && (
          <p className="soft">
            No test point changes by 1 % or more{effect.gains.length === 0 ? ", and no stage’s gain by 5 % or more" : ""}.
          </p>
        )}
        {effect && effect.moved.length > 0 && (
          <p className="tabular-nums">
            {effect.moved.slice(0, 6).map((m) => (
              <span key={m.point} className="mr-5 inline-block">
                <strong>{m.point}</strong> {formatVolts(m.from)} → <strong>{formatVolts(m.to)}</strong>
              </span>
            ))}
            {effect.moved.length > 6 && <span className="soft">and {effect.moved.length - 6} more</span>}
          </p>
        )}
        {effect && effect.gains.length > 0 && (
          <p className="tabular-nums">
            {effect.gains.slice(0, 5).map((m) => (
              <span key={m.stage} className="mr-5 inline-block">
                Gain of <strong>{m.stage}</strong> × {figure(m.from.toPrecision(3))} → <strong>× {figure(m.to.toPrecision(3))}</strong>
              </span>
            ))}
          </p>
        )}
      </div>
    </li>
  );
}

/** Points that move by more than a percent and 20 mV, those that move most of themselves first; gains by more than five percent. */
function effectOf(before: Solution, after: Solution): Effect {
  if (!after.converged) return { moved: [], gains: [], failed: `node ${after.unsettled.join(", ")} does not settle` };
  const moved = Object.entries(before.points).flatMap(([point, from]) => {
    const to = after.points[point];
    return to === undefined || Math.abs(to - from) < Math.max(0.02, 0.01 * Math.abs(from)) ? [] : [{ point, from, to }];
  });
  const part = (m: { from: number; to: number }) => Math.abs(m.to - m.from) / Math.max(Math.abs(m.from), 1);
  const gains = Object.entries(before.gains).flatMap(([stage, from]) => {
    const to = after.gains[stage];
    return to === undefined || Math.abs(to / from - 1) < 0.05 ? [] : [{ stage, from, to }];
  });
  return { moved: moved.sort((a, b) => part(b) - part(a)), gains };
}
