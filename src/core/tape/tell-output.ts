/** Lines about the output stage in words. */

import { figure, fixed } from "../language/language";
import { formatQuantity, formatVolts } from "../quantity/format";
import { is, type JobEvent } from "./events/event";
import * as texts from "../texts/tape";

const ma = (milliamps: number) => formatQuantity(milliamps / 1e3, "A", 3);
const percent = (part: number) => `${Math.round(part * 100)} %`;

/** @returns undefined for a line about something else. */
export function tellOutput(e: JobEvent): string | undefined {
  if (is(e, "bias")) {
    const { when, rows, stage } = e.payload;
    return texts.biasTaken(
      when,
      stage,
      rows.map((r) => `${r.tube} ${ma(r.plateMilliamps)}${r.ofRating === undefined ? "" : ` (${percent(r.ofRating)})`}`).join(", "),
    );
  }
  if (is(e, "bias-figures")) {
    const { labelMilliamps, manualMilliamps, chosen, reason } = e.payload;
    return texts.biasFigures(
      chosen,
      [
        labelMilliamps === undefined ? "" : `label ${ma(labelMilliamps)}`,
        manualMilliamps === undefined ? "" : `manual ${ma(manualMilliamps)}`,
      ]
        .filter(Boolean)
        .join(", "),
      reason ?? "",
    );
  }
  if (is(e, "adjusted"))
    return texts.adjusted(e.payload.control, e.payload.position === undefined ? "" : percent(e.payload.position), e.payload.why ?? "");
  if (is(e, "waveform"))
    return texts.waveform(
      e.payload.when,
      e.payload.source,
      percent(e.payload.notch),
      `${figure(Number((e.payload.distortion * 100).toPrecision(2)))} %`,
    );
  if (is(e, "grid-read")) {
    const { tube, rest, driven, after } = e.payload;
    return texts.gridRead(tube, formatVolts(rest), formatVolts(driven), formatVolts(after));
  }
  if (is(e, "blocking"))
    return texts.blocking(
      e.payload.what,
      formatVolts(e.payload.shift),
      e.payload.recovery === undefined ? "" : formatQuantity(e.payload.recovery, "s", 2),
    );
  if (is(e, "tube-fitted")) return texts.tubeFitted(e.payload.tube, e.payload.type, e.payload.number, e.payload.test ?? "");
  if (is(e, "signal-figure")) {
    const { kind, value, hertz, load, decibels, note } = e.payload;
    const unit = ({ "power at clip": "W", damping: undefined, "residual hum": "V", response: "V", "square wave": undefined } as const)[
      kind
    ];
    return [
      kind,
      value === undefined ? "" : unit ? formatQuantity(value, unit, 3) : String(value),
      hertz === undefined ? "" : `at ${formatQuantity(hertz, "Hz", 3)}`,
      load === undefined ? "" : `into ${formatQuantity(load, "Ω", 3)}`,
      decibels === undefined ? "" : `(${fixed(decibels, 1)} dB)`,
      note ?? "",
    ]
      .filter(Boolean)
      .join(" ");
  }
  return undefined;
}
