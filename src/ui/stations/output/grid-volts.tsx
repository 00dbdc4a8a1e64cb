"use client";
/** Grid volts at rest, under drive and after, typed or from the meter: blocking told from a leaking capacitor, the model fitted to them. */

import { figure } from "@/core/language/language";
import { useEffect, useState } from "react";
import type { Circuit } from "@/core/circuit/circuit";
import { judgeGrid } from "@/core/output/grid-evidence";
import { timeConstant } from "@/core/output/grid-return";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useInstruments } from "../../job/use-instruments";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { keyOf, useStage } from "./use-stage";

export function GridVolts({ peak, setTimes }: { peak?: number; setTimes(times: number): void }) {
  const { say, settings, view, instruments } = useJob();
  const { circuit, stage } = useStage();
  const grids = stage.tubes;
  const {
    field,
    onSubmit,
    refused,
    form,
    typed: now,
  } = useTypedForm({ tube: grids[0]!.name, rest: "", driven: "", after: "", seconds: "" }, (typed) => {
    const numbers: Record<string, number> = {};
    for (const name of ["rest", "driven", "after", "seconds"] as const) {
      if (name === "seconds" && typed.seconds.trim() === "") continue;
      const parsed = parseQuantity(typed[name], { unit: name === "seconds" ? "s" : "V", decimal: settings.decimal });
      if (!parsed.ok) return `${name}: ${parsed.why}; accepted: ${name === "seconds" ? figure("0.5") : "-43"}`;
      numbers[name] = parsed.quantity.value;
    }
    if (Math.abs(numbers.rest!) > 500 || Math.abs(numbers.driven!) > 500)
      return "A grid stands within 500 V of chassis: check the range of the meter";
    say({
      type: "grid-read",
      payload: {
        tube: typed.tube,
        rest: numbers.rest!,
        driven: numbers.driven!,
        after: numbers.after!,
        ...(numbers.seconds === undefined ? {} : { seconds: numbers.seconds }),
      },
    });
    return { tube: typed.tube };
  });
  const expectedAt = (tube: string) => {
    const node = grids.find((t) => t.name === tube)?.grid;
    return view.rows.find((r) => r.point.node === node)?.expected?.volts;
  };
  const last = [...new Map(view.state.gridReads.map((g) => [g.tube, g])).values()];
  return (
    <Section title="Grid volts, read" hint="at rest, while it is driven, and after; by a 10 MΩ meter at the grid or behind its stopper">
      <p className="mb-2 max-w-3xl">
        Live work: one hand, the load connected, the drive through the input and never at the grid. A leaking coupling capacitor makes the
        grid too positive at rest; blocking makes it more negative under drive, and it creeps back.
      </p>
      <form className="flex flex-wrap items-end gap-3" onSubmit={onSubmit}>
        <Field label="Grid of">
          <select className="select w-28" {...field("tube")}>
            {grids.map((t) => (
              <option key={t.name}>{t.name}</option>
            ))}
          </select>
        </Field>
        {(
          [
            ["rest", "At rest, V"],
            ["driven", "Driven, V"],
            ["after", "After, V"],
            ["seconds", "Seconds after"],
          ] as const
        ).map(([name, label]) => (
          <Field key={name} label={label}>
            <input className="input w-28 text-right" inputMode="decimal" {...field(name)} />
          </Field>
        ))}
        <button className="btn">Log it</button>
      </form>
      <Refused>{refused}</Refused>
      {instruments && (
        <MeterOnGrid
          tube={now.tube}
          node={grids.find((t) => t.name === now.tube)?.grid}
          peak={peak}
          take={(name, volts) => form.setValue(name, String(volts))}
        />
      )}
      {last.map((g) => {
        const expected = expectedAt(g.tube);
        if (expected === undefined)
          return <p key={g.tube}>{g.tube}: no expected value at this grid, so a leak cannot be told from the bias.</p>;
        const judged = judgeGrid({ ...g, expected });
        const grid = grids.find((t) => t.name === g.tube)?.grid;
        return (
          <p key={g.tube} className="mt-2" data-testid={`grid-${g.tube}`}>
            <strong>
              {judged.verdict === "neither" ? "●" : "▲"} {judged.why}.
            </strong>{" "}
            {judged.next}.
            {judged.constant !== undefined && (
              <span className="soft block text-sm">
                The readings mean a time constant of {formatQuantity(judged.constant, "s", 2)}
                {grid === undefined ? "" : constantWords(circuit, grid, judged.constant)}.
              </span>
            )}
            {(judged.verdict === "blocking" || judged.verdict === "both") && (
              <FitDrive tube={g.tube} shift={g.driven - g.rest} setTimes={setTimes} />
            )}
          </p>
        );
      })}
    </Section>
  );
}

