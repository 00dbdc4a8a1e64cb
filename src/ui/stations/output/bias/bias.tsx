"use client";
/** The bias bench: what each tube does now, what the schools want, which adjuster to turn how far, and what the rails do with it. */

import { fixed, words } from "@/core/language/language";
import { useState } from "react";
import { formatQuantity } from "@/core/quantity/format";
import type { IdleSchool } from "@/core/tape/events/words";
import { useJob } from "../../../job/job-context";
import { ProbeLink } from "../../../frame/probe-link";
import { answerTo, useAnswer } from "../../../job/use-answer";
import { NotLive } from "../../not-live";
import { keyOf, percent, useStage } from "../use-stage";
import { Adjuster } from "./adjuster";
import { CurrentTable } from "./current-table";
import { LogBias } from "./log-bias";
import { Targets } from "./targets";
import { UnequalTubes } from "./unequal-tubes";

export function Bias() {
  const { view, output } = useJob();
  const { netlist, ask, facts, read, stage } = useStage();
  const key = output && keyOf("bias", netlist, ask, facts);
  const asked = useAnswer(key, () => output!.bias(netlist, { ...ask, facts }));
  const answer = asked.answer;
  const recorded = view.state.biasFigures.findLast((f) => f.stage === stage.name)?.chosen;
  const [picked, setPicked] = useState<IdleSchool>();
  const school = picked ?? recorded ?? "middle";
  const target = answer?.targets.find((t) => t.school === school) ?? answer?.targets.find((t) => t.school === "middle");
  return (
    <div className="space-y-4">
      <Verdict target={target && { amps: target.amps, school: target.school }} />
      <NotLive />
      <CurrentTable />
      {asked.failed && (
        <p role="alert" className="text-error">
          The idle could not be worked out: {asked.failed}
        </p>
      )}
      {!answer && !asked.failed && <p role="status">Working out the targets…</p>}
      {answer && (
        <>
          {answer.unlike.length > 0 && (
            <p className="text-warning">
              ▲ {answer.unlike.join(", ")}:{" "}
              {words("no tube of this type draws what was read here; check the reading, the screen volts and the bias at the socket.")}
            </p>
          )}
          <Targets targets={answer.targets} chosen={school} choose={setPicked} />
          {target && stage.bias !== "cathode" && (
            <Adjuster adjusters={answer.adjusters} target={target} now={answer.idle} current={answerTo(asked, key) !== undefined} />
          )}
          {target && stage.bias === "cathode" && (
            <p>This stage biases itself: its current is set by the cathode resistor. Choose one in the tab Cathode resistor.</p>
          )}
          {Object.keys(read.read).length > 1 && (read.table.spread ?? 0) > 0.05 && <UnequalTubes />}
          {target && <LogBias target={target} idle={answer.idle} />}
        </>
      )}
    </div>
  );
}

/** What to do, the biggest thing on the sheet. */
function Verdict({ target }: { target?: { amps: number; school: string } }) {
  const { energyKind } = useJob();
  const { read, stage } = useStage();
  const { rows, missing, spread, mixed } = read.table;
  const mean = rows.reduce((sum, r) => sum + r.plate, 0) / Math.max(1, rows.length);
  const hot = rows.filter((r) => (r.ofRating ?? 0) > 1 || (r.ofScreenRating ?? 0) > 1);
  const worst = Math.max(0, ...rows.map((r) => r.ofRating ?? 0));
  const settling = Object.entries(read.drift).filter(([, d]) => !d.settled);
  const off = target && rows.length > 0 ? mean / target.amps - 1 : undefined;
  return (
    <section className="rounded border border-base-300 bg-base-200 p-4" aria-label="Idle now">
      <p className="text-2xl font-bold" data-testid="bias-verdict">
        {rows.length === 0
          ? words(`Read the current of ${missing.join(" and ")}.`)
          : hot.length > 0
            ? words(
                `▲ ${hot.map((h) => h.tube).join(", ")} above the rating at idle: ${percent(worst)}. This shortens life, whether it is meant or a fault.`,
              )
            : `${rows.map((r) => r.tube).join(", ")}: ${formatQuantity(mean, "A", 3)}${rows.length > 1 ? " on average" : ""}${worst > 0 ? `, ${percent(worst)} of the rating` : ""}${
                off === undefined
                  ? ""
                  : Math.abs(off) < 0.03
                    ? ", on target."
                    : `, ${off > 0 ? "above" : "below"} the target of ${formatQuantity(target!.amps, "A", 3)}.`
              }`}
      </p>
      <ul className="mt-1">
        {rows.length > 0 && missing.length > 0 && <li>Not read yet: {missing.join(", ")}.</li>}
        {mixed && (
          <li>▲ {words(`Tubes of different types in one stage: ${mixed.join(" and ")}. Each needs its own bias; fit one type.`)}</li>
        )}
        {spread !== undefined && (
          <li>
            {words("Spread between the tubes:")} {percent(spread)}
            {spread > 0.1 ? " ▲" : ""}
            {read.table.standing !== undefined && `; ${formatQuantity(Math.abs(read.table.standing), "A", 2)} of it magnetises the core`}.
          </li>
        )}
        {settling.map(([tube, d]) => (
          <li key={tube}>
            {tube} still {d.perMinute > 0 ? "climbs" : "falls"} by {fixed(Math.abs(d.perMinute) * 100, 1)} % a minute: not settled yet.
          </li>
        ))}
        {settling.length === 0 && Object.keys(read.drift).length > 0 && <li>The current has settled.</li>}
      </ul>
      <p className="mt-3 flex flex-wrap items-center gap-3">
        <ProbeLink order={`bias:${stage.name}`} label="Set the bias hands-free" />
        {energyKind !== "live" && <span className="soft text-sm">The amp is not logged as on; idle current is read live.</span>}
      </p>
    </section>
  );
}
