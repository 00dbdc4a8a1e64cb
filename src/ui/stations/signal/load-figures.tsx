"use client";
/** Figures at the load: power at clip, damping from two loads, residual hum under full power, response, the square wave. */

import { figure, fixed } from "@/core/language/language";
import { useState } from "react";
import type { Circuit } from "@/core/circuit/circuit";
import { outputStages } from "@/core/output/output-stage";
import { belowFull, dampingFrom } from "@/core/output/signal-walk";
import { formatQuantity } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { OUTPUT_TOLD } from "@/core/tape/tell-output";
import type { SignalFigure } from "@/core/tape/events/output-events";
import { Field } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";

export function LoadFigures({ circuit, speaker, mains }: { circuit: Circuit; speaker?: string; mains?: number }) {
  const { view, netlist, output } = useJob();
  const stage = outputStages(circuit).find((s) => s.speaker === speaker);
  const [wanted, setWanted] = useState(false);
  const key = wanted && output && stage && netlist !== undefined ? JSON.stringify(["clip", netlist, stage.name, mains]) : undefined;
  const { answer, failed, progress } = useAnswer(key, (told) =>
    output!.clip(netlist!, { stage: stage!.name, ...(mains === undefined ? {} : { mains }) }, told),
  );
  const load = stage?.load?.ohms ?? stage?.ratedLoad ?? 8;
  const figures = view.state.signalFigures;
  return (
    <div className="mt-4">
      <h3 className="font-bold">At the load</h3>
      {!wanted && stage && (
        <button className="btn mt-1" onClick={() => setWanted(true)}>
          Expected power at clip
        </button>
      )}
      {wanted && !answer && !failed && <progress className="progress w-72" value={progress ?? 0} max={1} aria-label="Playing to clip" />}
      {failed && <p role="alert">{failed}</p>}
      {answer && (
        <p>
          The circuit gives <strong>{formatQuantity(answer.watts, "W", 3)}</strong> into {formatQuantity(answer.load, "Ω", 3)} before a peak
          is flattened
          {answer.first === "both" ? "" : `; the ${answer.first === "top" ? "upper" : "lower"} half goes first`}.
        </p>
      )}
      <div className="mt-2 grid gap-4 lg:grid-cols-2">
        <Clip load={load} />
        <Damping />
        <Residual load={load} />
        <ResponseForm />
      </div>
      {figures.length > 0 && (
        <ul className="mt-3 list-disc pl-6" aria-label="Figures at the load">
          {figures.map((f) => (
            <li key={f.seq}>{OUTPUT_TOLD["signal-figure"](f)}</li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** Reads several typed figures; the first that cannot be read is said. */
function useFigures() {
  const { settings, say } = useJob();
  return {
    read(text: string, name: string, unit: "V" | "Ω" | "Hz"): number {
      const parsed = parseQuantity(text, { unit, decimal: settings.decimal });
      if (!parsed.ok)
        throw new RangeError(`${name}: ${parsed.why}; accepted: ${unit === "V" ? `${figure("7.2")}, 4m` : unit === "Hz" ? "1k" : "8"}`);
      if (!(parsed.quantity.value > 0)) throw new RangeError(`${name}: read ${text}; accepted: a figure above 0`);
      return parsed.quantity.value;
    },
    log: (payload: SignalFigure) => say({ type: "signal-figure", payload }),
    /** Runs a form's take, with what it throws as the reason. */
    tried(work: () => void): string | undefined {
      try {
        work();
        return undefined;
      } catch (error) {
        if (!(error instanceof RangeError)) throw error;
        return error.message;
      }
    },
  };
}

const box = "input w-24 text-right";

function Clip({ load }: { load: number }) {
  const { read, log, tried } = useFigures();
  const { field, onSubmit, refused } = useTypedForm({ volts: "", ohms: String(load) }, (typed) =>
    tried(() => {
      const [volts, ohms] = [read(typed.volts, "Level", "V"), read(typed.ohms, "Load", "Ω")];
      log({ kind: "power at clip", value: Number((volts ** 2 / ohms).toPrecision(3)), load: ohms });
    }),
  );
  return (
    <form className="flex flex-wrap items-end gap-2" onSubmit={onSubmit} aria-label="Power at clip">
      <Field label="Level at clip, V rms">
        <input className={box} {...field("volts")} />
      </Field>
      <Field label="into, Ω">
        <input className={box} {...field("ohms")} />
      </Field>
      <button className="btn">Log V²/R</button>
      <Refused>{refused}</Refused>
    </form>
  );
}

function Damping() {
  const { read, log, tried } = useFigures();
  const { field, onSubmit, refused } = useTypedForm({ v1: "", r1: "", v2: "", r2: "" }, (typed) =>
    tried(() => {
      const found = dampingFrom(
        { volts: read(typed.v1, "First level", "V"), ohms: read(typed.r1, "First load", "Ω") },
        { volts: read(typed.v2, "Second level", "V"), ohms: read(typed.r2, "Second load", "Ω") },
      );
      log({
        kind: "damping",
        value: Number(Math.min(1e5, found.factor).toPrecision(3)),
        load: Number(found.ohms.toPrecision(3)),
        note: "output resistance",
      });
    }),
  );
  return (
    <form className="flex flex-wrap items-end gap-2" onSubmit={onSubmit} aria-label="Damping factor from two loads">
      {(
        [
          ["v1", "Level, V"],
          ["r1", "into, Ω"],
          ["v2", "Level, V"],
          ["r2", "into, Ω"],
        ] as const
      ).map(([name, label], i) => (
        <Field key={name} label={`${label}${i < 2 ? "" : " (2)"}`}>
          <input className="input w-20 text-right" {...field(name)} />
        </Field>
      ))}
      <button className="btn">Damping</button>
      <Refused>{refused}</Refused>
    </form>
  );
}

function Residual({ load }: { load: number }) {
  const { view } = useJob();
  const { read, log, tried } = useFigures();
  const full = view.state.signalFigures.findLast((f) => f.kind === "power at clip");
  const { field, onSubmit, refused } = useTypedForm({ volts: "", ohms: String(load) }, (typed) =>
    tried(() => {
      const [volts, ohms] = [read(typed.volts, "Hum", "V"), read(typed.ohms, "Load", "Ω")];
      log({
        kind: "residual hum",
        value: volts,
        load: ohms,
        ...(full?.value ? { decibels: Number(belowFull(volts, full.value, ohms).toFixed(1)) } : {}),
      });
    }),
  );
  return (
    <form className="flex flex-wrap items-end gap-2" onSubmit={onSubmit} aria-label="Residual hum">
      <Field label="Residual hum, V rms">
        <input className={box} placeholder="4m" {...field("volts")} />
      </Field>
      <Field label="into, Ω">
        <input className={box} {...field("ohms")} />
      </Field>
      <button className="btn">Log it</button>
      <span className="soft text-sm">{full?.value ? `against ${fixed(full.value, 1)} W` : "log the power at clip first for decibels"}</span>
      <Refused>{refused}</Refused>
    </form>
  );
}

/** Levels at frequencies of one's own, in decibels against the one at 1 kHz; and what the square wave looks like. */
function ResponseForm() {
  const { view } = useJob();
  const { read, log, tried } = useFigures();
  const middle = view.state.signalFigures.findLast(
    (f) => f.kind === "response" && f.hertz !== undefined && Math.abs(f.hertz / 1000 - 1) < 0.05,
  );
  const { field, onSubmit, refused } = useTypedForm({ hertz: "1k", volts: "", square: "" }, (typed) =>
    tried(() => {
      if (typed.square.trim()) log({ kind: "square wave", hertz: 1000, note: typed.square.trim() });
      if (!typed.square.trim() || typed.volts.trim()) {
        const [hertz, volts] = [read(typed.hertz, "Frequency", "Hz"), read(typed.volts, "Level", "V")];
        log({
          kind: "response",
          hertz,
          value: volts,
          ...(middle?.value ? { decibels: Number((20 * Math.log10(volts / middle.value)).toFixed(1)) } : {}),
        });
      }
    }),
  );
  return (
    <form className="flex flex-wrap items-end gap-2" onSubmit={onSubmit} aria-label="Response and square wave">
      <Field label="Response at, Hz">
        <input className={box} {...field("hertz")} />
      </Field>
      <Field label="Level, V rms">
        <input className={box} {...field("volts")} />
      </Field>
      <Field label="Square wave of 1 kHz">
        <input className="input w-52" placeholder="rounded, rings once" {...field("square")} />
      </Field>
      <button className="btn">Log it</button>
      <Refused>{refused}</Refused>
    </form>
  );
}
