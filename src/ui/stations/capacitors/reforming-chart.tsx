"use client";
/** Leakage of one capacitor over the time under voltage, its limit at each step, and the fit with where it goes. */

import { scaleLinear, scaleLog } from "d3-scale";
import type { PartRun, ReformRun } from "@/core/capacitor/reform-run";
import { formatDuration, formatQuantity } from "@/core/quantity/format";
import { metered } from "@/core/capacitor/reform-judge";
import { Line, XAxis, YAxis, type Point } from "../../charts/plot";

const [WIDTH, HEIGHT, LEFT, RIGHT, TOP, BOTTOM] = [860, 240, 64, 110, 10, 26];
/** Steps of the time axis, seconds. */
const TICKS = [10, 30, 60, 120, 300, 600, 1200, 1800, 3600, 7200, 14400, 28800, 86400];

export function ReformingChart({ part, run }: { part: PartRun; run: ReformRun }) {
  const { readings, verdict } = part;
  const first = readings[0]!.seconds;
  const last = readings.at(-1)!.seconds;
  const ahead =
    verdict.left && Number.isFinite(verdict.left.seconds)
      ? Math.min(verdict.left.seconds * 1.15, 2 * (last - first) + 60)
      : 0.1 * (last - first);
  const end = Math.max(last + ahead, first + 10);
  const limitAt = (supply: number) => metered(part.part.limit * Math.min(1, supply / part.part.target), run.begun.ohms, supply);
  const all = [...readings.map((r) => r.amps), ...readings.map((r) => limitAt(r.supply)), verdict.limit].filter((a) => a > 0);
  const x = scaleLinear([0, end], [LEFT, WIDTH - RIGHT]);
  const y = scaleLog([0.7 * Math.min(...all), 1.4 * Math.max(...all)], [HEIGHT - BOTTOM, TOP]);
  const fit = verdict.fit;
  const curve: Point[] = fit
    ? Array.from({ length: 60 }, (_, i): Point => {
        const t = run.stepBegan + ((end - run.stepBegan) * i) / 59;
        return [x(t), y(Math.max(y.domain()[0]!, metered(fit.at(t), run.begun.ohms, run.step)))];
      }).filter(([px]) => px >= x(part.step[0]?.seconds ?? run.stepBegan))
    : [];
  // The limit steps up with the supply.
  const limits: Point[] = readings.flatMap((r, i): Point[] => {
    const here: Point = [x(r.seconds), y(limitAt(r.supply))];
    const before = readings[i - 1];
    return before && before.supply !== r.supply ? [[x(r.seconds), y(limitAt(before.supply))], here] : [here];
  });
  const bound = y(verdict.limit);
  return (
    <figure>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-full"
        role="img"
        aria-label={`Leakage of ${part.part.part}: ${readings.length} readings, last ${formatQuantity(readings.at(-1)!.amps, "A", 3)}, allowed ${formatQuantity(verdict.limit, "A", 3)}`}
      >
        <YAxis
          x={LEFT}
          width={WIDTH - LEFT - RIGHT}
          scale={y}
          ticks={y.ticks(10).filter(round)}
          format={(v) => formatQuantity(v, "A", 1)}
        />
        <XAxis y={HEIGHT - BOTTOM} scale={x} ticks={nice(end)} format={(v) => formatDuration(v)} />
        <Line points={[...limits, [x(end), bound]]} stroke="var(--color-warning)" strokeWidth={2} strokeDasharray="7 4" />
        {curve.length > 1 && <Line points={curve} stroke="var(--color-primary)" strokeWidth={2} />}
        {readings.map((r, i) => (
          <circle key={i} cx={x(r.seconds)} cy={y(Math.max(y.domain()[0]!, r.amps))} r={3.2} fill="currentColor" />
        ))}
        {/* Kept apart from the curve's end, wherever that lies. */}
        <text x={WIDTH - RIGHT + 8} y={bound + 4} fontSize={13} fill="currentColor">
          allowed
        </text>
        {fit && curve.length > 1 && (
          <text
            x={WIDTH - RIGHT + 8}
            y={curve.at(-1)![1] + (Math.abs(curve.at(-1)![1] - bound) < 16 ? (curve.at(-1)![1] <= bound ? -12 : 20) : 4)}
            fontSize={13}
            fill="currentColor"
          >
            as it falls
          </text>
        )}
      </svg>
      <figcaption className="soft text-sm">
        Leakage (logarithmic) against the time under voltage, pauses left out. Dashed: what is allowed at each step.
      </figcaption>
    </figure>
  );
}

/** 1, 2 and 5 of each decade: more do not fit. */
const round = (v: number) => [1, 2, 5].includes(Math.round(v / 10 ** Math.floor(Math.log10(v) + 1e-9)));

/** Six figures or so on the time axis, at round times. */
function nice(end: number): number[] {
  const step = TICKS.find((t) => end / t <= 7) ?? 86400 * Math.ceil(end / 86400 / 7);
  return Array.from({ length: Math.floor(end / step) + 1 }, (_, i) => i * step);
}
