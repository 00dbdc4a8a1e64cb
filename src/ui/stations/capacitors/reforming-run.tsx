"use client";
/** A run that is on or paused: each capacitor with its leakage over time, where it goes, and what is to be done now. */

import { useEffect, useRef, useState } from "react";
import { metered } from "@/core/capacitor/reform-judge";
import { joulesOf, secondsUnder, type PartRun, type ReformRun } from "@/core/capacitor/reform-run";
import type { TesterLine } from "@/core/instrument/protocol";
import { figure } from "@/core/language/language";
import { formatDuration, formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import type { EventDraft } from "@/core/tape/events/event";
import type { Verdict } from "@/core/expectation/expectation";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob, useNow } from "../../job/job-context";
import { useInstruments } from "../../job/use-instruments";
import { VerdictMark } from "../../forms/verdict-mark";
import { dayTime } from "../../job/words";
import { ReformingChart } from "./reforming-chart";

const MARK: Record<PartRun["verdict"]["kind"], Verdict> = { keep: "in", raise: "in", "go on": "watch", stop: "out" };
const SAYS: Record<PartRun["verdict"]["kind"], string> = { keep: "Keep", raise: "Next step", "go on": "Go on", stop: "Stop and replace" };
/** A reading is logged by itself when so many seconds, or this part of the step so far, have gone by. */
const EVERY = 20;
const PART = 0.12;

/** Readings of the tester that are due are logged by themselves: closer at the start of a step, where the current falls fastest. */
function useTester(run: ReformRun): Record<string, TesterLine> {
  const { say } = useJob();
  const [shown, setShown] = useState<Record<string, TesterLine>>({});
  const logged = useRef(new Map<string, number>());
  const now = useRef(run);
  useEffect(() => {
    now.current = run;
  });
  useInstruments(undefined, (line) => {
    if (!line) return setShown({});
    const { current } = now;
    const own = current.parts.find((p) => p.part.part === line.part);
    if (!own) return;
    setShown((s) => ({ ...s, [line.part]: line }));
    if (current.state !== "running" || own.result || Math.abs(line.supply - current.supply) >= 1) return;
    const last = Math.max(logged.current.get(line.part) ?? -Infinity, own.readings.at(-1)?.seconds ?? -Infinity);
    const due = Math.max(EVERY * Math.min(1, current.begun.pace ?? 1), PART * (line.seconds - current.stepBegan));
    const fresh = last < current.stepBegan;
    if (line.seconds - last < due && !(fresh && line.seconds - current.stepBegan > 1)) return;
    logged.current.set(line.part, line.seconds);
    const { part, seconds, supply, volts, amps, digit } = line;
    say({ type: "reform-point", payload: { reform: current.seq, part, seconds, supply, volts, amps, digit } });
  });
  return shown;
}

