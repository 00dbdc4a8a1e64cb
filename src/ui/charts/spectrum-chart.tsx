/** The spectrum of one recording, or of two one over the other, with the mains family picked out and named. */

import { scaleLinear, scaleLog } from "d3-scale";
import { CURVE_FROM, CURVE_TO, curveHertz } from "@/core/noise/curve-scale";
import { pathThrough } from "./path";

export interface Curve {
  name: string;
  curve: readonly number[];
}

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP, RIGHT] = [860, 300, 46, 28, 26, 12];
const TICKS: [number, string][] = [
  [20, "20"],
  [100, "100"],
  [1000, "1 k"],
  [10_000, "10 k"],
];

export function SpectrumChart({ curves, mains, tones = [] }: { curves: Curve[]; mains: number; tones?: { hertz: number; db: number }[] }) {
  const [shown, before] = curves;
  if (!shown) return null;
  const top = Math.max(-20, ...curves.flatMap((c) => c.curve)) + 6;
  const x = scaleLog([CURVE_FROM, CURVE_TO], [LEFT, WIDTH - RIGHT]);
  const y = scaleLinear([Math.max(-120, top - 100), top], [HEIGHT - BOTTOM, TOP]);
  const path = (c: readonly number[]) => pathThrough(c.map((db, i) => [x(curveHertz(i)), y(Math.max(y.domain()[0]!, db))] as const));
  const family = [1, 2, 3, 4, 5, 6].map((k) => ({ hertz: k * mains, name: k === 1 ? "f" : `${k}f` }));
  return (
    <figure>
      <figcaption className="soft text-sm">
        Decibels relative to a sine of full scale against hertz; f is the mains
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
        {y.ticks(5).map((t) => (
          <g key={t}>
            <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(t)} y2={y(t)} stroke="currentColor" strokeOpacity={0.14} />
            <text x={LEFT - 6} y={y(t) + 4} textAnchor="end" fontSize={12} fill="var(--soft)">
              {t}
            </text>
          </g>
        ))}
        {TICKS.map(([hz, name]) => (
          <text key={hz} x={x(hz)} y={HEIGHT - 8} textAnchor="middle" fontSize={12} fill="var(--soft)">
            {name}
          </text>
        ))}
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
        {before && <path d={path(before.curve)} fill="none" stroke="var(--soft)" strokeWidth={1.5} strokeDasharray="5 4" />}
        <path d={path(shown.curve)} fill="none" stroke="var(--color-base-content)" strokeWidth={2} />
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
