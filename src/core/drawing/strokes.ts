/**
 * The lines of each symbol as path data (the `d` of SVG 1.1, which PDF takes as well), in the drawing's own units and places.
 * Two schools: boxes for resistors and hollow plates (IEC 60617), zigzags and curved plates (as in North American sheets).
 */

import type { Circuit } from "../circuit/circuit";
import { markFlag, STUB, type Box, type Mark, type Point, type Symbol } from "./geometry";
import { idOf } from "./part-labels";

export type School = "boxes" | "zigzags";

export interface Stroke {
  d: string;
  /** True for what is filled and not only outlined. */
  filled?: boolean;
  dashed?: boolean;
}

const number = (value: number) => String(Math.round(value * 1000) / 1000);

/** Turns the symbol's own points, drawn downwards from its first pin, to where it lies. */
function turner(symbol: Symbol): (x: number, y: number) => string {
  const { at, direction, flipped } = symbol;
  return (x, y) => {
    const [sx, sy] = flipped && (symbol.shape === "triode" || symbol.shape === "pentode") ? [x, -y] : flipped ? [-x, y] : [x, y];
    const turned: Point =
      direction === "down"
        ? { x: sx, y: sy }
        : direction === "up"
          ? { x: -sx, y: -sy }
          : direction === "right"
            ? { x: sy, y: -sx }
            : { x: -sy, y: sx };
    return `${number(at.x + turned.x)} ${number(at.y + turned.y)}`;
  };
}

type Turn = (x: number, y: number) => string;

const line = (t: Turn, ...points: [number, number][]): string => points.map(([x, y], i) => `${i ? "L" : "M"}${t(x, y)}`).join("");
const closed = (t: Turn, ...points: [number, number][]): string => `${line(t, ...points)}Z`;
const circle = (t: Turn, x: number, y: number, r: number): string =>
  `M${t(x - r, y)}A${number(r)} ${number(r)} 0 1 0 ${t(x + r, y)}A${number(r)} ${number(r)} 0 1 0 ${t(x - r, y)}`;

/** Half turns of a coil along the upright, bulging to one side. */
function coil(t: Turn, x: number, from: number, to: number, bulge: number): string {
  const turns = Math.max(2, Math.round(Math.abs(to - from) / 0.75));
  const step = (to - from) / turns;
  let d = `M${t(x, from)}`;
  for (let i = 0; i < turns; i++) {
    const y = from + i * step;
    d += `C${t(x + bulge, y)} ${t(x + bulge, y + step)} ${t(x, y + step)}`;
  }
  return d;
}

function resistor(t: Turn, school: School): Stroke[] {
  if (school === "boxes")
    return [
      { d: line(t, [0, 0], [0, 0.6]) + line(t, [0, 3.4], [0, 4]) },
      { d: closed(t, [-0.55, 0.6], [0.55, 0.6], [0.55, 3.4], [-0.55, 3.4]) },
    ];
  const peaks = Array.from({ length: 6 }, (_, i): [number, number] => [i % 2 === 0 ? 0.6 : -0.6, 0.85 + i * 0.46]);
  return [{ d: line(t, [0, 0], [0, 0.62], ...peaks, [0, 3.38], [0, 4]) }];
}

function electrolytic(t: Turn, school: School): Stroke[] {
  const plus = line(t, [0.5, 0.9], [1.0, 0.9].map((v) => v) as [number, number]) + line(t, [0.75, 0.65], [0.75, 1.15]);
  const leads = line(t, [0, 0], [0, 1.5]) + line(t, [0, 2.4], [0, 4]);
  if (school === "boxes")
    return [
      { d: leads },
      { d: closed(t, [-0.85, 1.5], [0.85, 1.5], [0.85, 1.85], [-0.85, 1.85]) },
      { d: closed(t, [-0.85, 2.1], [0.85, 2.1], [0.85, 2.4], [-0.85, 2.4]), filled: true },
      { d: plus },
    ];
  return [
    { d: line(t, [0, 0], [0, 1.7]) + line(t, [0, 2.15], [0, 4]) },
    { d: line(t, [-0.85, 1.7], [0.85, 1.7]) },
    { d: `M${t(-0.85, 2.5)}C${t(-0.4, 2.05)} ${t(0.4, 2.05)} ${t(0.85, 2.5)}` },
    { d: plus },
  ];
}