/** The drive at which the model does what was read: from then on the remedies are compared at that one. */
function FitDrive({ tube, shift, setTimes }: { tube: string; shift: number; setTimes(times: number): void }) {
  const { output } = useJob();
  const { netlist, ask } = useStage();
  const [wanted, setWanted] = useState(false);
  const key = output && wanted ? keyOf("drive", netlist, ask, tube, shift) : undefined;
  const { answer, failed, progress } = useAnswer(key, async (told) => ({
    found: await output!.drive(netlist, { ...ask, tube, shift }, told),
  }));
  const found = answer?.found;
  useEffect(() => {
    if (found) setTimes(Number(found.times.toPrecision(2)));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each answer
  }, [found]);
  if (!wanted)
    return (
      <button className="btn btn-sm ml-2 min-h-11" onClick={() => setWanted(true)}>
        Fit the model to it
      </button>
    );
  if (failed) return <span role="alert"> {failed}</span>;
  if (!answer) return <progress className="progress ml-2 w-40" value={progress ?? 0} max={1} aria-label="Fitting the drive" />;
  return (
    <span className="block text-sm">
      {found
        ? `The model does the same at ${figure(Number(found.times.toPrecision(2)))} times the drive at clip; the picture and the remedies are for that drive now.`
        : "No drive up to 11 times that at clip makes the model's grid shift so far: another part is in it."}
    </span>
  );
}

/** The meter on the grid in hand: what it shows goes into the form; and the simulated generator, driven and silenced. */
function MeterOnGrid({
  tube,
  node,
  peak,
  take,
}: {
  tube: string;
  node?: string;
  peak?: number;
  take(name: "rest" | "driven" | "after" | "seconds", volts: number): void;
}) {
  const { view, energyKind } = useJob();
  const [on, setOn] = useState(false);
  const [stopped, setStopped] = useState<number>();
  const point = view.rows.find((r) => r.point.node === node)?.point.name;
  const { meter, heard, send } = useInstruments();
  useEffect(() => {
    if (on && point && heard !== "waiting") void send({ tell: "want", point, kind: "dcv" });
  }, [on, point, heard, send]);
  if (!point || energyKind !== "live") return null;
  if (!on)
    return (
      <button className="btn mt-2" onClick={() => setOn(true)}>
        Read {tube} with the meter
      </button>
    );
  const shown = heard === "heard" && meter?.kind === "dcv" && meter.value !== undefined ? Number(meter.value.toPrecision(4)) : undefined;
  const button = (name: "rest" | "driven" | "after", label: string) => (
    <button
      className="btn"
      disabled={shown === undefined}
      onClick={() => {
        take(name, shown!);
        if (name === "after" && stopped !== undefined) take("seconds", Number(((Date.now() - stopped) / 1000).toFixed(2)));
      }}
    >
      {label}
    </button>
  );
  return (
    <div className="mt-2 flex flex-wrap items-center gap-3">
      <strong className="w-32 text-2xl tabular-nums" data-testid="grid-meter">
        {shown === undefined ? "– – –" : formatVolts(shown)}
      </strong>
      {button("rest", "Take as at rest")}
      {button("driven", "Take as driven")}
      {button("after", "Take as after")}
      {peak !== undefined && (
        <>
          <button
            className="btn btn-outline"
            onClick={() => void send({ tell: "set", tone: Number((peak / Math.SQRT2).toPrecision(4)), hertz: 400 })}
          >
            Drive it with the simulated generator
          </button>
          <button
            className="btn btn-outline"
            onClick={() => {
              setStopped(Date.now());
              void send({ tell: "set", tone: 0 });
            }}
          >
            Silence
          </button>
        </>
      )}
    </div>
  );
}

/** The measured time constant beside the circuit's. */
function constantWords(circuit: Circuit, grid: string, measured: number): string {
  const own = timeConstant(circuit, grid);
  if (!own) return "";
  const beside = `; ${own.capacitor} and its leak of ${formatQuantity(own.ohms, "Ω", 2)} make ${formatQuantity(own.seconds, "s", 2)}`;
  return measured > 2 * own.seconds ? `${beside}: the bias supply creeps with it, or a resistor has gone high` : beside;
}
