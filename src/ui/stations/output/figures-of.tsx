"use client";
/** A waveform's figures as a table: distortion, notch, halves, the harmonics to the ninth; two side by side. */

import { figure } from "@/core/language/language";
import type { WaveFigures } from "@/core/output/wave-figures";
import { formatVolts } from "@/core/quantity/format";
import { WideTable } from "../../forms/wide-table";

export interface NamedFigures {
  name: string;
  figures: WaveFigures;
}

export const partWords = (x: number): string => `${figure(Number((x * 100).toPrecision(2)))} %`;

export function FiguresTable({ of }: { of: NamedFigures[] }) {
  const row = (name: string, value: (f: WaveFigures) => string) => (
    <tr key={name}>
      <th className="font-normal">{name}</th>
      {of.map((o) => (
        <td key={o.name} className="text-right tabular-nums">
          {value(o.figures)}
        </td>
      ))}
    </tr>
  );
  return (
    <WideTable label="Figures of the waveform" className="table table-sm">
      <thead>
        <tr>
          <th />
          {of.map((o) => (
            <th key={o.name} className="text-right">
              {o.name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {row("Crossover notch, depth", (f) => partWords(f.notch))}
        {row("Distortion, harmonics 2 to 9", (f) => partWords(f.distortion))}
        {row("Upper and lower peak", (f) => `${formatVolts(f.top)}, ${formatVolts(f.bottom)}`)}
        {row("Asymmetry of the halves", (f) => partWords(f.asymmetry))}
        {[2, 3, 4, 5, 6, 7, 8, 9].map((h) => row(`Harmonic ${h}`, (f) => partWords((f.harmonics[h - 1] ?? 0) / (f.harmonics[0] || 1))))}
      </tbody>
    </WideTable>
  );
}
