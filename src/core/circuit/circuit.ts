/** What a circuit file holds once it is read. Node names are lower-case; ground is "0". */

import type { TubeType } from "../tubes/library";

export type Provenance = "seen" | "assumed" | "printed" | "settled";

/** The comment fields of a part: `;@tol 10% @watts 2 @kind wirewound @prov seen`. Values in base units. */
export interface PartNotes {
  /** Fraction: 0.1 for 10 %. */
  tol?: number;
  volts?: number;
  watts?: number;
  kind?: string;
  prov?: Provenance;
  /** Name of the can that a section of a multiple capacitor belongs to. */
  section?: string;
  year?: number;
  label?: string;
  temp?: number;
  heater?: string;
  /** Ohms of a choke's winding. */
  dcr?: number;
  /** Current of a tube in parts of its sheet's tube, as the model was settled. */
  strength?: number;
}

export type Letter = "R" | "C" | "L" | "K" | "V" | "I" | "D" | "X";

export interface Element {
  /** As the trade writes it: "R1", "V1A"; the leading X of a subcircuit call is dropped. */
  name: string;
  letter: Letter;
  nodes: string[];
  /** R, C, L, K, V, I: ohms, farads, henries, coupling, volts, amperes. POT: ohms. */
  value?: number;
  /** X: tube type or special part ("12AX7", "RECT_FULL"); D: model name. Upper-case. */
  type?: string;
  /** The tube's type, of the library or of this file; undefined for what is not a tube. */
  tube?: TubeType;
  /** The tube of a rectifier element, where it has one. */
  rectifierTube?: TubeType;
  /** Named parameters in base units; words (taper=audio) stay words. Keys lower-case. */
  params: Record<string, number | string>;
  notes: PartNotes;
  /** 1-based line in the file. */
  line: number;
}

export interface TestPoint {
  name: string;
  node: string;
  order: number;
  label: string;
  /** Where to put the probe: "V2 pin 3", "C1 +". */
  pin?: string;
  /** Volts printed on the maker's chart, at the chart's mains. */
  chart?: number;
  /** Fraction; when the chart prints a tolerance of its own. */
  tol?: number;
  /** Shown before the probe goes there. */
  caution?: string;
  line: number;
}

export interface Stage {
  name: string;
  in: string;
  out: string;
  control?: string;
  label?: string;
}

export interface HeaterWinding {
  name: string;
  volts?: number;
  tubes: string[];
  /** True for a series string across the line. */
  string: boolean;
  reference?: string;
  ballast?: string;
}

export interface Circuit {
  title: string;
  mains?: { volts: number; hertz: number };
  /** What the amp really gets of the mains that is entered, 1 unless a change says otherwise. */
  mainsShare?: number;
  /** The maker's voltage chart: the mains it was drawn for, and its meter's ohms per volt where it says so. */
  chart?: { mains: number; meterOhmsPerVolt?: number; note?: string };
  elements: Element[];
  points: TestPoint[];
  stages: Stage[];
  heaters: HeaterWinding[];
  /** Nodes that lie side by side on the board. */
  near: [string, string][];
  models: Record<string, Record<string, number>>;
  /** Types that this file brings along (`*@tube`), by upper-case name. */
  tubeTypes: Record<string, TubeType>;
  /** `*@fact key=value`: line-connected=yes, year=1958, rectifier notes and the like. */
  facts: Record<string, string>;
}

export interface LineNote {
  line: number;
  found: string;
  expected: string;
}

/**
 * The element of that name as the file writes it (XV1 is not the source V1), else the one whose X is left out.
 * Case does not matter.
 */
export function findElement(circuit: Circuit, name: string): Element | undefined {
  const { length } = circuit.elements;
  const known = names.get(circuit.elements);
  // A file that is being read has a list that still grows.
  let named = known?.length === length ? known.named : undefined;
  if (!named) {
    named = new Map();
    // The first of a name stands; what the file writes goes before the name without its X.
    for (const e of circuit.elements) if (e.letter === "X" && !named.has(e.name)) named.set(e.name, e);
    const written = new Map<string, Element>();
    for (const e of circuit.elements) if (!written.has(fileName(e))) written.set(fileName(e), e);
    for (const [as, e] of written) named.set(as, e);
    names.set(circuit.elements, { named, length });
  }
  return named.get(name.toUpperCase());
}

/** Elements by the names that they are found by, and how many there were. */
const names = new WeakMap<readonly Element[], { named: Map<string, Element>; length: number }>();

/** The name as it stands in the file, with the X of a subcircuit call. */
export function fileName(element: Element): string {
  if (element.letter !== "X") return element.name;
  const dot = element.name.lastIndexOf(".") + 1;
  return `${element.name.slice(0, dot)}X${element.name.slice(dot)}`;
}

/** V1 for V1A and V1B: two halves in one envelope share a socket and a heater. */
export function envelopeOf(name: string): string {
  return /^V\d+[A-D]$/.test(name) ? name.slice(0, -1) : name;
}
