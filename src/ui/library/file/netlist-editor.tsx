"use client";
/** The circuit file as text: read at every keystroke, errors at their lines, solved beside it. */

import { useEffect, useRef, useState } from "react";
import type { ReadResult } from "@/core/circuit/read";
import { formatVolts } from "@/core/quantity/format";
import type { Solution } from "@/core/expectation/solution";
import type { SolverPort } from "@/core/ports/solver-port";
import type { SolveConditions } from "@/core/expectation/modelled";
import { AddTube } from "../add-tube";
import { CircuitEditor, type EditorHandle } from "./circuit-editor";
import { loadCircuit } from "./load-circuit";
import type { ModelHead } from "../library-port";
import { CIRCUIT_FILES, FileField } from "../../forms/file-field";

interface EditorProps {
  text: string;
  setText(text: string): void;
  stored: string;
  read: ReadResult;
  solution?: Solution;
  head?: ModelHead;
  solver: SolverPort;
  conditions: SolveConditions;
}

export function NetlistEditor(props: EditorProps) {
  const { text, setText, read, head } = props;
  const editor = useRef<EditorHandle>(null);
  return (
    <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div className="min-w-0">
        <div className="mb-2 flex flex-wrap items-center gap-2">
          <FileField
            label="Load a file…"
            name="Circuit file"
            className="btn h-11"
            accept={CIRCUIT_FILES}
            take={async (file) => setText(await loadCircuit(file))}
          />
          {head && (
            <>
              <a className="btn btn-ghost h-11" href={`/api/v1/models/${head.id}/netlist`} download>
                Save the file
              </a>
              <a className="btn btn-ghost h-11" href={`/api/v1/models/${head.id}/netlist?form=spice`} download>
                Save for SPICE
              </a>
            </>
          )}
        </div>
        <CircuitEditor ref={editor} text={text} setText={setText} read={read} />
        <ul className="mt-2 max-h-44 overflow-y-auto text-sm" aria-label="What the reader says" aria-live="polite">
          {read.errors.slice(0, 100).map((e, i) => (
            <li key={`e${i}`}>
              <button className="verdict-out text-left" onClick={() => editor.current?.goTo(e.line)}>
                ■ line {e.line}: found {e.found}; expected {e.expected}
              </button>
            </li>
          ))}
          {read.warnings.slice(0, 40).map((w, i) => (
            <li key={`w${i}`}>
              <button className="text-left text-warning" onClick={() => editor.current?.goTo(w.line)}>
                ▲ line {w.line}: {w.found}; expected {w.expected}
              </button>
            </li>
          ))}
          {read.errors.length === 0 && read.warnings.length === 0 && text.trim() !== "" && (
            <li className="soft">
              ● {read.circuit.elements.length} parts, {read.circuit.points.length} test points, {read.circuit.stages.length} stages read
            </li>
          )}
        </ul>
      </div>
      <div className="space-y-4">
        <Live {...props} />
        <AddTube text={text} setText={setText} solver={props.solver} />
      </div>
    </div>
  );
}

/** The points as the text gives them now, beside what the stored file gives. */
function Live({ read, solution, stored, text, solver, conditions }: EditorProps) {
  const [before, setBefore] = useState<Solution>();
  useEffect(() => {
    if (stored.trim() === "") return;
    let gone = false;
    solver.solve(stored, conditions).then(
      (s) => !gone && setBefore(s),
      () => !gone && setBefore(undefined),
    );
    return () => {
      gone = true;
    };
  }, [stored, conditions, solver]);
  if (read.errors.length > 0 || !solution?.converged) return <p className="soft text-sm">Solving resumes when every line can be read.</p>;
  return (
    <section aria-label="Live solve">
      <h2 className="font-bold">Live solve</h2>
      <table className="table table-xs tabular-nums">
        <tbody>
          {[...read.circuit.points]
            .sort((a, b) => a.order - b.order)
            .map((p) => {
              const now = solution.points[p.name];
              const was = before?.points[p.name];
              const moved =
                text !== stored && now !== undefined && was !== undefined && Math.abs(now - was) > Math.max(0.02, 0.005 * Math.abs(was));
              return (
                <tr key={p.name}>
                  <td>{p.name}</td>
                  <td className="text-right font-bold">{now === undefined ? "–" : formatVolts(now)}</td>
                  <td className="text-right">
                    {moved ? <span className="text-warning">{`${now > was ? "▲ +" : "▼ −"}${formatVolts(Math.abs(now - was))}`}</span> : ""}
                  </td>
                </tr>
              );
            })}
        </tbody>
      </table>
    </section>
  );
}
