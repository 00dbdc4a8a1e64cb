"use client";
/** The chart, typed straight down the list of points: Enter goes to the next. */

import type { Circuit } from "@/core/circuit/circuit";

interface ChartTableProps {
  circuit: Circuit;
  typed: Record<string, string>;
  setTyped(typed: Record<string, string>): void;
}

export function ChartTable({ circuit, typed, setTyped }: ChartTableProps) {
  const points = [...circuit.points].sort((a, b) => a.order - b.order);
  return (
    <table className="table table-sm" aria-label="Chart">
      <thead>
        <tr>
          <th>Point</th>
          <th className="text-right">Chart, V</th>
        </tr>
      </thead>
      <tbody>
        {points.map((p) => (
          <tr key={p.name}>
            <td>
              <strong>{p.name}</strong> {p.label !== p.name && <span className="soft">{p.label}</span>}
            </td>
            <td className="py-0.5 text-right">
              <input
                className="input w-24 text-right tabular-nums"
                aria-label={`${p.name}, volts of the chart`}
                inputMode="decimal"
                value={typed[p.name] ?? ""}
                onChange={(e) => setTyped({ ...typed, [p.name]: e.target.value })}
                onKeyDown={(e) => {
                  if (e.key !== "Enter" && e.key !== "ArrowDown" && e.key !== "ArrowUp") return;
                  e.preventDefault();
                  const all = [...e.currentTarget.closest("table")!.querySelectorAll("input")];
                  const to = all[all.indexOf(e.currentTarget) + (e.key === "ArrowUp" ? -1 : 1)];
                  to?.focus();
                  to?.select();
                }}
              />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
