"use client";
/** Reforming electrolytics anew: the plan, what has to be in order first, then the run with its chart; one lot at a time, over days. */

import { reformRuns, openRun } from "@/core/capacitor/reform-run";
import { formatDuration, formatQuantity } from "@/core/quantity/format";
import { useState } from "react";
import { isLineConnected } from "@/core/circuit/mains-connection";
import { reformPlan, reformRefused, type ReformPlan } from "@/core/capacitor/reform-plan";
import { reformObstacles } from "@/core/capacitor/reform-safety";
import { is, type JobEvent } from "@/core/tape/events/event";
import { latestReading } from "@/core/tape/fold";
import { Section } from "../../forms/section";
import { Gate } from "../../frame/gate";
import { useEnergy, useJob } from "../../job/job-context";
import { ReformingRun } from "./reforming-run";
import { useCapacitors, type CapacitorRow } from "./use-capacitors";

export function Reforming() {
  const { view } = useJob();
  const runs = reformRuns(view.state);
  const open = openRun(runs);
  const ended = runs.filter((r) => r !== open);
  return (
    <div className="space-y-4">
      {open ? (
        <ReformingRun run={open} />
      ) : (
        <Gate station="work">
          <Plan />
        </Gate>
      )}
      {ended.length > 0 && (
        <Section title="Reformed before in this job">
          <ul className="space-y-1">
            {ended.flatMap((r) =>
              r.parts.map((p) => (
                <li key={`${r.seq} ${p.part.part}`}>
                  <strong>{p.part.part}</strong>: {p.result ?? "no result"}; {p.readings.length} readings over{" "}
                  {formatDuration(p.readings.at(-1)?.seconds ?? 0)}, last{" "}
                  {p.readings.length > 0 ? formatQuantity(p.readings.at(-1)!.amps, "A", 3) : "–"} of {formatQuantity(p.part.limit, "A", 3)}{" "}
                  allowed
                </li>
              )),
            )}
          </ul>
        </Section>
      )}
    </div>
  );
}

interface Planned {
  row: CapacitorRow;
  plan?: ReformPlan;
  /** Why there is none, or what speaks against trying. */
  against: string[];
}

function planOf(row: CapacitorRow, safe: number, ohms: number | undefined): Planned {
  const { c, stress } = row;
  const left = c.tests.findLast((t) => t.kind === "capacitance");
  const against = reformRefused({
    farads: c.farads,
    volts: c.volts,
    electrolytic: c.electrolytic,
    safety: c.role.safety !== undefined,
    backwards: stress?.backwards,
    ...(row.seen ? { seen: row.seen } : {}),
    ...(left && c.farads ? { left: left.value / c.farads } : {}),
    ...(ohms === undefined ? {} : { ohms }),
  });
  if (against.length > 0) return { row, against };
  try {
    const working = Math.max(Math.abs(stress?.highLoaded ?? 0), stress?.unloaded ?? 0) || c.volts!;
    return {
      row,
      plan: reformPlan({ farads: c.farads!, volts: c.volts!, kind: "electrolytic", year: c.year }, Math.min(working, c.volts!), { safe }),
      against:
        working > c.volts! ? [`sees ${Math.round(working)} V in its place: reformed to its rating, replaced if that is not enough`] : [],
    };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return { row, against: [error.message] };
  }
}

/** Never put on in this job, or off with its plug out: an amp that is only switched off is one switch away from live. */
function plugIsOut(effective: readonly JobEvent[]): boolean {
  const last = effective.findLast((e) => is(e, "power")) as JobEvent<"power"> | undefined;
  return !last || (last.payload.state === "off" && (last.payload.plug ?? "out") === "out");
}

