/** Which symbol a part has, and how it is laid out: between two nodes, as a divider, as a tube, as a box. */

import type { Element } from "../circuit/circuit";
import type { Shape } from "./geometry";

/** How a part is laid out: between its two nodes, tapped by a wiper, a tube, or a box with terminals on its sides. */
export type Layout =
  | { as: "two"; ends: [terminals: number[], terminals: number[]] }
  /** A pot used as a divider: `top` and `wiper` lead on, `foot` lies on a mark. */
  | { as: "divider"; top: number; wiper: number; foot: number }
  | { as: "tube" }
  | { as: "box" };

const SHAPES: Partial<Record<string, Shape>> = { R: "resistor", C: "capacitor", L: "choke", D: "diode", V: "source", I: "current" };

const ELECTROLYTIC_FROM = 1e-6;

export function shapeOf(e: Element): Shape {
  if (e.tube?.kind === "triode" || e.tube?.kind === "pentode") return e.tube.kind;
  if (e.letter === "C")
    return e.notes.kind === "electrolytic" || (!e.notes.kind && (e.value ?? 0) >= ELECTROLYTIC_FROM) ? "electrolytic" : "capacitor";
  if (e.letter !== "X") return SHAPES[e.letter] ?? "box";
  if (e.type === "SW") return "switch";
  if (e.type === "ZENER") return "zener";
  if (e.type === "POT") return new Set(e.nodes).size === 2 ? "rheostat" : "pot";
  if (e.type === "OPAMP") return "opamp";
  if (e.type?.startsWith("OPT_") || e.type === "XFMR") return "transformer";
  if (e.type?.startsWith("RECT_") || e.type?.startsWith("DOUBLER")) return "rectifier";
  return "box";
}

/** @param isMark whether a node is drawn as a mark at each use: ground, or a rail outside its own section. */
export function layoutOf(e: Element, isMark: (node: string) => boolean): Layout {
  const n = e.nodes;
  if (e.tube && (e.tube.kind === "triode" ? 3 : 4) === n.length) return { as: "tube" };
  if (e.type === "POT" && n.length === 3) {
    const [start, wiper, end] = n as [string, string, string];
    // A rheostat: the wiper is tied to one of the ends.
    if (wiper === start || wiper === end)
      return start === end ? { as: "box" } : { as: "two", ends: wiper === start ? [[0, 1], [2]] : [[0], [1, 2]] };
    const foot = isMark(start) ? 0 : isMark(end) ? 2 : -1;
    const top = 2 - foot;
    if (foot >= 0 && !isMark(n[top]!) && !isMark(wiper) && n[top] !== wiper) return { as: "divider", top, wiper: 1, foot };
    return { as: "box" };
  }
  const two = n.length === 2 && n[0] !== n[1] && (e.letter !== "X" || e.type === "SW" || e.type === "ZENER");
  return two ? { as: "two", ends: [[0], [1]] } : { as: "box" };
}
