"use client";
/** The settling run: bias and rails against the minutes since power-on, with the fit and where it ends. */

import { max, min } from "d3-array";
import { scaleLinear } from "d3-scale";
import { runsOf, type Settling as Run } from "@/core/bring-up/settle";
import { stagesOf } from "@/core/bring-up/stages";
import { lastPowerOn } from "@/core/job/fold";
import { formatVolts } from "@/core/quantity/format";
import type { Verdict } from "@/core/walk/expectation";
import { pathThrough } from "../../charts/path";
import { useJob } from "../../frame/job-context";
import { VerdictMark } from "../../frame/verdict-mark";
import { TakeNext } from "../take-next";
import { MainsInstrument } from "./mains-instrument";
import { Temperatures } from "../temperatures";

const MARK: Record<Run["verdict"], Verdict> = { settled: "in", settling: "watch", drifting: "out", "too few": "none" };

export function Settling() {
  const { view, now, energy } = useJob();
  const { state, circuit } = view;
  const stage = stagesOf(circuit!).find((s) => s.id === "settle")!;
  const start = lastPowerOn(state);
  const settled = runsOf(
    state,
    stage.watch.map((w) => w.point),
  );
  const runs = stage.watch.map((w, i) => ({ w, run: settled[i]! }));
  const live = energy.kind === "live";
  const minutes = start && live ? Math.floor((now - Date.parse(start.at)) / 60_000) : undefined;
  // The one that was read longest ago is next.
  const next = [...runs].sort((a, b) => (a.run.points.at(-1)?.minutes ?? -1) - (b.run.points.at(-1)?.minutes ?? -1))[0];
  return (
    <div className="max-w-5xl space-y-4">
      {live && next ? (
        <TakeNext
          key={`${next.w.point}${next.run.points.length}`}
          title={next.w.label}
          label="Next reading of the run"
          point={next.w.point}
          kind="dcv"
          why={`${minutes} min on. ${next.run.points.length === 0 ? "First reading." : next.run.says}`}
        />
      ) : (
        <p className="text-2xl font-bold">The amp is not on. The run begins with power, all tubes in, idle.</p>
      )}
      {runs.map(({ w, run }) => (
        <section key={w.point} aria-label={`Settling of ${w.label}`} className="grid items-center gap-4 md:grid-cols-[minmax(0,1fr)_20rem]">
          <div>
            <h2 className="font-bold">
              {w.label} <span className="soft font-normal">{w.point}</span>
            </h2>
            <p>
              <VerdictMark verdict={MARK[run.verdict]} /> {run.says}
            </p>
          </div>
          {run.points.length > 1 && <RunChart run={run} name={w.label} />}
        </section>
      ))}
      <MainsInstrument />
      <Temperatures />
    </div>
  );
}

const [WIDTH, HEIGHT, LEFT, BOTTOM] = [320, 110, 52, 20];

function RunChart({ run, name }: { run: Run; name: string }) {
  const { points, end, minutes: tau } = run;
  const last = points.at(-1)!;
  const values = [...points.map((p) => p.volts), ...(end === undefined ? [] : [end])];
  const pad = 0.2 * Math.max(0.01 * Math.abs(last.volts), (max(values) ?? 0) - (min(values) ?? 0));
  const x = scaleLinear([0, last.minutes * 1.15 || 1], [LEFT, WIDTH - 8]);
  const y = scaleLinear([(min(values) ?? 0) - pad, (max(values) ?? 1) + pad], [HEIGHT - BOTTOM, 8]);
  const fit =
    end !== undefined && tau !== undefined
      ? pathThrough(
          Array.from({ length: 40 }, (_, i) => {
            const m = (i / 39) * last.minutes * 1.15;
            const by = (last.volts - end) * Math.exp((last.minutes - m) / tau);
            return [x(m), y(Math.max(y.domain()[0]!, Math.min(y.domain()[1]!, end + by)))] as const;
          }),
        )
      : undefined;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full"
      role="img"
      aria-label={`${name}: ${points.length} readings over ${Math.round(last.minutes)} min${end === undefined ? "" : `, on the way to ${formatVolts(end)}`}`}
    >
      {y.ticks(3).map((t) => (
        <g key={t}>
          <line x1={LEFT} x2={WIDTH - 8} y1={y(t)} y2={y(t)} stroke="currentColor" strokeOpacity={0.14} />
          <text x={LEFT - 5} y={y(t) + 4} textAnchor="end" fontSize={11} fill="var(--soft)">
            {formatVolts(t)}
          </text>
        </g>
      ))}
      {x.ticks(4).map((t) => (
        <text key={t} x={x(t)} y={HEIGHT - 5} textAnchor="middle" fontSize={11} fill="var(--soft)">
          {t} min
        </text>
      ))}
      {end !== undefined && <line x1={LEFT} x2={WIDTH - 8} y1={y(end)} y2={y(end)} stroke="var(--soft)" strokeDasharray="2 4" />}
      {fit && <path d={fit} fill="none" stroke="var(--soft)" strokeDasharray="5 4" />}
      {points.map((p) => (
        <circle key={p.minutes} cx={x(p.minutes)} cy={y(p.volts)} r={4} fill="var(--color-base-content)" />
      ))}
    </svg>
  );
}
