/** What settling made of it: values before and after with how sure, figures that fit and that do not, what was not determined. */

import { figure, words } from "@/core/language/language";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import type { Fitted, Settled, SettledPoint } from "@/core/settle/settle";

const WHAT: Record<Fitted["what"], string> = {
  "winding volts": "winding volts",
  "source resistance": "source resistance",
  "winding resistance": "winding resistance",
  value: "value",
  strength: "strength, of its sheet’s tube",
};

const shown = (value: number, { unit }: Pick<Fitted, "unit">) => (unit ? formatQuantity(value, unit, 3) : `${Math.round(value * 100)} %`);

export function SettledTables({ settled }: { settled: Settled }) {
  const { refused, fitted, points, misprints, undetermined } = settled;
  const odd = new Set(misprints);
  return (
    <div className="space-y-4">
      {refused ? (
        <p role="alert" className="verdict-out text-lg">
          ■ {refused}
        </p>
      ) : (
        <p role="status" className="text-lg">
          ● {points.length - misprints.length} of {points.length} figures fit
          {misprints.length > 0 && `; left out as misprints: ${misprints.map((m) => m.point).join(", ")}`}
        </p>
      )}
      {fitted.length > 0 && (
        <table className="table table-sm tabular-nums" aria-label="Settled values">
          <thead>
            <tr>
              <th>Part</th>
              <th>What</th>
              <th className="text-right">Before</th>
              <th className="text-right">After</th>
              <th className="text-right">Sure to</th>
            </tr>
          </thead>
          <tbody>
            {fitted.map((f) => (
              <tr key={`${f.part} ${f.what}`}>
                <td className="font-bold">{f.part}</td>
                <td>{words(WHAT[f.what])}</td>
                <td className="text-right">{shown(f.before, f)}</td>
                <td className="text-right font-bold">{shown(f.after, f)}</td>
                <td className="text-right">±{figure((100 * f.sigma).toFixed(f.sigma < 0.1 ? 1 : 0))} %</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {undetermined.length > 0 && (
        <p className="soft">
          Not determined by these figures, left as it was:{" "}
          {undetermined.map((u) => `${u.part} ${words(WHAT[u.what]).split(",")[0]}`).join("; ")}.
        </p>
      )}
      {points.length > 0 && (
        <table className="table table-sm tabular-nums" aria-label="Figures">
          <thead>
            <tr>
              <th>Point</th>
              <th className="text-right">Given</th>
              <th className="text-right">Computed before</th>
              <th className="text-right">After</th>
              <th>Fits</th>
            </tr>
          </thead>
          <tbody>
            {points.map((p, i) => (
              <tr key={i} className={odd.has(p) ? "verdict-out" : ""}>
                <td className="font-bold">{p.point}</td>
                <td className="text-right">{formatVolts(p.given)}</td>
                <td className="text-right">{formatVolts(p.before)}</td>
                <td className="text-right font-bold">{formatVolts(p.after)}</td>
                <td>{fit(p, odd.has(p))}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

const fit = (p: SettledPoint, misprint: boolean) =>
  misprint ? "■ misprint: all others say otherwise" : p.sigmas > 3 ? "▲ does not fit" : "● fits";
