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
export function endsFrom(plan: Plan, e: Element, first: string): [number[], number[]] {
  const layout = plan.layouts.get(e)!;
  if (layout.as !== "two") throw new Error(`${e.name} has no two ends`);
  return endsOf(e, layout)[0] === first ? layout.ends : [layout.ends[1], layout.ends[0]];
}

/** The cells of a section. @param isMark whether a node is drawn as a mark at each use. */
export function planCells(elements: readonly Element[], isMark: (node: string) => boolean): Plan {
  const planner = new Planner(elements, isMark);
  planner.tubeCells();
  planner.tails();
  planner.grids();
  planner.screens();
  planner.boxCells();
  planner.runs();
  return planner.plan;
}

/** Claims part after part, node after node, in the order in which the trade would: tubes first, what nothing claims last. */
class Planner {
  readonly plan: Plan;
  private readonly lines: Element[] = [];
  private readonly tubes: Element[] = [];
  private readonly boxes: Element[] = [];
  /** Parts in line that a cell has. */
  private readonly claimed = new Set<Element>();
  private readonly cellOf = new Map<Element, Cell>();
  private readonly plans: Map<Element, TubePlan>;
  private readonly gridNodes: Set<string>;
  /** Nodes that are more than a joint of parts in line: of boxes, of electrodes that are no grids. */
  private readonly elsewhere: Set<string>;

  constructor(elements: readonly Element[], isMark: (node: string) => boolean) {
    const layouts = new Map(elements.map((e) => [e, layoutOf(e, isMark)]));
    this.plan = { cells: [], home: new Map(), hangs: new Map(), layouts, isMark };
    for (const e of elements) this.sort(e);
    this.plans = new Map(this.tubes.map((tube) => [tube, { tube, leaks: [], screenToCathode: [] }]));
    this.gridNodes = new Set(this.tubes.map((t) => at(t, "grid")));
    this.elsewhere = new Set([
      ...this.boxes.flatMap((e) => e.nodes),
      ...this.tubes.flatMap((t) => [at(t, "plate"), at(t, "cathode"), at(t, "screen")]),
    ]);
  }

  /** Tubes, boxes, parts in line, parts that hang from a node, parts between two marks. */
  private sort(e: Element): void {
    const { as } = this.plan.layouts.get(e)!;
    if (as === "tube") return void this.tubes.push(e);
    if (as === "box") return void this.boxes.push(e);
    const [a, b] = this.ends(e);
    const { isMark, hangs, cells } = this.plan;
    if (isMark(a) && isMark(b)) cells.push({ kind: "alone", element: e });
    else if (isMark(a) || isMark(b)) {
      const node = isMark(a) ? b : a;
      hangs.set(node, [...(hangs.get(node) ?? []), e]);
    } else this.lines.push(e);
  }

  private ends(e: Element): [string, string] {
    return endsOf(e, this.plan.layouts.get(e)!);
  }
  private other(e: Element, node: string): string {
    return this.ends(e).find((n) => n !== node)!;
  }
  private isTwo(e: Element): boolean {
    return this.plan.layouts.get(e)!.as === "two";
  }
  private hung(node: string): Element[] {
    return this.plan.hangs.get(node) ?? [];
  }
  /** Parts in line at a node that no cell has yet. */
  private linesAt(node: string): Element[] {
    return this.lines.filter((e) => !this.claimed.has(e) && this.ends(e).includes(node));
  }
  private settle(node: string, cell: Cell): void {
    if (!this.plan.isMark(node) && !this.plan.home.has(node)) this.plan.home.set(node, cell);
  }

