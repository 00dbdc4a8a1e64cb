/** A tube's screen: to the right of it, in line to its rail, or out of the cell. */

import { electrodeNode } from "../anatomy/points";
import { endsFrom, endsOf, type Plan, type TubePlan } from "./cells";
import { HANG, hangAlong } from "./draw-run";
import { boxOf, point, type Point } from "./geometry";
import { labelLines, labelWidth } from "./part-labels";
import { PART, TAG, TUBE, type Sketch } from "./sketch";

/** The screen's wire to the right: capacitors down, the feeding resistor in line to its rail, or out of the cell. */
export function drawScreen(
  sketch: Sketch,
  plan: Plan,
  tubePlan: TubePlan,
  at: Point,
  from: number,
  home: boolean,
  cathode: string,
  cathodeX: number,
  flipped = false,
): number {
  const { hasPoint, leadsOn, isMark } = sketch.about;
  const screen = electrodeNode(tubePlan.tube, "screen")!;
  const y = at.y;
  let x = from + 0.4;
  if (!home) {
    sketch.wire(screen, at, point(x, y));
    sketch.port(screen, "EAST", point(x, y));
    return x;
  }
  for (const e of tubePlan.screenToCathode) {
    x += 1.6;
    sketch.wire(screen, at, point(x, y), point(x, y + HANG));
    sketch.two(e, point(x, y + HANG), "down", endsFrom(plan, e, screen), "right");
    sketch.wire(cathode, point(x, y + HANG + PART), point(x, TUBE.cathodeLine), point(cathodeX, TUBE.cathodeLine));
    x += 1.2 + labelWidth(labelLines(e));
  }
  const hung = plan.hangs.get(screen) ?? [];
  const feed = hung.find((e) => (e.letter === "R" || e.letter === "L") && !e.nodes.includes("0"));
  const others = hung.filter((e) => e !== feed);
  x = hangAlong(sketch, plan, screen, others, x, { from: at, up: flipped });
  const inLine = feed ?? tubePlan.screenRun;
  // Where the wire to the right is taken by the part in line, the screen leads out beside it.
  const aside = inLine && leadsOn(screen) ? x + 0.4 : undefined;
  if (aside !== undefined) x += 0.8;
  const afterHung = x;
  if (inLine) {
    const width = labelWidth(labelLines(inLine));
    const start = x + Math.max(0.6, (width - PART) / 2 + 0.3);
    sketch.wire(screen, at, point(start, y));
    sketch.two(inLine, point(start, y), "right", endsFrom(plan, inLine, screen), "above");
    x = start + Math.max(PART, PART / 2 + width / 2 + 0.2);
    const end = point(start + PART, y);
    const to = endsOf(inLine, plan.layouts.get(inLine)!).find((n) => n !== screen)!;
    if (isMark(to)) {
      sketch.mark(to, end, "right");
      x = Math.max(x, end.x + 1 + 2 * sketch.markHalf(to));
    } else {
      sketch.wire(to, end, point(x, y));
      sketch.port(to, "EAST", point(x, y));
    }
  }
  if (hasPoint(screen)) {
    // Under the wire, where nothing hangs any more.
    const left = inLine ? Math.max(afterHung, x - TAG.width) + 0.2 : x;
    const under = inLine ? 1.1 : 0.3;
    sketch.tag(screen, point(left, y), boxOf(left, y + under, left + TAG.width, y + under + TAG.height));
    if (!inLine) sketch.wire(screen, at, point(left + 0.6, y));
    x = Math.max(x, left + TAG.width);
  }
  if (aside !== undefined) {
    const level = y + (flipped ? -4.2 : 4.8);
    sketch.wire(screen, at, point(aside, y), point(aside, level), point(x, level));
    sketch.port(screen, "EAST", point(x, level));
  } else if (leadsOn(screen)) {
    sketch.wire(screen, at, point(x, y));
    sketch.port(screen, "EAST", point(x, y));
  }
  return x;
}
