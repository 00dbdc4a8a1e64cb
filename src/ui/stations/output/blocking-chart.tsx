"use client";
/** The output, and under it each grid's volts, on one time axis: the tone, its end, and the way back. */

import { fixed } from "@/core/language/language";
import { scaleLinear } from "d3-scale";
import type { BlockingRun } from "@/core/output/blocking";
import { Line, XAxis, YAxis, type Point } from "../../charts/plot";

const [WIDTH, LEFT, RIGHT, HIGH, GAP, BOTTOM] = [860, 56, 10, 150, 18, 26];

/** Grids that go the same way are drawn once. */
function different(grids: BlockingRun["grids"]): BlockingRun["grids"] {
  return grids.filter((g, i) => grids.findIndex((h) => Math.abs(h.shifted - g.shifted) < 0.2 && Math.abs(h.rest - g.rest) < 0.2) === i);
}

export function BlockingChart({ run }: { run: BlockingRun }) {
  const end = run.t.at(-1)!;
  // What is watched after the way back is over is left away.
  const shown = Math.min(end, run.recovery === undefined ? end : run.driven + Math.max(0.1, 1.5 * run.recovery));
  const upTo = run.t.filter((t) => t <= shown).length;
  const x = scaleLinear([0, shown * 1e3], [LEFT, WIDTH - RIGHT]);
  const most = 1.1 * Math.max(...run.out.map(Math.abs));
  const out = scaleLinear([-most, most], [HIGH, 8]);
  const grids = different(run.grids);
  const all = grids.flatMap((g) => g.volts.slice(0, upTo));
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const pad = Math.max(0.5, 0.12 * (high - low));
  const top = HIGH + GAP;
  const volts = scaleLinear([low - pad, high + pad], [top + HIGH, top]);
  const points = (v: readonly number[], y: (x: number) => number) =>
    v.slice(0, upTo).map((value, i): Point => [x(run.t[i]! * 1e3), y(value)]);
  const height = top + HIGH + BOTTOM;
  return (
    <figure>
      <figcaption className="soft text-sm">
        Volts at the load, and under them the mean volts of the grids ({grids.map((g, i) => `${i === 0 ? "▬" : "╍"} ${g.tube}`).join(", ")}
        ); ms. The line: the tone stops.
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="w-full"
        role="img"
        aria-label={`Blocking: the grid shifts by ${fixed(run.shift, 1)} V${run.recovery === undefined ? "" : ` and is back after ${fixed(run.recovery * 1e3, 0)} ms`}`}
      >
        <YAxis x={LEFT} width={WIDTH - LEFT - RIGHT} scale={out} ticks={4} />
        <YAxis x={LEFT} width={WIDTH - LEFT - RIGHT} scale={volts} ticks={5} />
        <XAxis y={height - BOTTOM} scale={x} ticks={8} />
        <line x1={x(run.driven * 1e3)} x2={x(run.driven * 1e3)} y1={4} y2={height - BOTTOM} stroke="currentColor" strokeDasharray="5 4" />
        <Line points={points(run.out, out)} stroke="var(--color-base-content)" strokeWidth={1.2} />
        {grids.map((g, i) => (
          <Line
            key={g.tube}
            points={points(g.volts, volts)}
            stroke="var(--color-primary)"
            strokeWidth={2.5}
            strokeDasharray={i === 0 ? undefined : "8 4"}
          />
        ))}
        {grids.map((g) => (
          <line
            key={g.tube}
            x1={LEFT}
            x2={WIDTH - RIGHT}
            y1={volts(g.rest)}
            y2={volts(g.rest)}
            stroke="currentColor"
            strokeOpacity={0.45}
            strokeDasharray="2 4"
          />
        ))}
      </svg>
    </figure>
  );
}
