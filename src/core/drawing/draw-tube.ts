/** A tube with what belongs to it: the grid's line to the left, the load above, the cathode's parts below, the screen's to the right. */

import { electrodeNode } from "../anatomy/points";
import type { Element } from "../circuit/circuit";
import type { Plan, TubePlan } from "./cells";
import { endsOf } from "./cells";
import { drawRun, fallOf, HANG, hang, hangAlong, lastColumn } from "./draw-run";
import { boxOf, point, type Point } from "./geometry";
import { labelLines, labelWidth } from "./part-labels";
import { PART, TAG, TUBE, type Sketch } from "./sketch";

/** From a plate's pin to its wire; high enough for the screen's volts beneath it. */
const PLATE_LEAD = 1.6;
/** From a tube's middle to the wire of its cathode. */
export const CATHODE_LINE = TUBE.reach + 3;

export const endsFrom = (plan: Plan, e: Element, first: string): [number[], number[]] => {
  const layout = plan.layouts.get(e)!;
  if (layout.as !== "two") throw new Error(`${e.name} has no two ends`);
  return endsOf(e, layout)[0] === first ? layout.ends : [layout.ends[1], layout.ends[0]];
};

/** The line before a grid: its run, what leaks to the tail, the volts; returns the x of the grid's pin. */
export function drawGrid(
  sketch: Sketch,
  plan: Plan,
  tubePlan: TubePlan,
  y: number,
  home: (node: string) => boolean,
  leak?: (at: Point, e: Element) => void,
): number {
  const grid = electrodeNode(tubePlan.tube, "grid")!;
  const { isMark, leadsOn } = sketch.about;
  if (isMark(grid)) {
    sketch.wire(grid, point(-1.5, y), point(0, y));
    sketch.mark(grid, point(-1.5, y), "left");
    return 0;
  }
  const run = tubePlan.run ?? { nodes: [grid], parts: [] };
  const owns = (node: string) => home(node) && (tubePlan.run !== undefined || node !== grid);
  const start = 0;
  const begin = y - fallOf(plan, run);
  let x = drawRun(sketch, plan, run, start, begin, owns);
  const first = run.nodes[0]!;
  if (!home(first) || leadsOn(first)) sketch.port(first, "WEST", point(start, begin));
  const from = x;
  for (const e of tubePlan.leaks) {
    x += 2;
    leak?.(point(x, y), e);
    x += labelWidth(labelLines(e)) + 2;
  }
  x += 1.2;
  sketch.wire(grid, point(from, y), point(x, y));
  return x;
}

/**
 * What hangs on the plate's wire, from the tube's upright to the right; `up` for an upright tube, down for one upside down.
 * Returns how far it reaches.
 */
