/** The figures that a model is settled on: a chart, readings of a sound amp, windings that were measured. */

import Papa from "papaparse";
import { fullScale } from "../expectation/expectation";
import type { Circuit, LineNote } from "../circuit/circuit";
import { parseQuantity } from "../quantity/parse";
import * as texts from "../texts/settle";

export interface Given {
  /** A test point's name; for a winding its part. */
  point: string;
  volts: number;
  /** The mains at which it was read. */
  mains: number;
  /** Ohms of the meter that it was read with. */
  meterOhms: number;
  /** What one step of its last printed digit is, volts. */
  step: number;
  /** Where it comes from. */
  source: "chart" | "reading";
  line?: number;
}

/** A winding or its resistance that was measured: it is an unknown no longer. */
export interface Measured {
  part: string;
  key: "vac" | "rs" | "dcr";
  value: number;
}

const METER_OHMS = 10e6;

/**
 * The step that a list of printed figures was rounded to: charts give large volts in fives or tens.
 * @param volts a figure. @param decimals those that it is printed with. @param all the list that it stands in.
 */
export function stepOf(volts: number, decimals: number, all: readonly number[]): number {
  const large = all.filter((v) => Math.abs(v) >= 100 && Number.isInteger(v));
  if (Math.abs(volts) >= 100 && decimals === 0 && large.length >= 3)
    for (const step of [10, 5]) if (large.every((v) => v % step === 0)) return step;
  return 10 ** -decimals;
}

const decimalsOf = (v: number) => (String(v).split(".")[1] ?? "").length;

/** The chart of the file, at the mains it says. @throws ChartError without a mains or without a figure. */
export function chartOf(circuit: Circuit, mains = circuit.chart?.mains): Given[] {
  const printed = circuit.points.filter((p) => p.chart !== undefined);
  if (printed.length === 0) throw new ChartError(texts.chartHasNoFigures());
  if (mains === undefined) throw new ChartError(texts.chartWithoutMains());
  const all = printed.map((p) => p.chart!);
  return printed.map((p) => ({
    point: p.name,
    volts: p.chart!,
    mains,
    meterOhms: meterAt(p.chart!, circuit.chart?.meterOhmsPerVolt),
    step: stepOf(p.chart!, decimalsOf(p.chart!), all),
    source: "chart",
    line: p.line,
  }));
}

/** What a chart or its mains are missing. */
export class ChartError extends Error {}

/** Ohms of a meter on the range that one would use; 10 MΩ where nothing is said of it. */
export function meterAt(volts: number, perVolt: number | undefined): number {
  return perVolt === undefined ? METER_OHMS : perVolt * (fullScale(volts) ?? 10);
}

const COLUMNS = ["point", "value", "unit", "kind", "mains", "meter"];

/**
 * Reads `point,value` with optional `unit`, `kind` (dcv), `mains` and `meter` (ohms per volt); lines whose point is a rectifier or a
 * transformer and whose kind is vac, rs or dcr are measured windings.
 * @param otherwise the mains of a line that names none. Every bad line is reported.
 */
export function readGiven(
  text: string,
  circuit: Circuit,
  source: Given["source"],
  otherwise: number | undefined,
): { given: Given[]; measured: Measured[]; problems: LineNote[] } {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), { skipEmptyLines: true, delimitersToGuess: [",", ";", "\t"] });
  const [header = [], ...rows] = data;
  const names = header.map((h) => h.trim().toLowerCase());
  if (!names.includes("point") || !names.includes("value"))
    return {
      given: [],
      measured: [],
      problems: [{ line: 1, found: header.join(",") || "nothing", expected: texts.givenColumns(COLUMNS.join(",")) }],
    };
  const problems: LineNote[] = [];
  const given: (Given & { decimals: number })[] = [];
  const measured: Measured[] = [];
  rows.forEach((row, i) => {
    const cell = (name: string) => (row[names.indexOf(name)] ?? "").trim();
    const problem = (found: string, expected: string) => void problems.push({ line: i + 2, found, expected });
    const kind = cell("kind").toLowerCase() || "dcv";
    const typed = cell("value");
    if (kind === "vac" || kind === "rs" || kind === "dcr") {
      const element = circuit.elements.find((e) => e.name === cell("point").toUpperCase().replace(/^X/, ""));
      const parsed = parseQuantity(typed);
      if (!element || (element.params[kind] === undefined && !(kind === "dcr" && element.notes.dcr)))
        return problem(cell("point"), texts.partWith(kind));
      if (!parsed.ok || !(parsed.quantity.value > 0)) return problem(typed, texts.positive());
      return void measured.push({ part: element.name, key: kind, value: parsed.quantity.value });
    }
    if (kind !== "dcv") return problem(kind, texts.kindsAccepted());
    const point = circuit.points.find((p) => p.name.toLowerCase() === cell("point").toLowerCase());
    if (!point) return problem(cell("point") || "nothing", texts.pointOf(circuit.points.map((p) => p.name).join(", ")));
    const parsed = parseQuantity(`${typed}${cell("unit")}`, { unit: "V" });
    if (!parsed.ok) return problem(typed, parsed.accepted);
    const own = cell("mains") === "" ? otherwise : Number(cell("mains"));
    if (own === undefined || !(own > 0 && own < 500)) return problem(cell("mains") || texts.noMains(), texts.mainsAccepted());
    const perVolt =
      cell("meter") === "" ? (source === "chart" ? circuit.chart?.meterOhmsPerVolt : undefined) : parseQuantity(cell("meter"));
    if (typeof perVolt === "object" && !perVolt.ok) return problem(cell("meter"), texts.ohmsPerVolt());
    const volts = parsed.quantity.value;
    const decimals = (typed.replace(",", ".").split(".")[1]?.match(/^\d+/)?.[0] ?? "").length;
    given.push({
      point: point.name,
      volts,
      mains: own,
      meterOhms: meterAt(volts, typeof perVolt === "object" ? perVolt.quantity.value : perVolt),
      step: 0,
      source,
      line: i + 2,
      decimals,
    });
  });
  const all = given.map((g) => g.volts);
  return { given: given.map(({ decimals, ...g }) => ({ ...g, step: stepOf(g.volts, decimals, all) })), measured, problems };
}
