/** The response and the square wave, as the circuit stands and with the change. */

import { scaleLinear, scaleLog } from "d3-scale";
import type { Response } from "@/core/noise/response";
import { pathThrough } from "../../charts/path";

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP, RIGHT] = [440, 240, 40, 26, 10, 10];

export function ResponseChart({ now, then }: { now: Response; then?: Response }) {
  const all = [...now.gain, ...(then?.gain ?? [])];
  const top = Math.max(...all) + 3;
  const x = scaleLog([10, 100_000], [LEFT, WIDTH - RIGHT]);
  const y = scaleLinear([Math.max(top - 45, Math.min(...all) - 2), top], [HEIGHT - BOTTOM, TOP]);
  const path = (r: Response) => pathThrough(r.hertz.map((f, i) => [x(f), y(Math.max(y.domain()[0]!, r.gain[i]!))] as const));
  return (
    <figure>
      <figcaption className="soft text-sm">Gain from input to speaker, dB{then && ": ▬ with the change, ┄ as it stands"}</figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full" role="img" aria-label="Frequency response">
        {y.ticks(4).map((t) => (
          <g key={t}>
            <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(t)} y2={y(t)} stroke="currentColor" strokeOpacity={0.14} />
            <text x={LEFT - 6} y={y(t) + 4} textAnchor="end" fontSize={11} fill="var(--soft)">
              {t}
            </text>
          </g>
        ))}
        {[20, 100, 1000, 10_000].map((f) => (
          <text key={f} x={x(f)} y={HEIGHT - 8} textAnchor="middle" fontSize={11} fill="var(--soft)">
            {f >= 1000 ? `${f / 1000} k` : f}
          </text>
        ))}
        <path
          d={path(now)}
          fill="none"
          stroke={then ? "var(--soft)" : "var(--color-base-content)"}
          strokeWidth={2}
          strokeDasharray={then ? "5 4" : undefined}
        />
        {then && <path d={path(then)} fill="none" stroke="var(--color-primary)" strokeWidth={2.5} />}
      </svg>
    </figure>
  );
}

export function SquareChart({ now, then }: { now: Response; then?: Response }) {
  const most = Math.max(1.3, ...now.square.map(Math.abs), ...(then?.square ?? []).map(Math.abs));
  const x = scaleLinear([0, now.square.length - 1], [LEFT, WIDTH - RIGHT]);
  const y = scaleLinear([-most, most], [HEIGHT - BOTTOM, TOP]);
  const path = (s: number[]) => pathThrough(s.map((v, i) => [x(i), y(v)] as const));
  return (
    <figure>
      <figcaption className="soft text-sm">A square wave of 1 kHz through it, two periods</figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full" role="img" aria-label="Square wave of 1 kHz">
        <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(0)} y2={y(0)} stroke="currentColor" strokeOpacity={0.2} />
        <path
          d={path(now.square)}
          fill="none"
          stroke={then ? "var(--soft)" : "var(--color-base-content)"}
          strokeWidth={2}
          strokeDasharray={then ? "5 4" : undefined}
        />
        {then && <path d={path(then.square)} fill="none" stroke="var(--color-primary)" strokeWidth={2.5} />}
      </svg>
    </figure>
  );
}
