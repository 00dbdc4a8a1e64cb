"use client";
/** The bias set hands-free: each current and rail is taken when it stands still, the adjuster is turned with the eyes on the chassis. */

import { words } from "@/core/language/language";
import { useEffect, useMemo, useRef, useState } from "react";
import { useRouter } from "next/navigation";
import * as bias from "@/core/output/bias-run";
import { adjusterTurned } from "@/core/output/bias-taken";
import { outputStages, type OutputStage } from "@/core/output/output-stage";
import { readingOf } from "@/core/instrument/held-reading";
import { parseQuantity } from "@/core/quantity/parse";
import { warmingSeconds } from "@/core/anatomy/warm-up";
import { biasMissing, switchOffWithoutBias } from "@/core/walk/bias-missing";
import { useJob, useNow } from "../job/job-context";
import { ProbeStrip } from "./around";
import { Done, Expected, Turn } from "./bias-parts";
import { Asking } from "./asking";
import { Keys } from "./keys";
import { Leaving } from "./leaving";
import { Now } from "./now";
import { usePedal } from "./pedal";
import { useBiasTarget } from "./use-bias-target";
import { useHold } from "./use-hold";
import { useSound } from "./sound";

/** A hundredth of the turn for each press of an arrow key. */
const STEP = 0.01;

/** @param stageName of the transformer; the first stage unless given. */
export function BiasProbe({ stageName }: { stageName?: string }) {
  const { view, jobId, energyKind } = useJob();
  const router = useRouter();
  const [phase, setPhase] = useState<"asking" | "setting" | "leaving">(
    energyKind === "live" && view.state.liveChecked ? "setting" : "asking",
  );
  const [stop, setStop] = useState("");
  // Who leaves and comes back finds the run as it was.
  const kept = useRef<Kept>({ logged: false });
  const stages = useMemo(() => (view.circuit ? outputStages(view.circuit) : []), [view.circuit]);
  const stage = stages.find((s) => s.name === stageName) ?? stages[0];
  const out = () => router.push(`/jobs/${jobId}/output-stage`);
  if (!stage)
    return (
      <p className="m-auto max-w-3xl text-center text-4xl">
        {words("Setting the bias by the probe wants a circuit with an output stage.")}
      </p>
    );
  if (phase === "asking") return <Asking done={() => setPhase("setting")} out={out} />;
  if (phase === "leaving") return <Leaving why={stop} out={out} back={stop ? undefined : () => setPhase("setting")} />;
  return (
    <Setting
      stage={stage}
      kept={kept.current}
      leave={(why = "") => {
        setStop(why);
        setPhase("leaving");
      }}
    />
  );
}

interface Kept {
  run?: bias.BiasRun;
  /** The table as it was found is on the tape. */
  logged: boolean;
}

