"use client";
/** The short check before live work, answered once per power-on, then the power-on itself. */

import { refusedTo } from "@/core/shop/people";
import { words } from "@/core/language/language";
import { useMemo, useState } from "react";
import { useForm } from "react-hook-form";
import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { unmetGates } from "@/core/safety/power-gates";
import { powerOnLines } from "@/core/safety/power-on-act";
import { nextStage } from "@/core/bring-up/next-stage";
import { isLineConnected, wallVolts } from "@/core/circuit/mains-connection";
import { isolationStatement, liveCheck } from "@/core/safety/live-check";
import { Field } from "../forms/section";
import { useJob } from "../job/job-context";

export function PowerOn({ close }: { close(): void }) {
  const { view, say, settings, role } = useJob();
  const [ticked, setTicked] = useState<Set<string>>(new Set());
  const { register, watch, setValue, handleSubmit } = useForm({
    defaultValues: { through: "variable" as "straight" | "lamp" | "variable" | "lamp and variable", without: "", reason: "" },
  });
  const { through, without, reason } = watch();
  const { circuit, reservoirs, state } = view;

  const questions = useMemo(() => liveCheck(circuit, reservoirs, state), [circuit, reservoirs, state]);
  const out = without
    .split(/[\s,]+/)
    .filter(Boolean)
    .map((t) => t.toUpperCase());
  const wall = wallVolts(circuit, settings.mainsVolts);
  const isolated = isLineConnected(circuit) && questions.some((q) => q === isolationStatement() && ticked.has(q));
  const gates = unmetGates(circuit, state, { through, without: out, isolated }, wall);
  const refused = refusedTo(role, { type: "gate-passed", payload: {} });
  const passes = gates.length === 0 || (!refused && reason.trim().length >= 3);
  const all = questions.every((q) => ticked.has(q)) && passes;
  const stage = useMemo(() => nextStage(circuit, state), [circuit, state]);

  const go = handleSubmit(() => {
    if (!all) return;
    say(...powerOnLines({ through, without: out, isolated, unmet: gates, reason, confirmed: questions }));
    close();
  });

  return (
    <Dialog open onClose={close} className="relative z-50">
      <div className="fixed inset-0 bg-black/60" aria-hidden />
      <div className="fixed inset-0 flex items-center justify-center overflow-y-auto p-4">
        <DialogPanel
          as="form"
          className="max-h-full w-full max-w-xl overflow-y-auto rounded border border-base-300 bg-base-100 p-5"
          onSubmit={go}
        >
          <DialogTitle className="text-xl font-bold">Safety check before power on</DialogTitle>
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
            <Field label="Power through">
              <select className="select w-full" {...register("through")}>
                <option value="variable">variable transformer</option>
                <option value="lamp">series lamp</option>
                <option value="lamp and variable">series lamp and variable transformer</option>
                <option value="straight">straight from the wall</option>
              </select>
            </Field>
            <Field label={words("Tubes removed")}>
              <input className="input w-full" placeholder="none, or V4, V5" {...register("without")} />
            </Field>
          </div>
          {stage && stage.without.join() !== out.join() && (
            <p className="mt-2 text-sm">
              <button
                type="button"
                className="btn btn-sm btn-outline min-h-11"
                onClick={() => setValue("without", stage.without.join(", "))}
              >
                As for the stage “{stage.title}”: {stage.without.length > 0 ? `${stage.without.join(", ")} removed` : "all fitted"}
              </button>
            </p>
          )}
          {gates.length > 0 && (
            <section aria-label="Safety conditions not met" className="mt-3 rounded border-2 border-warning p-3">
              <p className="text-sm font-bold">Safety conditions not met</p>
              {gates.map((g) => (
                <p key={g.id} className="text-sm">
                  <strong>▲</strong> {g.says}.
                </p>
              ))}
              {refused ? (
                <p className="mt-2 text-sm font-bold">{refused}.</p>
              ) : (
                <Field label="Go on all the same: reason, kept on the tape" className="mt-2">
                  <input className="input w-full" placeholder="it ran yesterday and nothing was changed since" {...register("reason")} />
                </Field>
              )}
            </section>
          )}
          <div className="mt-4 flex justify-end gap-2">
            <button type="button" className="btn" onClick={close}>
              Cancel
            </button>
            <button type="submit" className="btn btn-primary" disabled={!all}>
              Power is on
            </button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
