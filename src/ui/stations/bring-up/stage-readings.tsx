"use client";
/** What is read in a stage, each against what the model shows with these tubes out at the volts of the dial. */

import { say } from "@/core/language/language";
import { useEffect, useMemo, useState } from "react";
import type { StagePrediction } from "@/core/bring-up/corridor";
import { stageReadings } from "@/core/bring-up/stage-state";
import { overByCathode } from "@/core/bring-up/over-rating";
import { latestReading } from "@/core/tape/fold";
import { judgeStageReading } from "@/core/bring-up/stage-reading";
import type { BringUpStage } from "@/core/bring-up/stages";
import type { Watch } from "@/core/bring-up/watches";
import { envelopeOf, type Circuit } from "@/core/circuit/circuit";
import { warmingSeconds } from "@/core/anatomy/warm-up";
import { formatVolts } from "@/core/quantity/format";
import { ReadingField } from "../../forms/reading-field";
import { useStays } from "../../forms/stays";
import { useJob, useNow } from "../../job/job-context";
import { useTakeReading } from "../../forms/use-take-reading";
import { useMeterAt } from "../../job/use-meter-at";
import { VerdictMark } from "../../forms/verdict-mark";

export function StageReadings({
  stage,
  prediction,
  onMissing,
}: {
  stage: BringUpStage;
  prediction?: StagePrediction;
  onMissing(points: string[]): void;
}) {
  const { view, energyKind } = useJob();
  const reading = useTakeReading("bring-up");
  const now = useNow();
  const { state } = view;
  const readings = useMemo(() => stageReadings(state, stage, view.circuit!), [state, stage, view.circuit]);
  const readingOfWatch = (w: Watch) => readings.get(`${w.kind} ${w.point.toLowerCase()}`);
  const [at, setAt] = useState<string>();
  const [turn, setTurn] = useState(0);
  /** Once a reading was typed here the field keeps the cursor. */
  const [begun, setBegun] = useState(false);
  const wanted = stage.watch.find((w) => w.point === at) ?? stage.watch.find((w) => !readingOfWatch(w)) ?? stage.watch[0];
  const [watch, box] = useStays(wanted, `${stage.id} ${wanted?.kind} ${wanted?.point}`, turn);
  // Behind a lamp the wall says nothing: the volts at the amp are those that its own instrument showed.
  const ampVolts = state.mainsCurrents.findLast((c) => c.stage === stage.id)?.volts;
  /** As it was read, else as it is expected at the volts of now. */
  const plateVolts = (node: string) => {
    const row = view.rows.find((x) => x.point.node === node);
    return row && (latestReading(state, row.point.name)?.value ?? row.expected?.volts);
  };
  const judgedOf = (w: Watch) => {
    const r = readingOfWatch(w);
    if (!r) return undefined;
    const over = w.kind === "dcv" && w.node ? overByCathode(view.circuit!, w.node, r.value, plateVolts) : undefined;
    if (over) return { verdict: "out" as const, why: over.says };
    return judgeStageReading(w.point, r.value, prediction?.steps ?? [], r.conditions.limiter ? ampVolts : r.conditions.mains);
  };
  const missing = stage.watch.filter((w) => w.must && (!readingOfWatch(w) || judgedOf(w)?.verdict === "out")).map((w) => w.point);
  const key = missing.join();
  useEffect(() => onMissing(key ? key.split(",") : []), [key, onMissing]);
  const live = energyKind === "live";
  // With every tube out there is nothing to warm.
  const heated = circuitTubes(view.circuit!).some((t) => !stage.without.includes(t));
  const warming = heated ? warmingSeconds(state.power, now) : 0;
  const meter = useMeterAt(watch?.point ?? "", watch?.kind ?? "dcv", undefined, undefined, !watch || !live);
  if (!watch) return null;

  const full = prediction?.steps.at(-1);
  function take(text: string) {
    const { point, kind } = watch!;
    if (text === "" && live && warming > 0) return { refused: say`The tubes are warming up: ${warming} s more, or type what you read` };
    if (text === "" && !live) return { refused: "The amp is not logged as on" };
    const refused = text === "" ? reading.held(meter.toTake(), point, kind) : reading.typed({ point, kind, text });
    if (!refused) setAt(undefined);
    setBegun(true);
    return refused;
  }
  return (
    <section {...box} aria-label="Readings of this stage">
      <h2 className="font-bold">
        Readings{" "}
        <span className="soft text-sm font-normal">
          {full ? `expected at ${formatVolts(full.mains)}; judged at the dial's present voltage` : ""}
        </span>
      </h2>
      <ReadingField
        key={`${watch.kind} ${watch.point}`}
        autoFocus={begun}
        label={`${watch.label}${watch.pin ? `, ${watch.pin}` : ""}, ${watch.kind === "acv" ? "AC V" : "V"}`}
        button="Log it"
        empty
        meter={
          meter.shows && live
            ? {
                steady: meter.steady && warming === 0,
                says: `${meter.steady ? "●" : "○"} Meter ${meter.shows}${warming > 0 ? say`, tubes warming up ${warming} s` : meter.steady ? ", steady: Enter logs it" : ", not steady yet"}`,
              }
            : undefined
        }
        take={take}
      />
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
                  <button
                    className="text-left underline decoration-dotted underline-offset-4"
                    onClick={() => {
                      setAt(w.point);
                      setTurn((n) => n + 1);
                    }}
                  >
                    {w.label}
                  </button>{" "}
                  {w.must && <span className="soft text-xs">required</span>}
                </td>
                <td className="text-right tabular-nums">{expected === undefined ? "–" : formatVolts(expected)}</td>
                <td className="text-right font-bold tabular-nums">{r ? formatVolts(r.value) : ""}</td>
                <td>
                  {judged ? (
                    <>
                      <VerdictMark verdict={judged.verdict} word /> <span className="text-xs">{judged.why}</span>
                    </>
                  ) : (
                    <>
                      <VerdictMark verdict="none" word={!r} /> {r && <span className="text-xs">not judged yet</span>}
                    </>
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
