/** What the meter shows now, and how near it is to being taken. */

import type { ReactNode } from "react";
import { say } from "@/core/language/language";
import type { ReadingKind } from "@/core/tape/events/words";
import type { HoldState } from "@/core/instrument/hold";
import type { MeterLine } from "@/core/instrument/protocol";
import { digitsOf } from "@/core/instrument/held-reading";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import type { Heard } from "../job/use-instruments";

const FUNCTION: Record<string, string> = {
  dcv: "DC volts",
  acv: "AC volts",
  ohm: "ohms",
  ma: "milliamperes",
  leak: "leakage",
  gm: "the tube tester",
};

export interface NowProps {
  hold: HoldState;
  meter?: MeterLine;
  heard: Heard;
  typed: string;
  refused: string;
  live: boolean;
  waiting: boolean;
  /** Seconds for which the tubes are still warming up. */
  warming: number;
  /** What is measured; direct volts unless given. */
  kind?: ReadingKind;
  /** The place on a photo of the chassis, where somebody has marked it. */
  photo?: ReactNode;
}

export function Now({ hold, meter, heard, typed, refused, live, waiting, warming, kind = "dcv", photo }: NowProps) {
  const text = typed ? `${typed} ${kind === "ohm" ? "Ω" : kind === "ma" ? "A" : "V"}` : shown(hold, meter, heard);
  return (
    <section aria-label="What is there" className="flex min-w-0 flex-col justify-center gap-4 px-4 md:px-10">
      <p
        data-testid="probe-now"
        data-phase={hold.phase}
        className={`${kind === "ohm" || text.length > 7 ? "text-[clamp(3.5rem,7.4vw,8rem)]" : "text-[clamp(4rem,8.6vw,9rem)]"} leading-none font-bold whitespace-nowrap tabular-nums`}
      >
        {text}
      </p>
      <div aria-hidden className="h-6 overflow-hidden rounded border-2 border-base-content">
        <div
          className="h-full bg-primary"
          style={{ width: `${Math.round(100 * (hold.phase === "steadying" ? hold.part : hold.phase === "held" ? 1 : 0))}%` }}
        />
      </div>
      <p className="min-h-24 text-4xl leading-tight">
        {refused || (typed ? "Press to take it" : says(hold, meter, heard, waiting, warming, kind))}
      </p>
      {photo}
      {!live && <p className="probe-watch text-2xl font-bold">▲ The amp is not logged as on</p>}
    </section>
  );
}

function shown(hold: HoldState, meter: MeterLine | undefined, heard: Heard): string {
  if (heard !== "heard" || !meter) return "– – –";
  if (meter.over) return "over";
  if (meter.value === undefined) return "– – –";
  const unit = meter.kind === "ohm" ? "Ω" : meter.kind === "ma" ? "A" : "V";
  const value = meter.kind === "ma" ? meter.value / 1000 : meter.value;
  return formatQuantity(value, unit, Math.max(2, Math.min(4, digitsOf(meter.value, meter.digit))));
}

function says(hold: HoldState, meter: MeterLine | undefined, heard: Heard, waiting: boolean, warming: number, kind: ReadingKind): string {
  if (heard === "lost") return "The meter sends nothing any more. The walk waits for it; or type the reading.";
  if (heard === "waiting" || !meter) return "No meter is connected. Type the reading, or connect one through the bridge program.";
  if (waiting) return "";
  if (meter.kind !== kind) return `The meter is on ${FUNCTION[meter.kind]}: turn it to ${FUNCTION[kind]}.`;
  if (warming > 0) return say`The tubes are warming up: ${warming} s. Press to take it all the same.`;
  switch (hold.phase) {
    case "silent":
      return "";
    case "lift":
      return "Still the last reading: move the probe to the new point, or press if it is there.";
    case "open":
      return "The probe touches nothing.";
    case "over":
      return kind === "ohm"
        ? "Overload: the part is open, or the probes touch nothing. Press if it is open."
        : "Over the range of the meter.";
    case "moving":
      return "Not steady yet.";
    case "steadying":
      return "Hold the probe there.";
    case "held":
      return "Taken.";
    case "swinging":
      return `Swings from ${formatVolts(hold.low!)} to ${formatVolts(hold.high!)}: press to take the mean.`;
    case "doubtful-zero":
      return "No voltage where some is expected: is the tip on the pin? Press if it is.";
  }
}