export function drawPlate(
  sketch: Sketch,
  plan: Plan,
  tubePlan: TubePlan,
  plate: Point,
  flipped: boolean,
  from: number,
  home: boolean,
): number {
  const node = electrodeNode(tubePlan.tube, "plate")!;
  const { isMark, hasPoint, leadsOn } = sketch.about;
  const sign = flipped ? -1 : 1;
  const y = plate.y - PLATE_LEAD * sign;
  sketch.wire(node, plate, point(plate.x, y));
  if (isMark(node)) {
    sketch.mark(node, point(plate.x, y), flipped ? "down" : "up");
    return plate.x;
  }
  if (!home) {
    sketch.wire(node, point(plate.x, y), point(plate.x + 2, y));
    sketch.port(node, "EAST", point(plate.x + 2, y));
    return plate.x + 2;
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
  if (others.length > 0) {
    const last = lastColumn(sketch, plan, others, Math.max(x, reach));
    x = hangAlong(sketch, plan, node, others, Math.max(x, reach), y, !flipped);
    sketch.wire(node, point(plate.x, y), point(last, y));
    reach = Math.max(reach, x);
  }
  if (rest.length > 0) {
    const begin = Math.max(from, x);
    const last = lastColumn(sketch, plan, rest, begin);
    x = hangAlong(sketch, plan, node, rest, begin, y, flipped);
    sketch.wire(node, point(plate.x, y), point(last, y));
    reach = Math.max(reach, x);
  }
  if (leadsOn(node)) {
    sketch.wire(node, point(plate.x, y), point(Math.max(reach, plate.x + 1), y));
    sketch.port(node, "EAST", point(Math.max(reach, plate.x + 1), y));
  } else if (hasPoint(node)) sketch.wire(node, point(plate.x, y), point(plate.x + 1, y));
  return reach;
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
  if (others.length > 0) {
    const last = lastColumn(sketch, plan, others, plate.x + 1);
    reach = hangAlong(sketch, plan, load.node, others, plate.x + 1, y, sign > 0);
    sketch.wire(load.node, point(plate.x, y), point(last, y));
  }
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

/** A single tube, upright. The sketch's origin is where its grid line begins. */
export function drawTube(sketch: Sketch, plan: Plan, tubePlan: TubePlan, home: (node: string) => boolean): void {
  const { tube } = tubePlan;
  const { isMark, hasPoint, leadsOn } = sketch.about;
  const [plateNode, cathode, screen] = [electrodeNode(tube, "plate")!, electrodeNode(tube, "cathode")!, electrodeNode(tube, "screen")];
  const leaks: { at: Point; e: Element }[] = [];
  const x = drawGrid(sketch, plan, tubePlan, 0, home, (at, e) => leaks.push({ at, e }));
  const pins = sketch.tube(tube, point(x + TUBE.reach, 0), false);
  const middle = pins.plate.x;
  const right = middle + TUBE.reach + 0.6 + labelWidth(labelLines(tube));

  // The cathode.
  const line = CATHODE_LINE;
  sketch.wire(cathode, pins.cathode, point(middle, line));
  let reachBelow = middle;
  if (isMark(cathode)) sketch.mark(cathode, point(middle, line), "down");
  else if (home(cathode) && cathode !== plateNode) {
    const hung = plan.hangs.get(cathode) ?? [];
    const stack = tubePlan.tail ? undefined : (hung.find((e) => e.letter === "R") ?? hung[0]);
    const others = hung.filter((e) => e !== stack);
    let after = middle + 1.6;
    if (stack) {
      hang(sketch, plan, cathode, stack, middle, line);
      after = middle + 1.4 + labelWidth(labelLines(stack));
    } else if (tubePlan.tail) {
      sketch.wire(cathode, point(middle, line), point(middle, line + HANG));
      sketch.two(tubePlan.tail.part, point(middle, line + HANG), "down", endsFrom(plan, tubePlan.tail.part, cathode), "right");
      after = middle + 1.4 + labelWidth(labelLines(tubePlan.tail.part));
    }
    if (stack) after = Math.max(after, middle + sketch.markHalf(stack.nodes.find((n) => isMark(n))!) + 0.4);
    const capacitors = tubePlan.screenToCathode.length > 0;
    const last = others.length > 0 ? lastColumn(sketch, plan, others, after) : middle;
    let end = hangAlong(sketch, plan, cathode, others, after, line);
    let wireTo = last;
    if (hasPoint(cathode) && leaks.length === 0) {
      // To the left, under what hangs from the grid's wire: that saves the width.
      sketch.tag(cathode, point(middle, line), boxOf(middle - 0.9 - TAG.width, line + 0.9, middle - 0.9, line + 0.9 + TAG.height));
    } else if (hasPoint(cathode)) {
      const at = others.length > 0 ? end : after;
      sketch.tag(cathode, point(at, line), boxOf(at, line + 0.3, at + TAG.width, line + 0.3 + TAG.height));
      wireTo = at + (leadsOn(cathode) || capacitors ? TAG.width : 0.6);
      end = at + TAG.width;
    }
    sketch.wire(cathode, point(middle, line), point(wireTo, line));
    reachBelow = Math.max(end, wireTo);
    if (leadsOn(cathode)) {
      const out = Math.max(reachBelow, right) + 0.5;
      sketch.wire(cathode, point(middle, line), point(out, line));
      sketch.port(cathode, "EAST", point(out, line));
      reachBelow = out;
    }
    if (tubePlan.tail) reachBelow = Math.max(reachBelow, drawTail(sketch, plan, tubePlan, middle, line + HANG + PART, leaks));
  } else if (cathode !== plateNode || !home(cathode)) {
    sketch.wire(cathode, point(middle, line), point(right, line));
    sketch.port(cathode, "EAST", point(right, line));
  } else {
    // Plate and cathode on one node: joined on the right, outside the tube.
    sketch.port(cathode, "EAST", point(middle + 1, line));
    sketch.wire(cathode, point(middle, line), point(middle + 1, line));
  }

  // The screen.
  let reachRight = right;
  if (screen) {
    const y = -TUBE.screen;
    const at = pins.screen!;
    if (isMark(screen)) {
      sketch.wire(screen, at, point(at.x + 1, y));
      sketch.mark(screen, point(at.x + 1, y), "right");
      reachRight = Math.max(right, at.x + 3 + 2 * sketch.markHalf(screen));
    } else
      reachRight = drawScreen(
        sketch,
        plan,
        tubePlan,
        at,
        right,
        home(screen) && screen !== plateNode && screen !== cathode,
        cathode,
        middle,
      );
  }

  drawPlate(sketch, plan, tubePlan, pins.plate, false, Math.max(reachRight, right), home(plateNode));
}

/** What stands under the tail's part: the joint, what it hangs on, the leaks that return to it. */
function drawTail(sketch: Sketch, plan: Plan, tubePlan: TubePlan, x: number, top: number, leaks: { at: Point; e: Element }[]): number {
  const tail = tubePlan.tail!;
  const { hasPoint, leadsOn, isMark } = sketch.about;
  // Clear of the flags of rails that hang beside it.
  const beside = plan.hangs.get(electrodeNode(tubePlan.tube, "cathode")!) ?? [];
  const y = top + (beside.some((e) => !e.nodes.includes("0")) ? 3.4 : 1);
  sketch.wire(tail.node, point(x, top), point(x, y));
  const grid = electrodeNode(tubePlan.tube, "grid")!;
  for (const { at, e } of leaks) {
    sketch.wire(grid, at, point(at.x, at.y + 1.5));
    sketch.two(e, point(at.x, at.y + 1.5), "down", endsFrom(plan, e, grid), "right");
    sketch.wire(tail.node, point(at.x, at.y + 1.5 + PART), point(at.x, y), point(x, y));
  }
  const hung = plan.hangs.get(tail.node) ?? [];
  const stack = hung.find((e) => e.letter === "R") ?? hung[0]!;
  hang(sketch, plan, tail.node, stack, x, y);
  let end = x + 1.6 + Math.max(labelWidth(labelLines(stack)), sketch.markHalf(stack.nodes.find((n) => isMark(n))!));
  const others = hung.filter((e) => e !== stack);
  const last = others.length > 0 ? lastColumn(sketch, plan, others, end) : x;
  end = hangAlong(sketch, plan, tail.node, others, end, y);
  sketch.wire(tail.node, point(x, y), point(last, y));
  if (hasPoint(tail.node)) {
    sketch.tag(tail.node, point(end, y), boxOf(end, y + 0.3, end + TAG.width, y + 0.3 + TAG.height));
    sketch.wire(tail.node, point(x, y), point(end + 0.6, y));
    end += TAG.width + 0.4;
  }
  if (leadsOn(tail.node)) {
    sketch.wire(tail.node, point(x, y), point(end, y));
    sketch.port(tail.node, "EAST", point(end, y));
  }
  return end;
}

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
    sketch.wire(cathode, point(x, y + HANG + PART), point(x, CATHODE_LINE), point(cathodeX, CATHODE_LINE));
    x += 1.2 + labelWidth(labelLines(e));
  }
  const hung = plan.hangs.get(screen) ?? [];
  const feed = hung.find((e) => (e.letter === "R" || e.letter === "L") && !e.nodes.includes("0"));
  const others = hung.filter((e) => e !== feed);
  if (others.length > 0) {
    const last = lastColumn(sketch, plan, others, x);
    x = hangAlong(sketch, plan, screen, others, x, y, flipped);
    sketch.wire(screen, at, point(last, y));
  }
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
