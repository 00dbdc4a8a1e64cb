"use client";
/** The response and the square wave, as the circuit stands and with the change. */

import { scaleLinear, scaleLog } from "d3-scale";
import type { Response } from "@/core/signal/response";
import { Line, XAxis, YAxis, type Point } from "../../charts/plot";

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP, RIGHT] = [440, 240, 40, 26, 10, 10];

export function ResponseChart({ now, then }: { now: Response; then?: Response }) {
  const all = [...now.gain, ...(then?.gain ?? [])];
  const top = Math.max(...all) + 3;
  const x = scaleLog([10, 100_000], [LEFT, WIDTH - RIGHT]);
  const y = scaleLinear([Math.max(top - 45, Math.min(...all) - 2), top], [HEIGHT - BOTTOM, TOP]);
  const points = (r: Response) => r.hertz.map((f, i): Point => [x(f), y(Math.max(y.domain()[0]!, r.gain[i]!))]);
  return (
    <figure>
      <figcaption className="soft text-sm">
        Gain from input to speaker, dB against Hz{then && ": ▬ with the change, ┄ as it is now"}
      </figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full" role="img" aria-label="Frequency response">
        <YAxis x={LEFT} width={WIDTH - LEFT - RIGHT} scale={y} ticks={4} />
        <XAxis y={HEIGHT - BOTTOM} scale={x} ticks={[20, 100, 1000, 10_000]} format={(f) => (f >= 1000 ? `${f / 1000} k` : String(f))} />
        <Line
          points={points(now)}
          stroke={then ? "var(--soft)" : "var(--color-base-content)"}
          strokeWidth={2}
          strokeDasharray={then ? "5 4" : undefined}
        />
        {then && <Line points={points(then)} stroke="var(--color-primary)" strokeWidth={2.5} />}
      </svg>
    </figure>
  );
}

export function SquareChart({ now, then }: { now: Response; then?: Response }) {
  const most = Math.max(1.3, ...now.square.map(Math.abs), ...(then?.square ?? []).map(Math.abs));
  const x = scaleLinear([0, now.square.length - 1], [LEFT, WIDTH - RIGHT]);
  const y = scaleLinear([-most, most], [HEIGHT - BOTTOM, TOP]);
  const points = (s: number[]) => s.map((v, i): Point => [x(i), y(v)]);
  return (
    <figure>
      <figcaption className="soft text-sm">A square wave of 1 kHz through it, two periods</figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full" role="img" aria-label="Square wave of 1 kHz">
        <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(0)} y2={y(0)} stroke="currentColor" strokeOpacity={0.2} />
        <Line
          points={points(now.square)}
          stroke={then ? "var(--soft)" : "var(--color-base-content)"}
          strokeWidth={2}
          strokeDasharray={then ? "5 4" : undefined}
        />
        {then && <Line points={points(then.square)} stroke="var(--color-primary)" strokeWidth={2.5} />}
      </svg>
    </figure>
  );
}
