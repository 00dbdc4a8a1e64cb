"use client";
/** What the solver says of a bias run: the table's idle, the target of the chosen school, and where the adjuster stands for it. */

import { currentsOf, turnStep, type BiasRun } from "@/core/output/bias-run";
import type { IdleSchool } from "@/core/tape/events/words";
import { useJob } from "../job/job-context";
import { answerTo, useAnswer } from "../job/use-answer";

/** @param file circuit as the run began with. @param mains volts. Nothing is asked before every tube was read. */
export function useBiasTarget(run: BiasRun, file: string, mains: number | undefined) {
  const { view, output } = useJob();
  const { stage } = run;
  const figures = view.state.biasFigures.findLast((f) => f.stage === stage.name);
  const amps = (milli: number | undefined) => (milli === undefined ? undefined : milli / 1e3);
  const facts = {
    label: amps(figures?.labelMilliamps),
    manual: amps(figures?.manualMilliamps),
    own: amps(figures?.ownMilliamps),
    brief: view.state.brief?.order[0],
  };
  const ask = { stage: stage.name, ...(mains === undefined ? {} : { mains }), read: currentsOf(run, "before") };
  const key = output && run.at >= turnStep(run) ? JSON.stringify(["bias", ask, facts]) : undefined;
  const table = answerTo(
    useAnswer(key, () => output!.bias(file, { ...ask, facts })),
    key,
  );
  const school: IdleSchool = figures?.chosen ?? "middle";
  const target = table?.targets.find((t) => t.school === school) ?? table?.targets.find((t) => t.school === "middle");
  const adjuster = table?.adjusters.find((a) => a.stages.includes(stage.name) && a.role === "level");
  const aimKey = target && adjuster ? JSON.stringify(["aim", ask, adjuster.name, target.amps]) : undefined;
  const aim = answerTo(
    useAnswer(aimKey, () => output!.aim(file, { ...ask, adjuster: adjuster!.name, amps: target!.amps })),
    aimKey,
  );
  return { table, target, adjuster, aim, output };
}
