/** Writes a circuit as a circuit file. Reading the text back gives the same circuit, line numbers apart. */

import { writeTubeType } from "../tubes/type-line";
import { fileName, type Circuit, type Element, type PartNotes } from "./circuit";

const SUFFIXES: [number, string][] = [
  [12, "T"],
  [9, "G"],
  [6, "MEG"],
  [3, "k"],
  [0, ""],
  [-3, "m"],
  [-6, "u"],
  [-9, "n"],
  [-12, "p"],
  [-15, "f"],
];

/** A number as a netlist has it, exact: 4700 → "4.7k", 1e6 → "1MEG". */
export function spiceNumber(value: number): string {
  if (value === 0) return "0";
  const size = Math.abs(value);
  for (const [power, suffix] of SUFFIXES) {
    if (size < 10 ** power * 0.9999999999) continue;
    const mantissa = Number((value / 10 ** power).toPrecision(12));
    // Only where the suffix gives back the very same number.
    if (Math.abs(mantissa) < 1000 && Number(`${mantissa}e${power}`) === value) return `${mantissa}${suffix}`;
    break;
  }
  return String(value);
}

const quoted = (text: string) => (/[\s"@=;]/.test(text) || text === "" ? `"${text.replace(/"/g, "'")}"` : text);
/** A fraction as a percentage without rounding dust: 0.1 → "10%". */
const percent = (fraction: number) => `${Number((fraction * 100).toPrecision(10))}%`;

const NUMBER_NOTES = ["volts", "watts", "year", "temp", "dcr", "strength"] as const;
const WORD_NOTES = ["kind", "section", "label", "heater", "prov"] as const;

/** The notes after the semicolon: `@tol 10% @watts 2`; empty when there are none. */
export function writeNotes(notes: PartNotes): string {
  const out: string[] = [];
  if (notes.tol !== undefined) out.push(`@tol ${percent(notes.tol)}`);
  for (const key of NUMBER_NOTES) if (notes[key] !== undefined) out.push(`@${key} ${notes[key]}`);
  for (const key of WORD_NOTES) if (notes[key] !== undefined) out.push(`@${key} ${quoted(notes[key]!)}`);
  return out.join(" ");
}

/** Type and parameters of an X element: `POT value=1MEG taper=audio pos=0.5`. */
export function writeSpecial(e: Element): string {
  const params = Object.entries(e.params).map(([k, v]) => `${k}=${typeof v === "number" ? spiceNumber(v) : v}`);
  return [e.type!, ...params].join(" ");
}

/** The name on the line, and the note that gives the part its own name back where SPICE would misread it. */
export function writtenName(e: Element): { name: string; as: string } {
  const own = fileName(e);
  const plain = own.toUpperCase().startsWith(e.letter) && /^[A-Za-z][\w.]*$/.test(own);
  return plain ? { name: own, as: "" } : { name: `${e.letter}_${own.replace(/[^\w.]/g, "_")}`, as: `@as ${e.name}` };
}

/** One element line as Scutum reads it. */
export function writeElement(e: Element): string {
  const { name, as } = writtenName(e);
  const notes = [writeNotes(e.notes), as].filter(Boolean).join(" ");
  const body =
    e.letter === "X"
      ? [...e.nodes, writeSpecial(e)]
      : e.letter === "K"
        ? [e.params.first, e.params.second, spiceNumber(e.value!)]
        : e.letter === "D"
          ? [...e.nodes, e.type]
          : [...e.nodes, spiceNumber(e.value!)];
  return `${[name, ...body].join(" ")}${notes ? ` ;${notes}` : ""}`;
}

/** The `*@` lines of a circuit. */
export function writeAnnotations(circuit: Circuit): string[] {
  const pairs = (entries: [string, string | number | undefined][]) =>
    entries.flatMap(([k, v]) => (v === undefined ? [] : [`${k}=${typeof v === "number" ? v : quoted(v)}`]));
  const out: string[] = [];
  if (circuit.mains) out.push(`*@mains ${circuit.mains.volts} ${circuit.mains.hertz}`);
  if (circuit.chart)
    out.push(
      [
        "*@chart",
        ...pairs([
          ["mains", circuit.chart.mains],
          ["meter", circuit.chart.meterOhmsPerVolt],
          ["note", circuit.chart.note],
        ]),
      ].join(" "),
    );
  for (const [key, value] of Object.entries(circuit.facts)) out.push(`*@fact ${key}=${quoted(value)}`);
  for (const type of Object.values(circuit.tubeTypes)) out.push(writeTubeType(type));
  for (const h of circuit.heaters)
    out.push(
      [
        "*@heater",
        h.name,
        ...pairs([
          ["volts", h.volts],
          [h.string ? "string" : "tubes", h.tubes.join(",")],
          ["reference", h.reference],
          ["ballast", h.ballast],
        ]),
      ].join(" "),
    );
  for (const p of circuit.points)
    out.push(
      [
        "*@point",
        p.name,
        ...pairs([
          ["node", p.node],
          ["order", p.order],
          ["label", p.label === p.name ? undefined : p.label],
          ["pin", p.pin],
          ["chart", p.chart],
        ]),
        ...(p.tol === undefined ? [] : [`tol=${percent(p.tol)}`]),
        ...pairs([["caution", p.caution]]),
      ].join(" "),
    );
  for (const s of circuit.stages)
    out.push(
      [
        "*@stage",
        s.name,
        ...pairs([
          ["in", s.in],
          ["out", s.out],
          ["control", s.control],
          ["label", s.label],
        ]),
      ].join(" "),
    );
  for (const [a, b] of circuit.near) out.push(`*@near ${a} ${b}`);
  return out;
}

export function writeModels(circuit: Circuit): string[] {
  return Object.entries(circuit.models).map(
    ([name, values]) =>
      `.model ${name} D(${Object.entries(values)
        .map(([k, v]) => `${k}=${spiceNumber(v)}`)
        .join(" ")})`,
  );
}

/** The whole file, in Scutum's own syntax. */
export function writeCircuit(circuit: Circuit): string {
  return [circuit.title, ...writeAnnotations(circuit), ...circuit.elements.map(writeElement), ...writeModels(circuit), ".end", ""].join(
    "\n",
  );
}
