/**
 * What a drawing is made of: placed symbols, wires, junctions, marks of rails and ground, labels and places for volts.
 * One unit is a tenth of an inch on a sheet of the usual size; x grows to the right, y downwards.
 */

export interface Point {
  x: number;
  y: number;
}

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

export type Direction = "up" | "down" | "left" | "right";

export const STEP: Record<Direction, Point> = {
  up: { x: 0, y: -1 },
  down: { x: 0, y: 1 },
  left: { x: -1, y: 0 },
  right: { x: 1, y: 0 },
};

export type Shape =
  | "resistor"
  | "capacitor"
  | "electrolytic"
  | "choke"
  | "diode"
  | "zener"
  | "switch"
  | "source"
  | "current"
  | "pot"
  | "rheostat"
  | "triode"
  | "pentode"
  | "transformer"
  | "rectifier"
  | "opamp"
  | "box"
  | "coupling"
  | "winding"
  | "heater"
  | "ballast";

/** A terminal of a part: which of its element's nodes it is, and where. */
export interface Pin {
  terminal: number;
  at: Point;
  /** What is written beside it: a socket pin's number, a winding's end. */
  text?: string;
}

export interface Symbol {
  /** The part's name as the file writes it, unique in a circuit: "R7", "XV1A". */
  part: string;
  shape: Shape;
  /** Where the symbol's own origin lies: the first pin of a part with two, the middle of a tube, the corner of a box. */
  at: Point;
  /** From the first pin to the second; tubes and boxes stand upright ("down"). */
  direction: Direction;
  /** A tube upside down; a pot with its wiper to the left. */
  flipped?: boolean;
  pins: Pin[];
  /** All that its lines cover, labels left out. */
  box: Box;
}

/** One straight piece of wire. Pieces join where they share an end, or at a junction. */
export interface Wire {
  node: string;
  from: Point;
  to: Point;
}

export interface Junction {
  node: string;
  at: Point;
}

/** Ground, a rail or an input, drawn where it is used; equal names are one node. */
export interface Mark {
  kind: "ground" | "rail" | "bias" | "input";
  node: string;
  text: string;
  at: Point;
  direction: Direction;
  box: Box;
}

export interface Label {
  part: string;
  /** Name first, then value or type. */
  lines: string[];
  box: Box;
  /** Which side of the box the text begins at. */
  align: "start" | "middle" | "end";
}

/** Room kept for the volts of a node with a test point, beside its wire. */
export interface Tag {
  node: string;
  /** On the wire. */
  at: Point;
  box: Box;
}

/** A part of the sheet with a title: the signal of a channel, the supply, the bias, the heaters. */
export interface Section {
  kind: "signal" | "supply" | "bias" | "other" | "heaters";
  title: string;
  box: Box;
}

export interface Drawing {
  width: number;
  height: number;
  sections: Section[];
  symbols: Symbol[];
  wires: Wire[];
  junctions: Junction[];
  marks: Mark[];
  labels: Label[];
  tags: Tag[];
}

/** The line between a mark and what it hangs on. */
export const STUB = 0.8;

/** The flag around a mark's name: its box without the line to it. */
export function markFlag({ box, direction }: Mark): Box {
  const { x, y } = STEP[direction];
  return {
    x: box.x + Math.max(0, x) * STUB,
    y: box.y + Math.max(0, y) * STUB,
    width: box.width - Math.abs(x) * STUB,
    height: box.height - Math.abs(y) * STUB,
  };
}

export const TEXT_HEIGHT = 1.4;
const CHARACTER = 0.62 * TEXT_HEIGHT;

/** Width of a text in units, as wide as the widest usual type makes it. */
export const textWidth = (text: string): number => text.length * CHARACTER;

export const point = (x: number, y: number): Point => ({ x, y });

/** From x to x2, from y to y2, in either order. */
export function boxOf(x: number, y: number, x2: number, y2: number): Box {
  return { x: Math.min(x, x2), y: Math.min(y, y2), width: Math.abs(x2 - x), height: Math.abs(y2 - y) };
}

export const moved = (p: Point, by: Point): Point => ({ x: p.x + by.x, y: p.y + by.y });
export const movedBox = (b: Box, by: Point): Box => ({ ...b, x: b.x + by.x, y: b.y + by.y });

/** The smallest box around all of them; an empty one at the origin for none. */
export function around(boxes: readonly Box[]): Box {
  if (boxes.length === 0) return { x: 0, y: 0, width: 0, height: 0 };
  return boxOf(
    Math.min(...boxes.map((b) => b.x)),
    Math.min(...boxes.map((b) => b.y)),
    Math.max(...boxes.map((b) => b.x + b.width)),
    Math.max(...boxes.map((b) => b.y + b.height)),
  );
}

/** True where the insides of two boxes meet; boxes that only touch do not. */
export function overlap(a: Box, b: Box): boolean {
  const SLACK = 1e-6;
  return a.x + a.width > b.x + SLACK && b.x + b.width > a.x + SLACK && a.y + a.height > b.y + SLACK && b.y + b.height > a.y + SLACK;
}
