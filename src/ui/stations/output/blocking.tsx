"use client";
/** Blocking: the amp driven beyond clip and let go; the grids' volts and the output on one time axis; remedies beside each other; what was read. */

import { figure } from "@/core/language/language";
import { useState } from "react";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { Field } from "../../forms/section";
import { late } from "../../forms/late";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { GridVolts } from "./grid-volts";
import { Remedies } from "./remedies";
import { UnderWay } from "./under-way";
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
        <UnderWay what="Driving the amp" progress={progress} failed={failed} again={() => setAgain((n) => n + 1)} />
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
      <GridVolts peak={answer?.peak} setTimes={setTimes} />
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
