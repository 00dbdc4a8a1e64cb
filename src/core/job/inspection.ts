/** What to look at before anything is measured, from the amp's own features and age, with the finding that each would make. */

import { isRectifier } from "../circuit/blocks";
import { envelopeOf, type Circuit, type Element } from "../circuit/circuit";
import { formatQuantity } from "../quantity/format";
import type { Severity } from "./events/words";

export const INSPECTION_GROUPS = [
  "mains",
  "heat and damage",
  "capacitors",
  "tubes",
  "joints and sockets",
  "earlier work",
  "mechanical",
] as const;
export type InspectionGroup = (typeof INSPECTION_GROUPS)[number];

export interface InspectionItem {
  /** Stable, so that an answer stays with it: "paper-caps". */
  id: string;
  group: InspectionGroup;
  place: string;
  /** What to look for, as an instruction. */
  look: string;
  /** Why this amp has it on its list. */
  why: string;
  /** The finding to draft when it is found. */
  finding: { text: string; severity: Severity; action: string };
}

export interface Claimed {
  text: string;
  year?: number;
}

/** Years after which each kind of part is past its youth. Usual practice. */
const OLD_ELECTROLYTIC = 25;
const OLD_RUBBER = 40;
/** Before this year two-wire cords and capacitors to chassis were usual. */
const EARTHED_SINCE = 1970;
/** A resistor of this many watts or more runs hot enough to char what is beside it. */
const HOT_WATTS = 1;

/**
 * The list for an amp.
 * @param today year now. @param made year by which the amp was made at the latest, when known.
 */
