"use client";
/** Every capacitor of the amp: what it does, bears, measured, and what is to be done with it; those that a failure makes dangerous apart. */

import { useMemo } from "react";
import type { Circuit } from "@/core/circuit/circuit";
import { questionAsked } from "@/core/repair/owner-acts";
import { words } from "@/core/language/language";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import type { CapacitorVerdict } from "@/core/capacitor/verdict";
import type { Verdict } from "@/core/expectation/expectation";
import { SCHOOL_WORDS } from "@/core/shop/capacitor-school";
import { capacitorLayer } from "../../drawing/layers";
import { PartButton } from "../../drawing/part-button";
import { Section } from "../../forms/section";
import { WideTable } from "../../forms/wide-table";
import { lateInBrowser } from "../../forms/late";
import { useJob } from "../../job/job-context";
import { VerdictMark } from "../../forms/verdict-mark";
import { NameCapacitor } from "./name-capacitor";
import { CapacitorDetail } from "./capacitor-detail";
import { BadNames } from "./bad-names";
import { useCapacitors, type CapacitorRow } from "./use-capacitors";

const StationDrawing = lateInBrowser(() => import("../../drawing/station-drawing").then((m) => m.StationDrawing), "min-h-9");

export const TO_DO: Record<CapacitorVerdict, string> = {
  replace: "replace",
  reform: "reform",
  test: "test",
  look: "read it off",
  keep: "keep",
};
const MARK: Record<CapacitorVerdict, Verdict> = { replace: "out", reform: "watch", test: "watch", look: "none", keep: "in" };
const ORDER: CapacitorVerdict[] = ["replace", "reform", "test", "look", "keep"];

export function CapacitorTable() {
  const { rows, circuit, failed, solving } = useCapacitors();
  const { settings } = useJob();
  const dangerous = rows.filter((r) => r.c.role.danger);
  const others = rows.filter((r) => !r.c.role.danger);
  return (
    <div className="space-y-4">
      <p className="text-2xl font-bold" data-testid="capacitors-say">
        {rows.length === 0 && "No capacitor known yet"}
        {ORDER.flatMap((v) => {
          const n = rows.filter((r) => r.judged.verdict === v).length;
          return n > 0 ? [`${n} ${TO_DO[v]}`] : [];
        }).join(", ")}
        .
      </p>
      <p className="soft max-w-3xl text-sm">
        What was measured comes first, then what each bears, then the shop&apos;s rule for old electrolytics:{" "}
        <strong>{SCHOOL_WORDS[settings.capacitorSchool]}</strong> (Settings). “Open” takes what you read off one or measured of it.
      </p>
      {failed && (
        <p role="alert" className="text-error">
          What they bear could not be computed: {failed}
        </p>
      )}
      {solving && <p role="status">{words("Solving the amp with its tubes in and out, mains as it is and up a tenth")}</p>}
      {dangerous.length > 0 && (
        <Section title="Where a failure puts a person at risk" hint="replaced by a safety type, never reused, whatever the agreement says">
          <Table rows={dangerous} label="Dangerous capacitors" />
        </Section>
      )}
      <Section title={circuit ? "Capacitors of the circuit" : "Capacitors"}>
        {others.length > 0 ? (
          <Table rows={others} label="Capacitors" />
        ) : (
          <p>{circuit ? "The circuit has no capacitors." : "None is named yet: name each as you come to it."}</p>
        )}
        {!circuit && <NameCapacitor known={rows.map((r) => r.c.name)} />}
      </Section>
      {circuit && <CapacitorDrawing circuit={circuit} rows={rows} />}
      <BadNames />
    </div>
  );
}

function CapacitorDrawing({ circuit, rows }: { circuit: Circuit; rows: readonly CapacitorRow[] }) {
  const { view } = useJob();
  const layer = useMemo(
    () =>
      capacitorLayer(
        circuit,
        view.rows,
        rows
          .filter((r) => r.c.element)
          .map((r) => ({ name: r.c.name, text: TO_DO[r.judged.verdict], strong: r.judged.verdict === "replace" })),
      ),
    [circuit, view.rows, rows],
  );
  return <StationDrawing layer={layer} />;
}

