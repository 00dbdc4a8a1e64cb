/** The stages where the fault was, for the owner's report: a piece of the drawing with what was read before, and the same after. */

import { fileName, type Circuit } from "../circuit/circuit";
import { overlap, type Box, type Drawing } from "../drawing/geometry";
import { lineworkOf, type NodeLines } from "../drawing/linework";
import type { School } from "../drawing/strokes";
import * as texts from "../texts/job";
import type { BeforeAfter, Report } from "./report";
import type { Block } from "./report-blocks";

/** A stage with what stands around it, in the drawing's units. */
const STAGE = { width: 52, height: 30 };
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
    const view = around(symbol.box, drawing);
    if (taken.some((box) => overlap(box, symbol.box))) continue;
    const inIt = report.beforeAfter.filter((b) => drawing.tags.some((t) => t.node === nodeOf(circuit, b) && within(t.box, view)));
    if (!inIt.some((b) => b.before.verdict !== "in" && b.before.verdict !== "none" && b.after?.verdict === "in")) continue;
    taken.push(view);
    const lines = (of: (b: BeforeAfter) => string | undefined): NodeLines =>
      Object.fromEntries(inIt.map((b) => [nodeOf(circuit, b), [of(b)].filter((text) => text !== undefined)]));
    out.push(
      { block: "drawing", caption: texts.stageBefore(position), ...lineworkOf(drawing, circuit, school, lines((b) => b.before.text), view) },
      { block: "drawing", caption: texts.stageAfter(position), ...lineworkOf(drawing, circuit, school, lines((b) => b.after?.text), view) },
    );
  }
  return out.length > 0 ? [{ block: "heading", text: texts.whereTheFaultWas() }, ...out] : [];
}

const nodeOf = (circuit: Circuit, b: BeforeAfter): string => circuit.points.find((p) => p.name === b.point)?.node ?? "";

/** The part in the middle, as far as the sheet goes. */
function around({ x, y, width, height }: Box, sheet: { width: number; height: number }): Box {
  const clamp = (middle: number, size: number, most: number) => Math.max(0, Math.min(most - size, middle - size / 2));
  return { x: clamp(x + width / 2, STAGE.width, sheet.width), y: clamp(y + height / 2, STAGE.height, sheet.height), ...STAGE };
}

const within = (inner: Box, outer: Box): boolean =>
  inner.x >= outer.x && inner.y >= outer.y && inner.x + inner.width <= outer.x + outer.width && inner.y + inner.height <= outer.y + outer.height;
