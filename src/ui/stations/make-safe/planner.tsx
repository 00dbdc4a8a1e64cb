"use client";
/** The discharge planner: which resistor, where to clip it on and in which order, and whether the tool at hand is good enough. */

import { typedNumber } from "@/core/language/language";
import { useMemo, useState } from "react";
import type { ReservoirState } from "@/core/safety/proof";
import { formatDuration, formatQuantity, formatVolts } from "@/core/quantity/format";
import { parseQuantity } from "@/core/quantity/parse";
import { apart } from "@/core/safety/reservoirs-of-job";
import { planDischarge } from "@/core/safety/discharge-planner";
import type { ClipOn } from "@/core/safety/discharge-sequence";
import { rebound } from "@/core/safety/discharge-tool";
import { Field } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { VerdictMark } from "../../forms/verdict-mark";
import { keepTool, useTool } from "../../job/tool";

interface PlannerProps {
  reservoirs: ReservoirState[];
  /** Lifted off the amp for reforming. */
  lifted?: string[];
}

export function Planner({ reservoirs, lifted = [] }: PlannerProps) {
  const { settings, view } = useJob();
  const tool = useTool();
  const [text, setText] = useState<Partial<Record<"ohms" | "watts" | "volts" | "seconds", string>>>({});
  // The plan is for what is there now; the tool has to bear what this amp can hold at full charge.
  const full = useMemo(
    () => new Map(view.reservoirs.map((r) => [r.name, view.energyContext.expectedVolts(r) ?? r.ratedVolts ?? 0] as const)),
    [view],
  );
  const charged = reservoirs.some((r) => Math.abs(r.volts ?? 0) > settings.safeVolts);
  const larger = (a: number, b: number) => (Math.abs(a) > Math.abs(b) ? a : b);
  const most = reservoirs.map((r) => larger(r.volts ?? 0, full.get(r.name) ?? 0));
  const volts = charged ? reservoirs.map((r, i) => r.volts ?? most[i]!) : most;
  const seconds = typedNumber(text.seconds ?? "10");
  const key = JSON.stringify([volts.map((v) => Math.round(v)), most.map((v) => Math.round(v)), tool, seconds, lifted]);
  const plan = useMemo(() => {
    const ordered = reservoirs.flatMap((r) => view.reservoirs.find((x) => x.name === r.name) ?? []);
    return ordered.length === reservoirs.length
      ? planDischarge(view.circuit, apart(ordered, new Set(lifted)), volts, most, tool, settings.safeVolts, seconds)
      : undefined;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- by whole volts: the estimate falls every second
  }, [key, view.circuit, view.reservoirs, settings.safeVolts]);
  if (reservoirs.length === 0) return null;

  const keep = (field: "ohms" | "watts" | "volts", typed: string) => {
    setText({ ...text, [field]: typed });
    const parsed = parseQuantity(typed, { unit: field === "ohms" ? "Ω" : field === "watts" ? "W" : "V", decimal: settings.decimal });
    if (typed.trim() === "" && field !== "ohms") keepTool({ ...tool, [field]: undefined });
    else if (parsed.ok && parsed.quantity.value > 0) keepTool({ ...tool, [field]: parsed.quantity.value });
  };
  const shown = (field: "ohms" | "watts" | "volts") =>
    text[field] ??
    (tool[field] === undefined ? "" : field === "ohms" ? formatQuantity(tool.ohms, "Ω", 2).replace(/ |Ω/g, "") : String(tool[field]));
  const bad = (field: "ohms" | "watts" | "volts") => {
    const typed = text[field];
    if (typed === undefined || (typed.trim() === "" && field !== "ohms")) return "";
    const parsed = parseQuantity(typed, { decimal: settings.decimal });
    return parsed.ok && parsed.quantity.value > 0 ? "" : parsed.ok ? "must be above zero" : parsed.why;
  };

  return (
    <section aria-label="Discharge plan">
      <h2 className="font-bold">
        Discharge plan <span className="soft font-normal">{charged ? "for what is estimated now" : "for full charge"}</span>
      </h2>
      {lifted.length > 0 && (
        <p role="alert" className="text-warning">
          ▲ Lifted for reforming: {lifted.join(", ")}. Nothing of the amp discharges them: the tool goes across the two leads of each.
        </p>
      )}
      <div className="mt-2 grid gap-4 xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <div>
          <div className="flex flex-wrap items-end gap-3">
            <Field label="Tool at hand, Ω" error={bad("ohms")}>
              <input className="input w-24 text-right" value={shown("ohms")} onChange={(e) => keep("ohms", e.target.value)} />
            </Field>
            <Field label="Rating, W" error={bad("watts")}>
              <input className="input w-20 text-right" value={shown("watts")} onChange={(e) => keep("watts", e.target.value)} />
            </Field>
            <Field label="Rating, V" error={bad("volts")}>
              <input className="input w-24 text-right" value={shown("volts")} onChange={(e) => keep("volts", e.target.value)} />
            </Field>
            <Field label="Time limit, s">
              <input
                className="input w-20 text-right"
                value={text.seconds ?? "10"}
                onChange={(e) => setText({ ...text, seconds: e.target.value })}
              />
            </Field>
          </div>
          {plan && (
            <div className="mt-2 space-y-1 text-sm" data-testid="tool-verdict">
              {plan.doubts.length === 0 ? (
                <p>
                  <VerdictMark verdict="in" /> Good enough for this amp at full charge, {formatVolts(plan.highest)}:{" "}
                  {formatQuantity(plan.highest / tool.ohms, "A", 2)} and {formatQuantity(plan.highest ** 2 / tool.ohms, "W", 2)} at first
                  contact.
                </p>
              ) : (
                plan.doubts.map((d) => (
                  <p key={d.says}>
                    <VerdictMark verdict={d.refuse ? "out" : "watch"} /> {d.says}
                  </p>
                ))
              )}
              {plan.sized && (
                <p>
                  To make one: <strong>{formatQuantity(plan.sized.ohms, "Ω", 2)}</strong>,{" "}
                  <strong>{formatQuantity(plan.sized.watts, "W", 2)}</strong>
                  {plan.sized.bodies > 1 &&
                    `, as ${plan.sized.bodies} × ${formatQuantity(plan.sized.ohmsEach, "Ω", 2)} ${formatQuantity(plan.sized.wattsEach, "W", 2)} in series for ${formatVolts(plan.highest)}`}
                  ; {plan.sized.why}. Peak {formatQuantity(plan.sized.plan.peakWatts, "W", 2)}; discharged after{" "}
                  {formatDuration(Math.ceil(plan.sizedSeconds ?? plan.sized.plan.seconds))}.
                </p>
              )}
              <p className="soft">
                Shorting {formatVolts(plan.highest)} with a screwdriver would make a spark of {formatQuantity(plan.joules, "J", 2)}. After a
                brief discharge up to {formatVolts(rebound(plan.highest))} can come back.
              </p>
            </div>
          )}
        </div>
        {plan && <Sequence clips={plan.sequence.clips} left={plan.sequence.left} ohms={tool.ohms} />}
      </div>
    </section>
  );
}

