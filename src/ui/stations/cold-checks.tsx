"use client";
/** Cold checks: each resistor in circuit. What the ohmmeter may show is bounded by the part itself. */

import { useState } from "react";
import { parseEntry } from "@/core/job/entry/entry";
import { describePart } from "@/core/job/part-words";
import { latestReading } from "@/core/job/fold";
import { judgeInCircuit } from "@/core/walk/in-circuit";
import { formatQuantity } from "@/core/quantity/format";
import { useJob } from "../frame/job-context";
import { VerdictMark } from "../frame/verdict-mark";
import { Findings } from "./findings";
import { NoCircuit } from "./no-circuit";

export function ColdChecks() {
  const { view, say, entryContext } = useJob();
  const resistors = view.circuit?.elements.filter((e) => e.letter === "R" && e.notes.label !== "Speaker") ?? [];
  const [at, setAt] = useState<string>();
  const [text, setText] = useState("");
  const [refused, setRefused] = useState("");
  if (!view.circuit)
    return (
      <>
        <NoCircuit what="Resistances to expect need a circuit." />
        <div className="mt-4">
          <Findings station="cold-checks" />
        </div>
      </>
    );
  const open = resistors.find((r) => !latestReading(view.state, r.name, "ohm")) ?? resistors[0];
  const part = resistors.find((r) => r.name === at) ?? open;

  function take(e: React.FormEvent) {
    e.preventDefault();
    if (!part) return;
    if (text.trim()) {
      const entry = parseEntry(`${part.name} ohm ${text}`, entryContext("cold-checks"));
      if (!entry.ok) return setRefused(`${entry.why}. Accepted: ${entry.accepted}`);
      say(...entry.drafts);
    }
    setText("");
    setRefused("");
    setAt(resistors[(resistors.indexOf(part) + 1) % resistors.length]!.name);
  }
  return (
    <div className="space-y-4">
      {part && (
        <form
          onSubmit={take}
          className="grid items-center gap-4 rounded border border-base-300 bg-base-200 p-4 md:grid-cols-[minmax(0,1fr)_15rem]"
        >
          <div>
            <p className="text-4xl font-bold">
              {part.name} <span className="soft text-lg font-normal">{describePart(part)}</span>
            </p>
            <p className="mt-1 text-lg">
              Across the part, {part.nodes.join(" to ")}, power off. In circuit it may read{" "}
              <strong>at most {formatQuantity(part.value! * (1 + (part.notes.tol ?? 0.2)), "Ω", 3)}</strong>; less where other paths lie
              beside it.
            </p>
          </div>
          <div>
            <label className="text-sm" htmlFor="ohms">
              Reading, Ω
            </label>
            <input
              id="ohms"
              className="input h-16 w-full text-right tabular-nums text-3xl"
              autoComplete="off"
              value={text}
              onChange={(e) => {
                setText(e.target.value);
                setRefused("");
              }}
            />
            <p role="alert" className="min-h-5 text-sm text-error">
              {refused}
            </p>
          </div>
        </form>
      )}
      <table className="table table-sm" aria-label="Resistors">
        <thead>
          <tr>
            <th>Part</th>
            <th>Between</th>
            <th className="text-right">Marked</th>
            <th className="text-right">Read in circuit</th>
            <th>Verdict</th>
          </tr>
        </thead>
        <tbody>
          {resistors.map((r) => {
            const reading = latestReading(view.state, r.name, "ohm");
            const judged = reading && judgeInCircuit(r, reading.value);
            return (
              <tr key={r.name} className={r === part ? "bg-base-200" : ""}>
                <td>
                  <button className="underline decoration-dotted underline-offset-4" onClick={() => setAt(r.name)}>
                    {r.name}
                  </button>
                </td>
                <td>{r.nodes.join(" – ")}</td>
                <td className="text-right tabular-nums">
                  {formatQuantity(r.value!, "Ω", 3)}
                  {r.notes.tol ? ` ±${Math.round(r.notes.tol * 100)} %` : ""}
                </td>
                <td className="text-right tabular-nums font-bold">{reading ? formatQuantity(reading.value, "Ω", 3) : ""}</td>
                <td>
                  {judged ? (
                    <span>
                      <VerdictMark verdict={judged.verdict} word /> <span className="text-xs">{judged.why}</span>
                    </span>
                  ) : (
                    <VerdictMark verdict="none" word />
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Findings station="cold-checks" />
    </div>
  );
}
