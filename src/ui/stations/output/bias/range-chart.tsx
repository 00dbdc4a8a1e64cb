"use client";
/** Plate current over the whole turn of an adjuster, with the target and where it stands. */

import { scaleLinear } from "d3-scale";
import type { BiasRange } from "@/core/output/bias-range";
import { formatQuantity } from "@/core/quantity/format";
import { Line, XAxis, YAxis, type Point } from "../../../charts/plot";

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP, RIGHT] = [440, 230, 52, 28, 12, 12];

export function RangeChart({ range, target, position }: { range: BiasRange; target: number; position: number }) {
  const most = 1.1 * Math.max(target, ...range.steps.map((s) => s.amps));
  const x = scaleLinear([0, 1], [LEFT, WIDTH - RIGHT]);
  const y = scaleLinear([0, most * 1e3], [HEIGHT - BOTTOM, TOP]);
  const over = range.steps.find((s) => s.ofRating > 1);
  return (
    <figure>
      <figcaption className="soft text-sm">
        Plate current over the turn of {range.adjuster}, mA. ▬ target, ┄ where it stands{over ? "; shaded: above a rating" : ""}
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-full"
        role="img"
        aria-label={`${range.adjuster}: ${range.steps.map((s) => `${Math.round(s.position * 100)} % ${formatQuantity(s.amps, "A", 2)}`).join(", ")}`}
      >
        {over && (
          <rect
            x={x(over.position)}
            y={TOP}
            width={WIDTH - RIGHT - x(over.position)}
            height={HEIGHT - BOTTOM - TOP}
            className="fill-warning"
            opacity={0.18}
          />
        )}
        <YAxis x={LEFT} width={WIDTH - LEFT - RIGHT} scale={y} ticks={5} />
        <XAxis y={HEIGHT - BOTTOM} scale={x} ticks={[0, 0.25, 0.5, 0.75, 1]} format={(v) => `${Math.round(v * 100)} %`} />
        <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(target * 1e3)} y2={y(target * 1e3)} stroke="var(--color-primary)" strokeWidth={2} />
        <line x1={x(position)} x2={x(position)} y1={TOP} y2={HEIGHT - BOTTOM} stroke="currentColor" strokeDasharray="5 4" />
        <Line points={range.steps.map((s): Point => [x(s.position), y(s.amps * 1e3)])} stroke="currentColor" strokeWidth={2.5} />
      </svg>
    </figure>
  );
}