  /** A cell for each tube, one for two on one cathode; what lies on their plates, cathodes and screens is at home there. */
  tubeCells(): void {
    for (const tube of this.tubes) {
      if (this.cellOf.has(tube)) continue;
      const mates = this.tubes.filter((t) => at(t, "cathode") === at(tube, "cathode"));
      const mate = mates.find((t) => t !== tube);
      const pair =
        mate !== undefined &&
        mates.length === 2 &&
        !this.plan.isMark(at(tube, "cathode")) &&
        new Set([tube, mate].flatMap((t) => [at(t, "plate"), at(t, "grid"), at(t, "cathode")])).size === 5;
      const upper = this.plans.get(tube)!;
      const cell: Cell = pair ? { kind: "pair", upper, lower: this.plans.get(mate)! } : { kind: "tube", plan: upper };
      for (const t of pair ? [tube, mate] : [tube]) this.cellOf.set(t, cell);
      this.plan.cells.push(cell);
    }
    for (const electrode of ["plate", "cathode", "screen"] as const)
      for (const tube of this.tubes) if (at(tube, electrode)) this.settle(at(tube, electrode), this.cellOf.get(tube)!);
  }

  /** What stands under a cathode or over a plate on a joint of its own. */
  tails(): void {
    for (const [tube, tubePlan] of this.plans) {
      const cell = this.cellOf.get(tube)!;
      if (cell.kind === "pair" && cell.lower === tubePlan) continue;
      const own = new Set((cell.kind === "pair" ? [cell.upper, cell.lower] : [tubePlan]).map((p) => at(p.tube, "grid")));
      const fed = (to: string) => this.hung(to).some((e) => e.letter === "R" || e.letter === "L");
      // A tail that goes on to where the feedback comes in stands on nothing; the grids leak to it all the same.
      const leaksTo = (to: string) => this.linesAt(to).some((e) => this.isTwo(e) && e.letter === "R" && own.has(this.other(e, to)));
      const [plate, cathode] = [at(tube, "plate"), at(tube, "cathode")];
      const standing = (e: Element) => e.letter === "R" || cell.kind === "pair";
      if (!this.hung(cathode).some(standing)) tubePlan.tail = this.joint(cathode, cell, (to) => fed(to) || leaksTo(to));
      if (cell.kind === "pair" || plate === cathode) continue;
      if (this.hung(plate).every((e) => e.nodes.includes("0"))) tubePlan.load = this.joint(plate, cell, fed);
    }
  }

  /** The first resistor or choke from a node to a joint that nothing else has, claimed with the joint. */
  private joint(node: string, cell: Cell, stands: (to: string) => boolean): { part: Element; node: string } | undefined {
    if (this.plan.isMark(node) || this.plan.home.get(node) !== cell) return undefined;
    for (const part of this.linesAt(node)) {
      const to = this.other(part, node);
      const free = !this.plan.home.has(to) && !this.elsewhere.has(to) && !this.gridNodes.has(to);
      if (!this.isTwo(part) || !(part.letter === "R" || part.letter === "L") || !free || !stands(to)) continue;
      this.claimed.add(part);
      this.settle(to, cell);
      return { part, node: to };
    }
    return undefined;
  }

  /** The grids, their leaks to the tail, and the parts in line before them. */
  grids(): void {
    const owned = [...this.plans].filter(([tube]) => {
      const grid = at(tube, "grid");
      if (this.plan.isMark(grid) || this.plan.home.has(grid)) return false;
      this.settle(grid, this.cellOf.get(tube)!);
      return true;
    });
    for (const [tube, tubePlan] of owned) {
      const cell = this.cellOf.get(tube)!;
      const tail = (cell.kind === "pair" ? cell.upper : tubePlan).tail;
      if (!tail) continue;
      const grid = at(tube, "grid");
      tubePlan.leaks = this.linesAt(grid).filter((e) => this.isTwo(e) && e.letter === "R" && this.other(e, grid) === tail.node);
      for (const e of tubePlan.leaks) this.claimed.add(e);
    }
    for (const [tube, tubePlan] of owned) tubePlan.run = this.lead(at(tube, "grid"), this.cellOf.get(tube)!, tubePlan.leaks);
  }