function tube(t: Turn, symbol: Symbol): Stroke[] {
  const pentode = symbol.shape === "pentode";
  const out: Stroke[] = [
    { d: circle(t, 0, 0, 3) },
    { d: line(t, [0, -4], [0, -2]) + line(t, [-1.4, -2], [1.4, -2]) },
    { d: line(t, [-4, 0], [-1.8, 0]) },
    { d: line(t, [-1.8, 0], [1.7, 0]), dashed: true },
    { d: line(t, [0, 4], [0, 1.6]) + line(t, [-1.4, 2.1], [-1.4, 1.6], [1.4, 1.6], [1.4, 2.1]) },
  ];
  if (pentode) out.push({ d: line(t, [1.8, -1], [4, -1]) }, { d: line(t, [-1.7, -1], [1.8, -1]), dashed: true });
  return out;
}

function transformer(symbol: Symbol): Stroke[] {
  const t: Turn = (x, y) => `${number(x)} ${number(y)}`;
  const { box, pins } = symbol;
  const middle = box.x + box.width / 2;
  const out: Stroke[] = [];
  const [top, bottom] = [box.y + 0.4, box.y + box.height - 0.4];
  out.push({ d: line(t, [middle - 0.25, top], [middle - 0.25, bottom]) + line(t, [middle + 0.25, top], [middle + 0.25, bottom]) });
  for (const left of [true, false]) {
    const edge = left ? box.x : box.x + box.width;
    const here = pins.filter((p) => Math.abs(p.at.x - edge) < 1e-6).sort((a, b) => a.at.y - b.at.y);
    const x = left ? middle - 1.3 : middle + 1.3;
    const [first, last] = [here[0], here.at(-1)];
    if (!first || !last) continue;
    const end = last.at.y === first.at.y ? first.at.y + 2 : last.at.y;
    out.push({ d: coil(t, x, first.at.y, end, left ? 0.95 : -0.95) });
    for (const pin of here) out.push({ d: line(t, [edge, pin.at.y], [x, pin.at.y]) });
  }
  return out;
}

function rectifier(symbol: Symbol, tubed: boolean, both: boolean): Stroke[] {
  const t: Turn = (x, y) => `${number(symbol.box.x + x)} ${number(symbol.box.y + y)}`;
  const height = symbol.box.height;
  const middle = height / 2;
  const out: Stroke[] = [{ d: closed(t, [0, 0], [7, 0], [7, height], [0, height]) }];
  // The winding on the left.
  out.push({ d: coil(t, 1, middle - 1.5, middle + 1.5, 0.8) });
  if (tubed) {
    out.push({ d: circle(t, 4.4, middle, 1.6) }, { d: line(t, [3.6, middle + 0.7], [5.2, middle + 0.7]) });
    out.push({
      d: both
        ? line(t, [3.5, middle - 0.6], [4.2, middle - 0.6]) + line(t, [4.6, middle - 0.6], [5.3, middle - 0.6])
        : line(t, [3.7, middle - 0.6], [5.1, middle - 0.6]),
    });
  } else
    out.push(
      { d: closed(t, [3.4, middle - 0.9], [3.4, middle + 0.9], [5, middle]), filled: true },
      { d: line(t, [5, middle - 0.9], [5, middle + 0.9]) },
    );
  return out;
}

const diode = (t: Turn): Stroke[] => [
  { d: line(t, [0, 0], [0, 1.3]) + line(t, [0, 2.7], [0, 4]) },
  { d: closed(t, [-0.8, 1.3], [0.8, 1.3], [0, 2.7]), filled: true },
  { d: line(t, [-0.8, 2.7], [0.8, 2.7]) },
];

