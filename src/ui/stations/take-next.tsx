"use client";
/** A measurement with its field: typed, or taken from the meter by one key, there and then. */

import { words } from "@/core/language/language";
import type { ReactNode } from "react";
import type { ReadingKind } from "@/core/tape/events/words";
import { parseQuantity } from "@/core/quantity/parse";
import type { Observable } from "@/core/diagnosis/evidence";
import type { NextMeasurement } from "@/core/suspects/next";
import { fullScale, meterRange } from "@/core/expectation/expectation";
import { ReadingField } from "../forms/reading-field";
import { Gate } from "../frame/gate";
import { useJob } from "../job/job-context";
import { useTakeReading } from "../forms/use-take-reading";
import { useMeterAt } from "../job/use-meter-at";

/** What has to be so before the hands go in, for measurements that are not a probe on a point. */
export const HANDS_IN: Record<string, string> = {
  ohm: "Only on an amp that is proven dead: stored charge falsifies the reading, can destroy the meter and can injure you.",
  leak: "Lift the leg on an amp that is proven dead; then power on and read it as a live point.",
  gm: "Power off before the tube comes out; the output tubes stay hot for minutes.",
  ma: "Break the circuit for the meter only on an amp that is proven dead.",
};

export type Taking = Pick<NextMeasurement, "point" | "kind" | "why"> & { title: string; label?: string };

/** Resistance waits for the proof that the amp is dead. */
export function TakeNext({ kind, ...rest }: Taking) {
  const { energyKind } = useJob();
  if (kind === "mains") return <MainsField {...rest} />;
  const taking = { ...rest, kind };
  if (taking.kind === "ohm")
    return (
      <Gate station="cold-checks">
        <TakeField {...taking} />
      </Gate>
    );
  return (
    <>
      {taking.kind === "dcv" && energyKind !== "live" && (
        <p className="rounded border border-warning px-3 py-2 text-sm">
          The amp is not logged as on. Voltages are taken live: use <strong>Power on…</strong> above when the bench is ready.
        </p>
      )}
      <TakeField {...taking} />
    </>
  );
}

/** The wall's volts at the amp's own plug: a figure that every expected voltage hangs on. */
function MainsField({ title, why, label = "What to do now" }: Pick<Taking, "title" | "why" | "label">) {
  const { say, settings } = useJob();
  function take(text: string) {
    const parsed = parseQuantity(text, { unit: "V", decimal: settings.decimal });
    if (!parsed.ok || !(parsed.quantity.value > 0 && parsed.quantity.value <= 500))
      return { refused: `Read ${text || "nothing"}; accepted: volts from 1 to 500` };
    say({ type: "mains", payload: { volts: parsed.quantity.value } });
    return undefined;
  }
  return (
    <Place label={label} title={title}>
      <>
        <p className="mt-1 text-lg">
          {words("Read the mains where the amp is plugged in, with the amp on, and the tap that its primary stands on.")}
        </p>
        <p className="mt-1 text-lg">{why}</p>
      </>
      <ReadingField autoFocus="free" label={words("Mains at the amp, V")} take={take} />
    </Place>
  );
}

const UNIT: Partial<Record<NextMeasurement["kind"], string>> = { ohm: "Ω", gm: "% of new", ma: "mA" };

function TakeField({ point, kind, title, why, label = "What to do now" }: Taking & { kind: Observable["kind"] }) {
  const { view, energyKind } = useJob();
  const reading = useTakeReading("suspects");
  const row = view.rows.find((r) => r.point.name === point);
  const volts = row?.expected?.volts;
  // Volts of a dead amp and ohms of a live one are no readings, however still the display stands.
  const ready = kind === "gm" || (kind === "ohm") !== (energyKind === "live");
  const meter = useMeterAt(
    point,
    kind,
    kind === "dcv" ? volts : undefined,
    kind === "dcv" && volts !== undefined ? fullScale(volts) : undefined,
  );
  const still = meter.steady && ready;
  const state = ready
    ? meter.steady
      ? "steady: Enter logs it"
      : "not steady yet"
    : energyKind === "live"
      ? "the amp is still on"
      : "the amp is off";

  const take = (text: string) =>
    text === ""
      ? reading.held(ready ? meter.toTake() : undefined, point, kind as ReadingKind)
      : reading.typed({ point, kind: kind as ReadingKind, text });
  return (
    <Place label={label} title={title}>
      <>
        {row && kind === "dcv" && (
          <p className="mt-1 text-lg">
            Probe on <strong>{row.probeOn}</strong>, meter on <strong>{meterRange(volts ?? row.point.chart ?? 1000)}</strong>
          </p>
        )}
        <p className="mt-1 text-lg">{why}</p>
        {HANDS_IN[kind] && <p className="text-warning">▲ {words(HANDS_IN[kind])}</p>}
        {row?.point.caution && kind === "dcv" && <p className="text-warning">▲ {row.point.caution}</p>}
      </>
      <ReadingField
        autoFocus="free"
        label={`Reading, ${UNIT[kind] ?? "V"}`}
        empty={ready}
        meter={meter.shows ? { says: `${still ? "●" : "○"} Meter ${meter.shows}, ${state}`, steady: meter.steady } : undefined}
        take={take}
      />
    </Place>
  );
}

/** What is to be done at the left, its field at the right. */
function Place({ label, title, children: [what, field] }: { label: string; title: string; children: [ReactNode, ReactNode] }) {
  return (
    <section
      aria-label={label}
      className="grid items-center gap-x-6 gap-y-2 rounded border border-base-300 bg-base-200 p-4 md:grid-cols-[minmax(0,1fr)_15rem]"
    >
      <div>
        <p className="text-3xl font-bold">{title}</p>
        {what}
      </div>
      {field}
    </section>
  );
}
