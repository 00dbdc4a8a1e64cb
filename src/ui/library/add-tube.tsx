"use client";
/** A tube type that the library does not have, fitted to points of its sheet. */

import { fixed, words } from "@/core/language/language";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { putTubeType } from "@/core/circuit/edit-line";
import type { FittedType, SolverPort } from "@/core/ports/solver-port";
import { Refused } from "../forms/typed-form";
import { readSheet, sheetExample } from "@/core/tubes/sheet-line";

export function AddTube({ text, setText, solver }: { text: string; setText(text: string): void; solver: SolverPort }) {
  const [fit, setFit] = useState<FittedType>();
  const { register, handleSubmit, setError, formState } = useForm({ defaultValues: { name: "", mu: "", sheet: "" } });
  const busy = formState.isSubmitting;
  // It lies inside the form of the file, so it is taken by its button.
  const run = handleSubmit(async ({ name, mu, sheet }) => {
    setFit(undefined);
    const read = readSheet(name, mu, sheet);
    if ("problem" in read) return setError("root", { message: read.problem });
    try {
      setFit(await solver.fit(read.data));
    } catch (error) {
      setError("root", { message: (error as Error).message });
    }
  });
  return (
    <details className="rounded border border-base-300 p-3 text-sm">
      <summary className="min-h-9 cursor-pointer font-bold">{words("A tube type that is not in the library")}</summary>
      <div className="mt-2 space-y-2">
        <div className="grid grid-cols-2 gap-2">
          <label>
            Type
            <input className="input input-sm min-h-9 w-full" {...register("name")} spellCheck={false} />
          </label>
          <label>
            µ (grid 2 to grid 1)
            <input className="input input-sm min-h-9 w-full" inputMode="decimal" {...register("mu")} />
          </label>
        </div>
        <label className="block">
          Points of its sheet: Va / Vg2 / Vg: Ia + Ig2 in mA, gm in mA/V; one a line
          <textarea className="textarea h-20 w-full font-mono" placeholder={sheetExample()} {...register("sheet")} spellCheck={false} />
        </label>
        <button className="btn btn-sm min-h-9" disabled={busy} onClick={() => void run()}>
          {busy ? "Fitting…" : "Fit a model"}
        </button>
        <Refused>{formState.errors.root?.message ?? ""}</Refused>
        {fit && (
          <div className="space-y-1" role="status">
            <table className="table table-xs tabular-nums">
              <thead>
                <tr>
                  <th>Point</th>
                  <th className="text-right">Ia</th>
                  <th className="text-right">gm</th>
                </tr>
              </thead>
              <tbody>
                {fit.rows.map((r, i) => (
                  <tr key={i}>
                    <td>{[r.point.va, r.point.vg2, r.point.vg].filter((v) => v !== undefined).join(" / ")}</td>
                    <td className="text-right">{off(r.errors.ia)}</td>
                    <td className="text-right">{off(r.errors.gm)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            <p className={fit.doubts.length ? "text-warning" : "verdict-in"}>
              {fit.doubts.length ? `▲ ${fit.doubts.join("; ")}` : "● Within 10 % of every point"}
            </p>
            <button className="btn btn-primary btn-sm min-h-9" onClick={() => setText(putTubeType(text || "Untitled", fit.line))}>
              Put it into this file
            </button>
          </div>
        )}
      </div>
    </details>
  );
}

const off = (error: number | undefined) => (error === undefined ? "–" : `${error >= 0 ? "+" : "−"}${fixed(Math.abs(error) * 100, 1)} %`);
