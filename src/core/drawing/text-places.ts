/** Where the texts of a drawing stand: for the screen and for paper alike. */

import { markFlag, type Label, type Mark, type Pin, type Point, type Symbol } from "./geometry";

export type Anchor = "start" | "middle" | "end";

/** The side of a label's box that its lines begin at. */
export function labelX({ align, box }: Label): number {
  return align === "start" ? box.x : align === "end" ? box.x + box.width : box.x + box.width / 2;
}

/** A socket pin's number beside its lead, outside of the tube; the name of a box's terminal inside its edge. */
export function pinTextAt(symbol: Symbol, { at }: Pin): Point & { anchor: Anchor } {
  const right = at.x > symbol.box.x + symbol.box.width / 2;
  if (symbol.shape !== "triode" && symbol.shape !== "pentode")
    return { x: at.x + (right ? -0.4 : 0.4), y: at.y + 0.4, anchor: right ? "end" : "start" };
  const aside = at.y < symbol.at.y - 2 ? 1 : -0.25;
  return at.x > symbol.at.x + 1 ? { x: at.x - 0.15, y: at.y - 0.25, anchor: "end" } : { x: at.x + 0.15, y: at.y + aside, anchor: "start" };
}

/** The middle of a mark's flag, where its name stands. */
export function markTextAt(mark: Mark): Point {
  const { x, y, width, height } = markFlag(mark);
  return { x: x + width / 2, y: y + height / 2 };
}
