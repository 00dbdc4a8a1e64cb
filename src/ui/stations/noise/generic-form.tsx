"use client";
/** An amp without a circuit here: its chain as the technician finds it, with the usual parts. Kept in this browser, job by job. */

import { useMemo, useState } from "react";
import { readCircuit } from "@/core/circuit/read";
import type { Circuit } from "@/core/circuit/circuit";
import { genericCircuit, MOST_STAGES, USUAL_CHAIN, type GenericChain } from "@/core/noise/generic-chain";
import { Field } from "../../forms/section";
import { useJob } from "../../job/job-context";

export interface Generic {
  chain: GenericChain;
  set(chain: GenericChain): void;
  netlist?: string;
  circuit?: Circuit;
  refused: string;
}

export function useGeneric(): Generic {
  const { jobId, settings } = useJob();
  const place = `scutum-chain-${jobId}`;
  const [chain, setChain] = useState<GenericChain>(() => {
    const usual = { ...USUAL_CHAIN, mains: settings.mainsVolts };
    try {
      const kept = typeof window === "undefined" ? null : localStorage.getItem(place);
      return kept ? { ...usual, ...(JSON.parse(kept) as Partial<GenericChain>) } : usual;
    } catch {
      return usual;
    }
  });
  const made = useMemo(() => {
    try {
      const netlist = genericCircuit(chain);
      return { netlist, circuit: readCircuit(netlist).circuit, refused: "" };
    } catch (error) {
      return { refused: (error as Error).message };
    }
  }, [chain]);
  const set = (next: GenericChain) => {
    setChain(next);
    try {
      localStorage.setItem(place, JSON.stringify(next));
    } catch {
      // A browser that keeps nothing: the chain lasts as long as the page.
    }
  };
  return { chain, set, ...made };
}

export function GenericForm({ generic }: { generic: Generic }) {
  const { chain, set, refused } = generic;
  const [text, setText] = useState(() => chain.stages.map((s) => [s.control, s.tube].filter(Boolean).join(" ")).join(", "));
  const stages = (typed: string) => {
    setText(typed);
    const read = typed
      .split(",")
      .map((s) => s.trim().toUpperCase().split(/\s+/))
      .filter((w) => w[0])
      .map((w) => (w.length > 1 ? { control: w[0]!, tube: w[1]! } : { tube: w[0]! }));
    set({ ...chain, stages: read });
  };
  const tick = (key: "fixedBias" | "feedback" | "lineConnected", label: string) => (
    <label className="flex min-h-11 items-center gap-2">
      <input type="checkbox" className="checkbox" checked={chain[key]} onChange={(e) => set({ ...chain, [key]: e.target.checked })} />{" "}
      {label}
    </label>
  );
  return (
    <section aria-label="Generic chain" className="rounded border border-dashed border-base-content/50 p-4">
      <p className="font-bold">This job has no circuit: a typical one is used instead.</p>
      <p className="soft text-sm">
        Enter how the amp is built; what each test does is computed from that. Rail figures are typical values.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-3 text-sm">
        <Field label={`Stages before the output, with the control before each (at most ${MOST_STAGES})`} error={refused || undefined}>
          <input className="input w-96 font-mono" value={text} placeholder="V1A, P1 V1B" onChange={(e) => stages(e.target.value)} />
        </Field>
        <Field label="Output">
          <select
            className="select w-40"
            value={chain.output}
            onChange={(e) => set({ ...chain, output: e.target.value as GenericChain["output"] })}
          >
            <option>push-pull</option>
            <option>single-ended</option>
          </select>
        </Field>
        {tick("fixedBias", "fixed bias")}
        {tick("feedback", "loop feedback")}
        {tick("lineConnected", "line-connected, heaters in series")}
      </div>
    </section>
  );
}