/** The lines of a symbol, at its place. */
export function strokesOf(symbol: Symbol, circuit: Circuit, school: School): Stroke[] {
  const t = turner(symbol);
  const e = circuit.elements.find((each) => idOf(each) === symbol.part);
  switch (symbol.shape) {
    case "resistor":
    case "ballast":
      return resistor(t, school);
    case "capacitor":
      return [
        { d: line(t, [0, 0], [0, 1.75]) + line(t, [0, 2.25], [0, 4]) },
        { d: line(t, [-0.85, 1.75], [0.85, 1.75]) + line(t, [-0.85, 2.25], [0.85, 2.25]) },
      ];
    case "electrolytic":
      return electrolytic(t, school);
    case "choke":
      return [
        { d: line(t, [0, 0], [0, 0.5]) + coil(t, 0, 0.5, 3.5, 0.8) + line(t, [0, 3.5], [0, 4]) },
        ...((e?.value ?? 1) >= 0.01 ? [{ d: line(t, [-0.35, 0.6], [-0.35, 3.4]) + line(t, [-0.65, 0.6], [-0.65, 3.4]) }] : []),
      ];
    case "winding":
      return [{ d: line(t, [0, 0], [0, 0.5]) + coil(t, 0, 0.5, 3.5, 0.8) + line(t, [0, 3.5], [0, 4]) }];
    case "heater":
      return [{ d: line(t, [0, 0], [0, 1], [-0.5, 1.3], [0, 1.9], [-0.5, 2.3], [0, 3], [0, 4]) }, { d: circle(t, 0, 2, 0.85) }];
    case "diode":
      return diode(t);
    case "zener":
      // Its first terminal is the anode.
      return [...diode(t), { d: line(t, [-0.8, 2.7], [-0.8, 3.1]) + line(t, [0.8, 2.7], [0.8, 2.3]) }];
    case "switch": {
      const open = e?.params.state === "open";
      return [
        { d: line(t, [0, 0], [0, 0.9]) + line(t, [0, 3.1], [0, 4]) },
        { d: circle(t, 0, 1, 0.18) + circle(t, 0, 3, 0.18), filled: true },
        { d: line(t, [0, 3], open ? [0.8, 1.2] : [0.12, 1]) },
      ];
    }
    case "source":
      return [
        { d: line(t, [0, 0], [0, 1.1]) + line(t, [0, 2.9], [0, 4]) },
        { d: circle(t, 0, 2, 0.9) },
        { d: line(t, [0, 1.3], [0, 1.9]) + line(t, [-0.3, 1.6], [0.3, 1.6]) },
      ];
    case "current":
      return [
        { d: line(t, [0, 0], [0, 1.1]) + line(t, [0, 2.9], [0, 4]) },
        { d: circle(t, 0, 2, 0.9) },
        { d: line(t, [0, 1.4], [0, 2.6]) + line(t, [-0.3, 2.2], [0, 2.6], [0.3, 2.2]) },
      ];
    case "pot":
      return symbol.pins.length === 3 && symbol.box.width < 4
        ? [...resistor(t, school), { d: line(t, [2.4, 2], [0.6, 2]) }, { d: closed(t, [0.6, 2], [1.25, 1.65], [1.25, 2.35]), filled: true }]
        : boxed(symbol);
    case "rheostat":
      return [
        ...resistor(t, school),
        { d: line(t, [-1.3, 3], [1.2, 1]) },
        { d: closed(t, [1.3, 0.9], [0.65, 1.05], [1.05, 1.5]), filled: true },
      ];
    case "triode":
    case "pentode":
      return tube(t, symbol);
    case "transformer":
      return transformer(symbol);
    case "rectifier":
      return rectifier(symbol, e?.rectifierTube !== undefined, e?.type !== "RECT_HALF");
    default:
      return boxed(symbol);
  }
}

const boxed = ({ box }: Symbol): Stroke[] => [{ d: outline(box) }];

/** A box as a closed path. */
export function outline(box: Box): string {
  const t: Turn = (x, y) => `${number(box.x + x)} ${number(box.y + y)}`;
  return closed(t, [0, 0], [box.width, 0], [box.width, box.height], [0, box.height]);
}

/** The lines of a mark: chassis, or the flag around a rail's name. */
export function markStrokes(mark: Mark): Stroke[] {
  const { at, direction, box } = mark;
  const t = turner({ part: "", shape: "box", at, direction, pins: [], box });
  if (mark.kind === "ground")
    return [
      {
        d:
          line(t, [0, 0], [0, 0.35]) +
          line(t, [-0.9, 0.35], [0.9, 0.35]) +
          line(t, [-0.6, 0.75], [0.6, 0.75]) +
          line(t, [-0.25, 1.1], [0.25, 1.1]),
      },
    ];
  const flag = markFlag(mark);
  return [{ d: line(t, [0, 0], [0, STUB]) }, { d: outline(flag) }];
}
