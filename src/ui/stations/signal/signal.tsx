"use client";
/** Signal: response, feedback and square wave as the circuit stands, and what a changed part would do before it is soldered. */

import { fixed } from "@/core/language/language";
import { late, lateInBrowser } from "../../forms/late";
import { useCallback, useMemo, useState } from "react";
import type { Response } from "@/core/signal/response";
import { changeOf, loopWarning, signed, type ResponseChange } from "@/core/signal/response-change";
import type { Circuit } from "@/core/circuit/circuit";
import type { Solution } from "@/core/expectation/solution";
import { latestReading } from "@/core/tape/fold";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { signalLayer } from "../../drawing/layers";
import { Figure } from "../../forms/figure";
import { Field } from "../../forms/section";
import { Tabs } from "../../forms/tabs";
import { useTypedForm } from "../../forms/typed-form";
import { TryPart } from "../../frame/try-part";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { Findings } from "../findings";
import { NoCircuit } from "../no-circuit";
import { Taps } from "./taps";

// They come with the first answer of the solver.
const ResponseChart = late(() => import("./response-charts").then((m) => m.ResponseChart));
const SignalWalk = late(() => import("./signal-walk").then((m) => m.SignalWalk));
const SquareChart = late(() => import("./response-charts").then((m) => m.SquareChart));

const StationDrawing = lateInBrowser(() => import("../../drawing/station-drawing").then((m) => m.StationDrawing), "min-h-[31rem]");

export function Signal() {
  const { view } = useJob();
  return (
    <div className="max-w-5xl space-y-4">
      {view.circuit ? <SignalTabs circuit={view.circuit} /> : <NoCircuit what="A response needs a circuit." />}
      <Taps />
      {view.circuit && <SignalDrawing circuit={view.circuit} />}
      <Findings station="signal" />
    </div>
  );
}

function SignalTabs({ circuit }: { circuit: Circuit }) {
  const tabs = useMemo(
    () => [
      { id: "response", name: "Response and changes", body: <Changed />, keep: true },
      { id: "walk", name: "Signal walk", body: <SignalWalk circuit={circuit} />, keep: true },
    ],
    [circuit],
  );
  return <Tabs tabs={tabs} label="Signal" />;
}

/** Gain from stage to stage, and the levels that were read. */
function SignalDrawing({ circuit }: { circuit: Circuit }) {
  const { view } = useJob();
  const layer = useCallback(
    (solution: Solution | undefined) => {
      const levels: Record<string, string> = {};
      for (const p of circuit.points) {
        const read = latestReading(view.state, p.name, "acv");
        if (read) levels[p.node] = `${formatVolts(read.value)} ~`;
      }
      return signalLayer(circuit, solution, levels);
    },
    [circuit, view.state],
  );
  return <StationDrawing layer={layer} />;
}

function Changed() {
  const { view, netlist, solver, conditions, settings } = useJob();
  const [tried, setTried] = useState<string[]>([]);
  const { field, onSubmit, form } = useTypedForm({ text: "" }, ({ text }) => {
    setTried(text.split(/[,;\s]+/).filter(Boolean));
    return { text };
  });
  const mains = conditions.mains ?? view.circuit!.mains?.volts ?? settings.mainsVolts;
  const ready = solver && netlist !== undefined;
  const now = useAnswer<Response>(ready ? JSON.stringify([netlist, mains]) : undefined, () => solver!.response(netlist!, mains, []));
  const then = useAnswer<Response>(ready && tried.length > 0 ? JSON.stringify([netlist, mains, tried]) : undefined, () =>
    solver!.response(netlist!, mains, tried),
  );
  const changed = tried.length > 0 && !then.failed ? then.answer : undefined;
  if (now.failed) return <p role="alert">The response could not be computed: {now.failed}</p>;
  if (!now.answer) return <p role="status">Working out the response…</p>;
  const change = changed && changeOf(now.answer, changed);
  return (
    <>
      <form className="flex flex-wrap items-end gap-3 rounded border border-base-300 bg-base-200 p-4" onSubmit={onSubmit}>
        <Field label="Part and new value">
          <input className="input h-14 w-80 font-mono text-xl" placeholder="R17=22k C8=10n" {...field("text")} />
        </Field>
        <button className="btn btn-primary h-14">Predict</button>
        {tried.length > 0 && (
          <>
            <TryPart
              label="Try it in the amp"
              className="btn btn-line h-14"
              disabled={!changed}
              trial={() => ({
                position: tried[0]!.split("=")[0]!,
                newPart: tried.join(", "),
                set: tried,
                hypothesis: change!.predicts,
              })}
              done={() => {
                setTried([]);
                form.reset({ text: "" });
              }}
            />
            <button type="button" className="btn btn-ghost h-14" onClick={() => setTried([])}>
              As it is now
            </button>
          </>
        )}
        {then.failed && tried.length > 0 && (
          <p role="alert" className="basis-full text-error">
            {then.failed}
          </p>
        )}
      </form>
      <Figures now={now.answer} then={changed} change={change} />
      <div className="grid gap-4 lg:grid-cols-2">
        <ResponseChart now={now.answer} then={changed} />
        <SquareChart now={now.answer} then={changed} />
      </div>
    </>
  );
}

function Figures({ now, then, change }: { now: Response; then?: Response; change?: ResponseChange }) {
  const to = (a: string, b: string | undefined) => (b === undefined || b === a ? a : `${a} → ${b}`);
  const hertz = (f: number | undefined) => (f === undefined ? "beyond" : formatQuantity(f, "Hz", 2));
  const loop = (r: Response) => (r.feedback ? `${fixed(r.feedback.decibels, 1)} dB` : "none");
  const margin = (r: Response) =>
    r.feedback
      ? [
          r.feedback.gainMargin === undefined ? "phase never reaches −180°" : `${fixed(r.feedback.gainMargin, 0)} dB`,
          r.feedback.phaseMargin === undefined ? "" : `${fixed(r.feedback.phaseMargin, 0)}°`,
        ]
          .filter(Boolean)
          .join(", ")
      : "–";
  const shown = then ?? now;
  const warning = loopWarning(shown.feedback);
  const level = (volts: number, db: number | undefined) =>
    Number.isNaN(volts) ? "not known" : `${formatQuantity(volts, "V", 2)}${db === undefined ? "" : ` (${signed(db)} dB)`}`;
  return (
    <section aria-label="Response figures">
      {warning && <p className="text-2xl font-bold text-warning">▲ {warning}</p>}
      <dl className="flex flex-wrap gap-x-8 gap-y-2">
        <Figure name="feedback" value={to(loop(now), then && loop(then))} />
        <Figure name="margin" value={to(margin(now), then && margin(then))} />
        <Figure name="−3 dB below" value={to(hertz(now.low), then && hertz(then.low))} />
        <Figure name="−3 dB above" value={to(hertz(now.high), then && hertz(then.high))} />
        <Figure name="hum, input shorted" value={level(shown.humMillivolts / 1e3, change?.hum)} />
        <Figure name="resistors' noise, input shorted" value={level(shown.noiseMicrovolts / 1e6, change?.hiss)} />
      </dl>
    </section>
  );
}
