/**
 * Puts the parts of a section together as the trade sees them: a tube with its grid's line, its load and what stands under its cathode;
 * two tubes on one tail; runs of parts in line; boxes. Every part is in exactly one cell, every node at home in exactly one.
 */

import type { Element } from "../circuit/circuit";
import { electrodeNode } from "../anatomy/points";
import { layoutOf, type Layout } from "./part-shapes";

/** Parts in line, left to right: `parts[i]` lies between `nodes[i]` and `nodes[i + 1]`. */
export interface Run {
  nodes: string[];
  parts: Element[];
}

export interface TubePlan {
  tube: Element;
  /** What leads to the grid; ends with the grid's node. Undefined where the grid's node is at home elsewhere, or is a mark. */
  run?: Run;
  /** The part from the cathode to a joint that a grid's leak returns to, and the joint. */
  tail?: { part: Element; node: string };
  /** From the grid to the tail's joint. */
  leaks: Element[];
  /** From the plate upwards to a joint that is fed from a rail. */
  load?: { part: Element; node: string };
  /** Capacitors from screen to cathode. */
  screenToCathode: Element[];
  /** A part in line from the screen to a node of another cell. */
  screenRun?: Element;
}

export type Cell =
  | { kind: "tube"; plan: TubePlan }
  | { kind: "pair"; upper: TubePlan; lower: TubePlan }
  | { kind: "run"; run: Run }
  | { kind: "box"; element: Element }
  | { kind: "alone"; element: Element };

export interface Plan {
  cells: Cell[];
  /** The cell that draws what hangs on a node. */
  home: Map<string, Cell>;
  /** Parts from a node to a mark, drawn at the node's home. */
  hangs: Map<string, Element[]>;
  layouts: Map<Element, Layout>;
  isMark: (node: string) => boolean;
}

/** A run of more parts than this would make one cell as wide as a sheet. */
const LONGEST_RUN = 5;

const at = (e: Element, electrode: "plate" | "screen" | "grid" | "cathode"): string => electrodeNode(e, electrode) ?? "";

/** The nodes that a part in line leads from and to: a divider's top and wiper. */
export function endsOf(e: Element, layout: Layout): [string, string] {
  if (layout.as === "divider") return [e.nodes[layout.top]!, e.nodes[layout.wiper]!];
  if (layout.as === "two") return [e.nodes[layout.ends[0][0]!]!, e.nodes[layout.ends[1][0]!]!];
  throw new Error(`${e.name} has no two ends`);
}

/** The terminals at either end of a part with two, those at a node first. */
export const endsFrom = (plan: Plan, e: Element, first: string): [number[], number[]] => {
  const layout = plan.layouts.get(e)!;
  if (layout.as !== "two") throw new Error(`${e.name} has no two ends`);
  return endsOf(e, layout)[0] === first ? layout.ends : [layout.ends[1], layout.ends[0]];
};

