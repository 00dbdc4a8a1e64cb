/** npm run fit: fits every type of the library to its sheet points; writes src/core/tubes/fitted.ts and the plots in docs/tubes. */

import { writeFileSync } from "node:fs";
import { fitTube, modelAt, type Fit } from "@/core/tubes/fit";
import { SHEET_DATA, type SheetData } from "@/core/tubes/sheet-points";

const lines: string[] = [];
const table: string[] = [];
for (const data of SHEET_DATA) {
  const fit = fitTube(data);
  const { kind, ...values } = fit.model;
  const shown = Object.entries(values).map(([k, v]) => `${k}: ${Number((v as number).toPrecision(6))}`);
  lines.push(`  "${data.type}": { kind: "${kind}", ${shown.join(", ")} },`);
  writeFileSync(`docs/tubes/${data.type}.svg`, plot(data, fit));
  const percent = (x: number | undefined) => (x === undefined ? "–" : `${(x * 100).toFixed(1)} %`);
  for (const r of fit.rows)
    table.push(
      `| ${data.type} | ${r.point.va} / ${r.point.vg2 ?? "–"} / ${r.point.vg} | ${r.point.ia} | ${r.model.ia.toFixed(2)} (${percent(r.errors.ia)}) | ${r.point.ig2 === undefined ? "–" : `${r.point.ig2} → ${r.model.ig2!.toFixed(2)}`} | ${r.point.gm === undefined ? "–" : `${r.point.gm} → ${r.model.gm.toFixed(2)} (${percent(r.errors.gm)})`} | ${r.point.rp === undefined ? "–" : `${r.point.rp} → ${Math.round(r.model.rp)}`} | ${data.mu} → ${r.model.mu.toFixed(1)} |`,
    );
  console.log(`${data.type}: worst of plate current and gm ${(fit.worst * 100).toFixed(1)} %`);
}
writeFileSync(
  "src/core/tubes/fitted.ts",
  `/** Written by \`npm run fit\` from sheet-points.ts. Do not edit: change the points and run it again. */

import type { TubeModel } from "./model";

// prettier-ignore
export const FITTED: Record<string, TubeModel> = {
${lines.join("\n")}
};
`,
);
writeFileSync(
  "docs/tubes/README.md",
  `# Fits of the tube models

Written by \`npm run fit\`. Volts, milliamperes, mA/V, ohms; the sheet's figure → the model's. Each type's picture has the model's plate curves with the sheet points as rings.

| type | Va / Vg2 / Vg | Ia sheet | Ia model | Ig2 | gm | rp | µ |
| --- | --- | --- | --- | --- | --- | --- | --- |
${table.join("\n")}

${SHEET_DATA.map((d) => `[${d.type}](${encodeURIComponent(d.type)}.svg)`).join(" · ")}
`,
);

/** Plate curves of the model with the sheet points on them. */
function plot(data: SheetData, fit: Fit): string {
  const typical = data.points[0]!;
  const widest = Math.max(...data.points.map((p) => p.va)) * 1.5;
  const step = niceStep(Math.max(...data.points.map((p) => -p.vg)) / 3);
  const most = Math.max(...data.points.map((p) => p.ia)) * 1.5;
  const [left, right, top, bottom, width, height] = [46, 12, 30, 34, 420, 300];
  const x = (v: number) => left + (v / widest) * (width - left - right);
  const y = (ma: number) => height - bottom - (ma / most) * (height - top - bottom);
  const parts: string[] = [];
  for (const v of ticks(widest))
    parts.push(`<path d="M${x(v)} ${y(0)}V${top}" stroke="#ddd"/><text x="${x(v)}" y="${height - 18}" text-anchor="middle">${v}</text>`);
  for (const ma of ticks(most))
    parts.push(
      `<path d="M${left} ${y(ma)}H${width - right}" stroke="#ddd"/><text x="${left - 5}" y="${y(ma) + 4}" text-anchor="end">${ma}</text>`,
    );
  for (let k = 0; k < 9; k++) {
    const vg = -k * step;
    let path = "";
    let last = { v: 0, ma: 0 };
    for (let i = 0; i <= 60; i++) {
      const va = (widest * i) / 60;
      const { ia } = modelAt(fit.model, { va: Math.max(va, 0.01), vg2: typical.vg2, vg });
      if (ia > most) break;
      path += `${i ? "L" : "M"}${x(va).toFixed(1)} ${y(ia).toFixed(1)}`;
      last = { v: va, ma: ia };
    }
    if (last.ma > most * 0.01)
      parts.push(
        `<path d="${path}" fill="none" stroke="#234"/><text x="${x(last.v) - 2}" y="${y(last.ma) - 3}" text-anchor="end">${vg === 0 ? "0 V" : `${Number(vg.toFixed(2))}`}</text>`,
      );
  }
  for (const p of data.points) {
    const same = p.vg2 === undefined || p.vg2 === typical.vg2;
    parts.push(
      `<circle cx="${x(p.va)}" cy="${y(p.ia)}" r="5" fill="none" stroke="#8a6d1f" stroke-width="2"${same ? "" : ' stroke-dasharray="2 2"'}/><text x="${x(p.va) + 8}" y="${y(p.ia) + 12}" fill="#6b5310">${p.vg} V${same ? "" : `, Vg2 ${p.vg2}`}</text>`,
    );
  }
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" font-family="sans-serif" font-size="10"><rect width="${width}" height="${height}" fill="#fff"/><text x="${left}" y="18" font-size="13" font-weight="bold">${data.type}${typical.vg2 ? `, Vg2 ${typical.vg2} V` : ""}: plate mA against plate V, model (lines) and sheet (rings)</text>${parts.join("")}</svg>\n`;
}

function niceStep(wanted: number): number {
  const power = 10 ** Math.floor(Math.log10(Math.max(wanted, 0.1)));
  return ([1, 2, 2.5, 5, 10].find((m) => m * power >= wanted * 0.8) ?? 10) * power;
}

function ticks(most: number): number[] {
  const step = niceStep(most / 6);
  return Array.from({ length: Math.floor(most / step) + 1 }, (_, i) => Number((i * step).toFixed(6)));
}
