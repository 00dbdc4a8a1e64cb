/** What a suspect predicts beside what was measured, point by point. */

import { formatQuantity, formatVolts } from "@/core/quantity/format";
import type { SuspectsAnswer } from "@/core/ports/solver-port";
import type { Suspect } from "@/core/suspects/rank";
import { severityOf } from "./suspect-words";

export function Predicted({ suspect, answer }: { suspect: Suspect; answer: SuspectsAnswer }) {
  const show = (kind: string, v: number) =>
    !Number.isFinite(v)
      ? "–"
      : kind === "ohm"
        ? formatQuantity(v, "Ω", 3)
        : kind === "ma"
          ? formatQuantity(v / 1e3, "A", 3)
          : kind === "gm"
            ? `${Math.round(v)} %`
            : kind === "temp"
              ? `${Math.round(v)} °C`
              : formatVolts(v);
  return (
    <section aria-label="Predicted beside measured">
      <h2 className="font-bold">
        If it is {suspect.fault}
        <span className="soft font-normal">{severityOf(suspect)}</span>
      </h2>
      <table className="table table-sm tabular-nums">
        <thead>
          <tr>
            <th>Measured at</th>
            <th className="text-right">Measured</th>
            <th className="text-right">It predicts</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {answer.evidence.map((e, i) => {
            const label = e.kind === "observe" || e.kind === "dcv" ? e.point : `${e.point} ${e.kind}`;
            return (
              <tr key={i}>
                <td>{label}</td>
                <td className="text-right font-bold">{e.kind === "observe" ? "seen" : show(e.kind, e.value)}</td>
                <td className="text-right">{e.kind === "observe" ? "" : show(e.kind, suspect.predicted[i] ?? NaN)}</td>
                <td>
                  {suspect.against.includes(label) ? (
                    <span className="verdict-out">■ not explained</span>
                  ) : suspect.explains.includes(label) ? (
                    <span className="verdict-in">● explained</span>
                  ) : (
                    <span className="soft">○ no difference</span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