  /** Parts in line before a grid, as long as each node leads to one part only. */
  private lead(grid: string, cell: Cell, leaks: readonly Element[]): Run {
    const run: Run = { nodes: [grid], parts: [] };
    const { home } = this.plan;
    while (run.parts.length < LONGEST_RUN) {
      const node = run.nodes[0]!;
      const [part, ...more] = this.linesAt(node);
      // Another cell's part in line that ends here needs a port, and so the beginning of the run.
      const taken = this.lines.some(
        (e) => this.claimed.has(e) && !run.parts.includes(e) && !leaks.includes(e) && this.ends(e).includes(node),
      );
      // Nor where tubes in parallel have one grid line: it begins at a port, so that the others can be wired to it.
      const shared = this.tubes.filter((t) => at(t, "grid") === node).length > 1;
      if (!part || more.length > 0 || this.elsewhere.has(node) || taken || shared) break;
      if (run.parts.length > 0 && this.gridNodes.has(node)) break;
      const to = this.other(part, node);
      if (run.nodes.includes(to) || home.get(to) === cell) break;
      this.claimed.add(part);
      run.parts.unshift(part);
      run.nodes.unshift(to);
      if (home.has(to) || this.elsewhere.has(to) || this.gridNodes.has(to)) break;
      this.settle(to, cell);
    }
    return run;
  }

  /** Capacitors from screen to cathode, and the one part that leads from a screen elsewhere. */
  screens(): void {
    for (const [tube, tubePlan] of this.plans) {
      const cell = this.cellOf.get(tube)!;
      const [screen, cathode] = [at(tube, "screen"), at(tube, "cathode")];
      if (!screen || this.plan.home.get(screen) !== cell) continue;
      if (cell.kind === "tube" && this.plan.home.get(cathode) === cell && screen !== cathode) {
        tubePlan.screenToCathode = this.linesAt(screen).filter(
          (e) => this.isTwo(e) && e.letter === "C" && this.other(e, screen) === cathode,
        );
        for (const e of tubePlan.screenToCathode) this.claimed.add(e);
      }
      if (this.hung(screen).some((e) => e.letter === "R")) continue;
      const [only, ...more] = this.linesAt(screen);
      const shared = [...this.tubes, ...this.boxes].some((e) => e !== tube && e.nodes.includes(screen));
      if (!only || more.length > 0 || !this.isTwo(only) || shared) continue;
      this.claimed.add(only);
      tubePlan.screenRun = only;
    }
  }

  boxCells(): void {
    for (const element of this.boxes) {
      const cell: Cell = { kind: "box", element };
      this.plan.cells.push(cell);
      for (const node of element.nodes) this.settle(node, cell);
    }
  }

  /** What is left is drawn in line, each run as far as every node joins two parts and nothing else. */
  runs(): void {
    for (const start of this.lines) {
      if (this.claimed.has(start)) continue;
      this.claimed.add(start);
      const run: Run = { nodes: [...this.ends(start)], parts: [start] };
      while (this.grown(run, "push")) continue;
      while (this.grown(run, "unshift")) continue;
      this.runCell(run);
    }
    for (const node of this.plan.hangs.keys()) if (!this.plan.home.has(node)) this.runCell({ nodes: [node], parts: [] });
  }

  /** Takes the next part at one end of a run; false where it ends. */
  private grown(run: Run, end: "push" | "unshift"): boolean {
    const node = end === "push" ? run.nodes.at(-1)! : run.nodes[0]!;
    const joins = !this.plan.home.has(node) && this.lines.filter((e) => this.ends(e).includes(node)).length === 2;
    const [next] = joins ? this.linesAt(node) : [];
    if (!next || run.parts.length >= LONGEST_RUN) return false;
    const to = this.other(next, node);
    if (run.nodes.includes(to)) return false;
    this.claimed.add(next);
    run.parts[end](next);
    run.nodes[end](to);
    return true;
  }

  private runCell(run: Run): void {
    const cell: Cell = { kind: "run", run };
    this.plan.cells.push(cell);
    for (const node of run.nodes) this.settle(node, cell);
  }
}
