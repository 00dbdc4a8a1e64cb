/** The ground map drawn: points round an oval, wires with their millivolts, the thicker the more; what the signal shares stands out. */

import type { GroundMapDrawn } from "@/core/tape/events/noise-events";
import type { GroundAnswer } from "@/core/noise/grounds";
import { formatQuantity } from "@/core/quantity/format";

const [WIDTH, HEIGHT] = [820, 330];

export function GroundPicture({ map, answer }: { map: GroundMapDrawn; answer: GroundAnswer }) {
  const points = [...new Set(map.wires.flatMap((w) => [w.from, w.to]))].filter(Boolean);
  const at = new Map(
    points.map((p, i): [string, [number, number]] => {
      const angle = Math.PI + (2 * Math.PI * i) / points.length;
      return [p, [WIDTH / 2 + 300 * Math.cos(angle), HEIGHT / 2 + 118 * Math.sin(angle)]];
    }),
  );
  const most = Math.max(1e-9, ...answer.wires.map((w) => w.volts));
  const wires = answer.wires.flatMap((w, i) => {
    const [a, b] = [at.get(w.wire.from), at.get(w.wire.to)];
    return a && b ? [{ i, w, a, b }] : [];
  });
  return (
    <figure>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full" role="img" aria-label="Ground map; the table of wires below says the same">
        {wires.map(({ i, w, a, b }) => (
          <line
            key={i}
            x1={a[0]}
            y1={a[1]}
            x2={b[0]}
            y2={b[1]}
            stroke={w.shared ? "var(--color-primary)" : "currentColor"}
            strokeOpacity={w.volts > 1e-9 ? 0.9 : 0.35}
            strokeWidth={1 + 6 * Math.sqrt(w.volts / most)}
          />
        ))}
        {wires.map(
          // After all lines, so that no wire runs over a figure.
          ({ i, w, a, b }) =>
            w.volts > 1e-9 && (
              <text
                key={i}
                x={(a[0] + b[0]) / 2}
                y={(a[1] + b[1]) / 2 - 6}
                textAnchor="middle"
                fontSize={12}
                fill="currentColor"
                stroke="var(--color-base-100)"
                strokeWidth={4}
                paintOrder="stroke"
              >
                {formatQuantity(w.volts, "V", 2)}
                {w.shared ? " ▲" : ""}
              </text>
            ),
        )}
        {points.map((p) => {
          const [x, y] = at.get(p)!;
          const signal = p === map.inputGround || p === map.stageGround;
          return (
            <g key={p}>
              <circle
                cx={x}
                cy={y}
                r={signal ? 9 : 6}
                fill={signal ? "var(--color-primary)" : "var(--color-base-200)"}
                stroke="currentColor"
              />
              <text
                x={x}
                y={y < HEIGHT / 2 ? y - 14 : y + 24}
                textAnchor="middle"
                fontSize={13}
                fill="currentColor"
                stroke="var(--color-base-100)"
                strokeWidth={4}
                paintOrder="stroke"
              >
                {p}
              </text>
            </g>
          );
        })}
      </svg>
    </figure>
  );
}