export function ReformingRun({ run }: { run: ReformRun }) {
  const { say } = useJob();
  const shown = useTester(run);
  const now = useNow();
  const seconds = secondsUnder(run.begun, now);
  const open = run.parts.filter((p) => !p.result);
  const { steps } = run.begun;
  const next = steps[steps.indexOf(run.step) + 1];
  const turn = (payload: Omit<Extract<EventDraft, { type: "reform-turn" }>["payload"], "reform">) =>
    say({ type: "reform-turn", payload: { reform: run.seq, ...payload } });
  const stop = open.filter((p) => p.verdict.kind === "stop");
  const keep = open.filter((p) => p.verdict.kind === "keep");
  const raise = open.length > 0 && open.every((p) => p.verdict.kind === "raise") && next !== undefined;
  return (
    <Section
      title={`Reforming ${run.parts.map((p) => p.part.part).join(", ")}`}
      hint={`since ${dayTime(run.begun.at)}${run.begun.pace ? `, simulated time ${run.begun.pace} ×` : ""}`}
    >
      <div className="rounded border border-base-300 bg-base-200 p-4">
        <p className="text-3xl font-bold" data-testid="reforming-next">
          {run.state === "paused"
            ? `Paused at ${run.step} V.`
            : open.length === 0
              ? "All are settled: supply down."
              : stop.length > 0
                ? `Stop ${stop.map((p) => p.part.part).join(", ")}.`
                : raise
                  ? `Raise the supply to ${next} V.`
                  : keep.length === open.length
                    ? `Keep ${keep.map((p) => p.part.part).join(", ")}.`
                    : "Go on."}
        </p>
        <p className="text-lg tabular-nums">
          Supply {run.state === "running" ? `${run.supply} V` : "off"}; {formatDuration(seconds)} under voltage,{" "}
          {formatDuration(Math.max(0, seconds - run.stepBegan))} at this step; holds up to {formatQuantity(joulesOf(run), "J", 2)}.
        </p>
        <div className="mt-3 flex flex-wrap gap-2">
          {run.state === "running" && next !== undefined && (
            <button
              className={`btn ${raise ? "btn-primary" : "btn-outline"}`}
              disabled={stop.length > 0}
              onClick={() =>
                turn({ what: "step", supply: next, ...(raise ? {} : { why: "raised before the leakage was under its limit" }) })
              }
            >
              Supply to {next} V
            </button>
          )}
          {run.state === "running" && (
            <button className="btn btn-outline" onClick={() => turn({ what: "paused", supply: 0 })}>
              Pause: supply off
            </button>
          )}
          {run.state === "paused" && (
            <button className="btn btn-primary" onClick={() => turn({ what: "resumed", supply: run.step })}>
              Go on at {run.step} V
            </button>
          )}
          <button
            className={`btn ${open.length === 0 ? "btn-primary" : "btn-outline"}`}
            onClick={() => turn({ what: "ended", supply: 0, why: open.length > 0 ? "broken off" : "all settled" })}
          >
            Supply down, end
          </button>
        </div>
        <p className="soft mt-2 text-sm">
          Way down: supply to nothing in the same steps, a minute each; then about{" "}
          {formatDuration(3 * run.begun.ohms * Math.max(...run.begun.parts.map((p) => p.farads)))} through the series resistors. What is
          left, and what comes back, is read at Make safe before a hand goes near: {Math.round(run.step)} V are in them until then.
        </p>
      </div>
      {run.parts.map((p) => (
        <PartOfRun
          key={p.part.part}
          part={p}
          run={run}
          line={shown[p.part.part]}
          settle={(result, why) => turn({ what: "ended", supply: run.step, result, part: p.part.part, why })}
        />
      ))}
      {run.state === "running" && open.length > 0 && <TypedPoint run={run} open={open} seconds={seconds} />}
    </Section>
  );
}