export function inspectionList(
  circuit: Circuit | undefined,
  today: number,
  made: number | undefined,
  claims: readonly Claimed[] = [],
): InspectionItem[] {
  const parts = circuit?.elements ?? [];
  const year = made ?? latestYear(circuit);
  const age = year === undefined ? undefined : today - year;
  const old = (years: number) => age === undefined || age >= years;
  const by = age === undefined ? "age not known" : `about ${age} years old`;
  const names = (list: readonly Element[]) => [...new Set(list.map((e) => envelopeOf(e.name)))].join(", ");
  const out: InspectionItem[] = [];
  const add = (
    id: string,
    group: InspectionGroup,
    place: string,
    look: string,
    why: string,
    text: string,
    severity: Severity,
    action: string,
  ) => out.push({ id, group, place, look, why, finding: { text, severity, action } });

  const direct = circuit?.facts["line-connected"] === "yes";
  add(
    "cord",
    "mains",
    "mains cord",
    "Cord, plug and strain relief: cracks, bare copper, knots in place of a clamp",
    by,
    "cord cracked or not held",
    "danger",
    "fit a new cord with strain relief",
  );
  if (!direct)
    add(
      "earth",
      "mains",
      "mains cord",
      "Two wires or three; the earth wire on its own bolt through bare metal",
      year !== undefined && year < EARTHED_SINCE ? `made by ${year}: often two wires only` : by,
      "two-wire cord, chassis not earthed",
      "danger",
      "fit a three-wire cord, earth on its own bolt",
    );
  add(
    "fuse-order",
    "mains",
    "fuse and switch",
    "Live goes to the far end of the fuse holder first, then the switch; neutral is not fused alone",
    "wired by hand in most amps",
    "fuse or switch in the neutral",
    "danger",
    "rewire: live to fuse, then switch",
  );
  add(
    "fuse-rating",
    "mains",
    "fuse",
    `Rating and type of the fuse${circuit?.facts.fuse ? `: ${circuit.facts.fuse} A slow belongs in` : " against the plate"}; foil, wire or a nail`,
    "the first thing that is bridged",
    "wrong fuse",
    "danger",
    "fit the right fuse",
  );
  if (!direct)
    add(
      "line-capacitor",
      "mains",
      "line to chassis",
      "A capacitor from either line wire to chassis",
      year === undefined || year < EARTHED_SINCE ? "usual before earthed cords" : by,
      "capacitor from line to chassis",
      "danger",
      "remove it, or fit a safety type",
    );
  else {
    add(
      "line-chassis",
      "mains",
      "chassis",
      "Knob grub screws, chassis bolts and back: anything that a hand can reach and that is on the line",
      "line-connected set",
      "line-connected metal within reach",
      "danger",
      "fit insulation; isolation transformer at the bench",
    );
    add(
      "interference-capacitor",
      "mains",
      "across the line",
      "The capacitor across the line: an old paper one is always live",
      "line-connected set",
      "paper capacitor across the line",
      "danger",
      "fit a safety type for across-the-line use",
    );
  }
  add(
    "tap",
    "mains",
    "voltage selector",
    `Primary tap or selector against the wall${circuit?.mains ? `; the circuit is for ${circuit.mains.volts} V ${circuit.mains.hertz} Hz` : ""}`,
    "a wrong tap looks like many faults",
    "wrong primary tap",
    "fault",
    "change to the tap for this wall",
  );

  const selenium = parts.filter((e) => isRectifier(e.type) && e.params.tube === "selenium");
  if (selenium.length > 0)
    add(
      "selenium",
      "heat and damage",
      names(selenium),
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
      names(hot),
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
      windings.length > 0 ? `mains transformer, ${names(windings)}` : "transformers",
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
      names(electrolytics),
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
      names(paper),
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
      names(backwards),
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

  add(
    "sockets",
    "joints and sockets",
    "tube sockets",
    "Spread contacts, cracked wafers, brown tracks between pins",
    by,
    "socket contact loose or tracked",
    "watch",
    "clean and re-tension, or replace",
  );
  add(
    "joints",
    "joints and sockets",
    "solder joints",
    "Grey, cracked or ringed joints, first at heavy parts and hot pins",
    by,
    "cold or cracked joint",
    "fault",
    "resolder",
  );
  const pots = parts.filter((e) => e.type === "POT" || e.type === "SW" || e.type === "SW2");
  if (pots.length > 0)
    add(
      "controls",
      "mechanical",
      names(pots),
      "Shafts, nuts and switches: loose, stiff, bent",
      "turned by players",
      "control loose or stiff",
      "watch",
      "tighten or clean",
    );
  add(
    "hardware",
    "mechanical",
    "chassis and case",
    "Carriage damage, loose transformers, missing screws, something rattling",
    "it came by road",
    "loose or missing hardware",
    "watch",
    "secure it",
  );
  add(
    "seals",
    "earlier work",
    "all over",
    "Broken seals, new solder, parts of another age, wiring that makes no sense",
    claims.length > 0 ? "work is said to have been done" : "most amps have been opened",
    "evidence of earlier work",
    "note",
    "check it against the circuit",
  );
  const values = parts.filter((e) => e.letter === "R" && e.notes.prov !== "assumed").length;
  if (values > 0)
    add(
      "values",
      "earlier work",
      "replaced parts",
      `Colours and print of every part that looks newer against the circuit (first capacitor ${firstCapacitor(circuit!)})`,
      "wrong values come with repairs",
      "wrong value fitted",
      "fault",
      "fit the value of the circuit",
    );
  claims.forEach(({ text, year: when }, i) =>
    add(
      `claim-${i}`,
      "earlier work",
      "as claimed",
      `“${text}”: does it look so?${when === undefined ? "" : ` Parts should be dated near ${when}`}`,
      "a claim is not a fact",
      `not as claimed: ${text}`,
      "note",
      "tell the owner",
    ),
  );
  return out.sort((a, b) => INSPECTION_GROUPS.indexOf(a.group) - INSPECTION_GROUPS.indexOf(b.group));
}

function isBias(e: Element): boolean {
  return isRectifier(e.type) && e.nodes[0] === "0";
}

/** Latest year that the circuit file knows: of the model, or of a part. */
function latestYear(circuit: Circuit | undefined): number | undefined {
  const to = Number(circuit?.facts.to ?? circuit?.facts.year);
  if (to > 0) return to;
  const years = (circuit?.elements ?? []).flatMap((e) => e.notes.year ?? []);
  return years.length > 0 ? Math.max(...years) : undefined;
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

function firstCapacitor(circuit: Circuit): string {
  const rectifier = circuit.elements.find((e) => isRectifier(e.type) && e.nodes[0] !== "0");
  const c = circuit.elements.find((e) => e.letter === "C" && rectifier !== undefined && e.nodes.includes(rectifier.nodes[0]!));
  const most = rectifier?.rectifierTube?.rectifier?.largestFirstCapacitor;
  return c
    ? `${c.name} ${formatQuantity(c.value!, "F", 2)}${most ? `, ${rectifier!.rectifierTube!.type} bears ${formatQuantity(most, "F", 2)}` : ""}`
    : "as drawn";
}
