"use client";
/** What the hands-free bias shows: the figure that was predicted, the turn, and everything once it is set. */

import { words } from "@/core/language/language";
import { ON_TARGET, type BiasStep } from "@/core/output/bias-steps";
import type { OutputStage } from "@/core/output/output-stage";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { useJob } from "../job/job-context";

export function Expected({
  step,
  then,
}: {
  step: Extract<BiasStep, { what: "read" }>;
  then: { rails: { point: string; volts: number }[] };
}) {
  const volts = then.rails.find((r) => r.point === step.point)?.volts;
  return volts === undefined ? null : (
    <p className="text-4xl">
      <span className="soft">predicted </span>
      <strong className="text-6xl">{formatVolts(volts)}</strong>
    </p>
  );
}

export function Turn({
  adjuster,
  target,
  live,
  place,
  turned,
  failed,
}: {
  adjuster?: { name: string; position: number };
  target?: number;
  live?: number;
  place: string;
  turned?: number;
  failed: boolean;
}) {
  if (failed)
    return <p className="text-5xl font-bold">{words("No control of this circuit moves these tubes. Press to read everything again.")}</p>;
  if (!adjuster || target === undefined) return <p className="text-5xl font-bold">Working out the target…</p>;
  const off = live === undefined ? undefined : live / target - 1;
  const close = off !== undefined && Math.abs(off) <= ON_TARGET;
  return (
    <>
      <p className="soft text-3xl">{place}, eyes on the chassis</p>
      <p data-testid="turn-says" className={`text-[clamp(3rem,6vw,7rem)] leading-none font-bold`}>
        {close
          ? "● Stop there"
          : off === undefined
            ? `Turn ${adjuster.name}`
            : off < 0
              ? `▲ ${adjuster.name} up`
              : `▼ ${adjuster.name} down`}
      </p>
      <p className="text-4xl">
        <span className="soft">plate current </span>
        <strong className="text-6xl whitespace-nowrap tabular-nums">{live === undefined ? "–" : formatQuantity(live, "A", 3)}</strong>
        <span className="soft"> to </span>
        <strong className="text-6xl whitespace-nowrap tabular-nums">{formatQuantity(target, "A", 3)}</strong>
      </p>
      <p className="soft text-3xl">
        {adjuster.name} at {Math.round(100 * (turned ?? adjuster.position))} % of its turn. Slowly; it is taken when it stands still on the
        target.
      </p>
    </>
  );
}

export function Done({ stage }: { stage: OutputStage }) {
  const { view } = useJob();
  const after = view.state.biases.findLast((b) => b.stage === stage.name && b.when === "after");
  const before = view.state.biases.findLast((b) => b.stage === stage.name && b.when === "before");
  return (
    <section role="status" className="flex flex-1 flex-col justify-center gap-6 px-4 md:px-12" data-testid="bias-done">
      <p className="text-6xl font-bold">Set. Everything has been read again.</p>
      <table className="w-full text-3xl">
        <thead>
          <tr className="soft text-left text-2xl">
            <th />
            <th className="text-right">as found</th>
            <th className="text-right">predicted</th>
            <th className="text-right">as left</th>
          </tr>
        </thead>
        <tbody className="tabular-nums">
          {after?.rows.map((r) => {
            const b = before?.rows.find((x) => x.tube === r.tube);
            return (
              <tr key={r.tube}>
                <th className="text-left">{r.tube}</th>
                <td className="text-right">{b ? formatQuantity(b.plateMilliamps / 1e3, "A", 3) : "–"}</td>
                <td className="text-right">
                  {after.targetMilliamps === undefined ? "–" : formatQuantity(after.targetMilliamps / 1e3, "A", 3)}
                </td>
                <td className="text-right font-bold">{formatQuantity(r.plateMilliamps / 1e3, "A", 3)}</td>
              </tr>
            );
          })}
          {after?.rails.map((r) => {
            const b = before?.rails.find((x) => x.point === r.point);
            return (
              <tr key={r.point} data-rail={r.point} data-predicted={r.predicted} data-read={r.volts}>
                <th className="text-left">{r.point}</th>
                <td className="text-right">{b ? formatVolts(b.volts) : "–"}</td>
                <td className="text-right">{r.predicted === undefined ? "–" : formatVolts(r.predicted)}</td>
                <td className="text-right font-bold">{formatVolts(r.volts)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
