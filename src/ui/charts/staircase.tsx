"use client";
/** The supply chain as descending steps: the expected band and the measured tread; the bad dropper is the step of the wrong height. */

import { max } from "d3-array";
import { scaleBand, scaleLinear } from "d3-scale";
import { formatVolts } from "@/core/quantity/format";
import { VERDICT_WORD } from "@/core/expectation/expectation";
import { YAxis } from "./plot";
import type { StaircaseStep } from "@/core/walk/walk";

const WIDTH = 420;
const HEIGHT = 210;
const TOP = 22;
const BOTTOM = 40;
const LEFT = 44;

/** @param axis volts at its foot and its top; from zero to a little above the highest unless given. One that does not begin at zero says so. */
export function Staircase({ steps, title = "Supply chain", axis }: { steps: StaircaseStep[]; title?: string; axis?: [number, number] }) {
  if (steps.length === 0) return null;
  const most = max(steps, (s) => Math.max(s.expected?.high ?? 0, s.measured ?? 0)) || 1;
  const x = scaleBand<string>()
    .domain(steps.map((s) => s.name))
    .range([LEFT, WIDTH])
    .paddingInner(0.04);
  const y = scaleLinear()
    .domain(axis ?? [0, most * 1.05])
    .range([HEIGHT - BOTTOM, TOP]);
  if (!axis) y.nice(4);
  const w = x.bandwidth();
  return (
    <figure>
      <figcaption className="text-sm font-bold">
        {title} {axis && axis[0] !== 0 && <span className="soft font-normal">(the axis begins at {formatVolts(axis[0])})</span>}
      </figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full" aria-hidden>
        <YAxis x={LEFT} width={WIDTH - LEFT} scale={y} ticks={4} format={(v) => `${v} V`} />
        {steps.map((s, i) => {
          const x0 = x(s.name)!;
          const before = steps[i - 1];
          return (
            <g key={s.name} data-step={s.name} className={`verdict-${s.verdict}`}>
              {s.expected && (
                <rect
                  x={x0}
                  width={w}
                  y={y(s.expected.high)}
                  height={Math.max(2, y(s.expected.low) - y(s.expected.high))}
                  fill="var(--color-base-300)"
                />
              )}
              {s.expected && (
                <line x1={x0} x2={x0 + w} y1={y(s.expected.volts)} y2={y(s.expected.volts)} stroke="var(--soft)" strokeDasharray="3 3" />
              )}
              {s.measured !== undefined && before?.measured !== undefined && (
                <line x1={x0} x2={x0} y1={y(before.measured)} y2={y(s.measured)} stroke="var(--color-base-content)" strokeWidth={1.5} />
              )}
              {s.measured !== undefined && (
                <>
                  <line x1={x0} x2={x0 + w} y1={y(s.measured)} y2={y(s.measured)} stroke="var(--color-base-content)" strokeWidth={3.5} />
                  <text
                    x={x0 + w / 2}
                    y={y(s.measured) + 17}
                    textAnchor="middle"
                    fontSize={13}
                    fontWeight={700}
                    fill="var(--color-base-content)"
                  >
                    {formatVolts(s.measured)}
                  </text>
                  <Mark verdict={s.verdict} x={x0 + w - 9} y={y(s.measured) + 13} />
                </>
              )}
              <text
                x={x0 + w / 2}
                y={HEIGHT - BOTTOM + 16}
                textAnchor="middle"
                fontSize={13}
                fontWeight={700}
                fill="var(--color-base-content)"
              >
                {s.name}
              </text>
              <text x={x0 + w / 2} y={HEIGHT - BOTTOM + 31} textAnchor="middle" fontSize={11} fill="var(--soft)">
                {s.droppers ? `after ${s.droppers}` : "rectifier"}
              </text>
            </g>
          );
        })}
      </svg>
      <div className="sr-only">
        <table>
          <caption>{title}</caption>
          <thead>
            <tr>
              <th>Rail</th>
              <th>Expected</th>
              <th>Measured</th>
              <th>Verdict</th>
            </tr>
          </thead>
          <tbody>
            {steps.map((s) => (
              <tr key={s.name}>
                <td>
                  {s.name}, {s.label}
                </td>
                <td>{s.expected ? `${formatVolts(s.expected.low)} to ${formatVolts(s.expected.high)}` : "not known"}</td>
                <td>{s.measured === undefined ? "not taken" : formatVolts(s.measured)}</td>
                <td>{VERDICT_WORD[s.verdict]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </figure>
  );
}

/** The verdict's shape inside a drawing. */
export function Mark({ verdict, x, y, r = 5 }: { verdict: StaircaseStep["verdict"]; x: number; y: number; r?: number }) {
  if (verdict === "in") return <circle cx={x} cy={y} r={r} fill="currentColor" />;
  if (verdict === "watch") return <path d={`M${x} ${y - r}L${x + r} ${y + r}H${x - r}Z`} fill="currentColor" />;
  if (verdict === "out") return <rect x={x - r} y={y - r} width={2 * r} height={2 * r} fill="currentColor" />;
  return <circle cx={x} cy={y} r={r - 1} fill="none" stroke="currentColor" strokeWidth={1.5} />;
}