/** @param leave with the reason for which it has to be switched off; without one where the technician leaves. */
function Setting({ stage, kept, leave }: { stage: OutputStage; kept: Kept; leave(why?: string): void }) {
  const { view, say, conditions, netlist, energyKind, settings } = useJob();
  // Cold tubes show nothing: what is held before they are warm is no idle.
  const warming = warmingSeconds(view.state.power, useNow());
  const circuit = view.circuit!;
  const [{ file, mains }] = useState(() => ({
    file: netlist!,
    mains: circuit.mains ? (conditions.mains ?? circuit.mains.volts) : undefined,
  }));
  const [run, setRun] = useState(() => kept.run ?? bias.startBiasRun(circuit, stage));
  const current = useRef(run);
  const [turned, setTurned] = useState<number>();
  const sound = useSound();
  const step = bias.stepOf(run);
  const { table, target, adjuster, aim, output } = useBiasTarget(run, file, mains);
  const then = aim?.idle ?? target?.idle;

  const probe = useHold({
    want: step && { point: step.point, kind: step.kind },
    held() {
      if (warming > 0) return;
      if (bias.stepOf(current.current)?.what === "read") takeHeld();
      else watch();
    },
    letters: "m-",
    sound,
  });
  const { hold, typed } = probe;
  const { meter, heard, send } = probe.instruments;

  function go(next: bias.BiasRun) {
    const same = bias.sameProbe(next, bias.stepOf(current.current));
    current.current = next;
    kept.run = next;
    setRun(next);
    // On the turn the probe stays where it is; elsewhere the display has to be left first.
    probe.begin(bias.stepOf(next)?.point, !same);
  }

  /** On the turn the current is watched; when it stands still on the target the step is done. */
  function watch() {
    const { value } = probe.current();
    if (value === undefined || !target) return;
    if (bias.isOnTarget(current.current, value, target.amps)) doneTurning();
    // It stands still elsewhere: go on watching.
    else probe.again();
  }
  function logTable(when: "before" | "after", of: bias.BiasRun) {
    const line = bias.tableLine(of, when, { idle: when === "after" ? then : table?.idle, target, mains });
    if (line) say(line);
  }
  useEffect(() => {
    if (!table || kept.logged) return;
    kept.logged = true;
    logTable("before", current.current);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the solver has answered
  }, [table]);
  function doneTurning() {
    if (adjuster) say(adjusterTurned(stage.name, adjuster.name, turned ?? aim?.position, target?.amps));
    sound.say("in", "on target");
    go(bias.doneTurning(current.current));
  }

  function log(value: number, digits?: number, note?: string) {
    const s = bias.stepOf(current.current);
    if (s?.what !== "read") return;
    say({
      type: "reading",
      payload: { point: s.point, kind: s.kind, value, ...(digits ? { digits } : {}), conditions, ...(note ? { note } : {}) },
    });
    sound.say("in", s.place);
    const { run: next, whole } = bias.takeValue(current.current, value, target?.amps);
    // As it was found stands with the plate's volts that the same solver gives as for what is left: it is logged when they are known.
    if (whole === "before" && !output) kept.logged = true;
    if (whole === "after" || (whole === "before" && !output)) logTable(whole, next);
    go(next);
    const row = view.rows.find((r) => r.point.name === s.point);
    if (row && biasMissing(row, value)) leave(switchOffWithoutBias(row.point.label));
  }
  function takeHeld() {
    const s = bias.stepOf(current.current);
    if (!s) return;
    const reading = readingOf(probe.current(), s.point, conditions, s.kind);
    if (!reading) return probe.refuse("The meter shows no steady value yet");
    if (reading.value < 0 && s.what === "read" && s.tube !== undefined) return probe.refuse("Negative: turn the leads round");
    log(reading.value, reading.digits, reading.note);
  }
  function takeTyped() {
    const s = bias.stepOf(current.current);
    const parsed = parseQuantity(typed, { unit: s?.kind === "ma" ? "A" : "V", decimal: settings.decimal });
    if (!parsed.ok || !s) return probe.refuse(parsed.ok ? "" : `${parsed.why}; accepted: 0.45, 38m`);
    log(s.kind === "ma" ? parsed.quantity.value * 1e3 : parsed.quantity.value, parsed.quantity.digits);
  }

  function turn(by: number) {
    if (step?.what !== "turn" || !adjuster) return false;
    const to = Math.min(1, Math.max(0, (turned ?? adjuster.position) + by));
    setTurned(to);
    void send({ tell: "set", turn: adjuster.name, pos: Number(to.toFixed(4)) });
    probe.again();
    return true;
  }
  const pedal = usePedal({
    short: () => (step === undefined ? leave() : typed ? takeTyped() : step.what === "turn" ? doneTurning() : takeHeld()),
    long: () => (step === undefined ? leave() : go(bias.goToStep(run, run.at + 1))),
    other(key) {
      if (probe.key(key)) return true;
      if (key === "escape") leave();
      else if (step?.what === "turn" && (key === "arrowright" || key === "arrowup")) return turn(STEP);
      else if (step?.what === "turn" && (key === "arrowleft" || key === "arrowdown")) return turn(-STEP);
      else if (key === "b" || key === "backspace") go(bias.goToStep(run, run.at - 1));
      else if (key === "r") go(run);
      else return false;
      return true;
    },
  });
  const shown = meter && step && meter.kind === step.kind ? (meter.over ? ("over" as const) : meter.value) : undefined;
  const live = typeof shown === "number" && step ? bias.plateAmps(run, step, shown) : undefined;
  const volts =
    table?.idle.tubes[0]?.plateVolts ?? bias.supplyRead(run) ?? view.rows.find((r) => r.point.node === stage.supply)?.expected?.volts;
  const tooMuch = bias.isTooMuch(run, shown, volts);
  return (
    <>
      <ProbeStrip
        instruments={probe.instruments}
        sound={sound}
        walk={{
          taken: run.steps.filter((s, i) => s.what === "read" && bias.valueAt(run, i) !== undefined).map((s) => s.point),
          order: run.steps.filter((s) => s.what === "read").map((s) => s.point),
        }}
      />
      {step === undefined ? (
        <Done stage={stage} />
      ) : (
        <div className="grid shrink-0 gap-y-4 py-4 md:min-h-0 md:flex-1 md:shrink md:grid-cols-[minmax(0,11fr)_minmax(0,9fr)] md:py-0">
          <section
            aria-label="What to do"
            data-testid="bias-step"
            data-step={step.what}
            data-point={step.point}
            className="flex min-w-0 flex-col justify-center gap-4 border-base-300 px-4 md:border-r md:px-10"
          >
            {tooMuch && (
              <p role="alert" className="probe-out text-5xl leading-tight font-bold" data-testid="too-much">
                ■ Above the rating: {step.what === "turn" ? "turn it back, or switch off" : "switch off"}.
              </p>
            )}
            {step.what === "read" ? (
              <>
                <p className="soft text-3xl">{step.when === "before" ? "As found" : "As left"}</p>
                <p className="text-[clamp(3.5rem,7vw,8rem)] leading-none font-bold">{step.place}</p>
                <p className="text-4xl">
                  {step.label} <span className="soft">{step.kind === "ma" ? "milliamperes" : "DC volts"}</span>
                </p>
                {step.when === "after" && then && <Expected step={step} then={then} />}
              </>
            ) : (
              <Turn
                adjuster={adjuster}
                target={aim && target ? bias.watchedAmps(run, target.amps) : undefined}
                live={live}
                place={step.place}
                turned={turned}
                failed={table !== undefined && !adjuster}
              />
            )}
          </section>
          <Now
            hold={hold}
            meter={meter}
            heard={heard}
            typed={typed}
            refused={probe.refused}
            live={energyKind === "live"}
            waiting={false}
            warming={warming}
            kind={step.kind}
          />
        </div>
      )}
      <Keys
        pedal={pedal}
        keys={[
          ["press", step === undefined ? "done" : step.what === "turn" ? "it is on target" : "take it now"],
          ...(step?.what === "turn" ? ([["← →", "turn the simulated adjuster"]] as [string, string][]) : []),
          ["hold", "skip"],
          ["B", "back"],
          ["0–9", "type it"],
          ["V", sound.speech ? "voice off" : "voice on"],
          ["Esc", "leave"],
        ]}
      />
    </>
  );
}
