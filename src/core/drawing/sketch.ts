/** A cell while it is being drawn: symbols, wires, marks and labels at their places in it, and the ports where its nodes lead out. */

import type { Element } from "../circuit/circuit";
import { electrodesOf } from "../anatomy/points";
import { pinsOf } from "../anatomy/sockets";
import type { Rail } from "../anatomy/rails";
import {
  around,
  boxOf,
  moved,
  movedBox,
  point,
  STEP,
  STUB,
  TEXT_HEIGHT,
  textWidth,
  type Box,
  type Direction,
  type Label,
  type Mark,
  type Pin,
  type Point,
  type Symbol,
  type Tag,
  type Wire,
} from "./geometry";
import { idOf, labelLines, labelWidth, cut } from "./part-labels";
import { shapeOf } from "./part-shapes";

/** Length of a part with two terminals, from pin to pin. */
export const PART = 4;
/** Half its width. */
const HALF = 0.9;
/** Room for the volts of a node: two lines. */
export const TAG = { width: 8.2, height: 3.2 };
const GROUND = { width: 2, height: 1.2 };

export interface Port {
  node: string;
  side: "WEST" | "EAST";
  /** Where its wire leaves the inside of the cell; the edge of the cell lies beyond. */
  at: Point;
}

/** What a cell needs to know of the whole: which nodes are marks and how they are written, which have a test point. */
export interface Surroundings {
  isMark: (node: string) => boolean;
  rails: Map<string, Rail>;
  hasPoint: (node: string) => boolean;
  /** Nodes that other cells have as well. */
  leadsOn: (node: string) => boolean;
}

export class Sketch {
  symbols: Symbol[] = [];
  wires: Wire[] = [];
  marks: Mark[] = [];
  labels: Label[] = [];
  tags: Tag[] = [];
  ports: Port[] = [];

  constructor(readonly about: Surroundings) {}

  /** A wire through these points, each level or upright to the one before. Pieces of no length are left out. */
  wire(node: string, ...points: Point[]): void {
    for (let i = 1; i < points.length; i++) {
      const [from, to] = [points[i - 1]!, points[i]!];
      if (from.x !== to.x || from.y !== to.y) this.wires.push({ node, from, to });
    }
  }

  /**
   * A part with two terminals from `at` in a direction; its first terminals lie at `at`.
   * @param ends the terminals at either end, as its layout has them, turned round where the part is drawn the other way.
   */
  two(e: Element, at: Point, direction: Direction, ends: [number[], number[]], label: "right" | "left" | "above"): void {
    const step = STEP[direction];
    const end = point(at.x + PART * step.x, at.y + PART * step.y);
    const level = step.y === 0;
    const shape = shapeOf(e);
    // A rheostat's arrow and its tied wiper take more room.
    const half = shape === "rheostat" ? HALF + 0.7 : HALF;
    const box = level ? boxOf(at.x, at.y - half, end.x, at.y + half) : boxOf(at.x - half, at.y, at.x + half, end.y);
    // The symbol is painted from its element's first terminal, so that a diode or an electrolytic points the right way.
    const turned = Math.min(...ends[0]) > Math.min(...ends[1]);
    const opposite = ({ up: "down", down: "up", left: "right", right: "left" } as const)[direction];
    this.symbols.push({
      part: idOf(e),
      shape,
      at: turned ? end : at,
      direction: turned ? opposite : direction,
      pins: [...ends[0].map((terminal) => ({ terminal, at })), ...ends[1].map((terminal) => ({ terminal, at: end }))],
      box,
    });
    const lines = labelLines(e);
    const [width, height] = [labelWidth(lines), lines.length * TEXT_HEIGHT];
    const middle = point((at.x + end.x) / 2, (at.y + end.y) / 2);
    if (label === "above")
      this.label(e, lines, boxOf(middle.x - width / 2, middle.y - half - height, middle.x + width / 2, middle.y - half), "middle");
    else if (label === "right")
      this.label(
        e,
        lines,
        boxOf(middle.x + half + 0.2, middle.y - height / 2, middle.x + half + 0.2 + width, middle.y + height / 2),
        "start",
      );
    else
      this.label(
        e,
        lines,
        boxOf(middle.x - half - 0.2 - width, middle.y - height / 2, middle.x - half - 0.2, middle.y + height / 2),
        "end",
      );
  }

  label(e: Element, lines: string[], box: Box, align: Label["align"]): void {
    this.labels.push({ part: idOf(e), lines, box, align });
  }

