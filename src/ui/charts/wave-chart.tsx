"use client";
/** One period at the load: now, on target, at the slider, and as an oscilloscope saw it. */

import { scaleLinear } from "d3-scale";
import { Line, XAxis, YAxis, type Point } from "./plot";

export interface Trace {
  name: string;
  wave: readonly number[];
  look: "now" | "then" | "soft" | "scope";
}

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP, RIGHT] = [620, 290, 46, 26, 10, 10];
const LOOK = {
  now: { stroke: "var(--color-base-content)", strokeWidth: 2.5 },
  then: { stroke: "var(--color-primary)", strokeWidth: 2.5, strokeDasharray: "8 4" },
  soft: { stroke: "var(--soft)", strokeWidth: 2, strokeDasharray: "2 3" },
  scope: { stroke: "var(--color-warning)", strokeWidth: 2 },
} as const;
const MARK = { now: "▬", then: "╍", soft: "┈", scope: "▭" } as const;

export function WaveChart({ traces, milliseconds }: { traces: Trace[]; milliseconds: number }) {
  const most = 1.08 * Math.max(1e-6, ...traces.flatMap((t) => t.wave.map(Math.abs)));
  const x = scaleLinear([0, milliseconds], [LEFT, WIDTH - RIGHT]);
  const y = scaleLinear([-most, most], [HEIGHT - BOTTOM, TOP]);
  return (
    <figure>
      <figcaption className="soft text-sm">
        Volts at the load over one period, ms. {traces.map((t) => `${MARK[t.look]} ${t.name}`).join("   ")}
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-full"
        role="img"
        aria-label={`Waveform at the load: ${traces.map((t) => t.name).join(", ")}`}
      >
        <YAxis x={LEFT} width={WIDTH - LEFT - RIGHT} scale={y} ticks={6} />
        <XAxis y={HEIGHT - BOTTOM} scale={x} ticks={5} />
        <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(0)} y2={y(0)} stroke="currentColor" strokeOpacity={0.5} />
        {traces.map((t) => (
          <Line
            key={t.name}
            points={[...t.wave, t.wave[0]!].map((v, i): Point => [x((milliseconds * i) / t.wave.length), y(v)])}
            {...LOOK[t.look]}
          />
        ))}
      </svg>
    </figure>
  );
}
