/** Joints, controls, case and earlier work on the inspection list. */

import { isRectifier } from "../circuit/blocks";
import type { Circuit } from "../circuit/circuit";
import { formatQuantity } from "../quantity/format";
import { namesOf, type Claimed, type Inspected } from "./inspection";

export function aroundItems(inspected: Inspected, claims: readonly Claimed[]): void {
  const { circuit, parts, by, add } = inspected;
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
      namesOf(pots),
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
}

function firstCapacitor(circuit: Circuit): string {
  const rectifier = circuit.elements.find((e) => isRectifier(e.type) && e.nodes[0] !== "0");
  const c = circuit.elements.find((e) => e.letter === "C" && rectifier !== undefined && e.nodes.includes(rectifier.nodes[0]!));
  const most = rectifier?.rectifierTube?.rectifier?.largestFirstCapacitor;
  return c
    ? `${c.name} ${formatQuantity(c.value!, "F", 2)}${most ? `, ${rectifier!.rectifierTube!.type} bears ${formatQuantity(most, "F", 2)}` : ""}`
    : "as drawn";
}
