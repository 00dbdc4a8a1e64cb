"use client";
/** The recap kit: what to order for this amp, what is at hand, what is in the way; printed, as CSV, as labels for the bags. */

import { unparse } from "papaparse";
import { useMemo, useState } from "react";
import { worstOf } from "@/core/capacitor/check";
import { bagLabel, fittedSet, kitRows, kitSet, offerText, recapKit, type KitLine } from "@/core/capacitor/kit";
import { storedIn } from "@/core/capacitor/stored";
import { alter } from "@/core/circuit/alter";
import { findElement } from "@/core/circuit/circuit";
import { formatMoney } from "@/core/money/amount";
import { words } from "@/core/language/language";
import { formatDuration, formatQuantity, formatVolts } from "@/core/quantity/format";
import { Section } from "../../forms/section";
import { WideTable } from "../../forms/wide-table";
import { PrintButton } from "../../forms/print-button";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { CheckMark } from "./checks-table";
import { FitPart } from "./fit-part";
import { StockParts } from "./stock-parts";
import { inKit, useDrawnCapacitors } from "./use-capacitors";

export function Kit() {
  const all = useDrawnCapacitors();
  const { circuit, rows, stresses, stock, swap, netlist, mains, year } = all;
  const { settings, capacitors, jobId, view } = useJob();
  const chosen = inKit(all);
  const kit = useMemo(
    () =>
      recapKit(
        circuit,
        chosen.map((r) => r.c),
        stresses,
        stock,
      ),
    [circuit, chosen, stresses, stock],
  );
  const set = useMemo(
    () => kitSet({ ...kit, lines: kit.lines.map((l) => ({ ...l, parts: l.parts.filter((p) => findElement(circuit, p)) })) }, year),
    [kit, circuit, year],
  );
  const after = useAnswer(capacitors && chosen.length > 0 ? JSON.stringify(["kit", netlist, set, mains]) : undefined, () =>
    capacitors!.stresses(netlist, mains, set),
  );
  const now = stresses.size > 0 ? storedIn(circuit, stresses, settings.safeVolts) : undefined;
  const then = after.answer && storedIn(alter(circuit, set), new Map(after.answer.map((s) => [s.part, s])), settings.safeVolts);
  const [labels, setLabels] = useState(false);
  const amp = view.state.opened?.amp ?? "";
  const csv = () => download(unparse(kitRows(kit, settings.currency), { newline: "\r\n" }), `kit-job-${jobId}.csv`);
  return (
    <div className="space-y-4">
      <Section title="Kit for this amp" hint="values that exist, for what the table wants replaced">
        <p className="text-2xl font-bold" data-testid="kit-says">
          {chosen.length === 0
            ? "Nothing to order."
            : `${counted(
                kit.lines.reduce((n, l) => n + l.pieces, 0),
                "piece",
              )}, ${counted(kit.lines.length, "kind")}${kit.total > 0 ? `, ${formatMoney(kit.total, settings)}` : ""}${kit.unpriced > 0 && kit.lines.length > 0 ? ` and ${kit.unpriced} without a price` : ""}.`}
        </p>
        {chosen.length > 0 && (
          <WideTable label="Kit" className="table table-sm">
            <thead>
              <tr>
                <th>Positions</th>
                <th className="text-right">Pieces</th>
                <th>Part</th>
                <th>Good for it</th>
                <th>At hand</th>
                <th className="text-right">Price</th>
                <th>To reach them</th>
              </tr>
            </thead>
            <tbody>
              {kit.lines.map((l) => (
                <Line key={`${l.parts[0]} ${l.text}`} line={l} />
              ))}
            </tbody>
          </WideTable>
        )}
        {kit.none.map((n) => (
          <p key={n.part} role="alert" className="text-warning">
            ▲ {n.part}: nothing is suggested, {n.why}
          </p>
        ))}
        {chosen.length > 0 && (
          <div className="mt-2 flex flex-wrap gap-2 print:hidden">
            <PlanKit kit={kit} />
            <button className="btn btn-outline" onClick={csv}>
              CSV
            </button>
            <PrintButton />
            <button className="btn btn-outline" onClick={() => setLabels(!labels)}>
              {labels ? "No labels" : "Labels for the bags"}
            </button>
          </div>
        )}
        {labels && (
          <ul className="mt-3 grid grid-cols-2 gap-2 sm:grid-cols-3" aria-label="Labels">
            {kit.lines.map((l) => (
              <li key={l.parts.join()} className="rounded border border-dashed border-current p-2">
                {bagLabel(l, `job ${jobId} ${amp}`).map((t, i) => (
                  <span key={i} className={`block ${i === 0 ? "text-lg font-bold" : "text-sm"}`}>
                    {t}
                  </span>
                ))}
              </li>
            ))}
          </ul>
        )}
        <details className="mt-2 print:hidden">
          <summary className="min-h-9 cursor-pointer">Take others into the kit, or leave some out</summary>
          <div className="flex flex-wrap gap-x-5">
            {rows
              .filter((r) => r.c.replaced === undefined)
              .map((r) => (
                <label key={r.c.name} className="flex min-h-11 items-center gap-2">
                  <input type="checkbox" className="checkbox" checked={chosen.includes(r)} onChange={() => swap(r.c.name)} /> {r.c.name}
                </label>
              ))}
          </div>
        </details>
      </Section>
      {now && then && (
        <Section title="Charge before and after" hint={words("nothing drawing, mains up a tenth")}>
          <table className="table table-sm max-w-xl" aria-label="Charge before and after">
            <thead>
              <tr>
                <th />
                <th className="text-right">Now</th>
                <th className="text-right">With the kit</th>
              </tr>
            </thead>
            <tbody>
              {(
                [
                  ["energy held", formatQuantity(now.joules, "J", 3), formatQuantity(then.joules, "J", 3)],
                  ["falls by itself to the safe voltage in", formatDuration(now.seconds), formatDuration(then.seconds)],
                  ["may come back after a discharge", formatVolts(now.rebound), formatVolts(then.rebound)],
                ] as const
              ).map(([name, a, b]) => (
                <tr key={name}>
                  <td>{name}</td>
                  <td className="text-right tabular-nums">{a}</td>
                  <td className="text-right font-bold tabular-nums">{b}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="soft text-sm">
            {words("Make safe follows the parts that are logged as fitted: its plan is that of the new ones from then on.")}
          </p>
        </Section>
      )}
      <StockParts />
    </div>
  );
}

/** Each place of the kit becomes a task of the plan, with its part and what it costs. */
function PlanKit({ kit }: { kit: ReturnType<typeof recapKit> }) {
  const { view, say } = useJob();
  const planned = new Set(view.state.planned.filter((p) => !p.ended).map((p) => p.position.toUpperCase()));
  const tasks = kit.lines.flatMap((line) =>
    line.parts
      .filter((part) => !planned.has(part))
      .map((position) => ({
        position,
        what: `renew: ${line.text}`.slice(0, 300),
        phase: "power off" as const,
        from: "capacitor" as const,
        parts: [
          {
            text: line.text.slice(0, 200),
            pieces: Math.max(1, Math.round(line.pieces / line.parts.length)),
            state: line.stock && line.stock.pieces >= line.pieces ? ("in stock" as const) : ("to order" as const),
            ...(line.price === undefined ? {} : { cost: line.price }),
            ...(line.stock ? { stock: line.stock.number } : {}),
          },
        ],
        reversible: true,
      })),
  );
  if (tasks.length === 0) return <span className="soft self-center">All of it is on the plan.</span>;
  return (
    <button className="btn btn-primary" onClick={() => say(...tasks.map((payload) => ({ type: "planned" as const, payload })))}>
      Plan {tasks.length === 1 ? "it" : `all ${tasks.length}`}
    </button>
  );
}

function Line({ line }: { line: KitLine }) {
  const { settings } = useJob();
  const { circuit, rows, year } = useDrawnCapacitors();
  const [fitting, setFitting] = useState(false);
  const drawn = line.parts.flatMap((p) => findElement(circuit, p) ?? []);
  const all = line.checks.flatMap((c) => c.checks);
  const open = all.filter((c) => c.verdict !== "in");
  return (
    <>
      <tr className="align-top">
        <td className="font-bold">{line.parts.join(", ")}</td>
        <td className="text-right">{line.pieces}</td>
        <td>
          {line.text}
          {line.suggested.why && <span className="soft block text-xs">{line.suggested.why}</span>}
          {line.suggested.balance !== undefined && (
            <span className="soft block text-xs">{formatQuantity(line.suggested.balance, "Ω", 2)} across each</span>
          )}
        </td>
        <td>
          <CheckMark verdict={worstOf(all)} />
          {[...new Set(open.map((c) => c.what))].length > 0 && (
            <span className="soft block text-xs">{[...new Set(open.map((c) => c.what))].join(", ")}</span>
          )}
        </td>
        <td>
          {line.stock ? (
            `${line.stock.pieces < line.pieces ? `▲ ${line.stock.pieces} of ${line.pieces}` : line.stock.pieces}, number ${line.stock.number}${line.stock.place ? `, ${line.stock.place}` : ""}${line.stock.unknown ? `; ▲ not known of it: ${line.stock.unknown.join(", ")}` : ""}`
          ) : (
            <span className="soft">to be ordered</span>
          )}
        </td>
        <td className="text-right whitespace-nowrap tabular-nums">{line.price === undefined ? "–" : formatMoney(line.price, settings)}</td>
        <td className="text-xs">
          {line.reach.join("; ")}
          {drawn.length > 0 && line.suggested.inSeries === 1 && (
            <button
              className="btn btn-line btn-sm mt-1 block min-h-9 print:hidden"
              onClick={() => setFitting(!fitting)}
              aria-expanded={fitting}
            >
              {fitting ? "Close" : "Fitted…"}
            </button>
          )}
        </td>
      </tr>
      {fitting && (
        <tr>
          <td colSpan={7} className="bg-base-200">
            <FitPart
              fits={drawn.map((part) => ({
                part,
                newPart: offerText(line.suggested.offer),
                set: fittedSet(part.name, line.suggested.offer, year),
                checks: line.checks.find((c) => c.part === part.name)?.checks ?? [],
                reason: rows.find((r) => r.c.name === part.name)?.judged.why ?? "",
                measured: rows
                  .find((r) => r.c.name === part.name)
                  ?.tests.map((t) => t.what)
                  .join(", "),
              }))}
              {...(line.stock ? { stock: { number: line.stock.number, pieces: drawn.length } } : {})}
              done={() => setFitting(false)}
            />
          </td>
        </tr>
      )}
    </>
  );
}

function download(text: string, name: string): void {
  // The mark at its head tells spreadsheets that it is UTF-8.
  const url = URL.createObjectURL(new Blob(["\ufeff", text], { type: "text/csv;charset=utf-8" }));
  const link = Object.assign(document.createElement("a"), { href: url, download: name });
  link.click();
  URL.revokeObjectURL(url);
}

const counted = (n: number, what: string) => `${n} ${what}${n === 1 ? "" : "s"}`;
