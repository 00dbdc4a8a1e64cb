/** A chart as it is typed down the points of a model, written into its file. */

import type { Circuit } from "../circuit/circuit";
import { setChart, setChartFigure } from "../circuit/edit-line";
import { parseQuantity, type ParseOptions } from "../quantity/parse";
import * as texts from "../texts/settle";

export interface TypedChart {
  /** Volts by point, as typed; nothing typed is no figure. */
  volts: Readonly<Record<string, string>>;
  mains: string;
  /** Ohms per volt of its meter. */
  meter: string;
}

export type ChartRead = { ok: true; text: string; mains: number; figures: number } | { ok: false; why: string };

/** The file with the chart in it; points that are not among the typed ones keep theirs. What cannot be read is said with what is accepted. */
export function writeTypedChart(text: string, circuit: Circuit, typed: TypedChart, decimal?: ParseOptions["decimal"]): ChartRead {
  const volts = new Map<string, number | undefined>();
  for (const [point, value] of Object.entries(typed.volts)) {
    const read = value.trim() === "" ? undefined : parseQuantity(value, { unit: "V", decimal });
    if (read && !read.ok) return { ok: false, why: texts.notVolts(point, read.read, read.accepted) };
    volts.set(point, read?.quantity.value);
  }
  const figures = [...volts.values()].filter((v) => v !== undefined).length;
  const mains = parseQuantity(typed.mains, { unit: "V", decimal });
  if (figures > 0 && !(mains.ok && mains.quantity.value > 0 && mains.quantity.value < 500))
    return { ok: false, why: texts.chartsMainsWanted() };
  const meter = typed.meter.trim() === "" ? undefined : parseQuantity(typed.meter, { unit: "Ω", decimal });
  if (meter && !meter.ok) return { ok: false, why: texts.notOhmsPerVolt(meter.read) };
  let out = text;
  for (const p of circuit.points) if (volts.has(p.name)) out = setChartFigure(out, p.line, volts.get(p.name));
  if (figures === 0 || !mains.ok) return { ok: true, text: out, mains: NaN, figures: 0 };
  return { ok: true, text: setChart(out, mains.quantity.value, meter?.quantity.value), mains: mains.quantity.value, figures };
}
