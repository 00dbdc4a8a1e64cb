/** Heat, capacitors and tubes on the inspection list. */

import { isLineConnected } from "../circuit/line";
import { isRectifier } from "../circuit/blocks";
import { envelopeOf, type Circuit, type Element } from "../circuit/circuit";
import { namesOf, type Inspected } from "./inspection";

/** Years after which each kind of part is past its youth. Usual practice. */
const OLD_ELECTROLYTIC = 25;
const OLD_RUBBER = 40;
/** A resistor of this many watts or more runs hot enough to char what is beside it. */
const HOT_WATTS = 1;

export function insideItems(inspected: Inspected): void {
  const { circuit, parts, today, by, old, add } = inspected;
  const direct = isLineConnected(circuit);
  const selenium = parts.filter((e) => isRectifier(e.type) && e.params.tube === "selenium");
  if (selenium.length > 0)
    add(
      "selenium",
      "heat and damage",
      namesOf(selenium),
      "Selenium plates: burst or discoloured; a smell of garlic or rotten radish is poisonous: air the room",
      "selenium rectifier",
      "selenium rectifier aged",
      "watch",
      "fit silicon with a series resistor",
    );
  const hot = parts.filter((e) => e.letter === "R" && (e.notes.watts ?? 0) >= HOT_WATTS);
  if (hot.length > 0)
    add(
      "charred",
      "heat and damage",
      namesOf(hot),
      "Brown paint, charred board or blistered wax under the resistors that run hot",
      `${hot.length} of ${HOT_WATTS} W or more`,
      "has run hot",
      "watch",
      "measure it; mount it clear of the board",
    );
  const windings = parts.filter((e) => e.type?.startsWith("OPT") || e.type === "XFMR" || (e.letter === "L" && e.notes.dcr));
  if (windings.length > 0 || !direct)
    add(
      "transformers",
      "heat and damage",
      windings.length > 0 ? `mains transformer, ${namesOf(windings)}` : "transformers",
      "Tar or wax run out, burnt smell, blue steel, loose laminations",
      by,
      "transformer has been hot",
      "fault",
      "measure its windings before power",
    );
  if (circuit && circuit.near.length > 0)
    add(
      "tracking",
      "heat and damage",
      circuit.near.map(([a, b]) => `${a}–${b}`).join(", "),
      "Flux, wax, dust or scorch marks between neighbours on the board",
      "high and low volts lie side by side",
      "dirt or a track between neighbours",
      "watch",
      "clean the board, measure the leak",
    );
  add(
    "insulation",
    "heat and damage",
    "wiring",
    old(OLD_RUBBER) ? "Bend one rubber-covered wire a little: brittle insulation cracks off" : "Pinched, melted or bare wires",
    by,
    "insulation brittle or bare",
    "fault",
    "sleeve or replace the wire",
  );

  const electrolytics = parts.filter((e) => e.letter === "C" && (e.notes.kind === "electrolytic" || (e.value ?? 0) >= 1e-6));
  const dates = [...new Set(electrolytics.flatMap((e) => e.notes.year ?? []))];
  if (electrolytics.length > 0)
    add(
      "electrolytics",
      "capacitors",
      namesOf(electrolytics),
      "Bulging ends, crust or wet at the seal, shrunken sleeve",
      dates.length > 0 && today - Math.min(...dates) >= OLD_ELECTROLYTIC ? `original of ${Math.min(...dates)} by the file` : by,
      "electrolytic leaking or bulging",
      "fault",
      "replace, or test and reform",
    );
  const paper = parts.filter((e) => e.letter === "C" && (e.notes.kind === "paper" || e.notes.kind === "moulded"));
  if (paper.length > 0)
    add(
      "paper-caps",
      "capacitors",
      namesOf(paper),
      "Wax drips, cracked moulding, oil: paper leaks long before it shows",
      `${paper.length} paper capacitors`,
      "paper capacitors cracked or leaking",
      "fault",
      "measure the leakage, replace",
    );
  const backwards = electrolytics.filter((e) => e.notes.kind === "electrolytic");
  if (backwards.length > 0)
    add(
      "polarity",
      "capacitors",
      namesOf(backwards),
      `Plus at the higher volts; bias capacitors have plus at chassis${parts.some(isBias) ? " here" : ""}`,
      "one backwards lives a while",
      "capacitor in backwards",
      "danger",
      "replace it the right way round",
    );

  const tubes = parts.filter((e) => e.tube ?? e.rectifierTube);
  const types = [...new Map(tubes.map((e) => [envelopeOf(e.name), (e.tube ?? e.rectifierTube)!.type]))];
  if (types.length > 0) {
    add(
      "types",
      "tubes",
      types.map(([n]) => n).join(", "),
      `Type in each socket against the circuit: ${types.map(([n, t]) => `${n} ${t}`).join(", ")}`,
      "sockets take types that look alike",
      "wrong tube type",
      "fault",
      "fit the right type",
    );
    add(
      "getters",
      "tubes",
      types.map(([n]) => n).join(", "),
      "White getter is air; loose base, cracked glass, milky or burnt mica",
      "seen before any test",
      "tube is gassy or broken",
      "fault",
      "replace it",
    );
    const sets = outputSets(circuit!);
    for (const set of sets)
      add(
        `set-${set[0]}`,
        "tubes",
        set.join(", "),
        "One maker, one date, the same structure inside",
        "they share the work",
        "mixed set",
        "watch",
        "match or replace as a set",
      );
  } else
    add(
      "types",
      "tubes",
      "tubes",
      "Type in each socket against the print on the chassis",
      "no circuit here",
      "wrong tube type",
      "fault",
      "fit the right type",
    );
}

function isBias(e: Element): boolean {
  return isRectifier(e.type) && e.nodes[0] === "0";
}

/** Tubes that work as pairs or more on one output transformer, by envelope. */
export function outputSets(circuit: Circuit): string[][] {
  return circuit.elements
    .filter((e) => e.type === "OPT_PP")
    .map((t) => {
      const ends = new Set([t.nodes[0], t.nodes[2]]);
      return [...new Set(circuit.elements.filter((e) => e.tube && ends.has(e.nodes[0]!)).map((e) => envelopeOf(e.name)))];
    })
    .filter((set) => set.length > 1);
}
