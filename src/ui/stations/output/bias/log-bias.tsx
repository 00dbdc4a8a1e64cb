"use client";
/** Logs the bias table as it was found or as it is left, with the rails beside what was predicted; and shows both. */

import { words } from "@/core/language/language";
import { biasTaken } from "@/core/output/bias-taken";
import type { Idle } from "@/core/output/idle";
import type { Target } from "@/core/output/targets";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import type { BiasTaken } from "@/core/tape/events/output-events";
import type { TakenWhen } from "@/core/tape/events/words";
import { Section } from "../../../forms/section";
import { WideTable } from "../../../forms/wide-table";
import { useJob } from "../../../job/job-context";
import { percent, useStage } from "../use-stage";

export function LogBias({ target, idle }: { target: Target; idle: Idle }) {
  const { view, say } = useJob();
  const { read, stage, mains } = useStage();
  const { rows } = read.table;
  const taken = view.state.biases.filter((b) => b.stage === stage.name);
  const [before, after] = [taken.find((b) => b.when === "before"), taken.findLast((b) => b.when === "after")];
  function log(when: TakenWhen) {
    const rails = view.rows.flatMap((row) => {
      const predicted = idle.rails.find((x) => x.point === row.point.name)?.volts;
      return row.reading && predicted !== undefined ? [{ point: row.point.name, volts: row.reading.value, predicted }] : [];
    });
    say({ type: "bias", payload: biasTaken({ stage: stage.name, when, rows, rails, target, ...(mains === undefined ? {} : { mains }) }) });
  }
  return (
    <Section title="On the tape">
      <div className="flex flex-wrap gap-3">
        <button className="btn" disabled={rows.length === 0} onClick={() => log("before")}>
          Log as found
        </button>
        <button className="btn btn-primary" disabled={rows.length === 0} onClick={() => log("after")}>
          Log as left
        </button>
      </div>
      {(before ?? after) && <BeforeAfter before={before} after={after} />}
    </Section>
  );
}

function BeforeAfter({ before, after }: { before?: BiasTaken; after?: BiasTaken }) {
  const tubes = [...new Set([...(before?.rows ?? []), ...(after?.rows ?? [])].map((r) => r.tube))];
  const rails = [...new Set([...(before?.rails ?? []), ...(after?.rails ?? [])].map((r) => r.point))];
  const row = (b: BiasTaken | undefined, tube: string) => {
    const r = b?.rows.find((x) => x.tube === tube);
    return r ? `${formatQuantity(r.plateMilliamps / 1e3, "A", 3)}, ${percent(r.ofRating)}` : "–";
  };
  const rail = (b: BiasTaken | undefined, point: string) => {
    const r = b?.rails.find((x) => x.point === point);
    return r ? `${formatVolts(r.volts)}${r.predicted === undefined ? "" : ` (computed ${formatVolts(r.predicted)})`}` : "–";
  };
  return (
    <WideTable label="Bias before and after" className="table table-sm mt-3">
      <thead>
        <tr>
          <th>{words("Tube or rail")}</th>
          <th className="text-right">As found</th>
          <th className="text-right">As left</th>
        </tr>
      </thead>
      <tbody>
        {tubes.map((t) => (
          <tr key={t}>
            <td>
              <strong>{t}</strong>
            </td>
            <td className="text-right tabular-nums">{row(before, t)}</td>
            <td className="text-right font-bold tabular-nums">{row(after, t)}</td>
          </tr>
        ))}
        {rails.map((p) => (
          <tr key={p}>
            <td>{p}</td>
            <td className="text-right tabular-nums">{rail(before, p)}</td>
            <td className="text-right tabular-nums">{rail(after, p)}</td>
          </tr>
        ))}
      </tbody>
    </WideTable>
  );
}
