"use client";
/** Blocking: the amp driven beyond clip and let go; the grids' volts and the output on one time axis; remedies beside each other; what was read. */

import { figure } from "@/core/language/language";
import { useEffect, useState } from "react";
import type { Circuit } from "@/core/circuit/circuit";
import { timeConstant, type Remedy } from "@/core/output/blocking";
import { judgeGrid } from "@/core/output/grid-evidence";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { WideTable } from "../../forms/wide-table";
import { late } from "../../frame/late";
import { useJob } from "../../frame/job-context";
import { useInstruments } from "../../frame/use-instruments";
import { answerTo, useAnswer } from "../../frame/use-answer";
import { keyOf, useStage } from "./use-stage";

const BlockingChart = late(() => import("./blocking-chart").then((m) => m.BlockingChart));

export function Blocking() {
  const { output } = useJob();
  const { netlist, ask, stage } = useStage();
  const [times, setTimes] = useState(3);
  const [again, setAgain] = useState(0);
  const key = output && stage.load ? keyOf("blocking", netlist, ask, times, again) : undefined;
  const { answer, failed, progress } = useAnswer(key, (told) => output!.blocking(netlist, { ...ask, times }, told));
  if (!stage.load) return <p>A load on the output transformer is wanted for this.</p>;
  const run = answer?.run;
  return (
    <div className="space-y-4">
      <section className="rounded border border-base-300 bg-base-200 p-4">
        <p className="text-2xl font-bold" data-testid="blocking-says">
          {!run ? "Driving the amp beyond clip…" : runWords(run)}
        </p>
        {progress !== undefined && !failed && (
          <p className="mt-2 flex items-center gap-3">
            <progress className="progress w-72" value={progress} max={1} aria-label="Driving the amp" />
            <button className="btn btn-sm min-h-11" onClick={() => output?.cancel()}>
              Stop
            </button>
          </p>
        )}
        {failed && (
          <p role="alert" className="text-error">
            {failed}{" "}
            <button className="underline" onClick={() => setAgain((n) => n + 1)}>
              Try again
            </button>
          </p>
        )}
      </section>
      <Field label="Drive, times that at clip">
        <select className="select w-28" value={times} onChange={(e) => setTimes(Number(e.target.value))}>
          {[...new Set([1, 2, 3, 5, 8, times])]
            .sort((a, b) => a - b)
            .map((t) => (
              <option key={t} value={t}>
                {figure(t)}
              </option>
            ))}
        </select>
      </Field>
      {run && <BlockingChart run={run} />}
      {answer && <Remedies peak={answer.peak} />}
      <GridVoltsForm peak={answer?.peak} setTimes={setTimes} />
    </div>
  );
}

/** What happens, in one sentence. */
function runWords(run: { shift: number; recovery?: number; deaf: number; grids: { rest: number }[] }): string {
  // A tenth of the bias is what the end of a tone does to a grid that never blocked.
  if (run.shift > -Math.max(1.5, 0.1 * Math.abs(run.grids[0]?.rest ?? 0))) return "No blocking: the grids stay where they are.";
  const back =
    run.recovery === undefined ? "is not back within the time watched" : `creeps back in ${formatQuantity(run.recovery, "s", 2)}`;
  const gone = run.deaf > 0.001 ? `; for ${formatQuantity(run.deaf, "s", 2)} the stage is nearly cut off` : "";
  return `The bias shifts by ${formatVolts(run.shift)} and ${back}${gone}.`;
}

const KIND: Record<Remedy["kind"], string> = {
  none: "As it is",
  "coupling capacitor": "Smaller coupling capacitors",
  "grid leak": "Smaller grid leaks",
  "grid stopper": "Grid stoppers",
  "before the inverter": "Less bass before the inverter",
  "colder bias": "Colder bias",
  "driver tube": "Other driver",
};

