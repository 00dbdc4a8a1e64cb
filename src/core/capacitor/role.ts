/** What a capacitor does in its amp, in words, and which safety class its place asks for. */

import { gridLeakOf } from "../anatomy/couplings";
import { railsOf } from "../anatomy/rails";
import type { Circuit, Element } from "../circuit/circuit";
import { isLineConnected } from "../circuit/mains-connection";
import { isRectifier } from "../circuit/special-parts";
import type { CapacitorPlace } from "../tape/events/words";
import * as texts from "../texts/capacitor";

export type CapacitorRole =
  "reservoir" | "filter" | "bias" | "cathode bypass" | "screen bypass" | "coupling" | "feedback" | "tone" | "treble" | CapacitorPlace;

export interface RoleOf {
  role: CapacitorRole;
  /** One sentence for the table. */
  does: string;
  /** IEC 60384-14 class that a replacement must have where a failure puts a person at risk. */
  safety?: "X" | "Y";
  /** A failure puts high voltage where somebody can touch it. */
  danger?: boolean;
}

/** By its kind, else by its size. */
export const isElectrolytic = (c: Pick<Element, "value" | "notes">) =>
  c.notes.kind === undefined ? (c.value ?? 0) >= 1e-6 : /electrolytic|tantalum/i.test(c.notes.kind);

/** Below this a capacitor shapes treble or keeps an amp from oscillating. */
const SMALL = 2e-9;
const BYPASS_FROM = 50e-9;
/** What a node that leads out of the chassis is called. */
const JACK = /(jack|phones?|line.?out|send|preout|pre.?out|headset)/i;

/** A class-Y part may not fail shorted from the line to what is touched, a class-X part may not burn across the line: IEC 60384-14. */
const SAFETY: Partial<Record<CapacitorPlace, "X" | "Y">> = { "line to chassis": "Y", "across the line": "X" };

/** What a capacitor that is on no drawing does, by where it was found. */
export function roleOfPlace(place: CapacitorPlace): RoleOf {
  return { role: place, does: texts.placeDoes(place), danger: true, ...(SAFETY[place] ? { safety: SAFETY[place] } : {}) };
}

/** What one does in an amp without a circuit, where nobody has said where it lies. @param reservoir named as one at Make safe. */
export const roleUnseen = (reservoir: boolean): RoleOf =>
  reservoir ? { role: "reservoir", does: texts.roleNamed() } : { role: "tone", does: texts.roleUnknown() };

/** @param c a capacitor of the circuit. @param place what somebody has said of where it lies, which counts before the circuit. */
export function roleOfCapacitor(circuit: Circuit, c: Element, place?: CapacitorPlace): RoleOf {
  if (place) return roleOfPlace(place);
  const [a, b] = c.nodes as [string, string];
  const grounded = a === "0" || b === "0";
  const hot = a === "0" ? b : a;
  const rails = railsOf(circuit);
  const rail = rails.get(hot) ?? (grounded ? undefined : rails.get(b));
  const label = c.notes.label ?? "";
  if (JACK.test(label) || (!grounded && [a, b].some((n) => JACK.test(n)))) return roleOfPlace("output to a jack");
  if (grounded && rail && (c.value ?? 0) >= 1e-6) {
    const first = circuit.elements.some((e) => isRectifier(e.type) && e.nodes.includes(hot));
    if (rail.kind === "bias") return { role: "bias", does: texts.roleBias(rail.text) };
    return first ? { role: "reservoir", does: texts.roleReservoir(rail.text) } : { role: "filter", does: texts.roleFilter(rail.text) };
  }
  // Two in series, or a doubler's: across the rectifier, neither end at chassis.
  if (
    !grounded &&
    circuit.elements.some((e) => isRectifier(e.type) && (e.nodes.includes(a) || e.nodes.includes(b))) &&
    (c.value ?? 0) >= 1e-6
  )
    return { role: "reservoir", does: texts.roleReservoir(rail?.text ?? c.name) };
  const at = (electrode: number, node: string) =>
    circuit.elements.filter((e) => e.tube && e.nodes.at(electrode) === node).map((e) => e.name);
  // A few hundred picofarads at a cathode shape treble and bypass nothing.
  const cathodes = (c.value ?? 0) < BYPASS_FROM ? [] : c.nodes.flatMap((n) => (n === "0" ? [] : at(-1, n)));
  const screens = circuit.elements.filter((e) => e.tube?.kind === "pentode" && c.nodes.includes(e.nodes[1]!)).map((e) => e.name);
  if (screens.length > 0 && (grounded || cathodes.length > 0)) return { role: "screen bypass", does: texts.roleScreen(screens.join(", ")) };
  if (grounded && cathodes.length > 0) return { role: "cathode bypass", does: texts.roleCathode(cathodes.join(", ")) };
  const speaker = circuit.elements.filter((e) => /^OPT_/.test(e.type ?? "")).flatMap((e) => e.nodes);
  if (!grounded && (c.value ?? 0) >= SMALL) {
    const feeds = gridLeakOf(circuit, c);
    // A follower and the lower half of a split load give their signal at the cathode.
    const plates = circuit.elements
      .filter((e) => e.tube && [e.nodes[0]!, e.nodes.at(-1)!].some((n) => n !== "0" && c.nodes.includes(n)))
      .map((e) => e.name);
    const grids = feeds ? gridsBehind(circuit, feeds.node) : [];
    if (plates.length > 0 || grids.length > 0)
      return { role: "coupling", does: texts.roleCoupling(plates.join(", ") || "—", grids.join(", ") || "—") };
    if (c.nodes.some((n) => speaker.includes(n))) return { role: "feedback", does: texts.roleFeedback() };
    return { role: "tone", does: texts.roleTone() };
  }
  if ((c.value ?? 0) < SMALL) return { role: "treble", does: texts.roleTreble() };
  return { role: "tone", does: isLineConnected(circuit) && grounded ? texts.roleToneLine() : texts.roleTone() };
}

/** Tubes whose grid lies at the node, or behind one resistor or control from it. */
function gridsBehind(circuit: Circuit, node: string): string[] {
  const near = new Set([node]);
  for (const e of circuit.elements)
    if ((e.letter === "R" || e.type === "POT") && e.nodes.includes(node)) for (const n of e.nodes) if (n !== "0") near.add(n);
  return circuit.elements.filter((e) => e.tube && near.has(e.nodes.at(-2)!)).map((e) => e.name);
}
