"use client";
/** The short check before live work, answered once per power-on, then the power-on itself. */

import { useEffect, useMemo, useRef, useState } from "react";
import { unmetGates } from "@/core/bring-up/power-gates";
import { nextStage } from "@/core/bring-up/next-stage";
import { wallVolts } from "@/core/circuit/line";
import { liveCheck } from "@/core/job/live-check";
import { Field } from "../forms/section";
import { useJob } from "./job-context";

export function PowerOn({ close }: { close(): void }) {
  const { view, say, settings } = useJob();
  const dialog = useRef<HTMLDialogElement>(null);
  const [ticked, setTicked] = useState<Set<string>>(new Set());
  const [through, setThrough] = useState<"straight" | "lamp" | "variable" | "lamp and variable">("variable");
  const [without, setWithout] = useState("");
  const [reason, setReason] = useState("");
  const { circuit, reservoirs, state } = view;

  useEffect(() => dialog.current?.showModal(), []);

  const questions = useMemo(() => liveCheck(circuit, reservoirs, state), [circuit, reservoirs, state]);
  const out = without
    .split(/[\s,]+/)
    .filter(Boolean)
    .map((t) => t.toUpperCase());
  const wall = wallVolts(circuit, settings.mainsVolts);
  const gates = unmetGates(circuit, state, { through, without: out }, wall);
  const passes = gates.length === 0 || reason.trim().length >= 3;
  const all = questions.every((q) => ticked.has(q)) && passes;
  const stage = useMemo(() => nextStage(circuit, state), [circuit, state]);

  function go(e: React.FormEvent) {
    e.preventDefault();
    if (!all) return;
    say(
      ...(gates.length > 0
        ? [
            {
              type: "gate-passed",
              payload: { station: "bring-up", reason: `${gates.map((g) => g.id).join(", ")}: ${reason.trim()}`, understood: true },
            } as const,
          ]
        : []),
      { type: "power", payload: { state: "on", plug: "in", through, ...(out.length ? { without: out } : {}) } },
      { type: "live-check", payload: { confirmed: questions } },
    );
    close();
  }

  return (
    <dialog ref={dialog} className="modal" onClose={close} aria-labelledby="power-on-title">
      <form className="modal-box max-w-xl bg-base-100" onSubmit={go}>
        <h2 id="power-on-title" className="text-xl font-bold">
          Before power goes on
        </h2>
        <p className="soft mt-1 text-sm">Hundreds of volts will be on open parts. Local codes and licensed practice come first.</p>
        <ul className="mt-3 space-y-1">
          {questions.map((q) => (
            <li key={q}>
              <label className="flex min-h-11 cursor-pointer items-center gap-3">
                <input
                  type="checkbox"
                  className="checkbox checkbox-primary"
                  checked={ticked.has(q)}
                  onChange={() =>
                    setTicked((t) => {
                      const next = new Set(t);
                      if (!next.delete(q)) next.add(q);
                      return next;
                    })
                  }
                />
                <span>{q}</span>
              </label>
            </li>
          ))}
        </ul>
        <div className="mt-3 grid grid-cols-2 gap-3">
          <Field label="Power comes">
            <select className="select w-full" value={through} onChange={(e) => setThrough(e.target.value as typeof through)}>
              <option value="variable">through a variable transformer</option>
              <option value="lamp">through a series lamp</option>
              <option value="lamp and variable">through both</option>
              <option value="straight">straight from the wall</option>
            </select>
          </Field>
          <Field label={`${settings.tubeWord === "valve" ? "Valves" : "Tubes"} out`}>
            <input className="input w-full" placeholder="none, or V4, V5" value={without} onChange={(e) => setWithout(e.target.value)} />
          </Field>
        </div>
        {stage && stage.without.join() !== out.join() && (
          <p className="mt-2 text-sm">
            <button type="button" className="btn btn-sm btn-outline min-h-11" onClick={() => setWithout(stage.without.join(", "))}>
              As the stage “{stage.title}” wants it: {stage.without.length > 0 ? `out ${stage.without.join(", ")}` : "all in"}
            </button>
          </p>
        )}
        {gates.length > 0 && (
          <section aria-label="Not met" className="mt-3 rounded border-2 border-warning p-3">
            {gates.map((g) => (
              <p key={g.id} className="text-sm">
                <strong>▲</strong> {g.says}.
              </p>
            ))}
            <Field label="Go past, with a reason for the tape" className="mt-2">
              <input
                className="input w-full"
                value={reason}
                onChange={(e) => setReason(e.target.value)}
                placeholder="ran yesterday, nothing was touched"
              />
            </Field>
          </section>
        )}
        <div className="modal-action">
          <button type="button" className="btn btn-ghost" onClick={() => setTicked(new Set(questions))}>
            All true
          </button>
          <button type="button" className="btn" onClick={close}>
            Cancel
          </button>
          <button type="submit" className="btn btn-primary" disabled={!all}>
            Power is on
          </button>
        </div>
      </form>
    </dialog>
  );
}
