"use client";
/** A measurement with its field: typed, or taken from the meter by one key, there and then. */

import { useState } from "react";
import { readingOf } from "@/core/instrument/held-reading";
import { parseEntry } from "@/core/job/entry/entry";
import { readingProblem } from "@/core/job/reading-limits";
import type { ReadingKind } from "@/core/job/events/words";
import type { NextMeasurement } from "@/core/suspects/next";
import { fullScale, meterRange } from "@/core/walk/expectation";
import { Gate } from "../frame/gate";
import { useJob } from "../frame/job-context";
import { useMeterAt } from "../frame/use-meter-at";

/** What has to be so before the hands go in, for measurements that are not a probe on a point. */
export const HANDS_IN: Record<string, string> = {
  ohm: "Only on an amp that is proven dead: stored charge spoils the reading, the meter and you.",
  leak: "Lift the leg on an amp that is proven dead; then power on and read it as a live point.",
  gm: "Power off before the tube comes out; the output tubes stay hot for minutes.",
  ma: "Break the circuit for the meter only on an amp that is proven dead.",
};

export type Taking = Pick<NextMeasurement, "point" | "kind" | "why"> & { title: string; label?: string };

/** Resistance waits for the proof that the amp is dead. */
export function TakeNext(taking: Taking) {
  const { energy } = useJob();
  if (taking.kind === "ohm")
    return (
      <Gate station="cold-checks">
        <TakeField {...taking} />
      </Gate>
    );
  return (
    <>
      {taking.kind === "dcv" && energy.kind !== "live" && (
        <p className="rounded border border-warning px-3 py-2 text-sm">
          The amp is not logged as on. Voltages are taken live: use <strong>Power on…</strong> above when the bench is ready.
        </p>
      )}
      <TakeField {...taking} />
    </>
  );
}

const UNIT: Partial<Record<NextMeasurement["kind"], string>> = { ohm: "Ω", gm: "% of new", ma: "mA" };

function TakeField({ point, kind, title, why, label = "What to do now" }: Taking) {
  const { view, entryContext, say, conditions, energy } = useJob();
  const [text, setText] = useState("");
  const [refused, setRefused] = useState("");
  const row = view.rows.find((r) => r.point.name === point);
  const volts = row?.expected?.volts;
  // Volts of a dead amp and ohms of a live one are no readings, however still the display stands.
  const ready = kind === "gm" || (kind === "ohm") !== (energy.kind === "live");
  const meter = useMeterAt(
    point,
    kind,
    kind === "dcv" ? volts : undefined,
    kind === "dcv" && volts !== undefined ? fullScale(volts) : undefined,
  );
  const verb = kind === "dcv" ? "" : `${kind} `;

  function take(e: React.FormEvent) {
    e.preventDefault();
    if (text.trim() === "") {
      const held = ready && meter.steady && kind !== "observe" ? readingOf(meter.hold, point, conditions, kind as ReadingKind) : undefined;
      if (!held) return;
      const problem = readingProblem(held.kind, held.value);
      if (problem) return setRefused(problem);
      return say({ type: "reading", payload: held });
    }
    const entry = parseEntry(`${point} ${verb}${text}`, entryContext("suspects"));
    if (!entry.ok) return setRefused(`${entry.why}. Accepted: ${entry.accepted}`);
    say(...entry.drafts);
    setText("");
  }
  return (
    <section
      aria-label={label}
      className="grid items-center gap-x-6 gap-y-2 rounded border border-base-300 bg-base-200 p-4 md:grid-cols-[minmax(0,1fr)_15rem]"
    >
      <div>
        <p className="text-3xl font-bold">{title}</p>
        {row && kind === "dcv" && (
          <p className="mt-1 text-lg">
            Probe on <strong>{row.point.pin ?? `node ${row.point.node}`}</strong>, meter on{" "}
            <strong>{meterRange(volts ?? row.point.chart ?? 1000)}</strong>
          </p>
        )}
        <p className="mt-1 text-lg">{why}</p>
        {HANDS_IN[kind] && <p className="text-warning">▲ {HANDS_IN[kind]}</p>}
        {row?.point.caution && kind === "dcv" && <p className="text-warning">▲ {row.point.caution}</p>}
      </div>
      <form onSubmit={take}>
        <label className="text-sm" htmlFor="suspects-reading">
          Reading, {UNIT[kind] ?? "V"}
        </label>
        <input
          id="suspects-reading"
          autoFocus
          className="input h-16 w-full text-right text-3xl tabular-nums"
          inputMode="decimal"
          autoComplete="off"
          value={text}
          aria-invalid={refused !== ""}
          aria-describedby="suspects-refused suspects-meter"
          onChange={(e) => {
            setText(e.target.value);
            setRefused("");
          }}
        />
        {meter.shows && (
          <p id="suspects-meter" data-testid="meter-here" data-steady={meter.steady} className={`text-sm ${meter.steady ? "" : "soft"}`}>
            {meter.steady && ready ? "●" : "○"} meter {meter.shows}
            {ready
              ? meter.steady
                ? ", still: Enter takes it"
                : ", not still yet"
              : energy.kind === "live"
                ? ", power still on"
                : ", power off"}
          </p>
        )}
        <p id="suspects-refused" role="alert" className="min-h-5 text-sm text-error">
          {refused}
        </p>
      </form>
    </section>
  );
}
