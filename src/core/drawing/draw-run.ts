/** Parts in line on a level wire, with what hangs from each node on the way. */

import type { Element } from "../circuit/circuit";
import { endsFrom, endsOf, type Plan, type Run } from "./cells";
import { boxOf, point, TEXT_HEIGHT, type Point } from "./geometry";
import { idOf, labelLines, labelWidth } from "./part-labels";
import { PART, TAG, type Sketch } from "./sketch";

/** From a wire down to a hanging part, its length, and from there to its mark. */
export const HANG = 1;

/** How far a hanging part reaches to either side of its own upright. */
function reaches(sketch: Sketch, plan: Plan, e: Element): { left: number; right: number } {
  const mark = e.nodes.find((n) => plan.isMark(n))!;
  const half = Math.max(1.6, sketch.markHalf(mark));
  return { left: half + 0.4, right: Math.max(half, 1.2 + labelWidth(labelLines(e))) + 0.4 };
}

/** A part between a node at (x, y) and its mark, hanging down or standing up. */
export function hang(sketch: Sketch, plan: Plan, node: string, e: Element, x: number, y: number, up = false): void {
  const sign = up ? -1 : 1;
  const [top, foot] = [point(x, y + HANG * sign), point(x, y + (HANG + PART) * sign)];
  sketch.wire(node, point(x, y), top);
  sketch.two(e, top, up ? "up" : "down", endsFrom(plan, e, node), "right");
  sketch.mark(
    e.nodes.find((n) => plan.isMark(n))!,
    foot,
    up ? "up" : "down",
  );
}

/**
 * Columns of hanging parts from x on along a level wire at y, and the wire to the last of them from where it comes.
 * Returns where the next thing may begin.
 */
export function hangAlong(
  sketch: Sketch,
  plan: Plan,
  node: string,
  parts: readonly Element[],
  x: number,
  { from, up = false }: { from: Point; up?: boolean },
): number {
  for (const e of parts) {
    const { left, right } = reaches(sketch, plan, e);
    hang(sketch, plan, node, e, x + left, from.y, up);
    sketch.wire(node, from, point(x + left, from.y));
    x += left + right;
  }
  return x;
}

/** Room for a part in line: its length or its label, whichever is wider, and a little wire on either side. */
const roomFor = (e: Element): number => Math.max(PART + 1.2, labelWidth(labelLines(e)) + 0.8);

/** From the wire of a divider's top down to that of its wiper. */
const TAP = HANG + PART / 2;

/** How far below its beginning a run ends: each divider leads on at its wiper. */
export function fallOf(plan: Plan, run: Run): number {
  return run.parts.reduce((fall, e, i) => {
    const layout = plan.layouts.get(e)!;
    return layout.as === "divider" ? fall + (endsOf(e, layout)[0] === run.nodes[i] ? TAP : -TAP) : fall;
  }, 0);
}

/**
 * Draws a run from (x, y) to the right. Returns where its last node's wire ends, `fallOf` below its beginning.
 * @param home whether the cell is the one that draws what hangs on a node. @param isInput the first node is where signal comes in.
 */
export function drawRun(
  sketch: Sketch,
  plan: Plan,
  run: Run,
  x: number,
  y: number,
  home: (node: string) => boolean,
  isInput = false,
): number {
  const { rails, isMark, hasPoint } = sketch.about;
  for (let i = 0; i < run.nodes.length; i++) {
    const node = run.nodes[i]!;
    const begins = x;
    if (home(node) && !isMark(node)) {
      if (i === 0 && isInput) {
        sketch.flag("input", node, node.toUpperCase().slice(0, 12), point(x, y), "left");
        x += 0.6;
      }
      const rail = rails.get(node);
      if (rail) {
        const half = sketch.markHalf(node);
        sketch.mark(node, point(x + half, y), "up");
        x += 2 * half + 0.4;
      }
      const hung = plan.hangs.get(node) ?? [];
      x = hangAlong(sketch, plan, node, hung, x, { from: point(begins, y) });
      if (hasPoint(node)) {
        const from = rail ? begins + 2 * sketch.markHalf(node) + 0.4 : begins + 0.3;
        sketch.tag(node, point(from, y), boxOf(from, y - TAG.height - 0.3, from + TAG.width, y - 0.3));
        x = Math.max(x, from + TAG.width + 0.3);
      }
    }
    if (i === run.parts.length) {
      sketch.wire(node, point(begins, y), point(x, y));
      return x;
    }
    x = drawInLine(sketch, plan, run.parts[i]!, node, run.nodes[i + 1]!, begins, x, y);
    y += fallOf(plan, { nodes: [node, run.nodes[i + 1]!], parts: [run.parts[i]!] });
  }
  return x;
}

/** One part in line between the wire that began at `begins` and the next one; returns where the next node's wire begins. */
function drawInLine(sketch: Sketch, plan: Plan, e: Element, from: string, to: string, begins: number, x: number, y: number): number {
  const layout = plan.layouts.get(e)!;
  const [a] = endsOf(e, layout);
  if (layout.as === "two") {
    const room = roomFor(e);
    const start = x + (room - PART) / 2;
    sketch.wire(from, point(begins, y), point(start, y));
    sketch.two(e, point(start, y), "right", a === from ? layout.ends : [layout.ends[1], layout.ends[0]], "above");
    sketch.wire(to, point(start + PART, y), point(x + room, y));
    return x + room;
  }
  if (layout.as !== "divider") throw new Error(`${e.name} is no part in line`);
  // A divider stands on its foot; the run goes on at the wiper's height, or comes from there.
  const forwards = a === from;
  const [top, wiper, foot] = [e.nodes[layout.top]!, e.nodes[layout.wiper]!, e.nodes[layout.foot]!];
  const lines = labelLines(e);
  const width = labelWidth(lines);
  const side = forwards ? 1 : -1;
  const column = x + Math.max(2, sketch.markHalf(foot)) + (forwards ? width + 0.6 : 2.4);
  const above = forwards ? y : y - TAP;
  const up = point(column, above + HANG);
  const tap = point(column + 2.4 * side, above + TAP);
  sketch.symbols.push({
    part: idOf(e),
    shape: "pot",
    at: up,
    direction: "down",
    flipped: !forwards,
    pins: [
      { terminal: layout.top, at: up },
      { terminal: layout.wiper, at: tap },
      { terminal: layout.foot, at: point(column, up.y + PART) },
    ],
    box: boxOf(column - 0.9 * side, up.y, tap.x, up.y + PART),
  });
  const near = column - 1.1 * side;
  const half = (lines.length * TEXT_HEIGHT) / 2;
  sketch.label(e, lines, boxOf(near, tap.y - half, near - width * side, tap.y + half), forwards ? "end" : "start");
  sketch.mark(foot, point(column, up.y + PART), "down");
  if (forwards) {
    sketch.wire(top, point(begins, y), point(column, y), up);
    sketch.wire(wiper, tap, point(column + 3.4, tap.y));
    return column + 3.4;
  }
  sketch.wire(wiper, point(begins, y), tap);
  sketch.wire(top, up, point(column, above), point(column + 1.6 + width, above));
  return column + 1.6 + width;
}
