/** Parts with more terminals: transformers, rectifiers, op-amps, controls and switches that stand alone, as boxes with pins on both sides. */

import type { Element } from "../circuit/circuit";
import { electrodesOf } from "../anatomy/points";
import { primaryNodes } from "../circuit/special-parts";
import type { Plan } from "./cells";
import { HANG, hangAlong } from "./draw-run";
import { boxOf, point, type Pin, type Point } from "./geometry";
import { idOf, labelLines, labelWidth } from "./part-labels";
import { PART, Sketch, TAG } from "./sketch";
import { shapeOf } from "./part-shapes";

interface Side {
  terminals: number[];
  texts: string[];
}

/** Which terminals stand on which side, from top to bottom, and what is written at each. */
export function sidesOf(e: Element): { left: Side; right: Side } {
  const all = e.nodes.map((_, i) => i);
  const side = (terminals: number[], texts: string[] = []): Side => ({ terminals, texts });
  if (e.type === "OPT_PP" || e.type === "OPT_SE") {
    const primary = primaryNodes(e.type, e.params);
    const secondary = all.slice(primary);
    // As the windings lie: plates outside, their taps, the centre; the return is the last of the secondary.
    const order = e.type === "OPT_PP" ? (primary === 5 ? [0, 3, 1, 4, 2] : [0, 1, 2]) : primary === 3 ? [0, 2, 1] : [0, 1];
    const [hot, ret, ...more] = secondary as [number, number, ...number[]];
    return { left: side(order), right: side([hot, ...more, ret]) };
  }
  if (e.type === "XFMR") return { left: side([0, 1]), right: side(all.slice(2)) };
  if (e.type === "OPAMP") return { left: side([0, 1], ["+", "−"]), right: side(all.slice(2)) };
  if (e.type?.startsWith("RECT_") || e.type?.startsWith("DOUBLER")) {
    const texts = all.map((i) => ["+", "−", "~", "~"][i] ?? "");
    // The end that is earthed stands below.
    const order = e.nodes[0] === "0" ? [1, 0, ...all.slice(2)] : all;
    return {
      left: side([]),
      right: side(
        order,
        order.map((i) => texts[i]!),
      ),
    };
  }
  if (e.type === "POT") {
    const ends = all.filter((i) => i !== 1);
    return {
      left: side(
        ends,
        ends.map((i) => String(i + 1)),
      ),
      right: side([1], ["wiper"]),
    };
  }
  if (e.type === "SW2") return { left: side([0]), right: side([1, 2], ["1", "2"]) };
  if (e.tube) {
    const names = electrodesOf(e);
    const grid = names.indexOf("grid");
    const rest = all.filter((i) => i !== grid);
    return {
      left: side(all.includes(grid) ? [grid] : [], ["grid"]),
      right: side(
        rest,
        rest.map((i) => names[i] ?? String(i + 1)),
      ),
    };
  }
  const half = Math.ceil(all.length / 2);
  return {
    left: side(
      all.slice(0, half),
      all.slice(0, half).map((i) => String(i + 1)),
    ),
    right: side(
      all.slice(half),
      all.slice(half).map((i) => String(i + 1)),
    ),
  };
}

const HEADROOM = 3.4;

