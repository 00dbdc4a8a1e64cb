/** Lines about the output stage in words. */

import { figure, fixed } from "../language/language";
import { formatQuantity, formatVolts } from "../quantity/format";
import type { Tellings } from "./telling";
import * as texts from "../texts/tape";

const ma = (milliamps: number) => formatQuantity(milliamps / 1e3, "A", 3);
const percent = (part: number) => `${Math.round(part * 100)} %`;

export const OUTPUT_TOLD = {
  bias: ({ when, rows, stage }) =>
    texts.biasTaken(
      when,
      stage,
      rows.map((r) => `${r.tube} ${ma(r.plateMilliamps)}${r.ofRating === undefined ? "" : ` (${percent(r.ofRating)})`}`).join(", "),
    ),
  "bias-figures": ({ labelMilliamps, manualMilliamps, chosen, reason }) =>
    texts.biasFigures(
      chosen,
      [
        labelMilliamps === undefined ? "" : `label ${ma(labelMilliamps)}`,
        manualMilliamps === undefined ? "" : `manual ${ma(manualMilliamps)}`,
      ]
        .filter(Boolean)
        .join(", "),
      reason ?? "",
    ),
  adjusted: (l) => texts.adjusted(l.control, l.position === undefined ? "" : percent(l.position), l.why ?? ""),
  waveform: (l) => texts.waveform(l.when, l.source, percent(l.notch), `${figure(Number((l.distortion * 100).toPrecision(2)))} %`),
  "grid-read": ({ tube, rest, driven, after }) => texts.gridRead(tube, formatVolts(rest), formatVolts(driven), formatVolts(after)),
  blocking: (l) => texts.blocking(l.what, formatVolts(l.shift), l.recovery === undefined ? "" : formatQuantity(l.recovery, "s", 2)),
  "tube-seen": (l) => texts.tubeSeen(l.tube, l.type),
  "tube-fitted": (l) => texts.tubeFitted(l.tube, l.type, l.number, l.test ?? ""),
  "signal-figure": ({ kind, value, hertz, load, decibels, note }) => {
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
  },
} satisfies Partial<Tellings>;
