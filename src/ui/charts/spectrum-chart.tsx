"use client";
/** The spectrum of one recording, or of two one over the other, with the mains family picked out and named. */

import { words } from "@/core/language/language";
import { scaleLinear, scaleLog } from "d3-scale";
import { CURVE_FROM, CURVE_TO, curveHertz } from "@/core/sound/curve-scale";
import { Line, XAxis, YAxis, type Point } from "./plot";

export interface Curve {
  name: string;
  curve: readonly number[];
}

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP, RIGHT] = [860, 300, 46, 28, 26, 12];

export function SpectrumChart({ curves, mains, tones = [] }: { curves: Curve[]; mains: number; tones?: { hertz: number; db: number }[] }) {
  const [shown, before] = curves;
  if (!shown) return null;
  const top = Math.max(-20, ...curves.flatMap((c) => c.curve)) + 6;
  const x = scaleLog([CURVE_FROM, CURVE_TO], [LEFT, WIDTH - RIGHT]);
  const y = scaleLinear([Math.max(-120, top - 100), top], [HEIGHT - BOTTOM, TOP]);
  const points = (c: readonly number[]) => c.map((db, i): Point => [x(curveHertz(i)), y(Math.max(y.domain()[0]!, db))]);
  const family = [1, 2, 3, 4, 5, 6].map((k) => ({ hertz: k * mains, name: k === 1 ? "f" : `${k}f` }));
  return (
    <figure>
      <figcaption className="soft text-sm">
        {words("Decibels relative to a sine of full scale against hertz; f is the mains")}
        {before && (
          <>
            . <span aria-hidden>▬</span> {shown.name}, <span aria-hidden>┄</span> {before.name}
          </>
        )}
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-full"
        role="img"
        aria-label={`Spectrum: ${curves.map((c) => c.name).join(" and ")}`}
      >
        <YAxis x={LEFT} width={WIDTH - LEFT - RIGHT} scale={y} ticks={5} />
        <XAxis
          y={HEIGHT - BOTTOM}
          scale={x}
          ticks={[20, 100, 1000, 10_000]}
          format={(hz) => (hz >= 1000 ? `${hz / 1000} k` : String(hz))}
        />
        {family.map((f, i) => (
          <g key={f.name}>
            <line
              x1={x(f.hertz)}
              x2={x(f.hertz)}
              y1={TOP}
              y2={HEIGHT - BOTTOM}
              stroke="var(--color-primary)"
              strokeOpacity={0.55}
              strokeDasharray="2 4"
            />
            {i !== 4 && (
              <text x={x(f.hertz)} y={TOP - 8} textAnchor="middle" fontSize={12} fill="currentColor">
                {f.name}
              </text>
            )}
          </g>
        ))}
        {before && <Line points={points(before.curve)} stroke="var(--soft)" strokeWidth={1.5} strokeDasharray="5 4" />}
        <Line points={points(shown.curve)} stroke="var(--color-base-content)" strokeWidth={2} />
        {tones
          .filter((t) => t.hertz < CURVE_TO)
          .slice(0, 3)
          .map((t) => (
            <text
              key={t.hertz}
              x={Math.min(WIDTH - 70, x(t.hertz) + 4)}
              y={Math.max(TOP + 12, y(t.db) - 6)}
              fontSize={12}
              fill="currentColor"
            >
              {Math.round(t.hertz)} Hz
            </text>
          ))}
      </svg>
    </figure>
  );
}
