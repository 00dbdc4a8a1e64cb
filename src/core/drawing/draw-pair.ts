/** Two tubes on one cathode, mirrored: the upper one upright, the lower one upside down, what they share between them. */

import { electrodeNode } from "../anatomy/points";
import type { Element } from "../circuit/circuit";
import { endsFrom, type Plan, type TubePlan } from "./cells";
import { hang, hangAlong } from "./draw-run";
import { drawPlate } from "./draw-plate";
import { drawScreen } from "./draw-screen";
import { drawGrid } from "./draw-tube";
import { boxOf, point, type Point } from "./geometry";
import { labelLines, labelWidth } from "./part-labels";
import { PART, TAG, TUBE, type Sketch } from "./sketch";

/** From the middle of the upper tube to that of the lower one. */
const APART = 21;
/** The wire on which the grids' leaks return to the joint under the tail's part. */
const LEAK_LINE = TUBE.cathodeLine + 2;

export function drawPair(sketch: Sketch, plan: Plan, upper: TubePlan, lower: TubePlan, home: (node: string) => boolean): void {
  const cathode = electrodeNode(upper.tube, "cathode")!;
  const leaks: { at: Point; e: Element; grid: string; up: boolean }[] = [];
  const ways = [
    drawGrid(sketch, plan, upper, 0, home, (at, e) => leaks.push({ at, e, grid: electrodeNode(upper.tube, "grid")!, up: false })),
  ];
  ways.push(
    drawGrid(sketch, plan, lower, APART, home, (at, e) => leaks.push({ at, e, grid: electrodeNode(lower.tube, "grid")!, up: true })),
  );
  const x = Math.max(...ways);
  [upper, lower].forEach(({ tube }, i) => {
    const y = i * APART;
    sketch.wire(electrodeNode(tube, "grid")!, point(ways[i]!, y), point(x, y));
  });
  const top = sketch.tube(upper.tube, point(x + TUBE.reach, 0), false);
  const bottom = sketch.tube(lower.tube, point(x + TUBE.reach, APART), true);
  const middle = top.cathode.x;
  const right = middle + TUBE.reach + 0.6 + Math.max(...[upper, lower].map(({ tube }) => labelWidth(labelLines(tube))));
  sketch.wire(cathode, top.cathode, bottom.cathode);

  drawShared(sketch, plan, upper.tail, cathode, point(middle, TUBE.cathodeLine), leaks);

  [
    { tubePlan: upper, pins: top, flipped: false },
    { tubePlan: lower, pins: bottom, flipped: true },
  ].forEach(({ tubePlan, pins, flipped }) => {
    const screen = electrodeNode(tubePlan.tube, "screen");
    const plate = electrodeNode(tubePlan.tube, "plate")!;
    let reach = right;
    if (screen && sketch.about.isMark(screen)) {
      const at = pins.screen!;
      sketch.wire(screen, at, point(at.x + 1, at.y));
      sketch.mark(screen, point(at.x + 1, at.y), "right");
      reach = Math.max(right, at.x + 3 + 2 * sketch.markHalf(screen));
    } else if (screen)
      reach = drawScreen(sketch, plan, tubePlan, pins.screen!, right, home(screen) && screen !== plate, cathode, middle, flipped);
    drawPlate(sketch, plan, tubePlan, pins.plate, flipped, reach, home(plate));
  });
}

/** The cathodes' wire to the right: its volts, then what it hangs on, or the tail with the leaks that return to it. */
function drawShared(
  sketch: Sketch,
  plan: Plan,
  tail: TubePlan["tail"],
  cathode: string,
  from: Point,
  leaks: { at: Point; e: Element; grid: string; up: boolean }[],
): void {
  const { hasPoint, leadsOn, isMark } = sketch.about;
  const y = from.y;
  let x = from.x + TUBE.reach + 0.4;
  if (hasPoint(cathode)) {
    sketch.tag(cathode, point(x, y), boxOf(x, y - 0.3, x + TAG.width, y - 0.3 - TAG.height));
    x += TAG.width + 0.2;
  }
  const hung = plan.hangs.get(cathode) ?? [];
  if (!tail) {
    const end = point(hangAlong(sketch, plan, cathode, hung, x, { from }), y);
    // To its volts as well, where nothing hangs behind them.
    sketch.wire(cathode, from, leadsOn(cathode) ? end : point(from.x + TUBE.reach + 0.4, y));
    if (leadsOn(cathode)) sketch.port(cathode, "EAST", end);
    return;
  }
  const start = x + Math.max(0.6, (labelWidth(labelLines(tail.part)) - PART) / 2 + 0.3);
  sketch.wire(cathode, from, point(start, y));
  sketch.two(tail.part, point(start, y), "right", endsFrom(plan, tail.part, cathode), "above");
  const joint = start + PART + 1.5;
  sketch.wire(tail.node, point(start + PART, y), point(joint, y), point(joint, LEAK_LINE));
  for (const { at, e, grid, up } of leaks) {
    const sign = up ? -1 : 1;
    sketch.wire(grid, at, point(at.x, at.y + 1.5 * sign));
    sketch.two(e, point(at.x, at.y + 1.5 * sign), up ? "up" : "down", endsFrom(plan, e, grid), "right");
    sketch.wire(tail.node, point(at.x, at.y + (1.5 + PART) * sign), point(at.x, LEAK_LINE), point(joint, LEAK_LINE));
  }
  const here = plan.hangs.get(tail.node) ?? [];
  const stack = here.find((e) => e.letter === "R") ?? here[0];
  let end = joint + 1.6;
  if (stack) {
    hang(sketch, plan, tail.node, stack, joint, LEAK_LINE);
    end += Math.max(labelWidth(labelLines(stack)), sketch.markHalf(stack.nodes.find((n) => isMark(n))!));
  }
  const others = here.filter((e) => e !== stack);
  end = hangAlong(sketch, plan, tail.node, others, end, { from: point(joint, LEAK_LINE) });
  if (hasPoint(tail.node)) {
    sketch.tag(tail.node, point(end, LEAK_LINE), boxOf(end, LEAK_LINE + 0.3, end + TAG.width, LEAK_LINE + 0.3 + TAG.height));
    sketch.wire(tail.node, point(joint, LEAK_LINE), point(end + 0.6, LEAK_LINE));
    end += TAG.width + 0.4;
  }
  if (leadsOn(tail.node)) {
    sketch.wire(tail.node, point(joint, LEAK_LINE), point(end, LEAK_LINE));
    sketch.port(tail.node, "EAST", point(end, LEAK_LINE));
  }
  if (leadsOn(cathode)) {
    const below = point(end + 0.5, APART - TUBE.reach - 0.6);
    sketch.wire(cathode, point(from.x, below.y), below);
    sketch.port(cathode, "EAST", below);
  }
}
