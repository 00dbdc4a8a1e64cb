/** Mains current against mains volts: the corridor of a sound amp, and what was read. */

import { max } from "d3-array";
import { scaleLinear } from "d3-scale";
import { judgeCurrent, type StageStep } from "@/core/bring-up/corridor";
import type { BringUpStage } from "@/core/bring-up/stages";
import type { JobState } from "@/core/job/fold";
import { formatQuantity } from "@/core/quantity/format";
import { VERDICT_WORD } from "@/core/walk/expectation";
import { pathThrough } from "../../charts/path";

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
  const band = pathThrough([
    ...from.map((s) => [x(s.mains), y(s.high)] as const),
    ...[...from].reverse().map((s) => [x(s.mains), y(s.low)] as const),
  ]);
  return (
    <figure>
      <figcaption className="soft text-sm">Current against volts at the amp; grey: a sound amp in this stage</figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full max-w-xl" aria-hidden>
        {y.ticks(4).map((t) => (
          <g key={t}>
            <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(t)} y2={y(t)} stroke="currentColor" strokeOpacity={0.14} />
            <text x={LEFT - 6} y={y(t) + 4} textAnchor="end" fontSize={11} fill="var(--soft)">
              {formatQuantity(t, "A", 2)}
            </text>
          </g>
        ))}
        {x.ticks(5).map((t) => (
          <text key={t} x={x(t)} y={HEIGHT - 12} textAnchor="middle" fontSize={11} fill="var(--soft)">
            {t} V
          </text>
        ))}
        {steps.length > 0 && <path d={`${band}Z`} fill="var(--color-base-300)" />}
        {steps.length > 0 && (
          <path d={pathThrough(from.map((s) => [x(s.mains), y(s.amps)] as const))} fill="none" stroke="var(--soft)" strokeDasharray="4 4" />
        )}
        <path
          d={pathThrough(read.map((c) => [x(c.volts), y(c.amps)] as const))}
          fill="none"
          stroke="var(--color-base-content)"
          strokeOpacity={0.5}
        />
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
      <table className="sr-only">
        <caption>Mains current of this stage</caption>
        <thead>
          <tr>
            <th>Volts</th>
            <th>Amperes read</th>
            <th>Corridor</th>
            <th>Verdict</th>
          </tr>
        </thead>
        <tbody>
          {steps.map((s) => (
            <tr key={s.mains}>
              <td>{s.mains.toFixed(0)}</td>
              <td></td>
              <td>
                {s.low.toFixed(3)} to {s.high.toFixed(3)}
              </td>
              <td></td>
            </tr>
          ))}
          {read.map((c) => (
            <tr key={c.seq}>
              <td>{c.volts}</td>
              <td>{c.amps}</td>
              <td></td>
              <td>{VERDICT_WORD[judgeCurrent(steps, c.volts, c.amps)?.verdict ?? "none"]}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </figure>
  );
}