function Table({ rows, label }: { rows: CapacitorRow[]; label: string }) {
  return (
    <WideTable label={label} className="table table-sm">
      <thead>
        <tr>
          <th>Capacitor</th>
          <th className="min-w-44">What it does</th>
          <th className="text-right">Bears</th>
          <th className="text-right">Rated</th>
          <th className="min-w-56">Measured, to do</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <Row key={r.c.name} row={r} />
        ))}
      </tbody>
    </WideTable>
  );
}

function Row({ row }: { row: CapacitorRow }) {
  const { chosen, choose } = useCapacitors();
  const { c, stress, tests, judged } = row;
  const open = chosen === c.name;
  const over = c.volts !== undefined && stress !== undefined && stress.worst > c.volts;
  return (
    <>
      <tr className={`align-top ${open ? "bg-base-200" : ""}`}>
        <td className="whitespace-nowrap">
          {c.element ? (
            <PartButton name={c.name}>
              <strong>{c.name}</strong>
            </PartButton>
          ) : (
            <strong>{c.name}</strong>
          )}
          <button
            className="btn btn-line btn-sm mt-1 block min-h-9"
            aria-expanded={open}
            aria-label={`${c.name}: read off, tests`}
            onClick={() => choose(open ? undefined : c.name)}
          >
            {open ? "Close" : "Open"}
          </button>
        </td>
        <td>
          {c.farads === undefined ? "capacitance not known" : formatQuantity(c.farads, "F", 2).replace(/[.,]0 /, " ")} {c.kind ?? ""}{" "}
          {c.year ?? ""} {c.section && <span className="soft">in {c.section}</span>}
          <span className="soft block text-xs">{c.role.does}</span>
        </td>
        <td className="text-right whitespace-nowrap">
          {stress ? (
            <>
              <Volts what="warm" value={Math.abs(stress.loaded)} />
              <Volts what={words("tubes out")} value={stress.unloaded} />
              <Volts what={words("mains +10 %")} value={Math.max(Math.abs(stress.highLoaded), stress.highUnloaded)} strong={over} />
              {stress.ripple >= 1e-3 && (
                <span className="block text-xs">
                  <span className="soft">ripple</span> {formatQuantity(stress.ripple, "A", 2)}
                </span>
              )}
            </>
          ) : (
            "–"
          )}
        </td>
        <td className="text-right tabular-nums whitespace-nowrap">{c.volts === undefined ? "?" : `${c.volts} V`}</td>
        <td>
          {tests.map((t, i) => (
            <span key={i} className="block text-xs">
              <VerdictMark verdict={t.verdict} /> {t.what}
              {t.why && <span className="soft">, {t.why}</span>}
            </span>
          ))}
          <span className="inline-flex items-center gap-1.5 text-base font-bold">
            <VerdictMark verdict={MARK[judged.verdict]} /> {TO_DO[judged.verdict]}
          </span>
          <span className="block text-xs">{judged.why}</span>
          {judged.verdict === "replace" && <Ask row={row} />}
        </td>
      </tr>
      {open && (
        <tr>
          <td colSpan={5} className="bg-base-200">
            <CapacitorDetail row={row} />
          </td>
        </tr>
      )}
    </>
  );
}

/** What the brief makes of a replacement, with the question to the owner where it wants one. */
function Ask({ row }: { row: CapacitorRow }) {
  const { view, say } = useJob();
  const { c, brief, judged } = row;
  if (brief.brief === "allowed") return <span className="soft block text-xs">agreed: {brief.why}</span>;
  const what = `${c.name}: replace it (${judged.why})`;
  const asked = view.state.approvals.find((a) => a.what.startsWith(`${c.name}: replace`));
  const answer = asked && view.state.approvals.findLast((a) => a.asks === asked.seq)?.answer;
  if (asked) return <span className="soft block text-xs">{answer ? `owner says ${answer}` : "asked, no answer yet"}</span>;
  return (
    <span className="mt-1 block text-xs text-warning">
      ask the owner: {brief.why}{" "}
      <button className="underline" onClick={() => say(questionAsked({ what }))}>
        Note as asked
      </button>
    </span>
  );
}

function Volts({ what, value, strong = false }: { what: string; value: number; strong?: boolean }) {
  return (
    <span className={`block tabular-nums ${strong ? "font-bold text-warning" : ""}`}>
      <span className="soft text-xs">{what}</span> {formatVolts(value)}
    </span>
  );
}
