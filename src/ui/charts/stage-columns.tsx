"use client";
/** Each tube as a column of plate, screen, cathode and grid: where the reading lies in, or how far outside, its band. */

import { scaleLinear } from "d3-scale";
import { formatVolts } from "@/core/quantity/format";
import { VERDICT_WORD } from "@/core/expectation/expectation";
import type { StageColumn } from "@/core/walk/walk";
import { Mark } from "./staircase";

const CELL = 96;
/** Half-bands either side that a gauge shows; further out is drawn at its end. */
const REACH = 2.5;
const x = scaleLinear()
  .domain([-REACH, REACH])
  .range([8, CELL - 8])
  .clamp(true);

export function StageColumns({ columns, onPick }: { columns: StageColumn[]; onPick?(point: string): void }) {
  if (columns.length === 0) return null;
  const electrodes = (["plate", "screen", "cathode", "grid"] as const).filter((e) =>
    columns.some((c) => c.cells.some((cell) => cell.electrode === e)),
  );
  return (
    <div className="overflow-x-auto pb-1" tabIndex={0} role="group" aria-label="Stage columns">
      <table className="border-collapse text-xs">
        <thead>
          <tr>
            <th />
            {columns.map((c) => (
              <th key={c.tube} scope="col" className="px-1 text-left whitespace-nowrap">
                <span className="text-sm">{c.tube}</span> <span className="soft font-normal">{c.type}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {electrodes.map((electrode) => (
            <tr key={electrode}>
              <th scope="row" className="soft pr-1 text-left font-normal">
                {electrode}
              </th>
              {columns.map((c) => {
                const cell = c.cells.find((k) => k.electrode === electrode);
                return (
                  <td key={c.tube} className="border-t border-base-300 px-1 py-0">
                    {cell && <Gauge cell={cell} onPick={onPick} />}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Gauge({ cell, onPick }: { cell: StageColumn["cells"][number]; onPick?(point: string): void }) {
  const { expected, measured, point } = cell;
  if (!point) return <span className="soft block py-2 text-center">no point</span>;
  const half = expected ? (expected.high - expected.low) / 2 : 1;
  const offset = expected && measured !== undefined ? (measured - expected.volts) / half : undefined;
  const shown = measured !== undefined ? formatVolts(measured) : expected ? `${formatVolts(expected.volts)}?` : "not taken";
  return (
    <button
      className={`block verdict-${cell.verdict} ${onPick ? "" : "cursor-default"}`}
      onClick={() => onPick?.(point)}
      aria-label={`${point}: ${measured === undefined ? "not taken" : formatVolts(measured)}, ${VERDICT_WORD[cell.verdict]}`}
    >
      <svg width={CELL} height={34} aria-hidden>
        {expected && <rect x={x(-1)} width={x(1) - x(-1)} y={19} height={9} fill="var(--color-base-300)" />}
        <line x1={8} x2={CELL - 8} y1={23.5} y2={23.5} stroke="var(--soft)" strokeOpacity={0.5} />
        {offset !== undefined && <Mark verdict={cell.verdict} x={x(offset)} y={23.5} r={4.5} />}
        <text
          x={CELL / 2}
          y={13}
          textAnchor="middle"
          fontSize={12}
          fontWeight={measured === undefined ? 400 : 700}
          fill={measured === undefined ? "var(--soft)" : "var(--color-base-content)"}
        >
          {shown}
        </text>
      </svg>
    </button>
  );
}
