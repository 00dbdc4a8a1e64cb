"use client";
/** What a part was held against, line by line, and the figures of the amp with it beside those without it. */

import type { PartCheck } from "@/core/capacitor/check";
import { worstOf } from "@/core/capacitor/check";
import type { Beside } from "@/core/capacitor/figures-beside";
import { words } from "@/core/language/language";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { useMemo } from "react";
import { besideLayer } from "../../drawing/layers";
import { WideTable } from "../../forms/wide-table";
import { lateInBrowser } from "../../forms/late";
import { VerdictMark } from "../../forms/verdict-mark";
import { useDrawnCapacitors } from "./use-capacitors";

const WORD = { in: "good", watch: "watch", out: "no", none: "not known" } as const;

/** The verdict of a check: by its mark, and in the words of a check rather than of a reading. */
export function CheckMark({ verdict }: { verdict: PartCheck["verdict"] }) {
  return (
    <span className={`verdict-${verdict} inline-flex items-center gap-1.5 whitespace-nowrap`}>
      <VerdictMark verdict={verdict} /> {WORD[verdict]}
    </span>
  );
}

const SAYS = {
  in: "It may stand there.",
  watch: "It may, with what is marked.",
  out: "It may not.",
  none: "Not all is known of it.",
} as const;

export function ChecksTable({ checks, label = "Checks" }: { checks: readonly PartCheck[]; label?: string }) {
  const worst = worstOf(checks);
  return (
    <div>
      <p className="flex items-center gap-2 text-2xl font-bold" data-testid="may-stand">
        <VerdictMark verdict={worst} size={20} /> {SAYS[worst]}
      </p>
      <WideTable label={label} className="table table-sm">
        <thead>
          <tr>
            <th>What</th>
            <th>Wanted</th>
            <th>Has</th>
            <th>Verdict</th>
            <th>Why</th>
          </tr>
        </thead>
        <tbody>
          {checks.map((c, i) => (
            <tr key={i}>
              <td>{c.what}</td>
              <td>{c.needs}</td>
              <td>{c.has || "not known"}</td>
              <td>
                <CheckMark verdict={c.verdict} />
              </td>
              <td className="text-sm">{c.why}</td>
            </tr>
          ))}
        </tbody>
      </WideTable>
    </div>
  );
}

const StationDrawing = lateInBrowser(() => import("../../drawing/station-drawing").then((m) => m.StationDrawing), "min-h-9");

/** @param part what is to be fitted, for its frame on the drawing. */
export function BesideTable({ beside, failed, part }: { beside?: Beside; failed: string; part: string }) {
  const { circuit } = useDrawnCapacitors();
  const layer = useMemo(() => beside && besideLayer(circuit, part, beside.now.points, beside.then.points), [circuit, part, beside]);
  if (failed) return <p role="alert">The amp with it could not be computed: {failed}</p>;
  if (!beside) return <p role="status">Solving the amp with it</p>;
  const { now, then } = beside;
  const rows: [string, string, string][] = [
    ...now.points.flatMap((p): [string, string, string][] => {
      const after = then.points.find((x) => x.point === p.point);
      return after
        ? [
            [p.point, formatVolts(p.volts), formatVolts(after.volts)],
            [`${p.point} ripple`, formatQuantity(p.ripple, "V", 3), formatQuantity(after.ripple, "V", 3)],
          ]
        : [];
    }),
  ];
  const add = (name: string, unit: "V" | "Hz" | "A", a: number | undefined, b: number | undefined) => {
    if (a !== undefined && b !== undefined) rows.push([name, formatQuantity(a, unit, 3), formatQuantity(b, unit, 3)]);
  };
  add("hum at the speaker", "V", now.hum, then.hum);
  add("bass 3 dB down at", "Hz", now.bass, then.bass);
  add("treble 3 dB down at", "Hz", now.treble, then.treble);
  add("highest instant of the rectifier", "A", now.peak, then.peak);
  const changed = rows.filter(([, a, b]) => a !== b);
  const over = then.over.filter((o) => !now.over.includes(o));
  return (
    <div>
      <h3 className="font-bold">The amp with it</h3>
      {over.length > 0 && (
        <p role="alert" className="text-error">
          Over its rating with it: {over.join(", ")}
        </p>
      )}
      {changed.length === 0 ? (
        <p>{words("Rails, ripple, hum and corners stay as they are.")}</p>
      ) : (
        <table className="table table-sm max-w-xl" aria-label="The amp with it">
          <thead>
            <tr>
              <th />
              <th className="text-right">Now</th>
              <th className="text-right">With it</th>
            </tr>
          </thead>
          <tbody>
            {changed.map(([name, a, b]) => (
              <tr key={name}>
                <td>{name}</td>
                <td className="text-right tabular-nums">{a}</td>
                <td className="text-right font-bold tabular-nums">{b}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {layer && changed.length > 0 && <StationDrawing layer={layer} />}
    </div>
  );
}
