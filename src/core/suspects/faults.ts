/** The single faults that an amp of this circuit can have, each a change to its netlist with a severity where it has one. */

import { envelopeOf, fileName, type Circuit, type Element } from "../circuit/circuit";
import { priorOf, type FaultKind } from "./priors";

export interface Fault {
  /** "C6 leaky": what it is called, and its key. */
  name: string;
  /** Parts that it is about; empty for "nothing wrong". */
  refs: string[];
  kind: FaultKind;
  /** Changes to the netlist, in the words of `--set`, at a severity of the grid. */
  changes(severity: number): string[];
  /** Severities at which it is solved, in order; between them predictions are interpolated on a log scale. */
  grid: number[];
  /** What the severity is, for showing: "ohms", "times", "part left", "amperes". */
  severityUnit?: "Ω" | "×" | "of emission" | "A";
  /** Chance before any evidence, relative to the other faults. */
  prior: number;
}

export const NOTHING_WRONG = "nothing wrong";

const LEAK_ELECTROLYTIC = [470e3, 150e3, 47e3, 15e3, 5e3, 1.5e3];
const LEAK_COUPLING = [100e6, 30e6, 10e6, 3e6, 1e6, 220e3, 47e3];
const WEAK = [0.75, 0.6, 0.45, 0.3, 0.15];
const GAS = [0.3e-6, 1e-6, 3e-6, 10e-6];
const HEATER_CATHODE = [1e6, 220e3, 47e3];
const BOARD = [100e6, 30e6, 10e6, 3e6, 1e6];
const TIRED_RECTIFIER = [2, 3, 5];

/** Every single fault of the circuit. The order is that of the file. */
export function faultsOf(circuit: Circuit): Fault[] {
  const out: Fault[] = [];
  const add = (
    e: Element | undefined,
    name: string,
    refs: string[],
    kind: FaultKind,
    changes: (s: number) => string[],
    grid = [1],
    unit?: Fault["severityUnit"],
  ) => out.push({ name, refs, kind, changes, grid, severityUnit: unit, prior: priorOf(kind, e) });
  for (const e of circuit.elements) {
    const id = fileName(e);
    const only = (name: string, kind: FaultKind, change: string) => add(e, `${e.name} ${name}`, [e.name], kind, () => [`${id}=${change}`]);
    if (e.letter === "R") addResistor(e, id, add, only);
    else if (e.letter === "C") addCapacitor(e, id, add, only);
    else if (e.letter === "L") only("open", "winding open", "open");
    else if (e.tube) addTube(e, id, add, only);
    else if (e.type?.startsWith("RECT_") || e.type === "DOUBLER") {
      if (e.rectifierTube) add(e, `${e.name} weak`, [e.name], "rectifier weak", (s) => [`${id}=weak:${s}`], TIRED_RECTIFIER, "×");
      if (e.type !== "RECT_HALF") only("half dead", "rectifier half", "half");
      only("dead", "rectifier dead", "dead");
    } else if (e.type === "POT") only("wiper open", "wiper open", "wiper-open");
    else if (e.type === "SW" && e.params.state !== "open") only("open", "switch open", "open");
    else if (e.type === "OPT_PP") {
      only("first half open", "winding open", "open");
      only("second half open", "winding open", "open:2");
    } else if (e.type === "OPT_SE") only("primary open", "winding open", "open");
  }
  for (const [envelope, halves] of envelopesOf(circuit))
    if (halves.length > 1)
      add(halves[0], `${envelope} heater open`, [envelope], "heater open", () => halves.map((h) => `${fileName(h)}=dead`));
  for (const h of circuit.heaters) {
    const first = circuit.elements.find((e) => (e.tube ?? e.rectifierTube) && envelopeOf(e.name) === h.tubes[0]);
    if (h.string && first) add(first, `${h.name} heater string open`, h.tubes, "heater open", () => [`${fileName(first)}=heater-open`]);
  }
  for (const [can, parts] of cansOf(circuit))
    if (parts.length > 1)
      add(
        parts[0],
        `${can} lug lifted`,
        parts.map((p) => p.name),
        "can lifted",
        () => parts.map((p) => `${fileName(p)}=open`),
      );
  for (const [a, b] of circuit.near)
    add(undefined, `${a}~${b} board leak`, [`${a}~${b}`], "board leak", (s) => [`${a}~${b}=${s}`], BOARD, "Ω");
  return out;
}

