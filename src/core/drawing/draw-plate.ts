/** What stands on a tube's plate: its load up to a rail, what else hangs there, its volts, the way out. */

import { electrodeNode } from "../anatomy/points";
import type { Element } from "../circuit/circuit";
import { endsFrom, type Plan, type TubePlan } from "./cells";
import { HANG, hangAlong } from "./draw-run";
import { boxOf, point, type Point } from "./geometry";
import { PART, TAG, type Sketch } from "./sketch";

/** From a plate's pin to its wire; high enough for the screen's volts beneath it. */
const PLATE_LEAD = 1.6;

/**
 * What hangs on the plate's wire, from the tube's upright to the right; `up` for an upright tube, down for one upside down.
 * @param from where what hangs down may begin.
 */
export function drawPlate(
  sketch: Sketch,
  plan: Plan,
  tubePlan: TubePlan,
  plate: Point,
  flipped: boolean,
  from: number,
  home: boolean,
): void {
  const node = electrodeNode(tubePlan.tube, "plate")!;
  const { isMark, hasPoint, leadsOn } = sketch.about;
  const sign = flipped ? -1 : 1;
  const y = plate.y - PLATE_LEAD * sign;
  sketch.wire(node, plate, point(plate.x, y));
  if (isMark(node)) {
    sketch.mark(node, point(plate.x, y), flipped ? "down" : "up");
    return;
  }
  if (!home) {
    sketch.wire(node, point(plate.x, y), point(plate.x + 2, y));
    sketch.port(node, "EAST", point(plate.x + 2, y));
    return;
  }
  const hung = plan.hangs.get(node) ?? [];
  const fed = hung.filter((e) => e.nodes.some((n) => isMark(n) && n !== "0"));
  const rest = hung.filter((e) => !fed.includes(e));
  let reach = plate.x;
  const [load, ...others] = fed;
  if (load) {
    sketch.wire(node, point(plate.x, y), point(plate.x, y - HANG * sign));
    const foot = point(plate.x, y - (HANG + PART) * sign);
    sketch.two(load, point(plate.x, y - HANG * sign), flipped ? "down" : "up", endsFrom(plan, load, node), "left");
    sketch.mark(
      load.nodes.find((n) => isMark(n))!,
      foot,
      flipped ? "down" : "up",
    );
  } else if (tubePlan.load) reach = Math.max(reach, drawLoad(sketch, plan, tubePlan.load, node, point(plate.x, y), sign));
  let x = plate.x + 1;
  if (hasPoint(node)) {
    const tagY = y - sign * 0.3;
    sketch.tag(node, point(plate.x + 1, y), boxOf(x, tagY, x + TAG.width, tagY - TAG.height * sign));
    x += TAG.width + 0.3;
    reach = Math.max(reach, x);
  }
  const wire = point(plate.x, y);
  if (others.length > 0) reach = hangAlong(sketch, plan, node, others, Math.max(x, reach), { from: wire, up: !flipped });
  if (rest.length > 0) reach = Math.max(reach, hangAlong(sketch, plan, node, rest, Math.max(from, x, reach), { from: wire, up: flipped }));
  if (leadsOn(node)) {
    sketch.wire(node, point(plate.x, y), point(Math.max(reach, plate.x + 1), y));
    sketch.port(node, "EAST", point(Math.max(reach, plate.x + 1), y));
  } else if (hasPoint(node)) sketch.wire(node, wire, point(plate.x + 1, y));
}

/** A load through a joint that is fed from a rail and decoupled or led on. */
function drawLoad(
  sketch: Sketch,
  plan: Plan,
  load: { part: Element; node: string },
  plateNode: string,
  plate: Point,
  sign: number,
): number {
  sketch.wire(plateNode, plate, point(plate.x, plate.y - HANG * sign));
  sketch.two(load.part, point(plate.x, plate.y - HANG * sign), sign > 0 ? "up" : "down", endsFrom(plan, load.part, plateNode), "left");
  const y = plate.y - (HANG + PART + 1) * sign;
  sketch.wire(load.node, point(plate.x, y + sign), point(plate.x, y));
  const hung = plan.hangs.get(load.node) ?? [];
  const [feed, ...others] = [...hung].sort(
    (a, b) => Number(b.letter === "R" || b.letter === "L") - Number(a.letter === "R" || a.letter === "L"),
  );
  let reach = plate.x;
  if (feed) {
    sketch.wire(load.node, point(plate.x, y), point(plate.x, y - HANG * sign));
    sketch.two(feed, point(plate.x, y - HANG * sign), sign > 0 ? "up" : "down", endsFrom(plan, feed, load.node), "left");
    sketch.mark(
      feed.nodes.find((n) => plan.isMark(n))!,
      point(plate.x, y - (HANG + PART) * sign),
      sign > 0 ? "up" : "down",
    );
  }
  if (others.length > 0) reach = hangAlong(sketch, plan, load.node, others, plate.x + 1, { from: point(plate.x, y), up: sign > 0 });
  if (sketch.about.hasPoint(load.node)) {
    const x = reach + 0.5;
    sketch.tag(load.node, point(x, y), boxOf(x, y - 0.3 * sign, x + TAG.width, y - (0.3 + TAG.height) * sign));
    sketch.wire(load.node, point(plate.x, y), point(x, y));
    reach = x + TAG.width;
  }
  if (sketch.about.leadsOn(load.node)) {
    sketch.wire(load.node, point(plate.x, y), point(reach + 1, y));
    sketch.port(load.node, "EAST", point(reach + 1, y));
    reach += 1;
  }
  return reach;
}