function Sequence({ clips, left, ohms }: { clips: ClipOn[]; left: string[]; ohms: number }) {
  const { say } = useJob();
  return (
    <div>
      <table className="table table-sm" aria-label="Where to clip the tool on">
        <thead>
          <tr>
            <th>Clip {formatQuantity(ohms, "Ω", 2)} on</th>
            <th className="text-right">Voltage</th>
            <th className="text-right">For</th>
            <th className="text-right">Energy</th>
            <th>Discharges</th>
          </tr>
        </thead>
        <tbody>
          {clips.map((c, i) => (
            <tr key={i}>
              <td>
                <strong>{c.reservoir} +</strong> <span className="soft">to {c.to === "0" ? "chassis" : c.to}</span>
                <button
                  className="btn btn-sm mt-1 block min-h-11 whitespace-nowrap"
                  onClick={() => say({ type: "clip", payload: { reservoir: c.reservoir, state: "on" } })}
                >
                  Clipped on {c.reservoir}
                </button>
              </td>
              <td className="text-right whitespace-nowrap tabular-nums">{formatVolts(c.volts)}</td>
              <td className="text-right font-bold whitespace-nowrap tabular-nums">{formatDuration(Math.max(1, Math.ceil(c.seconds)))}</td>
              <td className="text-right whitespace-nowrap tabular-nums">{formatQuantity(c.joules, "J", 2)}</td>
              <td>{c.brings.join(", ")}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {left.length > 0 && (
        <p className="mt-1 text-sm text-warning">
          ▲ {left.join(", ")}: not down within two minutes by any place. A smaller resistance, or each on its own terminals.
        </p>
      )}
      <p className="soft mt-1 text-sm">
        This follows the circuit file. An open part leaves what is behind it charged: read each reservoir on its own.
      </p>
    </div>
  );
}
