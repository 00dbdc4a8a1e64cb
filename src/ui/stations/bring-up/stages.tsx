"use client";
/** The stages of this amp: the one to do now is the biggest thing, with what it should show and when to stop. */

import { lateInBrowser } from "../../forms/late";
import { useMemo, useState } from "react";
import { stagesOf, stageFit, type BringUpStage } from "@/core/bring-up/stages";
import { lastChange, stageResult } from "@/core/bring-up/stage-state";
import { isolationOpen } from "@/core/bring-up/fuse-isolation-state";
import { railLimits } from "@/core/bring-up/unloaded-stage";
import type { Verdict } from "@/core/expectation/expectation";
import { formatVolts } from "@/core/quantity/format";
import { useJob } from "../../job/job-context";
import { VerdictMark } from "../../forms/verdict-mark";
import { StageReadings } from "./stage-readings";
import type { BringUpBench } from "./use-bring-up";

const MARK: Record<string, Verdict> = { passed: "in", stopped: "out", skipped: "watch", open: "none" };

// Not the readings: what is still missing of them decides whether the stage can be passed.
const CurrentForm = lateInBrowser(() => import("./current-form").then((m) => m.CurrentForm));
const MainsInstrument = lateInBrowser(() => import("./mains-instrument").then((m) => m.MainsInstrument));
const StopSigns = lateInBrowser(() => import("./stop-signs").then((m) => m.StopSigns));
const CurrentChart = lateInBrowser(() => import("./current-chart").then((m) => m.CurrentChart));