type Add = (
  e: Element | undefined,
  name: string,
  refs: string[],
  kind: FaultKind,
  changes: (s: number) => string[],
  grid?: number[],
  unit?: Fault["severityUnit"],
) => void;
type Only = (name: string, kind: FaultKind, change: string) => void;

function addResistor(e: Element, id: string, add: Add, only: Only): void {
  const tol = e.notes.tol ?? 0.2;
  only("open", "resistor open", "open");
  // From twice its tolerance: less is not a fault but the part's spread.
  const high = [1 + 2 * tol, 1.6, 2.2, 3.5, 6, 12, 30].filter((f, i) => i === 0 || f > 1 + 2.4 * tol);
  const low = [1 - 2 * tol, 0.5, 0.25, 0.1, 0.02].filter((f, i) => f > 0 && (i === 0 || f < 1 - 2.4 * tol));
  add(e, `${e.name} high`, [e.name], "resistor high", (s) => [`${id}=${e.value! * s}`], high, "×");
  add(e, `${e.name} low`, [e.name], "resistor low", (s) => [`${id}=${e.value! * s}`], low, "×");
}

function addCapacitor(e: Element, id: string, add: Add, only: Only): void {
  const electrolytic = e.notes.kind === "electrolytic" || e.value! >= 1e-6;
  add(
    e,
    `${e.name} leaky`,
    [e.name],
    electrolytic ? "electrolytic leaky" : "coupling leaky",
    (s) => [`${id}=leak:${s}`],
    electrolytic ? LEAK_ELECTROLYTIC : LEAK_COUPLING,
    "Ω",
  );
  only("shorted", electrolytic ? "electrolytic shorted" : "coupling shorted", "short");
  only("open", electrolytic ? "electrolytic open" : "coupling open", "open");
}

function addTube(e: Element, id: string, add: Add, only: Only): void {
  add(e, `${e.name} weak`, [e.name], "tube weak", (s) => [`${id}=weak:${s}`], WEAK, "of emission");
  only("dead", "tube dead", "dead");
  add(e, `${e.name} gassy`, [e.name], "tube gassy", (s) => [`${id}=gassy:${s}`], GAS, "A");
  add(e, `${e.name} heater–cathode leak`, [e.name], "heater-cathode leak", (s) => [`${id}=hk:${s}`], HEATER_CATHODE, "Ω");
  only("grid–cathode short", "tube shorted", "short:gk");
  const pins: [string, string][] = [
    ["p", "plate"],
    ...(e.tube!.kind === "pentode" ? ([["s", "screen"]] as [string, string][]) : []),
    ["g", "grid"],
    ["k", "cathode"],
  ];
  for (const [pin, word] of pins) add(e, `${e.name} ${word} pin open`, [e.name], "pin open", () => [`${id}.${pin}=open`]);
}

function envelopesOf(circuit: Circuit): Map<string, Element[]> {
  const out = new Map<string, Element[]>();
  for (const e of circuit.elements) if (e.tube) out.set(envelopeOf(e.name), [...(out.get(envelopeOf(e.name)) ?? []), e]);
  return out;
}

function cansOf(circuit: Circuit): Map<string, Element[]> {
  const out = new Map<string, Element[]>();
  for (const e of circuit.elements)
    if (e.letter === "C" && e.notes.section) out.set(e.notes.section, [...(out.get(e.notes.section) ?? []), e]);
  return out;
}