function Remedies({ peak }: { peak: number }) {
  const { output, say, view } = useJob();
  const { netlist, ask } = useStage();
  const [wanted, setWanted] = useState(false);
  const key = output && wanted ? keyOf("remedies", netlist, ask, peak) : undefined;
  const asked = useAnswer(key, (told) => output!.remedies(netlist, { ...ask, peak }, told));
  const answer = answerTo(asked, key);
  const { failed, progress } = asked;
  const ms = (s: number | undefined) => (s === undefined ? "longer than watched" : formatQuantity(s, "s", 2));
  const round = (x: number) => Number(x.toPrecision(4));
  const found = (r: Remedy, when: "before" | "trial") =>
    ({
      type: "blocking",
      payload: {
        when,
        what: when === "before" ? "as it is" : r.what,
        set: r.set,
        shift: round(r.shift),
        deaf: round(r.deaf),
        watts: round(r.watts),
        ...(r.recovery === undefined ? {} : { recovery: round(r.recovery) }),
        ...(r.bass === undefined ? {} : { bass: round(r.bass) }),
      },
    }) as const;
  const propose = (r: Remedy) => {
    const none = answer!.find((x) => x.kind === "none")!;
    say(...(view.state.blockings.some((b) => b.when === "before") ? [] : [found(none, "before")]), found(r, "trial"), {
      type: "approval",
      payload: {
        what: `Against the choking after loud notes: ${r.what}. It recovers in ${ms(r.recovery)} and not ${ms(none.recovery)}; bass from ${r.bass === undefined ? "under 5 Hz" : formatQuantity(r.bass, "Hz", 2)}, clean power ${formatQuantity(r.watts, "W", 3)}; ${r.original}`,
        answer: "asked",
      },
    });
  };
  const fit = (r: Remedy) =>
    say({
      type: "change",
      payload: {
        position: r.set[0]?.split("=")[0] ?? "bias",
        kind: "experiment",
        newPart: r.what,
        reason: "blocking",
        reversible: true,
        outcome: "open",
        ...(r.set.length > 0 ? { set: r.set } : {}),
        hypothesis: `recovers in ${ms(r.recovery)}`,
      },
    });
  return (
    <Section title="Remedies" hint="each by the same drive">
      {!wanted && (
        <button className="btn btn-primary" onClick={() => setWanted(true)}>
          Compare the remedies
        </button>
      )}
      {wanted && !answer && !failed && (
        <p className="flex items-center gap-3">
          <progress className="progress w-72" value={progress ?? 0} max={1} aria-label="Trying each remedy" />
          <button
            className="btn btn-sm min-h-11"
            onClick={() => {
              output?.cancel();
              setWanted(false);
            }}
          >
            Stop
          </button>
        </p>
      )}
      {failed && wanted && <p role="alert">{failed}</p>}
      {answer && (
        <WideTable label="Remedies against blocking" className="table table-sm">
          <thead>
            <tr>
              <th>Remedy</th>
              <th className="text-right">Shift</th>
              <th className="text-right">Back in</th>
              <th className="text-right">Cut off for</th>
              <th className="text-right">Bass, −3 dB</th>
              <th className="text-right">Power at clip</th>
              <th>Originality</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {answer.map((r) => (
              <tr key={r.kind} className={r.kind === "none" ? "bg-base-200" : ""}>
                <td>
                  <strong>{KIND[r.kind]}</strong>
                  {r.kind !== "none" && <span className="soft block text-xs">{r.what}</span>}
                </td>
                <td className="text-right whitespace-nowrap tabular-nums">{formatVolts(r.shift)}</td>
                <td className="text-right font-bold whitespace-nowrap tabular-nums">{ms(r.recovery)}</td>
                <td className="text-right whitespace-nowrap tabular-nums">{formatQuantity(r.deaf, "s", 2)}</td>
                <td className="text-right whitespace-nowrap tabular-nums">
                  {r.bass === undefined ? "under 5 Hz" : formatQuantity(r.bass, "Hz", 2)}
                </td>
                <td className="text-right whitespace-nowrap tabular-nums">{formatQuantity(r.watts, "W", 3)}</td>
                <td className="text-xs">{r.original}</td>
                <td>
                  {r.kind !== "none" && (
                    <div className="flex flex-col gap-1">
                      <button className="btn btn-sm min-h-11" onClick={() => propose(r)} aria-label={`Ask the owner: ${KIND[r.kind]}`}>
                        Ask the owner
                      </button>
                      {r.set.length > 0 && (
                        <button
                          className="btn btn-sm btn-ghost min-h-11"
                          onClick={() => fit(r)}
                          aria-label={`Try in the amp: ${KIND[r.kind]}`}
                        >
                          Try it in the amp
                        </button>
                      )}
                    </div>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </WideTable>
      )}
    </Section>
  );
}

/** Grid volts at rest, under drive and after: what they prove. */
function GridVoltsForm({ peak, setTimes }: { peak?: number; setTimes(times: number): void }) {
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
        ? `The model does the same at ${found.times.toPrecision(2)} times the drive at clip; the picture and the remedies are for that drive now.`
        : "No drive from 0.7 to 12 times that at clip makes the model's grid shift so far: another part is in it."}
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
