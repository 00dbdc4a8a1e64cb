"use client";
/** The settling run: bias and rails against the minutes since power-on, with the fit and where it ends. */

import { words } from "@/core/language/language";
import { max, min } from "d3-array";
import { scaleLinear } from "d3-scale";
import { settlingRuns, type Settling as Run } from "@/core/bring-up/settle";
import { stagesOf } from "@/core/bring-up/stages";
import { lastPowerOn } from "@/core/tape/fold";
import { formatVolts } from "@/core/quantity/format";
import type { Verdict } from "@/core/expectation/expectation";
import { Line, XAxis, YAxis, type Point } from "../../charts/plot";
import { useJob, useNow } from "../../job/job-context";
import { VerdictMark } from "../../forms/verdict-mark";
import { TakeNext } from "../take-next";
import { MainsInstrument } from "./mains-instrument";
import { Temperatures } from "../temperatures";

const MARK: Record<Run["verdict"], Verdict> = { settled: "in", settling: "watch", drifting: "out", "too few": "none" };

export function Settling() {
  const { view, energyKind } = useJob();
  const now = useNow();
  const { state, circuit } = view;
  const stage = stagesOf(circuit!).find((s) => s.id === "settle")!;
  const start = lastPowerOn(state);
  const settled = settlingRuns(
    state,
    stage.watch.map((w) => w.point),
  );
  const runs = stage.watch.map((w, i) => ({ w, run: settled[i]! }));
  const live = energyKind === "live";
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
        <p className="text-2xl font-bold">{words("The amp is not on. The run starts when power is on, all tubes fitted, no signal.")}</p>
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
      ? Array.from({ length: 40 }, (_, i): Point => {
          const m = (i / 39) * last.minutes * 1.15;
          const by = (last.volts - end) * Math.exp((last.minutes - m) / tau);
          return [x(m), y(Math.max(y.domain()[0]!, Math.min(y.domain()[1]!, end + by)))];
        })
      : undefined;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full"
      role="img"
      aria-label={`${name}: ${points.length} readings over ${Math.round(last.minutes)} min${end === undefined ? "" : `, heading for ${formatVolts(end)}`}`}
    >
      <YAxis x={LEFT} width={WIDTH - 8 - LEFT} scale={y} ticks={3} format={formatVolts} />
      <XAxis y={HEIGHT - BOTTOM} scale={x} ticks={4} format={(t) => `${t} min`} />
      {end !== undefined && <line x1={LEFT} x2={WIDTH - 8} y1={y(end)} y2={y(end)} stroke="var(--soft)" strokeDasharray="2 4" />}
      {fit && <Line points={fit} stroke="var(--soft)" strokeDasharray="5 4" />}
      {points.map((p) => (
        <circle key={p.minutes} cx={x(p.minutes)} cy={y(p.volts)} r={4} fill="var(--color-base-content)" />
      ))}
    </svg>
  );
}
