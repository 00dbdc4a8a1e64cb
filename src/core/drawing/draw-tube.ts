/** A tube with what belongs to it: the grid's line to the left, the load above, the cathode's parts below, the screen's to the right. */

import { electrodeNode } from "../anatomy/points";
import type { Element } from "../circuit/circuit";
import { endsFrom, type Plan, type TubePlan } from "./cells";
import { drawPlate } from "./draw-plate";
import { drawScreen } from "./draw-screen";
import { drawRun, fallOf, HANG, hang, hangAlong } from "./draw-run";
import { boxOf, point, type Point } from "./geometry";
import { labelLines, labelWidth } from "./part-labels";
import { PART, TAG, TUBE, type Sketch } from "./sketch";

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
  const first = run.nodes[0]!;
  let x = drawRun(sketch, plan, run, start, begin, owns, home(first) && !leadsOn(first) && comesIn(plan, tubePlan, first));
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

/** From so many farads a grid is at nothing for signal. */
const GROUNDS_FROM = 1e-9;

/**
 * Whether signal comes in at the end of a grid's line that nothing drives: an input of the amp, a tank's return. Not where a capacitor holds
 * it at nothing, nor at a grid that has nothing but its leak to the tail.
 */
function comesIn(plan: Plan, { run, leaks }: TubePlan, first: string): boolean {
  const hung = plan.hangs.get(first) ?? [];
  if (hung.some((e) => e.letter === "C" && (e.value ?? 0) >= GROUNDS_FROM)) return false;
  return (run?.parts.length ?? 0) > 0 || leaks.length === 0;
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
  const line = TUBE.cathodeLine;
  sketch.wire(cathode, pins.cathode, point(middle, line));
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
    let end = hangAlong(sketch, plan, cathode, others, after, { from: point(middle, line) });
    if (hasPoint(cathode) && leaks.length === 0) {
      // To the left, under what hangs from the grid's wire: that saves the width.
      sketch.tag(cathode, point(middle, line), boxOf(middle - 0.9 - TAG.width, line + 0.9, middle - 0.9, line + 0.9 + TAG.height));
    } else if (hasPoint(cathode)) {
      const at = point(end, line);
      sketch.tag(cathode, at, boxOf(at.x, line + 0.3, at.x + TAG.width, line + 0.3 + TAG.height));
      sketch.wire(cathode, point(middle, line), at);
      end = at.x + TAG.width;
    }
    if (leadsOn(cathode)) {
      const out = point(Math.max(end, right) + 0.5, line);
      sketch.wire(cathode, point(middle, line), out);
      sketch.port(cathode, "EAST", out);
    }
    if (tubePlan.tail) drawTail(sketch, plan, tubePlan, middle, line + HANG + PART, leaks);
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
function drawTail(sketch: Sketch, plan: Plan, tubePlan: TubePlan, x: number, top: number, leaks: { at: Point; e: Element }[]): void {
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
  const stack = hung.find((e) => e.letter === "R") ?? hung[0];
  let end = x + 1.6;
  if (stack) {
    hang(sketch, plan, tail.node, stack, x, y);
    end += Math.max(labelWidth(labelLines(stack)), sketch.markHalf(stack.nodes.find((n) => isMark(n))!));
  }
  const others = hung.filter((e) => e !== stack);
  end = hangAlong(sketch, plan, tail.node, others, end, { from: point(x, y) });
  if (hasPoint(tail.node)) {
    sketch.tag(tail.node, point(end, y), boxOf(end, y + 0.3, end + TAG.width, y + 0.3 + TAG.height));
    sketch.wire(tail.node, point(x, y), point(end + 0.6, y));
    end += TAG.width + 0.4;
  }
  if (leadsOn(tail.node)) {
    sketch.wire(tail.node, point(x, y), point(end, y));
    sketch.port(tail.node, "EAST", point(end, y));
  }
}
