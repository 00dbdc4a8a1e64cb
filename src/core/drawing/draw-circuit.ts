/** A circuit as a drawing: sections one under the other, each of its cells placed and wired. */

import type { Circuit, Element } from "../circuit/circuit";
import { endsFrom, endsOf, planCells, type Cell, type Plan } from "./cells";
import { drawBox } from "./draw-box";
import { drawHeaters } from "./draw-heaters";
import { drawPair } from "./draw-pair";
import { drawPot } from "./draw-pot";
import { drawRun, fallOf } from "./draw-run";
import { drawTube } from "./draw-tube";
import { around, boxOf, moved, movedBox, point, textWidth, type Drawing, type Section, type Wire } from "./geometry";
import { tidy } from "./nets";
import { placeCells, type LayoutEngine } from "./place";
import { railsOf, type Rail } from "../anatomy/rails";
import { ranksOf } from "./ranks";
import { sectionsOf, type Part } from "./sections";
import { PART, Sketch, type Surroundings } from "./sketch";
import { shapeOf } from "./part-shapes";

/** Between sections, and around the sheet. */
const GAP = 4;
const TITLE = 2.6;

/**
 * Draws a circuit. The result is the same for the same circuit.
 * @param layout places the cells; it may run anywhere.
 * @throws what the layout throws.
 */
export async function drawCircuit(circuit: Circuit, layout: LayoutEngine): Promise<Drawing> {
  const rails = railsOf(circuit);
  const drawn: { title: Pick<Section, "kind" | "title">; sketch: Sketch; wires: Wire[] }[] = [];
  for (const part of sectionsOf(circuit, rails)) drawn.push({ title: part, ...(await drawSection(circuit, part, rails, layout)) });
  const heaters = drawHeaters(circuit);
  if (heaters) drawn.push({ title: heaters.title, sketch: heaters.sketch, wires: [] });

  const drawing: Drawing = { width: 0, height: 0, sections: [], symbols: [], wires: [], junctions: [], marks: [], labels: [], tags: [] };
  for (const { title, sketch, wires, at } of shelve(drawn)) {
    const all = around([sketch.box, ...wires.map((w) => boxOf(w.from.x, w.from.y, w.to.x, w.to.y))]);
    const by = point(at.x - all.x, at.y + TITLE - all.y);
    sketch.move(by);
    const section = [...sketch.wires, ...wires.map((w) => ({ ...w, from: moved(w.from, by), to: moved(w.to, by) }))];
    const plain = tidy(section, sketch.symbols, sketch.marks, sketch.tags);
    drawing.wires.push(...plain.wires);
    drawing.junctions.push(...plain.junctions);
    drawing.symbols.push(...sketch.symbols);
    drawing.marks.push(...sketch.marks);
    drawing.labels.push(...sketch.labels);
    drawing.tags.push(...sketch.tags);
    const box = movedBox(all, by);
    drawing.sections.push({
      ...title,
      box: { ...box, y: box.y - TITLE, height: box.height + TITLE, width: Math.max(box.width, textWidth(title.title)) },
    });
  }
  const whole = around(drawing.sections.map((s) => s.box));
  return { ...drawing, width: whole.x + whole.width + GAP, height: whole.y + whole.height + GAP };
}

/** Sections under each other; the strips of supply, bias and heaters side by side where the widest section leaves room. */
function shelve<T extends { sketch: Sketch; wires: Wire[]; title: Pick<Section, "kind" | "title"> }>(
  drawn: T[],
): (T & { at: { x: number; y: number } })[] {
  const sizeOf = (d: T) => around([d.sketch.box, ...d.wires.map((w) => boxOf(w.from.x, w.from.y, w.to.x, w.to.y))]);
  const widest = Math.max(0, ...drawn.map((d) => sizeOf(d).width));
  const out: (T & { at: { x: number; y: number } })[] = [];
  let [x, y, deep] = [GAP, GAP, 0];
  for (const each of drawn) {
    const size = sizeOf(each);
    const width = Math.max(size.width, textWidth(each.title.title) * 1.2);
    const alone = each.title.kind === "signal";
    if (x > GAP && (alone || x + width > GAP + widest + 0.01)) {
      [x, y, deep] = [GAP, y + deep + GAP, 0];
    }
    out.push({ ...each, at: { x, y } });
    deep = Math.max(deep, size.height + TITLE);
    x += width + GAP;
    if (alone) [x, y, deep] = [GAP, y + deep + GAP, 0];
  }
  return out;
}