export function Stages({ wall, lamp, setLamp, solved }: BringUpBench) {
  const { view, say, energyKind } = useJob();
  const { state, circuit } = view;
  const oneAtATime = isolationOpen(state);
  const stages = useMemo(() => stagesOf(circuit!, { oneAtATime }), [circuit, oneAtATime]);
  const doneOf = (s: BringUpStage) => stageResult(state, s);
  const [chosen, setChosen] = useState<string>();
  const stage = stages.find((s) => s.id === chosen) ?? stages.find((s) => !doneOf(s) || doneOf(s) === "stopped") ?? stages.at(-1)!;
  const prediction = solved.answer?.stages.find((p) => p.stage === stage.id);
  const on = state.power?.state === "on" ? state.power : undefined;
  const fit = stageFit(circuit!, stage, on?.without ?? []);
  const before = stages.slice(0, stages.indexOf(stage)).filter((s) => !doneOf(s));
  const [missing, setMissing] = useState<string[]>([]);
  const result = (r: "passed" | "stopped" | "skipped" | "open again", note?: string) => {
    say({ type: "stage", payload: { stage: stage.id, result: r, ...(note ? { note } : {}) } });
    setChosen(undefined);
  };

  return (
    <div className="grid gap-4 lg:grid-cols-[13rem_minmax(0,1fr)]">
      <ol aria-label="Stages" className="space-y-1">
        {stages.map((s, i) => (
          <li key={s.id}>
            <button
              className={`flex min-h-11 w-full items-center gap-2 rounded px-2 text-left ${s === stage ? "bg-base-300 font-bold" : "hover:bg-base-200"}`}
              aria-current={s === stage ? "step" : undefined}
              onClick={() => setChosen(s.id)}
            >
              <VerdictMark verdict={MARK[doneOf(s) ?? "open"]!} />
              <span className="flex-1 text-sm leading-tight">
                {i + 1} {s.title}
              </span>
            </button>
          </li>
        ))}
      </ol>
      <div className="min-w-0 space-y-3">
        <section aria-label="Stage" className="rounded border border-base-300 bg-base-200 p-4">
          <p className="soft text-sm">
            Stage {stages.indexOf(stage) + 1} of {stages.length} · {stage.why}
          </p>
          <p className="text-3xl font-bold">{stage.title}</p>
          <ul className="mt-1 list-disc pl-5 text-lg">
            {stage.doing.map((d) => (
              <li key={d}>{d}</li>
            ))}
          </ul>
          {before.length > 0 && (
            <p className="mt-1 text-warning">▲ Not passed yet: {before.map((s) => s.title.toLowerCase()).join("; ")}.</p>
          )}
          {on && stage.powered && fit.wantedIn.length > 0 && (
            <p className="mt-1 text-warning" role="alert">
              ▲ {fit.wantedIn.join(", ")} {fit.wantedIn.length > 1 ? "are" : "is"} removed, and this stage needs{" "}
              {fit.wantedIn.length > 1 ? "them" : "it"} in: off, plug out, put {fit.wantedIn.length > 1 ? "them" : "it"} in, power on again.
            </p>
          )}
          {on && stage.powered && fit.wantedOut.length > 0 && (
            <p className="mt-1 text-warning" role="alert">
              ▲ {fit.wantedOut.join(", ")} still fitted, by the tape, but this stage runs without: readings taken now count for another
              stage.
            </p>
          )}
          {energyKind === "live" && !stage.powered && <p className="mt-1 text-warning">▲ Do this with the plug out.</p>}
          <div className="mt-3 flex flex-wrap items-center gap-2">
            {doneOf(stage) === "passed" ? (
              <button className="btn btn-outline" onClick={() => result("open again")}>
                Do it again
              </button>
            ) : (
              <>
                <button className="btn btn-primary btn-lg" disabled={missing.length > 0 && stage.powered} onClick={() => result("passed")}>
                  Passed
                </button>
                <button className="btn btn-outline btn-lg" onClick={() => result("stopped")}>
                  Stopped here
                </button>
                <button className="btn btn-ghost" onClick={() => result("skipped")}>
                  Skip
                </button>
              </>
            )}
            {missing.length > 0 && stage.powered && doneOf(stage) !== "passed" && (
              <span className="soft text-sm">Still to be read, or out of band: {missing.join(", ")}</span>
            )}
          </div>
        </section>
        {stage.powered && <Rails wall={wall} stage={stage} />}
        {solved.failed && <p role="alert">This amp could not be solved: {solved.failed}</p>}
        {!solved.answer && !solved.failed && (
          <p role="status">
            Working out what each stage should show
            <progress className="progress mt-1 block w-64" value={solved.progress ?? 0} max={1} aria-label="Solving the stages" />
          </p>
        )}
        {stage.powered && (
          <>
            <StageReadings key={stage.id} stage={stage} prediction={prediction} onMissing={setMissing} />
            <div className="grid gap-x-6 gap-y-3 xl:grid-cols-2">
              <div className="min-w-0 space-y-3">
                <CurrentForm stage={stage} prediction={prediction} lamps={solved.answer?.lamps ?? []} lamp={lamp} setLamp={setLamp} />
                <MainsInstrument />
              </div>
              <div className="min-w-0 space-y-3">
                <CurrentChart
                  stage={stage}
                  steps={prediction?.steps ?? []}
                  wall={wall}
                  currents={state.mainsCurrents.filter((c) => c.seq > lastChange(state))}
                />
                <StopSigns stage={stage} prediction={prediction} wall={wall} />
              </div>
            </div>
          </>
        )}
      </div>
    </div>
  );
}

/** Before power: a rail that nothing loads, against what its capacitors are rated for. */
function Rails({ wall, stage }: { wall: number; stage: BringUpStage }) {
  const { view } = useJob();
  const over = useMemo(() => railLimits(view.circuit!, stage.without, wall), [view.circuit, stage, wall]);
  if (over.length === 0) return null;
  return (
    <section aria-label="Unloaded rails" className="rounded border border-warning p-3">
      {over.map((r) => (
        <p key={r.capacitor}>
          <VerdictMark verdict={r.verdict} word /> <strong>{r.capacitor}</strong> {r.label}: {formatVolts(r.volts)} unloaded; rated{" "}
          {formatVolts(r.rated)}. {r.verdict === "out" && `Turn no further than ${r.turnTo} V here, or connect a load.`}
        </p>
      ))}
    </section>
  );
}