export function drawBox(sketch: Sketch, plan: Plan, e: Element, home: (node: string) => boolean): void {
  const { isMark, hasPoint } = sketch.about;
  const { left, right } = sidesOf(e);
  const drawn = new Set<string>();
  /** Whether what hangs on a terminal's node is drawn at this terminal: at the first that has it. */
  const owns = (node: string, side: "left" | "right"): boolean => {
    if (!home(node) || isMark(node)) return false;
    const first = right.terminals.some((t) => e.nodes[t] === node) ? "right" : "left";
    return first === side && !drawn.has(node);
  };
  // How deep what hangs on each terminal reaches gives the step to the next one.
  const place = (side: Side, which: "left" | "right"): number[] => {
    let y = 0;
    const seen = new Set<string>();
    return side.terminals.map((t) => {
      const node = e.nodes[t]!;
      const hung = owns(node, which) && !seen.has(node) ? (plan.hangs.get(node) ?? []).length : 0;
      const rail = owns(node, which) && sketch.about.rails.has(node);
      if (rail || (owns(node, which) && hasPoint(node))) y += y > 0 ? HEADROOM : 0;
      seen.add(node);
      const at = y;
      const clear = which === "right" && side.terminals.slice(side.terminals.indexOf(t) + 1).every((other) => e.nodes[other] === "0");
      y += hung > 0 && !clear ? HANG + PART + 3.4 : 3;
      return at;
    });
  };
  const [leftY, rightY] = [place(left, "left"), place(right, "right")];
  const height = Math.max(...leftY, ...rightY, 0) + 2;
  const lines = labelLines(e);
  const shape = shapeOf(e);
  const width =
    shape === "transformer" ? 6 : shape === "rectifier" ? 7 : Math.max(6, labelWidth([...left.texts, ...right.texts, ""]) * 2 + 2);
  const pins: Pin[] = [];
  const y0 = -1;
  const pinAt = (terminal: number, at: Point, text?: string) => pins.push({ terminal, at, text });

  left.terminals.forEach((t, i) => {
    const y = leftY[i]!;
    const node = e.nodes[t]!;
    pinAt(t, point(0, y), left.texts[i]);
    if (isMark(node)) {
      sketch.wire(node, point(0, y), point(-0.8, y));
      sketch.mark(node, point(-0.8, y), "left");
      return;
    }
    let x = -1.2;
    if (owns(node, "left")) {
      drawn.add(node);
      x = decorate(sketch, plan, node, x, y, -1);
    }
    sketch.wire(node, point(0, y), point(x, y));
    if (leadsOnFrom(sketch, e, node)) sketch.port(node, "WEST", point(x, y));
  });
  right.terminals.forEach((t, i) => {
    const y = rightY[i]!;
    const node = e.nodes[t]!;
    pinAt(t, point(width, y), right.texts[i]);
    if (isMark(node)) {
      sketch.wire(node, point(width, y), point(width + 1.4, y));
      sketch.mark(node, point(width + 1.4, y), node === "0" ? "down" : "right");
      return;
    }
    let x = width + 1.2;
    if (owns(node, "right")) {
      drawn.add(node);
      // Clear of the ground mark of the terminal beneath.
      x = decorate(sketch, plan, node, x + 2, y, 1);
    }
    sketch.wire(node, point(width, y), point(x, y));
    if (leadsOnFrom(sketch, e, node)) sketch.port(node, "EAST", point(x, y));
  });
  sketch.symbols.push({ part: idOf(e), shape, at: point(0, y0), direction: "down", pins, box: boxOf(0, y0, width, y0 + height) });
  const labelX = Math.max(0, (width - labelWidth(lines)) / 2);
  const below = y0 + height + 0.3;
  sketch.label(e, lines, boxOf(labelX, below, labelX + labelWidth(lines), below + lines.length * 1.4), "middle");
}

/** A node leads out of a box where another cell has it, or where the box itself has it twice. */
function leadsOnFrom(sketch: Sketch, e: Element, node: string): boolean {
  return sketch.about.leadsOn(node) || e.nodes.filter((n) => n === node).length > 1;
}

/** Rail mark, volts and hanging parts of a node along a terminal's wire, away from the box; returns where the wire ends. */
export function decorate(sketch: Sketch, plan: Plan, node: string, x: number, y: number, sign: 1 | -1): number {
  const { rails, hasPoint } = sketch.about;
  const along = new Sketch(sketch.about);
  let above = 0;
  if (rails.has(node)) {
    const half = sketch.markHalf(node);
    along.mark(node, point(half, y), "up");
    above += 2 * half + 0.3;
  }
  if (hasPoint(node)) {
    along.tag(node, point(above, y), boxOf(above, y - 0.3 - TAG.height, above + TAG.width, y - 0.3));
    above += TAG.width + 0.3;
  }
  const below = hangAlong(along, plan, node, plan.hangs.get(node) ?? [], 0, { from: point(0, y) });
  const length = Math.max(above, below);
  along.move(point(sign > 0 ? x : x - length, 0));
  sketch.take(along);
  return x + sign * length;
}