export function planCells(elements: readonly Element[], isMark: (node: string) => boolean): Plan {
  const layouts = new Map(elements.map((e) => [e, layoutOf(e, isMark)]));
  const plan: Plan = { cells: [], home: new Map(), hangs: new Map(), layouts, isMark };
  const lines: Element[] = [];
  const tubes: Element[] = [];
  const boxes: Element[] = [];
  for (const e of elements) {
    const layout = layouts.get(e)!;
    if (layout.as === "tube") tubes.push(e);
    else if (layout.as === "box") boxes.push(e);
    else {
      const [a, b] = endsOf(e, layout);
      if (isMark(a) && isMark(b)) plan.cells.push({ kind: "alone", element: e });
      else if (isMark(a) || isMark(b)) {
        const node = isMark(a) ? b : a;
        plan.hangs.set(node, [...(plan.hangs.get(node) ?? []), e]);
      } else lines.push(e);
    }
  }
  const claimed = new Set<Element>();
  const linesAt = (node: string) => lines.filter((e) => !claimed.has(e) && endsOf(e, layouts.get(e)!).includes(node));
  const other = (e: Element, node: string) => endsOf(e, layouts.get(e)!).find((n) => n !== node)!;
  const two = (e: Element) => layouts.get(e)!.as === "two";
  const settle = (node: string, cell: Cell) => {
    if (!isMark(node) && !plan.home.has(node)) plan.home.set(node, cell);
  };
  const grids = new Set(tubes.map((t) => at(t, "grid")));
  const elsewhere = new Set([
    ...boxes.flatMap((e) => e.nodes),
    ...tubes.flatMap((t) => [at(t, "plate"), at(t, "cathode"), at(t, "screen")]),
  ]);

  // The tubes, two on one tail together.
  const cellOf = new Map<Element, Cell>();
  const plans = new Map<Element, TubePlan>(tubes.map((tube) => [tube, { tube, leaks: [], screenToCathode: [] }]));
  for (const tube of tubes) {
    if (cellOf.has(tube)) continue;
    const mates = tubes.filter((t) => at(t, "cathode") === at(tube, "cathode"));
    const mate = mates.find((t) => t !== tube);
    const pair =
      mate !== undefined &&
      mates.length === 2 &&
      !isMark(at(tube, "cathode")) &&
      new Set([tube, mate].flatMap((t) => [at(t, "plate"), at(t, "grid"), at(t, "cathode")])).size === 5;
    const cell: Cell = pair ? { kind: "pair", upper: plans.get(tube)!, lower: plans.get(mate)! } : { kind: "tube", plan: plans.get(tube)! };
    for (const t of pair ? [tube, mate] : [tube]) cellOf.set(t, cell);
    plan.cells.push(cell);
  }
  for (const electrode of ["plate", "cathode", "screen"] as const)
    for (const tube of tubes) if (at(tube, electrode)) settle(at(tube, electrode), cellOf.get(tube)!);

  // What stands under the cathode and over the plate.
  for (const [tube, tubePlan] of plans) {
    const cell = cellOf.get(tube)!;
    if (cell.kind === "pair" && cell.lower === tubePlan) continue;
    const joint = (
      node: string,
      among: readonly Element[],
      taken: (e: Element) => boolean,
      stands: (to: string) => boolean,
    ): { part: Element; node: string } | undefined => {
      if (isMark(node) || plan.home.get(node) !== cell || (plan.hangs.get(node) ?? []).some(taken)) return undefined;
      for (const part of among) {
        const to = other(part, node);
        if (two(part) && stands(to) && !plan.home.has(to) && !elsewhere.has(to) && !grids.has(to)) return { part, node: to };
      }
      return undefined;
    };
    const own = new Set((cell.kind === "pair" ? [cell.upper, cell.lower] : [tubePlan]).map((p) => at(p.tube, "grid")));
    const fed = (to: string) => (plan.hangs.get(to) ?? []).some((e) => e.letter === "R" || e.letter === "L");
    // A tail that goes on to where the feedback comes in stands on nothing; the grids leak to it all the same.
    const leaksTo = (to: string) => linesAt(to).some((e) => two(e) && e.letter === "R" && own.has(other(e, to)));
    const passes = (node: string) => linesAt(node).filter((e) => e.letter === "R" || e.letter === "L");
    tubePlan.tail = joint(
      at(tube, "cathode"),
      passes(at(tube, "cathode")),
      (e) => e.letter === "R" || cell.kind === "pair",
      (to) => fed(to) || leaksTo(to),
    );
    if (tubePlan.tail) {
      claimed.add(tubePlan.tail.part);
      settle(tubePlan.tail.node, cell);
    }
    if (cell.kind === "pair" || at(tube, "plate") === at(tube, "cathode")) continue;
    tubePlan.load = joint(at(tube, "plate"), passes(at(tube, "plate")), (e) => !e.nodes.includes("0"), fed);
    if (tubePlan.load) {
      claimed.add(tubePlan.load.part);
      settle(tubePlan.load.node, cell);
    }
  }

  for (const [tube, tubePlan] of plans) {
    const cell = cellOf.get(tube)!;
    const grid = at(tube, "grid");
    if (!isMark(grid) && !plan.home.has(grid)) {
      settle(grid, cell);
      const tail = (cell.kind === "pair" ? cell.upper : tubePlan).tail;
      if (tail) {
        tubePlan.leaks = linesAt(grid).filter((e) => two(e) && e.letter === "R" && other(e, grid) === tail.node);
        for (const e of tubePlan.leaks) claimed.add(e);
      }
    }
    const [screen, cathode] = [at(tube, "screen"), at(tube, "cathode")];
    if (cell.kind === "tube" && screen && plan.home.get(screen) === cell && plan.home.get(cathode) === cell && screen !== cathode) {
      tubePlan.screenToCathode = linesAt(screen).filter((e) => two(e) && e.letter === "C" && other(e, screen) === cathode);
      for (const e of tubePlan.screenToCathode) claimed.add(e);
    }
  }
  for (const [tube, tubePlan] of plans) {
    const cell = cellOf.get(tube)!;
    const grid = at(tube, "grid");
    if (plan.home.get(grid) === cell && grid !== at(tube, "plate") && grid !== at(tube, "cathode") && grid !== at(tube, "screen"))
      tubePlan.run = lead(grid, cell, tubePlan.leaks);
    const screen = at(tube, "screen");
    if (!screen || plan.home.get(screen) !== cell || (plan.hangs.get(screen) ?? []).some((e) => e.letter === "R")) continue;
    const [only, ...more] = linesAt(screen);
    if (only && more.length === 0 && two(only) && !usedBy(screen, tube)) {
      claimed.add(only);
      tubePlan.screenRun = only;
    }
  }

  /** Whether another tube or a box has the node. */
  function usedBy(node: string, besides: Element): boolean {
    return [...tubes, ...boxes].some((e) => e !== besides && e.nodes.includes(node));
  }

  /** Whether another cell's part in line ends on the node. */
  function taken(node: string, run: Run, leaks: readonly Element[]): boolean {
    return lines.some((e) => claimed.has(e) && !run.parts.includes(e) && !leaks.includes(e) && endsOf(e, layouts.get(e)!).includes(node));
  }

  /** Parts in line before a grid, as long as each node leads to one part only. */
  function lead(grid: string, cell: Cell, leaks: readonly Element[]): Run {
    const run: Run = { nodes: [grid], parts: [] };
    while (run.parts.length < LONGEST_RUN) {
      const node = run.nodes[0]!;
      const [part, ...more] = linesAt(node);
      if (!part || more.length > 0 || elsewhere.has(node) || taken(node, run, leaks)) break;
      if (run.parts.length > 0 && grids.has(node)) break;
      const to = other(part, node);
      if (run.nodes.includes(to) || plan.home.get(to) === cell) break;
      claimed.add(part);
      run.parts.unshift(part);
      run.nodes.unshift(to);
      if (plan.home.has(to) || elsewhere.has(to) || grids.has(to)) break;
      settle(to, cell);
    }
    return run;
  }

  for (const element of boxes) {
    const cell: Cell = { kind: "box", element };
    plan.cells.push(cell);
    for (const node of element.nodes) settle(node, cell);
  }

  // What is left is drawn in line, each run as far as every node joins two parts and nothing else.
  const joins = (node: string) => !plan.home.has(node) && lines.filter((e) => endsOf(e, layouts.get(e)!).includes(node)).length === 2;
  for (const start of lines) {
    if (claimed.has(start)) continue;
    claimed.add(start);
    const run: Run = { nodes: [...endsOf(start, layouts.get(start)!)], parts: [start] };
    const grow = (node: string): [Element, string] | undefined => {
      const [next] = joins(node) ? linesAt(node) : [];
      if (!next || run.parts.length >= LONGEST_RUN) return undefined;
      const to = other(next, node);
      return run.nodes.includes(to) ? undefined : [next, to];
    };
    for (let more = grow(run.nodes.at(-1)!); more; more = grow(run.nodes.at(-1)!)) {
      claimed.add(more[0]);
      run.parts.push(more[0]);
      run.nodes.push(more[1]);
    }
    for (let more = grow(run.nodes[0]!); more; more = grow(run.nodes[0]!)) {
      claimed.add(more[0]);
      run.parts.unshift(more[0]);
      run.nodes.unshift(more[1]);
    }
    const cell: Cell = { kind: "run", run };
    plan.cells.push(cell);
    for (const node of run.nodes) settle(node, cell);
  }
  for (const node of plan.hangs.keys()) {
    if (plan.home.has(node)) continue;
    const cell: Cell = { kind: "run", run: { nodes: [node], parts: [] } };
    plan.cells.push(cell);
    settle(node, cell);
  }
  return plan;
}