  /** A mark at a point that belongs to a node: ground, or its rail. */
  mark(node: string, at: Point, direction: Direction): void {
    const step = STEP[direction];
    if (node === "0") {
      const tip = point(at.x + GROUND.height * step.x, at.y + GROUND.height * step.y);
      const box =
        step.x === 0
          ? boxOf(at.x - GROUND.width / 2, at.y, at.x + GROUND.width / 2, tip.y)
          : boxOf(at.x, at.y - GROUND.width / 2, tip.x, at.y + GROUND.width / 2);
      this.marks.push({ kind: "ground", node, text: "", at, direction, box });
      return;
    }
    const rail = this.about.rails.get(node);
    this.flag(rail?.kind ?? "input", node, cut(rail?.text ?? node.toUpperCase()), at, direction);
  }

  flag(kind: Mark["kind"], node: string, text: string, at: Point, direction: Direction): void {
    const step = STEP[direction];
    const [width, height] = [textWidth(text) + 0.6, TEXT_HEIGHT + 0.4];
    const tip = point(at.x + STUB * step.x, at.y + STUB * step.y);
    const box =
      step.x === 0
        ? boxOf(at.x - width / 2, at.y, at.x + width / 2, tip.y + height * step.y)
        : boxOf(at.x, at.y - height / 2, tip.x + width * step.x, at.y + height / 2);
    this.marks.push({ kind, node, text, at, direction, box });
  }

  /** Half the width of a node's mark when it points up or down. */
  markHalf(node: string): number {
    if (node === "0") return GROUND.width / 2;
    return (textWidth(cut(this.about.rails.get(node)?.text ?? node)) + 0.6) / 2;
  }

  tag(node: string, at: Point, box: Box): void {
    this.tags.push({ node, at, box });
  }

  port(node: string, side: Port["side"], at: Point): void {
    this.ports.push({ node, side, at });
  }

  tube(e: Element, at: Point, flipped: boolean): { plate: Point; grid: Point; cathode: Point; screen?: Point } {
    const sign = flipped ? -1 : 1;
    const plate = point(at.x, at.y - TUBE.reach * sign);
    const cathode = point(at.x, at.y + TUBE.reach * sign);
    const grid = point(at.x - TUBE.reach, at.y);
    const screen = e.tube!.kind === "pentode" ? point(at.x + TUBE.reach, at.y - TUBE.screen * sign) : undefined;
    const order: Point[] = screen ? [plate, screen, grid, cathode] : [plate, grid, cathode];
    const names = electrodesOf(e);
    const socket = pinsOf(e);
    const pins: Pin[] = order.map((place, terminal) => ({ terminal, at: place, text: socket[names[terminal]!]?.toString() }));
    this.symbols.push({
      part: idOf(e),
      shape: screen ? "pentode" : "triode",
      at,
      direction: "down",
      flipped,
      pins,
      box: boxOf(at.x - TUBE.reach, at.y - TUBE.reach, at.x + TUBE.reach, at.y + TUBE.reach),
    });
    const lines = labelLines(e);
    const left = at.x + TUBE.reach + 0.2;
    const [y1, y2] = [at.y + 0.4 * sign, at.y + (0.4 + lines.length * TEXT_HEIGHT) * sign];
    this.label(e, lines, boxOf(left, y1, left + labelWidth(lines), y2), "start");
    return { plate, grid, cathode, screen };
  }

  /** All that is drawn, ports left out. */
  get box(): Box {
    const wires = this.wires.map((w) => boxOf(w.from.x, w.from.y, w.to.x, w.to.y));
    return around([this.symbols, this.marks, this.labels, this.tags].flatMap((list) => list.map((each) => each.box)).concat(wires));
  }

  /** Adds all that another sketch has drawn. */
  take(other: Sketch): void {
    this.symbols.push(...other.symbols);
    this.wires.push(...other.wires);
    this.marks.push(...other.marks);
    this.labels.push(...other.labels);
    this.tags.push(...other.tags);
    this.ports.push(...other.ports);
  }

  /** Everything moved, in place. */
  move(by: Point): void {
    const pins = (list: Pin[]) => list.map((p) => ({ ...p, at: moved(p.at, by) }));
    this.symbols = this.symbols.map((s) => ({ ...s, at: moved(s.at, by), box: movedBox(s.box, by), pins: pins(s.pins) }));
    this.wires = this.wires.map((w) => ({ ...w, from: moved(w.from, by), to: moved(w.to, by) }));
    this.marks = this.marks.map((m) => ({ ...m, at: moved(m.at, by), box: movedBox(m.box, by) }));
    this.labels = this.labels.map((l) => ({ ...l, box: movedBox(l.box, by) }));
    this.tags = this.tags.map((t) => ({ ...t, at: moved(t.at, by), box: movedBox(t.box, by) }));
    this.ports = this.ports.map((p) => ({ ...p, at: moved(p.at, by) }));
  }
}

/** From the middle of a tube to its pins; how far above the middle the screen's lies, how far below it the wire of the cathode. */
export const TUBE = { reach: 4, screen: 1, cathodeLine: 7 };
