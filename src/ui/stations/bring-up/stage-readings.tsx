"use client";
/** What is read in a stage, each against what the model shows with these tubes out at the volts of the dial. */

import { useEffect, useMemo, useState } from "react";
import type { StagePrediction } from "@/core/bring-up/corridor";
import { stageReadings } from "@/core/bring-up/stage-state";
import { judgeStageReading } from "@/core/bring-up/stage-reading";
import type { BringUpStage } from "@/core/bring-up/stages";
import type { Watch } from "@/core/bring-up/watches";
import { envelopeOf, type Circuit } from "@/core/circuit/circuit";
import { warmingSeconds } from "@/core/walk/warm";
import { readingOf } from "@/core/instrument/held-reading";
import { parseEntry } from "@/core/job/entry/entry";
import { formatVolts } from "@/core/quantity/format";
import { useJob } from "../../frame/job-context";
import { useMeterAt } from "../../frame/use-meter-at";
import { VerdictMark } from "../../frame/verdict-mark";

export function StageReadings({
  stage,
  prediction,
  onMissing,
}: {
  stage: BringUpStage;
  prediction?: StagePrediction;
  onMissing(points: string[]): void;
}) {
  const { view, say, entryContext, conditions, energy, now } = useJob();
  const { state } = view;
  const readings = useMemo(() => stageReadings(state, stage), [state, stage]);
  const readingOfWatch = (w: Watch) => readings.get(`${w.kind} ${w.point.toLowerCase()}`);
  const [at, setAt] = useState<string>();
  const watch = stage.watch.find((w) => w.point === at) ?? stage.watch.find((w) => !readingOfWatch(w)) ?? stage.watch[0];
  // Behind a lamp the wall says nothing: the volts at the amp are those that its own instrument showed.
  const ampVolts = state.mainsCurrents.findLast((c) => c.stage === stage.id)?.volts;
  const judgedOf = (w: Watch) => {
    const r = readingOfWatch(w);
    return r && judgeStageReading(w.point, r.value, prediction?.steps ?? [], r.conditions.limiter ? ampVolts : r.conditions.mains);
  };
  const missing = stage.watch.filter((w) => w.must && (!readingOfWatch(w) || judgedOf(w)?.verdict === "out")).map((w) => w.point);
  const key = missing.join();
  useEffect(() => onMissing(key ? key.split(",") : []), [key, onMissing]);
  const [text, setText] = useState("");
  const [refused, setRefused] = useState("");
  const live = energy.kind === "live";
  // With every tube out there is nothing to warm.
  const heated = circuitTubes(view.circuit!).some((t) => !stage.without.includes(t));
  const warming = heated ? warmingSeconds(state.power, now) : 0;
  const meter = useMeterAt(watch?.point ?? "", watch?.kind ?? "dcv", undefined, undefined, !watch || !live);
  if (!watch) return null;

  const full = prediction?.steps.at(-1);
  function take(e: React.FormEvent) {
    e.preventDefault();
    if (text.trim() === "") {
      if (live && warming > 0) return setRefused(`The tubes are warming up: ${warming} s more, or type what you read`);
      const held = live && meter.steady ? readingOf(meter.hold, watch!.point, conditions, watch!.kind) : undefined;
      if (!held) return setRefused(live ? "Not still yet: type it, or wait" : "The amp is not logged as on");
      say({ type: "reading", payload: held });
    } else {
      const entry = parseEntry(`${watch!.point} ${watch!.kind === "acv" ? "ac" : "dc"} ${text}`, entryContext("bring-up"));
      if (!entry.ok) return setRefused(`${entry.why}. Accepted: ${entry.accepted}`);
      say(...entry.drafts);
    }
    setText("");
    setRefused("");
    setAt(undefined);
  }
  return (
    <section aria-label="Readings of this stage">
      <h2 className="font-bold">
        Readings{" "}
        <span className="soft text-sm font-normal">
          {full ? `expected at ${formatVolts(full.mains)}; scaled to the dial when judged` : ""}
        </span>
      </h2>
      <form onSubmit={take} className="mt-1 flex flex-wrap items-end gap-2">
        <label className="basis-full text-lg" htmlFor="stage-reading">
          <strong>{watch.label}</strong>
          {watch.pin && `, ${watch.pin}`}, {watch.kind === "acv" ? "AC V" : "V"}
        </label>
        <input
          id="stage-reading"
          className="input h-14 w-40 text-right text-2xl tabular-nums"
          inputMode="decimal"
          autoComplete="off"
          value={text}
          aria-invalid={refused !== ""}
          onChange={(e) => {
            setText(e.target.value);
            setRefused("");
          }}
        />
        <button className="btn btn-primary h-14">Log it</button>
        {meter.shows && live && (
          <span data-testid="meter-here" data-steady={meter.steady && warming === 0} className={`text-sm ${meter.steady ? "" : "soft"}`}>
            {meter.steady ? "●" : "○"} meter {meter.shows}
            {warming > 0 ? `, warming up ${warming} s` : meter.steady ? ": Enter takes it" : ""}
          </span>
        )}
      </form>
      <p role="alert" className="min-h-5 text-sm text-error">
        {refused}
      </p>
      <table className="table table-sm" aria-label="Readings of this stage">
        <thead>
          <tr>
            <th>Where</th>
            <th className="text-right">Expected</th>
            <th className="text-right">Read</th>
            <th>Verdict</th>
          </tr>
        </thead>
        <tbody>
          {stage.watch.map((w) => {
            const r = readingOfWatch(w);
            const expected = full?.volts[w.point];
            const judged = judgedOf(w);
            return (
              <tr key={`${w.kind}${w.point}`} className={w === watch ? "bg-base-200" : ""}>
                <td>
                  <button className="text-left underline decoration-dotted underline-offset-4" onClick={() => setAt(w.point)}>
                    {w.label}
                  </button>{" "}
                  {w.must && <span className="soft text-xs">must</span>}
                </td>
                <td className="text-right tabular-nums">{expected === undefined ? "–" : formatVolts(expected)}</td>
                <td className="text-right font-bold tabular-nums">{r ? formatVolts(r.value) : ""}</td>
                <td>
                  {judged ? (
                    <>
                      <VerdictMark verdict={judged.verdict} word /> <span className="text-xs">{judged.why}</span>
                    </>
                  ) : (
                    <VerdictMark verdict="none" word />
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

const circuitTubes = (circuit: Circuit) => circuit.elements.filter((e) => e.tube ?? e.rectifierTube).map((e) => envelopeOf(e.name));
