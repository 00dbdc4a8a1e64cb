"use client";
/** Mains current against mains volts: the corridor of a sound amp, and what was read. */

import { figure, fixed, words } from "@/core/language/language";
import { max } from "d3-array";
import { scaleLinear } from "d3-scale";
import { judgeCurrent, type StageStep } from "@/core/bring-up/corridor";
import type { BringUpStage } from "@/core/bring-up/stages";
import type { JobState } from "@/core/tape/fold";
import { formatQuantity } from "@/core/quantity/format";
import { VERDICT_WORD } from "@/core/expectation/expectation";
import { Band, Line, XAxis, YAxis } from "../../charts/plot";

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP, RIGHT] = [440, 230, 52, 34, 12, 14];

export function CurrentChart({
  stage,
  steps,
  wall,
  currents,
}: {
  stage: BringUpStage;
  steps: StageStep[];
  wall: number;
  currents: JobState["mainsCurrents"];
}) {
  const read = currents.filter((c) => c.stage === stage.id && c.amps !== undefined) as (JobState["mainsCurrents"][number] & {
    amps: number;
  })[];
  if (steps.length === 0 && read.length === 0) return null;
  const most = Math.max(max(steps, (s) => s.high) ?? 0, max(read, (c) => c.amps) ?? 0, 0.02);
  const x = scaleLinear([0, Math.max(wall, max(read, (c) => c.volts) ?? 0) * 1.02], [LEFT, WIDTH - RIGHT]);
  const y = scaleLinear([0, most * 1.1], [HEIGHT - BOTTOM, TOP]).nice(4);
  const from = [{ mains: 0, amps: 0, low: 0, high: 0 }, ...steps];
  return (
    <figure>
      <figcaption className="soft text-sm">Current against volts at the amp; grey: expected of a sound amp in this stage</figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full max-w-xl" aria-hidden>
        <YAxis x={LEFT} width={WIDTH - LEFT - RIGHT} scale={y} ticks={4} format={(a) => formatQuantity(a, "A", 2)} />
        <XAxis y={HEIGHT - BOTTOM + 4} scale={x} ticks={5} format={(v) => `${v} V`} />
        {steps.length > 0 && <Band points={from.map((s) => ({ x: x(s.mains), low: y(s.low), high: y(s.high) }))} />}
        {steps.length > 0 && <Line points={from.map((s) => [x(s.mains), y(s.amps)] as const)} stroke="var(--soft)" strokeDasharray="4 4" />}
        <Line points={read.map((c) => [x(c.volts), y(c.amps)] as const)} stroke="var(--color-base-content)" strokeOpacity={0.5} />
        {read.map((c) => {
          const verdict = judgeCurrent(steps, c.volts, c.amps)?.verdict ?? "none";
          const [cx, cy] = [x(c.volts), y(c.amps)];
          return (
            <g key={c.seq} className={`verdict-${verdict}`} fill="currentColor">
              {verdict === "out" ? (
                <rect x={cx - 5} y={cy - 5} width={10} height={10} />
              ) : verdict === "watch" ? (
                <path d={`M${cx},${cy - 6}l6,11h-12Z`} />
              ) : (
                <circle cx={cx} cy={cy} r={5} />
              )}
            </g>
          );
        })}
      </svg>
      <div className="sr-only">
        <table>
          <caption>{words("Mains current of this stage")}</caption>
          <thead>
            <tr>
              <th>Volts</th>
              <th>Amperes read</th>
              <th>Expected</th>
              <th>Verdict</th>
            </tr>
          </thead>
          <tbody>
            {steps.map((s) => (
              <tr key={s.mains}>
                <td>{fixed(s.mains, 0)}</td>
                <td></td>
                <td>
                  {fixed(s.low, 3)} to {fixed(s.high, 3)}
                </td>
                <td></td>
              </tr>
            ))}
            {read.map((c) => (
              <tr key={c.seq}>
                <td>{figure(c.volts)}</td>
                <td>{figure(c.amps)}</td>
                <td></td>
                <td>{VERDICT_WORD[judgeCurrent(steps, c.volts, c.amps)?.verdict ?? "none"]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </figure>
  );
}