async function drawSection(
  circuit: Circuit,
  part: Part,
  rails: Map<string, Rail>,
  layout: LayoutEngine,
): Promise<{ sketch: Sketch; wires: Wire[] }> {
  const ownRails = part.kind === "supply" || part.kind === "bias";
  const isMark = (node: string) => node === "0" || (rails.has(node) && !ownRails);
  const plan = planCells(part.elements, isMark);
  const inputs = circuit.stages.map((s) => s.in).filter((node) => !isMark(node) && part.elements.some((e) => e.nodes.includes(node)));
  const ranks = ranksOf(part.elements, firstInputs(part.elements, inputs), isMark);
  const points = new Set(circuit.points.map((p) => p.node));

  const where = new Map<string, Set<Cell>>();
  for (const cell of plan.cells)
    for (const node of nodesOf(cell, plan)) if (!isMark(node)) where.set(node, (where.get(node) ?? new Set()).add(cell));
  // Two electrodes on one node are joined outside their tube.
  const twice = new Set(part.elements.flatMap((e) => (e.tube ? e.nodes.filter((n, i) => e.nodes.indexOf(n) !== i) : [])));
  const about: Surroundings = {
    isMark,
    rails,
    hasPoint: (node) => points.has(node),
    leadsOn: (node) => (where.get(node)?.size ?? 0) > 1 || twice.has(node),
  };
  const rankOf = (node: string) => ranks.get(node) ?? 0;
  const drawn = plan.cells.map((cell) => {
    const sketch = new Sketch(about);
    drawCell(sketch, plan, cell, rankOf);
    const nodes = [...nodesOf(cell, plan)].filter((n) => !isMark(n));
    return { cell, sketch, box: sketch.box, rank: Math.min(...nodes.map(rankOf), 1e4) };
  });
  const order = [...drawn].sort((a, b) => a.rank - b.rank);
  const wires = await placeCells(order, (node) => plan.home.get(node), layout);
  const whole = new Sketch(about);
  for (const { sketch } of order) whole.take(sketch);
  return { sketch: whole, wires };
}

/** The inputs that no tube drives: where the signal begins. */
function firstInputs(elements: readonly Element[], inputs: readonly string[]): string[] {
  const driven = new Set(elements.flatMap((e) => (e.tube ? [e.nodes[0], e.nodes.at(-1)] : [])));
  const free = inputs.filter(
    (node) => !driven.has(node) && elements.filter((e) => e.nodes.includes(node)).every((e) => e.letter === "R" || e.type === "POT"),
  );
  return free.length > 0 ? free : inputs.slice(0, 1);
}

/** Every node that a cell draws a pin of. */
function nodesOf(cell: Cell, plan: Plan): Set<string> {
  const out = new Set<string>();
  const add = (e: Element | undefined) => e?.nodes.forEach((n) => out.add(n));
  for (const p of cell.kind === "tube" ? [cell.plan] : cell.kind === "pair" ? [cell.upper, cell.lower] : []) {
    for (const e of [p.tube, p.tail?.part, p.load?.part, p.screenRun, ...p.leaks, ...p.screenToCathode, ...(p.run?.parts ?? [])]) add(e);
  }
  if (cell.kind === "run") {
    cell.run.parts.forEach(add);
    cell.run.nodes.forEach((n) => out.add(n));
  }
  if (cell.kind === "box" || cell.kind === "alone") add(cell.element);
  for (const node of [...out]) if (plan.home.get(node) === cell) plan.hangs.get(node)?.forEach(add);
  return out;
}

function drawCell(sketch: Sketch, plan: Plan, cell: Cell, rankOf: (node: string) => number): void {
  const home = (node: string) => plan.home.get(node) === cell;
  if (cell.kind === "tube") drawTube(sketch, plan, cell.plan, home);
  else if (cell.kind === "pair") drawPair(sketch, plan, cell.upper, cell.lower, home);
  else if (cell.kind === "box" && shapeOf(cell.element) === "pot" && cell.element.nodes.length === 3)
    drawPot(sketch, plan, cell.element, home, rankOf);
  else if (cell.kind === "box") drawBox(sketch, plan, cell.element, home);
  else if (cell.kind === "alone") drawAlone(sketch, plan, cell.element);
  else {
    const { nodes, parts } = cell.run;
    const backwards = rankOf(nodes[0]!) > rankOf(nodes.at(-1)!);
    const run = backwards ? { nodes: [...nodes].reverse(), parts: [...parts].reverse() } : { nodes, parts };
    const end = drawRun(sketch, plan, run, 0, 0, home);
    const [first, last] = [run.nodes[0]!, run.nodes.at(-1)!];
    if (sketch.about.leadsOn(first) && (nodes.length > 1 || end > 0)) sketch.port(first, "WEST", point(0, 0));
    if (sketch.about.leadsOn(last) && nodes.length > 1) sketch.port(last, "EAST", point(end, fallOf(plan, run)));
  }
}

/** A part between two marks. */
function drawAlone(sketch: Sketch, plan: Plan, e: Element): void {
  const [a, b] = endsOf(e, plan.layouts.get(e)!);
  const [upper, lower] = a === "0" ? [b, a] : [a, b];
  sketch.two(e, point(0, 0), "down", endsFrom(plan, e, upper), "right");
  sketch.mark(upper, point(0, 0), "up");
  sketch.mark(lower, point(0, PART), "down");
}