function PartOfRun({
  part,
  run,
  line,
  settle,
}: {
  part: PartRun;
  run: ReformRun;
  line?: TesterLine;
  settle(result: "keep" | "replace" | "stopped", why: string): void;
}) {
  const { verdict, readings, result, doubts, notes } = part;
  const shown = (amps: number) => formatQuantity(metered(Math.max(0, amps), run.begun.ohms, run.step), "A", 2);
  return (
    <section className="mt-4" aria-label={`Reforming of ${part.part.part}`}>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h3 className="text-lg font-bold">
          {part.part.part}{" "}
          <span className="soft text-sm font-normal">
            to {part.part.target} V, {formatQuantity(part.part.limit, "A", 3)} allowed there
          </span>
        </h3>
        {line && run.state === "running" && (
          <span className="font-mono text-lg" data-testid={`tester-${part.part.part}`}>
            {formatVolts(line.volts)} {formatQuantity(line.amps, "A", 3)}
          </span>
        )}
      </div>
      <p className="inline-flex items-center gap-2">
        <VerdictMark verdict={result ? (result === "keep" ? "in" : "out") : MARK[verdict.kind]} />{" "}
        <strong>{result ? { keep: "Kept", replace: "To be replaced", stopped: "Stopped" }[result] : SAYS[verdict.kind]}</strong>
        {!result && <span>{verdict.why}</span>}
      </p>
      {verdict.fit && !result && (
        <p className="soft text-sm">
          Falls to {shown(verdict.fit.final)} (95 of 100: {shown(verdict.fit.within.final[0])} to {shown(verdict.fit.within.final[1])}) with
          a time constant of {formatDuration(verdict.fit.tau)} ({formatDuration(verdict.fit.within.tau[0])} to{" "}
          {formatDuration(verdict.fit.within.tau[1])}).
        </p>
      )}
      {doubts.map((d) => (
        <p key={d} className="text-sm text-warning">
          ▲ {d}
        </p>
      ))}
      {notes.map((n) => (
        <p key={n} className="soft text-sm">
          {n}
        </p>
      ))}
      {readings.length > 1 && <ReformingChart part={part} run={run} />}
      {!result && (
        <div className="mt-1 flex flex-wrap gap-2">
          <button
            className={`btn btn-sm min-h-11 ${verdict.kind === "keep" ? "btn-primary" : "btn-outline"}`}
            disabled={verdict.kind !== "keep"}
            onClick={() => settle("keep", verdict.why)}
          >
            {part.part.part}: keep
          </button>
          <button
            className={`btn btn-sm min-h-11 ${verdict.kind === "stop" ? "btn-primary" : "btn-outline"}`}
            onClick={() => settle(verdict.kind === "stop" ? "replace" : "stopped", verdict.why)}
          >
            {part.part.part}: {verdict.kind === "stop" ? "off the supply, replace" : "take it off"}
          </button>
        </div>
      )}
    </section>
  );
}

/** A reading by hand, for a supply and a meter that do not speak. */
function TypedPoint({ run, open, seconds }: { run: ReformRun; open: PartRun[]; seconds: number }) {
  const { say, settings } = useJob();
  const at = useRef(seconds);
  useEffect(() => {
    at.current = seconds;
  });
  const { field, onSubmit, refused } = useTypedForm({ part: open[0]!.part.part, volts: "", amps: "" }, (v) => {
    const volts = parseQuantity(v.volts, { unit: "V", decimal: settings.decimal });
    if (!volts.ok) return `Across it: ${volts.why}; accepted: ${volts.accepted}`;
    const amps = parseQuantity(v.amps, { unit: "A", decimal: settings.decimal });
    if (!amps.ok) return `Leakage: ${amps.why}; accepted: ${figure("0.4")} mA`;
    if (volts.quantity.value < 0 || volts.quantity.value > run.supply * 1.02)
      return `${volts.quantity.echo}: between 0 and the ${run.supply} V of the supply`;
    const most = run.supply / run.begun.ohms;
    if (amps.quantity.value < 0 || amps.quantity.value > 1.05 * most)
      return `${amps.quantity.echo}: the series resistor lets ${formatQuantity(most, "A", 3)} through at most. Milliamperes or microamperes?`;
    say({
      type: "reform-point",
      payload: {
        reform: run.seq,
        part: v.part,
        seconds: Math.round(at.current),
        supply: run.supply,
        volts: volts.quantity.value,
        amps: amps.quantity.value,
      },
    });
    return { part: v.part };
  });
  return (
    <form className="mt-4 flex flex-wrap items-end gap-2" onSubmit={onSubmit} aria-label="A reading by hand">
      <Field label="Capacitor">
        <select className="select w-24" {...field("part")}>
          {open.map((p) => (
            <option key={p.part.part}>{p.part.part}</option>
          ))}
        </select>
      </Field>
      <Field label="Across it, V">
        <input className="input w-28 text-right" inputMode="decimal" {...field("volts")} />
      </Field>
      <Field label="Leakage">
        <input className="input w-32 text-right" placeholder={`${figure("0.42")} mA`} {...field("amps")} />
      </Field>
      <button className="btn btn-outline">Log the reading</button>
      <Refused className="basis-full">{refused}</Refused>
    </form>
  );
}
