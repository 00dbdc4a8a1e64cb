"use client";
/** Each tube as a column of plate, screen, cathode and grid: where the reading lies in, or how far outside, its band. */

import { scaleLinear } from "d3";
import { formatVolts } from "@/core/quantity/format";
import { VERDICT_WORD } from "@/core/walk/expectation";
import type { StageColumn } from "@/core/walk/walk";
import { Mark } from "./staircase";

const CELL = 112;
/** Half-bands either side that a gauge shows; further out is drawn at its end. */
const REACH = 2.5;

export function StageColumns({ columns, onPick }: { columns: StageColumn[]; onPick?(point: string): void }) {
  if (columns.length === 0) return null;
  const x = scaleLinear().domain([-REACH, REACH]).range([8, CELL - 8]).clamp(true);
  return (
    <div className="flex gap-2 overflow-x-auto pb-1" tabIndex={0} role="group" aria-label="Stage columns">
      {columns.map((c) => (
        <table key={c.tube} className="shrink-0 border-collapse text-xs">
          <caption className="text-left"><span className="text-sm font-bold">{c.tube}</span> <span className="soft">{c.type}</span></caption>
          <tbody>
            {c.cells.map((cell) => {
              const { expected, measured } = cell;
              const half = expected ? (expected.high - expected.low) / 2 : 1;
              const offset = expected && measured !== undefined ? (measured - expected.volts) / half : undefined;
              return (
                <tr key={cell.electrode}>
                  <th scope="row" className="soft pr-2 text-left font-normal">{cell.electrode}</th>
                  <td className={`border-t border-base-300 p-0 verdict-${cell.verdict}`}>
                    <button className="block text-left disabled:cursor-default" disabled={!cell.point || !onPick} onClick={() => cell.point && onPick?.(cell.point)} aria-label={`${cell.point ?? "no test point"}: ${measured === undefined ? "not taken" : formatVolts(measured)}, ${VERDICT_WORD[cell.verdict]}`}>
                      <svg width={CELL} height={34} aria-hidden>
                        {expected && <rect x={x(-1)} width={x(1) - x(-1)} y={19} height={9} fill="var(--color-base-300)" />}
                        <line x1={8} x2={CELL - 8} y1={23.5} y2={23.5} stroke="var(--soft)" strokeOpacity={0.5} />
                        {offset !== undefined && <Mark verdict={cell.verdict} x={x(offset)} y={23.5} r={4.5} />}
                        <text x={CELL / 2} y={13} textAnchor="middle" fontSize={12} fontWeight={measured === undefined ? 400 : 700} fill={measured === undefined ? "var(--soft)" : "var(--color-base-content)"}>
                          {measured !== undefined ? formatVolts(measured) : cell.point ? (expected ? `${formatVolts(expected.volts)}?` : "not taken") : "no point"}
                        </text>
                      </svg>
                    </button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      ))}
    </div>
  );
}