function Plan() {
  const { view, settings, say, instruments } = useJob();
  const { energy } = useEnergy();
  const { rows, circuit } = useCapacitors();
  const [lot, setLot] = useState<ReadonlySet<string>>(
    () => new Set(rows.filter((r) => r.judged.verdict === "reform").map((r) => r.c.name)),
  );
  const [inAmp, setInAmp] = useState(false);
  const [voltsOnNegative, setNegative] = useState(false);
  const [isolatedSupply, setIsolated] = useState(false);
  const [reason, setReason] = useState("");
  const [pace, setPace] = useState(1);
  const candidates = rows.filter((r) => r.c.electrolytic && (r.c.volts ?? 100) > 63 && r.c.replaced === undefined);
  const planned = candidates.map((row) => {
    const node = row.c.element?.nodes.find((n) => n !== "0");
    return planOf(row, settings.safeVolts, node === undefined ? undefined : latestReading(view.state, `${node}:0`, "ohm")?.value);
  });
  const chosen = planned.filter((p) => lot.has(p.row.c.name) && p.plan);
  const together = chosen.map((p) => p.plan!);
  // One supply for all of them: the lowest target is the last step that all may see.
  const target = Math.min(...together.map((p) => p.target));
  const ohms = Math.max(0, ...together.map((p) => p.ohms));
  const steps = together.find((p) => p.target === target)?.steps ?? [];
  const cases = chosen.map((p) => p.row.c.caseLead);
  const obstacles = reformObstacles({
    inAmp,
    lineConnected: isLineConnected(circuit),
    caseLead: cases.includes("unknown") ? "unknown" : cases.includes("plus") ? "plus" : cases.includes("minus") ? "minus" : "insulated",
    canOnChassis: chosen.some((p) => p.row.c.section !== undefined),
    voltsOnNegative,
    isolatedSupply,
    plugOut: plugIsOut(view.state.effective),
  });
  const never = obstacles.filter((o) => o.never);
  const ready = chosen.length > 0 && never.length === 0 && (obstacles.length === 0 || reason.trim().length >= 3) && energy.kind !== "live";
  const begin = () => {
    const passed = obstacles.map((o) => o.id).join(", ");
    say({
      type: "reform-begun",
      payload: {
        parts: chosen.map(({ row: { c }, plan }) => ({
          part: c.name,
          farads: c.farads!,
          rated: c.volts!,
          target,
          limit: plan!.limit * Math.min(1, target / plan!.target),
          formula: plan!.formula,
        })),
        ohms,
        steps,
        dwellMinutes: Math.max(...together.map((p) => p.dwellMinutes)),
        lifted: !inAmp,
        ...(pace > 1 ? { pace } : {}),
        ...(passed ? { note: `gone past ${passed}: ${reason.trim()}` } : {}),
      },
    });
  };
  return (
    <Section title="Reform" hint="through a resistor each, step by step, until the leakage is under its limit">
      {candidates.length === 0 ? (
        <p>No electrolytic above 63 V that is not replaced yet.</p>
      ) : (
        <>
          <table className="table table-sm" aria-label="Capacitors to reform">
            <thead>
              <tr>
                <th>On the supply</th>
                <th className="text-right">Rated</th>
                <th className="text-right">To</th>
                <th className="text-right">Series resistor</th>
                <th className="text-right">Allowed at the end</th>
                <th className="text-right">Holds</th>
                <th>Against it</th>
              </tr>
            </thead>
            <tbody>
              {planned.map(({ row: { c }, plan, against }) => (
                <tr key={c.name}>
                  <td>
                    <label className="flex min-h-9 items-center gap-2">
                      <input
                        type="checkbox"
                        className="checkbox"
                        disabled={!plan}
                        checked={plan !== undefined && lot.has(c.name)}
                        onChange={() =>
                          setLot((l) => {
                            const next = new Set(l);
                            if (!next.delete(c.name)) next.add(c.name);
                            return next;
                          })
                        }
                      />
                      <strong>{c.name}</strong> {c.farads !== undefined && formatQuantity(c.farads, "F", 2)}{" "}
                      {c.section && <span className="soft">{c.section}</span>}
                    </label>
                  </td>
                  <td className="text-right">{c.volts === undefined ? "?" : `${c.volts} V`}</td>
                  <td className="text-right">{plan && `${plan.target} V`}</td>
                  <td className="text-right">{plan && `${formatQuantity(plan.ohms, "Ω", 2)}, ${formatQuantity(plan.watts, "W", 2)}`}</td>
                  <td className="text-right">{plan && formatQuantity(plan.limit, "A", 3)}</td>
                  <td className="text-right">{plan && formatQuantity(plan.joules, "J", 2)}</td>
                  <td className="text-xs">{against.join("; ")}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {chosen.length > 0 && (
            <div className="mt-3 rounded border border-base-300 bg-base-200 p-3">
              <p className="text-xl font-bold">
                {chosen.map((p) => p.row.c.name).join(", ")}: {steps.join(", ")} V, {formatQuantity(ohms, "Ω", 2)} in series with each
              </p>
              <p className="soft text-sm">
                However bad one is, no more than {formatQuantity(target ** 2 / (4 * ohms), "W", 2)} go into it. At each step at least{" "}
                {Math.max(...together.map((p) => p.dwellMinutes))} minutes, and on only with the leakage under that step&apos;s limit. Stop
                at once when the leakage rises at the same voltage, when a can gets warm by hand held near, hisses or smells. Wear glasses;
                a can that gives way does it at the vent. Off the supply they come down through their resistors in about{" "}
                {formatDuration(Math.max(...together.map((p) => (p.downSeconds * ohms) / p.ohms)))}.
              </p>
              <p className="soft text-sm">
                Limit: {together[0]!.formula} ({together[0]!.source}).
              </p>
            </div>
          )}
          <div className="mt-3 flex flex-wrap gap-x-6">
            <Check label="still wired in the amp (plus lead not lifted)" checked={inAmp} set={setInAmp} />
            <Check label="the tester has its test voltage on the negative lead" checked={voltsOnNegative} set={setNegative} />
            <Check label="the supply has no connection to earth or to the wall" checked={isolatedSupply} set={setIsolated} />
            {instruments && (
              <label className="flex min-h-11 items-center gap-2 text-sm">
                Simulated tester: time runs
                <select className="select select-sm w-28" value={pace} onChange={(e) => setPace(Number(e.target.value))}>
                  <option value={1}>as it is</option>
                  <option value={60}>60 ×</option>
                  <option value={600}>600 ×</option>
                </select>
              </label>
            )}
          </div>
          {obstacles.length > 0 && (
            <div role="alert" className="mt-2 rounded border-2 border-warning p-3">
              <ul className="list-disc pl-5">
                {obstacles.map((o) => (
                  <li key={o.id} className={o.never ? "font-bold" : ""}>
                    {o.says}
                  </li>
                ))}
              </ul>
              {never.length === 0 && (
                <label className="mt-2 block text-sm">
                  Go on all the same because
                  <input className="input ml-2 w-96" value={reason} onChange={(e) => setReason(e.target.value)} />
                </label>
              )}
            </div>
          )}
          <button className="btn btn-primary mt-3" disabled={!ready} onClick={begin}>
            Supply on at {steps[0] ?? "–"} V
          </button>
        </>
      )}
    </Section>
  );
}

function Check({ label, checked, set }: { label: string; checked: boolean; set(on: boolean): void }) {
  return (
    <label className="flex min-h-11 items-center gap-2 text-sm">
      <input type="checkbox" className="checkbox" checked={checked} onChange={(e) => set(e.target.checked)} /> {label}
    </label>
  );
}
