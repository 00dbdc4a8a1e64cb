/** A drawing that nothing is done with: a part of a report. */

import type { Linework } from "@/core/drawing/linework";

/** Pixels a unit at most: a stage alone does not fill the page. */
const MOST_SCALE = 9;

export function LineworkView({ view, strokes, texts, caption }: Linework & { caption?: string }) {
  return (
    <svg
      viewBox={`${view.x} ${view.y} ${view.width} ${view.height}`}
      role="img"
      aria-label={caption ?? "Schematic"}
      className="w-full"
      style={{ maxWidth: view.width * MOST_SCALE }}
    >
      <g className="stroke-current" strokeWidth={0.16} strokeLinecap="round" fill="none">
        {strokes.map((s, i) => (
          <path key={i} d={s.d} className={s.filled ? "fill-current" : undefined} strokeDasharray={s.dashed ? "0.5 0.35" : undefined} />
        ))}
      </g>
      {texts.map((t, i) => (
        <text key={i} x={t.x} y={t.y} fontSize={t.size} textAnchor={t.anchor} className={`fill-current ${t.bold ? "font-bold" : ""}`}>
          {t.text}
        </text>
      ))}
    </svg>
  );
}
