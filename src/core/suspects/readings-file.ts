/** Evidence from a file of readings: `point,kind,value,unit` and optional columns of conditions. */

import Papa from "papaparse";
import { findElement, type Circuit, type LineNote } from "../circuit/circuit";
import { alter, AlterError, without } from "../circuit/alter";
import { parseQuantity } from "../quantity/parse";
import type { Unit } from "../quantity/unit";
import type { SolveConditions } from "../expectation/modelled";
import { gathered, pointNamed, type Evidence, type EvidenceKind } from "../diagnosis/evidence";
import { observationNamed, OBSERVATIONS } from "../diagnosis/observation-names";
import * as texts from "../texts/suspects";

const KINDS = ["dcv", "acv", "ma", "ohm", "leak", "gm", "observe"] as const satisfies readonly EvidenceKind[];
const COLUMNS = ["point", "kind", "value", "unit", "mains", "without", "set", "input", "freq", "level"];
const UNITS: Record<Exclude<EvidenceKind, "observe" | "temp">, Unit> = { dcv: "V", acv: "V", ma: "A", ohm: "Ω", leak: "V", gm: "%" };

/** Reads the file; every bad line is reported. @param base conditions where a line says none. */
export function readEvidence(text: string, circuit: Circuit, base: SolveConditions): { evidence: Evidence[]; problems: LineNote[] } {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), { skipEmptyLines: true });
  const problems: LineNote[] = [];
  const [header = [], ...rows] = data;
  const names = header.map((h) => h.trim().toLowerCase());
  const missing = ["point", "kind", "value"].filter((c) => !names.includes(c));
  const unknown = names.filter((n) => n && !COLUMNS.includes(n));
  if (missing.length || unknown.length)
    return {
      evidence: [],
      problems: [
        {
          line: 1,
          found: header.join(",") || "nothing",
          expected: texts.pointKindValueUnit(COLUMNS.slice(4).join(",")),
        },
      ],
    };
  const evidence: Evidence[] = [];
  rows.forEach((row, i) => {
    const cell = (name: string) => (row[names.indexOf(name)] ?? "").trim();
    const problem = (found: string, expected: string) => void problems.push({ line: i + 2, found, expected });
    const kind = cell("kind").toLowerCase() as (typeof KINDS)[number];
    if (!KINDS.includes(kind)) return problem(cell("kind") || texts.noKind(), texts.oneOf(KINDS.join(", ")));
    const conditions = conditionsOf(cell, base, circuit, problem);
    if (!conditions) return;
    if (kind === "observe") {
      const observed = cell("value") || cell("point");
      const whole = observationNamed(observed) ? observed : `${cell("point")} ${cell("value")}`;
      if (!observationNamed(whole))
        return problem(whole, OBSERVATIONS.map((o) => (o.about === "tube" ? `V1 ${o.name}` : o.name)).join(", "));
      evidence.push({ point: whole, kind, value: 1, conditions });
      return;
    }
    const point = placeOf(circuit, cell("point"), kind);
    if (point === undefined) return problem(cell("point") || texts.noPoint2(), expectedPlace(circuit, kind));
    const value = valueOf(cell("value"), cell("unit"), kind);
    if (typeof value === "string") return problem(`${cell("value")}${cell("unit")}`, value);
    let drive: Evidence["drive"];
    // Alternating volts without a tone are ripple: on any point of the supply.
    if (kind === "acv" && (cell("input") || cell("freq") || cell("level"))) {
      const input = cell("input").toLowerCase();
      const [hertz, level] = [Number(cell("freq")), Number(cell("level"))];
      if (!circuit.elements.some((e) => e.nodes.includes(input)) || !(hertz > 0) || !(level > 0))
        return problem(texts.inputFreqLevel(input || "none", cell("freq") || "none", cell("level") || "none"), texts.acvInputNodeFreq());
      drive = { input, hertz, level };
    }
    evidence.push({ point, kind, value, conditions, ...(drive ? { drive } : {}) });
  });
  return { evidence: gathered(evidence), problems };
}

function conditionsOf(
  cell: (name: string) => string,
  base: SolveConditions,
  circuit: Circuit,
  problem: (found: string, expected: string) => void,
): SolveConditions | undefined {
  const mains = cell("mains") === "" ? base.mains : Number(cell("mains"));
  if (mains !== undefined && !(mains > 0 && mains <= 500)) return void problem(texts.mains(cell("mains")), texts.voltsFrom());
  const list = (name: string) =>
    cell(name)
      .split(/[\s,;]+/)
      .filter(Boolean);
  const conditions = {
    ...(mains !== undefined && circuit.mains ? { mains } : {}),
    without: cell("without") ? list("without").sort() : base.without,
    set: cell("set") ? list("set").sort() : base.set,
  };
  try {
    without(alter(circuit, conditions.set), conditions.without);
  } catch (error) {
    if (error instanceof AlterError) return void problem(error.found, error.expected);
    throw error;
  }
  return conditions;
}

function placeOf(circuit: Circuit, typed: string, kind: EvidenceKind): string | undefined {
  if (kind === "dcv" || kind === "acv") return pointNamed(circuit, typed);
  if (kind === "ohm") {
    if (typed.includes(":")) {
      const ends = typed.toLowerCase().split(":");
      const there = (n: string) => n === "0" || circuit.elements.some((e) => e.nodes.includes(n));
      return ends.length === 2 && ends.every(there) ? ends.join(":") : undefined;
    }
    return findElement(circuit, typed)?.name ?? pointNamed(circuit, typed);
  }
  const e = findElement(circuit, typed);
  return e && (kind === "leak" ? e.letter === "C" : e.tube !== undefined) ? e.name : undefined;
}

function expectedPlace(circuit: Circuit, kind: EvidenceKind): string {
  if (kind === "ohm") return texts.partTestPointTwo();
  if (kind === "leak") return texts.capacitorCircuit();
  if (kind === "ma" || kind === "gm")
    return texts.aTube(
      circuit.elements
        .filter((e) => e.tube)
        .map((e) => e.name)
        .join(", "),
    );
  return texts.testPoint(circuit.points.map((p) => p.name).join(", "));
}

/** The value in the unit that is judged, or what is expected. */
function valueOf(typed: string, unit: string, kind: Exclude<EvidenceKind, "observe" | "temp">): number | string {
  if (kind === "ohm" && /^(open|ol|inf(inity)?)$/i.test(typed)) return 1e9;
  // A bare current is in milliamperes, as the kind says; a unit that is written counts.
  const bare = /^[-+−]?[\d.]+(e[-+]?\d+)?$/i.test(typed);
  const words = unit === "" ? typed : kind === "ma" && /^ma$/i.test(unit) ? `${typed}mA` : `${typed}${unit}`;
  const parsed = parseQuantity(kind === "ma" && bare && unit === "" ? `${typed}mA` : words, { unit: UNITS[kind] });
  if (!parsed.ok) return parsed.accepted;
  if (kind !== "dcv" && parsed.quantity.value < 0) return texts.valueZeroMore();
  return kind === "ma" ? parsed.quantity.value * 1e3 : parsed.quantity.value;
}
