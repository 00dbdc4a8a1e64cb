/** The stages where the fault was, for the owner's report: a piece of the drawing with what was read before, and the same after. */

import { fileName, type Circuit } from "../circuit/circuit";
import { overlap, type Box, type Drawing, type Symbol } from "../drawing/geometry";
import { lineworkOf, type NodeLines } from "../drawing/linework";
import { outline, type School, type Stroke } from "../drawing/strokes";
import * as texts from "../texts/job";
import type { BeforeAfter } from "./before-after";
import type { Report } from "./report";
import type { Block } from "./block";

/** A stage with what stands around it, in the drawing's units. */
const STAGE = { width: 56, height: 40 };
/** A part belongs to the tube that it is nearer to than this. */
const NEAR = 22;
/** A report is to be read by its owner: no more of them than this. */
const MOST = 2;

/**
 * A stage is shown where a part in it was changed and a point in it that was not in its band is in it now. None where nothing of the kind
 * was read.
 */
export function reportStages(report: Pick<Report, "parts" | "beforeAfter">, circuit: Circuit, drawing: Drawing, school: School): Block[] {
  const out: Block[] = [];
  const taken: Box[] = [];
  for (const { position } of report.parts) {
    if (taken.length === MOST) break;
    const e = circuit.elements.find((each) => each.name === position.toUpperCase());
    const symbol = e && drawing.symbols.find((s) => s.part === fileName(e));
    if (!symbol) continue;
    const view = around(tubeBeside(symbol, drawing)?.box ?? symbol.box, drawing);
    if (taken.some((box) => overlap(box, symbol.box))) continue;
    const inIt = report.beforeAfter.filter((b) => drawing.tags.some((t) => t.node === nodeOf(circuit, b) && within(t.box, view)));
    if (!inIt.some((b) => b.before.verdict !== "in" && b.before.verdict !== "none" && b.after?.verdict === "in")) continue;
    taken.push(view);
    const lines = (of: (b: BeforeAfter) => string | undefined): NodeLines =>
      Object.fromEntries(inIt.map((b) => [nodeOf(circuit, b), [of(b)].filter((text) => text !== undefined)]));
    const stage = (caption: string, of: (b: BeforeAfter) => string | undefined): Block => {
      const { strokes, ...rest } = lineworkOf(drawing, circuit, school, lines(of), view);
      return { block: "drawing", caption, ...rest, strokes: [...strokes, frame(symbol.box)] };
    };
    out.push(
      stage(texts.stageBefore(position), (b) => b.before.text),
      stage(texts.stageAfter(position), (b) => b.after?.text),
    );
  }
  return out.length > 0 ? [{ block: "heading", text: texts.whereTheFaultWas() }, ...out] : [];
}

const nodeOf = (circuit: Circuit, b: BeforeAfter): string => circuit.points.find((p) => p.name === b.point)?.node ?? "";

/** The tube whose stage a part is in. */
function tubeBeside(symbol: Symbol, { symbols }: Drawing): Symbol | undefined {
  const middle = (s: Symbol) => ({ x: s.box.x + s.box.width / 2, y: s.box.y + s.box.height / 2 });
  const at = middle(symbol);
  const away = (s: Symbol) => Math.hypot(middle(s).x - at.x, middle(s).y - at.y);
  const tubes = symbols.filter((s) => (s.shape === "triode" || s.shape === "pentode") && away(s) < NEAR);
  return tubes.sort((a, b) => away(a) - away(b))[0];
}

/** A dashed frame around the part that was changed. */
function frame({ x, y, width, height }: Box): Stroke {
  const by = 0.1;
  return { d: outline({ x: x - by, y: y - by, width: width + 2 * by, height: height + 2 * by }), dashed: true };
}

/** The part in the middle, as far as the sheet goes. */
function around({ x, y, width, height }: Box, sheet: { width: number; height: number }): Box {
  const clamp = (middle: number, size: number, most: number) => Math.max(0, Math.min(most - size, middle - size / 2));
  return { x: clamp(x + width / 2, STAGE.width, sheet.width), y: clamp(y + height / 2, STAGE.height, sheet.height), ...STAGE };
}

const within = (inner: Box, outer: Box): boolean =>
  inner.x >= outer.x &&
  inner.y >= outer.y &&
  inner.x + inner.width <= outer.x + outer.width &&
  inner.y + inner.height <= outer.y + outer.height;
